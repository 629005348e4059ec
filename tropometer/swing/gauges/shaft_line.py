"""The shaft, from the hands to the club head."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, point
from tropometer.swing.names import PLANE_OF, Checkpoint, Plane

# What it shows at which checkpoint, by the plane that is seen.
SHOWS: dict[Plane, dict[Checkpoint, str]] = {
    "frontal": {"address": "shaft_lean", "impact": "shaft_lean"},
    "sagittal": {"shaft_back": "club_inside", "top": "shaft_across", "arm_down": "shaft_pitch"},
}


@gauge("frontal", "sagittal")
def shaft_line(sheet: Sheet) -> Iterator[Gauge]:
    """It shows the lean square to the target line; along it how far inside, across and steep the club is."""
    shown = SHOWS[PLANE_OF[sheet.clip.view]]
    shapes = tuple(
        sheet.shape(at, (point(grip), point(head)), "bones", shown[at])
        for at, (grip, head) in sheet.each("grip", "club_head")
        if at in shown
    )
    yield Gauge(id="shaft_line", label="Shaft", shapes=shapes)
