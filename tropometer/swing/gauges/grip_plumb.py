"""The plumb from the club's butt end at the top."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, point


@gauge("sagittal")
def grip_plumb(sheet: Sheet) -> Iterator[Gauge]:
    """From the butt end to the floor below it."""
    butt, pixels = sheet.place("grip_butt", "top"), sheet.pixels("top", "grip_butt")
    if butt is not None and pixels is not None:
        ends = (point(pixels[0]), sheet.seen(butt * [1, 1, 0]))
        shape = sheet.shape("top", ends, "bones", "grip_plumb")
        yield Gauge(id="grip_plumb", label="Grip plumb", shapes=(shape,))
