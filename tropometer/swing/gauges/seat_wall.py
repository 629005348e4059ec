"""The wall that stands at the seat at address, and how far the seat is off it."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("sagittal")
def seat_wall(sheet: Sheet) -> Iterator[Gauge]:
    """From the wall to the rearmost point of the pelvis."""
    wall = sheet.place("seat", "address")
    lines = () if wall is None else (sheet.upright(wall, "wall"),)
    yield Gauge(
        id="seat_wall", label="Seat wall", lines=lines, shapes=sheet.travel("seat", "pelvis_depth", axis=1)
    )
