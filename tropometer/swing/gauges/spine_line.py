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
    shapes = tuple(
        sheet.shape(at, (point((trail + lead) / 2), point(neck)), "bones", SHOWS[PLANE_OF[sheet.clip.view]])
        for at, (trail, lead, neck) in sheet.each("trail_hip", "lead_hip", "neck")
    )
    yield Gauge(id="spine_line", label="Spine line", shapes=shapes)
