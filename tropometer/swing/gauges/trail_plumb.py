"""The plumb over the trail foot's outer edge, and the room between it and the hip."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from tropometer.swing.gauges.gauge import Gauge, GaugeLine
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import LINE_TOP_M, Sheet, moves, point
from tropometer.swing.gauges.target import along

HIP_BEHIND_TOES_M = 0.05  # where no hip is marked at address


@gauge("frontal")
def trail_plumb(sheet: Sheet) -> Iterator[Gauge]:
    """It stands on the mark of the foot at address."""
    foot, clicked = sheet.place("trail_foot_outer", "address"), sheet.pixels("address", "trail_foot_outer")
    if foot is None or clicked is None:
        return
    hip = sheet.place("trail_hip_edge", "address")
    # Hips stand farther from the camera than the toes: the same upright plane meets them elsewhere.
    top = np.array([foot[0], -HIP_BEHIND_TOES_M if hip is None else hip[1], LINE_TOP_M])
    line = GaugeLine(a=point(clicked[0]), b=sheet.seen(top), style="plumb")
    spans = []
    for at in sheet.pegged:
        edge, pixels = sheet.place("trail_hip_edge", at), sheet.pixels(at, "trail_hip_edge")
        if edge is not None and pixels is not None:
            ends = (sheet.seen(np.array([foot[0], edge[1], edge[2]])), point(pixels[0]))
            spans.append(sheet.shape(at, ends, "span", "trail_hip_gap", moves(along(edge, 0))))
    yield Gauge(id="trail_plumb", label="Trail plumb", lines=(line,), shapes=tuple(spans))
