"""Readings over time: on every frame that has their marks."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.names import CHECKPOINTS, View
from tropometer.swing.readings import by_part  # noqa: F401  they register themselves
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.presence import Presence
from tropometer.swing.readings.refusal import usable
from tropometer.swing.readings.register import KINDS
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.scene import Moments, Scene


@dataclass(frozen=True, eq=False)
class Series:
    """A reading over time: seconds from impact (n,), values and their 95 % half-widths, NaN for none."""

    reading: str
    frames: Frames
    times_s: Array
    values: Array
    u95: Array


def series(record: SwingRecord, ids: tuple[str, ...] | None = None) -> list[Series]:
    """Readings on every frame from address to finish that has their marks, where there are two at least."""
    clip = leading_clip(record)
    if clip is None:
        return []
    frames, times = swing_frames(clip)
    scene = Scene(record, moments_of(Scene(record), clip.view, frames))
    kinds = [kind for kind in KINDS.values() if kind.changing and (ids is None or kind.id in ids)]
    looks = [Look(scene) for _ in kinds]
    values = np.empty((len(kinds), len(frames)))
    u95 = np.empty_like(values)
    for i, (kind, look) in enumerate(zip(kinds, looks, strict=True)):
        measured = kind.formula(look)
        values[i], u95[i] = measured.value, measured.u95
    ok = usable(Presence(scene, looks), kinds, looks) & np.isfinite(values) & np.isfinite(u95)
    values, u95 = np.where(ok, values, np.nan), np.where(ok, u95, np.nan)
    return [
        Series(kind.id, frames, times, values[i], u95[i]) for i, kind in enumerate(kinds) if ok[i].sum() > 1
    ]


def leading_clip(record: SwingRecord) -> Clip | None:
    """The clip whose frames the curves are on: the first from face-on, else from down the line."""
    return next((c for view in ("face_on", "down_the_line") for c in record.clips if c.view == view), None)


def swing_frames(clip: Clip) -> tuple[Frames, Array]:
    """A clip's frames from address to finish, and their seconds from impact (from the first: no impact)."""
    first = clip.checkpoints.get("address", 0)
    frames = np.arange(first, clip.checkpoints.get("finish", len(clip.frame_times_s) - 1) + 1)
    times = np.array(clip.frame_times_s)[frames]
    return frames, times - times[0] + (clip.time_from_impact_s(first) or 0.0)


def moments_of(scene: Scene, view: View, frames: Frames) -> Moments:
    """Frames of one view as moments, with the other's frames nearest in time between the same pegs."""
    clip = scene.clips[view]
    pegs = sorted((frame, CHECKPOINTS.index(at)) for at, frame in clip.checkpoints.items())
    through = (
        np.interp(frames, [frame for frame, _ in pegs], [index for _, index in pegs])
        if pegs
        else np.zeros(len(frames))
    )
    by_view = {view: frames.astype(int)}
    for other, there in scene.clips.items():
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
