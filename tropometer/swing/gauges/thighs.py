"""Either thigh, from hip to knee."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("frontal", "sagittal")
def thighs(sheet: Sheet) -> Iterator[Gauge]:
    """It shows which way the knee points."""
    for side in ("lead", "trail"):
        shapes = sheet.bones((f"{side}_hip", f"{side}_knee"), f"knee_points_{side}")
        yield Gauge(id=f"{side}_thigh", label=f"{side.capitalize()} thigh", shapes=shapes)
