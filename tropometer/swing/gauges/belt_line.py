"""The line through the hips."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("frontal")
def belt_line(sheet: Sheet) -> Iterator[Gauge]:
    """It shows the slant."""
    yield Gauge(id="belt_line", label="Belt line", shapes=sheet.levels("hip", "pelvis_slant"))
