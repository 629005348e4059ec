"""The post mark, and how far the lead hip still has to go to it."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, moves, point
from tropometer.swing.gauges.target import along


@gauge("frontal")
def post_mark(sheet: Sheet) -> Iterator[Gauge]:
    """It stands so far toward the target from the lead hip's edge at address, where lengths are known."""
    edge = sheet.place("lead_hip_edge", "address")
    if edge is None or sheet.eye.scale == "none":
        return
    post = edge + np.array([sheet.scene.record.post_m, 0.0, 0.0])
    spans = []
    for at in sheet.pegged:
        now, pixels = sheet.place("lead_hip_edge", at), sheet.pixels(at, "lead_hip_edge")
        if now is not None and pixels is not None and at != "address":
            ends = (sheet.seen(np.array([post[0], now[1], now[2]])), point(pixels[0]))
            # What is still to go grows away from the target.
            spans.append(sheet.shape(at, ends, "span", "post_gap", moves(along(now, 0, -1.0))))
    yield Gauge(id="post_mark", label="Post mark", lines=(sheet.upright(post, "post"),), shapes=tuple(spans))
