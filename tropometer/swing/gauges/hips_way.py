"""How far the middle of the hips has gone: sideways, and back or toward the ball."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, moves
from tropometer.swing.gauges.target import along


@gauge("sagittal")
def hips_push(sheet: Sheet) -> Iterator[Gauge]:
    """From where the middle of both hip joints would be had it not moved so since address, to where it is."""
    start = sheet.middle("hip", "address")
    spans = []
    for at in sheet.pegged:
        now = sheet.middle("hip", at)
        if start is not None and now is not None and at != "address":
            stayed = np.array([now[0], start[1], now[2]])
            ends = (sheet.seen(stayed), sheet.seen(now))
            spans.append(sheet.shape(at, ends, "span", "pelvis_push", moves(along(now, 1))))
    yield Gauge(id="hips_push", label="Push of the hips", shapes=tuple(spans))


@gauge("frontal")
def hips_sway(sheet: Sheet) -> Iterator[Gauge]:
    """From where the middle of both hip joints would be had it not gone aside, to where it is."""
    start = sheet.middle("hip", "address")
    spans = []
    for at in sheet.pegged:
        now = sheet.middle("hip", at)
        if start is not None and now is not None and at != "address":
            ends = (sheet.seen(np.array([start[0], now[1], now[2]])), sheet.seen(now))
            spans.append(sheet.shape(at, ends, "span", "pelvis_sway", moves(along(now, 0))))
    yield Gauge(id="hips_sway", label="Sway of the hips", shapes=tuple(spans))
