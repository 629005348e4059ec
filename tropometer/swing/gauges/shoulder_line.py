"""The line through the shoulders."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("frontal")
def shoulder_line(sheet: Sheet) -> Iterator[Gauge]:
    """It shows the slant."""
    shapes = sheet.levels("shoulder", "shoulder_slant")
    yield Gauge(id="shoulder_line", label="Shoulder line", shapes=shapes)
