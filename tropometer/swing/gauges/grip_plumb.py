"""The plumb from the club's butt end at the top."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, moves, point
from tropometer.swing.gauges.target import along


@gauge("sagittal")
def grip_plumb(sheet: Sheet) -> Iterator[Gauge]:
    """From the butt end to the floor below it."""
    butt, pixels = sheet.place("grip_butt", "top"), sheet.pixels("top", "grip_butt")
    if butt is not None and pixels is not None:
        ends = (point(pixels[0]), sheet.seen(butt * [1, 1, 0]))
        heel, toe = sheet.place("trail_heel", "top"), sheet.place("trail_toe", "top")
        on_floor = butt * [1, 1, 0]
        foot = None if heel is None or toe is None else float(toe[1] - heel[1])
        reach = moves(along(on_floor, 1, foot)) if foot else None
        shape = sheet.shape("top", ends, "bones", "grip_plumb", reach)
        yield Gauge(id="grip_plumb", label="Grip plumb", shapes=(shape,))
