"""The line from the middle of the hips to the base of the neck."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, point
from tropometer.swing.names import PLANE_OF, Plane

SHOWS: dict[Plane, str] = {"frontal": "spine_side_tilt", "sagittal": "spine_incline"}


@gauge(*SHOWS)
def spine_line(sheet: Sheet) -> Iterator[Gauge]:
    """It shows the lean to the side face-on, the one over the ball down the line."""
    shows = SHOWS[PLANE_OF[sheet.clip.view]]
    shapes = []
    for at, (trail, lead, neck) in sheet.each("trail_hip", "lead_hip", "neck"):
        ends = (point((trail + lead) / 2), point(neck))
        hips, top = sheet.middle("hip", at), sheet.place("neck", at)
        turn = None if hips is None or top is None else sheet.turns(hips, top)
        shapes.append(sheet.shape(at, ends, "bones", shows, turn))
    yield Gauge(id="spine_line", label="Spine line", shapes=tuple(shapes))
