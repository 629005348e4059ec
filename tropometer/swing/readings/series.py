"""A reading over time, and the frames that it is on."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.names import VIEWS
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.swing import SwingRecord


@dataclass(frozen=True, kw_only=True, eq=False)
class Series:
    """A reading over time: seconds from impact (n,), values and their 95 % half-widths, NaN for none."""

    reading: str
    frames: Frames
    times_s: Array
    values: Array
    u95: Array


def leading_clip(record: SwingRecord) -> Clip | None:
    """The clip whose frames the curves are on: of the first view that was filmed, face-on before all."""
    return min(record.clips, key=lambda clip: VIEWS.index(clip.view), default=None)


def swing_frames(clip: Clip) -> tuple[Frames, Array]:
    """A clip's frames from address to finish, and their seconds from impact (from the first: no impact)."""
    first = clip.checkpoints.get("address", 0)
    frames = np.arange(first, clip.checkpoints.get("finish", len(clip.frame_times_s) - 1) + 1)
    times = np.array(clip.frame_times_s)[frames]
    return frames, times - times[0] + (clip.time_from_impact_s(first) or 0.0)
