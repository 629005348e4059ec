"""The way either shoe points."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, turns_on_floor


@gauge("frontal", "sagittal")
def foot_fans(sheet: Sheet) -> Iterator[Gauge]:
    """From heel to toe."""
    for side in ("lead", "trail"):
        shapes = sheet.bones((f"{side}_heel", f"{side}_toe"), f"foot_flare_{side}", turns_on_floor)
        yield Gauge(id=f"{side}_foot_fan", label=f"{side.capitalize()} foot fan", shapes=shapes)
