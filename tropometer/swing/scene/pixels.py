"""A clip's marks as rows of pixels, as if its camera had stood still."""

from __future__ import annotations

from collections.abc import Collection, Sequence

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.record.clip import Clip

UNMARKED = (np.nan, np.nan, np.nan, np.nan)


def marks_on(clip: Clip, names: Collection[str], frames: Sequence[int]) -> Array:
    """x, y, standard deviation and the shared part of it (4, names, frames); NaN for none.

    They lie as if the camera had stood still.
    """
    figures: list[float] = []
    for name in names:
        there = clip.marks.get(name, {})
        for frame in frames:
            mark = there.get(frame)
            figures += (mark.x, mark.y, mark.sd_px, mark.shared_px) if mark else UNMARKED
    found = np.ascontiguousarray(np.array(figures).reshape(len(names), len(frames), 4).transpose(2, 0, 1))
    if clip.camera_motion is not None:
        row, at = np.nonzero(np.isfinite(found[0]))
        still, sd_px = clip.camera_motion.still(np.array(frames, int)[at], found[:2, row, at].T)
        found[:2, row, at] = still.T
        found[2, row, at] = np.hypot(found[2, row, at], sd_px)
    return found
