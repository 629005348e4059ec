"""The lead leg as a post."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, point

LEG = ("lead_hip", "lead_knee", "lead_ankle")


@gauge("frontal")
def lead_leg(sheet: Sheet) -> Iterator[Gauge]:
    """It shows the lean."""
    shapes = []
    for at, (hip, knee, ankle) in sheet.each(*LEG):
        foot, top = sheet.place("lead_ankle", at), sheet.place("lead_hip", at)
        turn = None if foot is None or top is None else sheet.turns(foot, top)
        shapes.append(
            sheet.shape(at, (point(hip), point(knee), point(ankle)), "bones", "lead_leg_lean", turn)
        )
    yield Gauge(id="lead_leg", label="Lead leg", shapes=tuple(shapes))
