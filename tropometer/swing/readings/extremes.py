"""Where a reading is least of all frames before impact."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

import numpy as np

from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.readings.curve_events import least_of
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.reading import Reading
from tropometer.swing.readings.register import kinds_of
from tropometer.swing.readings.series import Series

BEFORE_IMPACT = CHECKPOINTS[: CHECKPOINTS.index("impact")]


def extremes(found: Sequence[Reading], curves: Mapping[str, Series]) -> Iterator[Reading]:
    """Each reading that has a name for it, where it is least: at a checkpoint, or on a frame of its curve."""
    for kind in (kind for kind in kinds_of(FromMarks) if kind.least_at):
        pegged = [each for each in found if each.reading == kind.id and each.at in BEFORE_IMPACT]
        if pegged:
            yield replace(_least(pegged, curves.get(kind.id)), at=kind.least_at)


def _least(pegged: Sequence[Reading], curve: Series | None) -> Reading:
    given = [each for each in pegged if each.value is not None]
    if not given:
        return replace(pegged[0], clips=(), frames=())
    least = min(given, key=lambda each: each.value or 0.0)
    far = None if curve is None else least_of(curve.times_s, curve.values, -np.inf, 0.0)
    if curve is None or far is None or far[1] >= (least.value or 0.0):
        return least
    row, value = far
    return replace(
        least,
        value=value,
        u95=float(curve.u95[row]),
        frames=(int(curve.frames[row]),),
        budget=(),
        largest_source=None,
        provisional=True,  # on a frame that nobody looked at for it
    )
