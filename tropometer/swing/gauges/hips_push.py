"""How far the middle of the hips is pushed back, or toward the ball."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet
from tropometer.swing.names import Checkpoint


@gauge("sagittal")
def hips_push(sheet: Sheet) -> Iterator[Gauge]:
    """From where the middle of both hip joints would be had it not moved so since address, to where it is."""
    start = _middle(sheet, "address")
    spans = []
    for at in sheet.pegged:
        now = _middle(sheet, at)
        if start is not None and now is not None and at != "address":
            stayed = np.array([now[0], start[1], now[2]])
            spans.append(sheet.shape(at, (sheet.seen(stayed), sheet.seen(now)), "span", "pelvis_push"))
    yield Gauge(id="hips_push", label="Push of the hips", shapes=tuple(spans))


def _middle(sheet: Sheet, at: Checkpoint) -> Array | None:
    lead, trail = sheet.place("lead_hip", at), sheet.place("trail_hip", at)
    return None if lead is None or trail is None else np.asarray((lead + trail) / 2)
