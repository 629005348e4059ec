"""The bend of either knee."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("sagittal")
def knee_hinges(sheet: Sheet) -> Iterator[Gauge]:
    """From hip to knee to ankle."""
    for side in ("lead", "trail"):
        leg = (f"{side}_hip", f"{side}_knee", f"{side}_ankle")
        shapes = sheet.bones(leg, f"knee_flex_{side}", sheet.bends)
        yield Gauge(id=f"{side}_knee_hinge", label=f"{side.capitalize()} knee hinge", shapes=shapes)
