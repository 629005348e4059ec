"""The trail arm."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet

ARM = ("trail_shoulder", "trail_elbow", "trail_wrist")


@gauge("frontal", "sagittal")
def trail_arm(sheet: Sheet) -> Iterator[Gauge]:
    """It shows how far the elbow bends."""
    yield Gauge(id="trail_arm", label="Trail arm", shapes=sheet.bones(ARM, "trail_elbow_flex", sheet.bends))
