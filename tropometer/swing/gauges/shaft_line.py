"""The shaft, from the hands to the club head."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet
from tropometer.swing.names import PLANE_OF, Plane

SHOWS: dict[Plane, str] = {"frontal": "shaft_lean", "sagittal": "shaft_pitch"}


@gauge(*SHOWS)
def shaft_line(sheet: Sheet) -> Iterator[Gauge]:
    """It shows the lean square to the target line, the pitch along it."""
    shapes = sheet.bones(("grip", "club_head"), SHOWS[PLANE_OF[sheet.clip.view]])
    yield Gauge(id="shaft_line", label="Shaft", shapes=shapes)
