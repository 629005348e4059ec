"""The readings of marks over time: on every frame that has their marks."""

from __future__ import annotations

from collections.abc import Collection

import numpy as np

from tropometer.swing.readings.at_checkpoints import Measurements
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.missing import usable
from tropometer.swing.readings.presence import Presence
from tropometer.swing.readings.register import kinds_of
from tropometer.swing.readings.series import Series, leading_clip, swing_frames
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.moments import moments_of
from tropometer.swing.scene.placed import Placed
from tropometer.swing.scene.scene import Scene


def placed_on_frames(record: SwingRecord) -> Placed:
    """The marks of a swing at its checkpoints and on every frame of the leading clip."""
    clip = leading_clip(record)
    if clip is None:
        return Placed(record)
    first = {each.view: each for each in reversed(record.clips)}
    return Placed(record, moments_of(first, clip.view, swing_frames(clip)[0]))


def curves_of_marks(placed: Placed, ids: Collection[str] | None = None) -> list[Series]:
    """Readings on every frame from address to finish that has their marks, where there are two at least.

    What was placed are the frames of the leading clip; of all changing readings, or of those with these ids.
    """
    clip = leading_clip(placed.record)
    if clip is None:
        return []
    frames, times_s = swing_frames(clip)
    scene = Scene.between_checkpoints(placed)
    kinds = [kind for kind in kinds_of(FromMarks) if kind.changing and (ids is None or kind.id in ids)]
    made = Measurements.of(scene, kinds)
    values, u95 = np.empty((len(kinds), len(frames))), np.empty((len(kinds), len(frames)))
    for i, measured in enumerate(made.values):
        values[i], u95[i] = measured.value, measured.u95
    ok = usable(Presence(scene, made.looks), kinds, made.looks) & np.isfinite(values) & np.isfinite(u95)
    values, u95 = np.where(ok, values, np.nan), np.where(ok, u95, np.nan)
    return [
        Series(reading=kind.id, frames=frames, times_s=times_s, values=values[i], u95=u95[i])
        for i, kind in enumerate(kinds)
        if ok[i].sum() > 1
    ]
