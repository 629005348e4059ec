"""The trail leg from hip to ankle."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet

LEG = ("trail_hip", "trail_knee", "trail_ankle")


@gauge("frontal")
def trail_leg(sheet: Sheet) -> Iterator[Gauge]:
    """It shows how far the knee stands inside the line from ankle to hip."""
    yield Gauge(id="trail_leg", label="Trail leg", shapes=sheet.bones(LEG, "trail_knee_inside"))
