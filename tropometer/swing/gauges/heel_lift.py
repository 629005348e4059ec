"""How high either heel is."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("frontal", "sagittal")
def heel_lifts(sheet: Sheet) -> Iterator[Gauge]:
    """From where the heel stood at address, straight up."""
    for side in ("lead", "trail"):
        shapes = sheet.travel(f"{side}_heel", f"heel_lift_{side}", axis=2)
        yield Gauge(id=f"{side}_heel_lift", label=f"{side.capitalize()} heel lift", shapes=shapes)
