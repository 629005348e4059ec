"""Marks on neighbouring frames: one that leaves the way of those before and after it is doubted."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.doubts.doubt import Doubt
from tropometer.swing.record.clip import Clip
from tropometer.swing.scene.pixels import marks_on

# A cubic through the two marks before and the two after, spaced alike, passes here in the middle.
CUBIC = np.array([-1.0, 4.0, 0.0, 4.0, -1.0]) / 6
NEAR_S = 0.05  # two frames from each other within this are neighbours
LEAST = 6.0  # standard deviations
BENDS = 0.25  # of the way between its neighbours, by which a mark may leave the cubic
MAD_TO_SD = 1.4826


def jumps(clip: Clip) -> Iterator[Doubt]:
    """Doubts of the marks of runs of frames; a mark on frames that stand alone has no neighbours."""
    times = np.array(clip.frame_times_s)
    for name, by_frame in clip.marks.items():
        frames = np.array(sorted(by_frame))
        if len(frames) < len(CUBIC):
            continue
        x, y, sd_px, _ = marks_on(clip, (name,), frames.tolist())[:, 0]
        path = np.stack([x, y], axis=1)
        runs = np.lib.stride_tricks.sliding_window_view(frames, len(CUBIC))
        steps = np.diff(times[runs], axis=1)
        even = np.ptp(np.diff(runs, axis=1), axis=1) == 0
        known = even & (steps.sum(axis=1) <= 2 * NEAR_S)
        windows = np.lib.stride_tricks.sliding_window_view(path, len(CUBIC), axis=0)
        left = path[2:-2] - windows @ CUBIC
        way = np.linalg.norm(windows[..., 3] - windows[..., 1], axis=1)
        far = np.linalg.norm(left, axis=1)
        sd = np.hypot(_clicks(sd_px), BENDS * way)
        if known.sum() >= len(CUBIC):
            sd = np.maximum(sd, MAD_TO_SD * float(np.median(far[known])))
        for i in np.flatnonzero(known & (far > LEAST * sd)):
            why = f"{far[i]:.0f} px off the way of the frames before and after it"
            yield Doubt(
                clip=clip.id, name=name, frame=int(frames[i + 2]), why=why, sigmas=float(far[i] / sd[i])
            )


def _clicks(sd_px: Array) -> Array:
    """One standard deviation of how far a click lies from the cubic through its neighbours, pixels."""
    square = np.lib.stride_tricks.sliding_window_view(np.square(sd_px), len(CUBIC))
    weights = np.square(CUBIC)
    weights[2] = 1.0
    return np.asarray(np.sqrt(square @ weights))
