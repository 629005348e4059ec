"""Moments of a swing beside its checkpoints, and the frames that show them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.names import CHECKPOINTS, View
from tropometer.swing.record.clip import Clip


@dataclass(frozen=True, eq=False)
class Moments:
    """Moments to measure at: each view's frame (n,), −1 for none; how far each is through the checkpoints."""

    frames: dict[View, Frames]
    through: Array

    @property
    def count(self) -> int:
        """How many there are."""
        return len(self.through)


def moments_of(clips: Mapping[View, Clip], view: View, frames: Frames) -> Moments:
    """Frames of one view as moments, with the other's frames nearest in time between the same pegs."""
    clip = clips[view]
    pegs = sorted((frame, CHECKPOINTS.index(at)) for at, frame in clip.checkpoints.items())
    through = (
        np.interp(frames, [frame for frame, _ in pegs], [index for _, index in pegs])
        if pegs
        else np.zeros(len(frames))
    )
    by_view = {view: frames.astype(int)}
    for other, there in clips.items():
        shared = sorted(
            (clip.frame_times_s[frame], there.frame_times_s[there.checkpoints[at]])
            for at, frame in clip.checkpoints.items()
            if at in there.checkpoints
        )
        if other == view or len(shared) < 2:
            continue
        own = np.array(clip.frame_times_s)[frames.astype(int)]
        here_s, there_s = (np.array(column) for column in zip(*shared, strict=True))
        wished = np.interp(own, here_s, there_s)
        times = np.array(there.frame_times_s)
        after = np.clip(np.searchsorted(times, wished), 1, len(times) - 1)
        nearest = np.where(wished - times[after - 1] < times[after] - wished, after - 1, after)
        outside = (own < shared[0][0]) | (own > shared[-1][0])
        by_view[other] = np.where(outside, -1, nearest)
    return Moments(by_view, through)
