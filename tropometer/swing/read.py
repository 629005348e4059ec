"""All readings of a swing record: at its checkpoints, or over time."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from tropometer.swing import readings  # noqa: F401  they register themselves
from tropometer.swing.measured import NORMAL_95, Array, Measured
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View, spoken
from tropometer.swing.reading import KINDS, Group, Kind, Look, Need, Reading, Refused, Share
from tropometer.swing.record import SwingRecord
from tropometer.swing.scene.scene import Frames, Moments, Scene
from tropometer.swing.timed import TIMED, timed_readings

# What each kind of source is called in a budget.
BUDGET = {
    "mark": "marks",
    "camera": "camera",
    "depth": "depth",
    "stand": "where the player stands",
    "moment": "time between frames",
}


def read(record: SwingRecord, scene: Scene | None = None) -> list[Reading]:
    """Every registered reading at every checkpoint it is defined for, given or refused, and those of times.

    Checkpoints are those pegged in any clip, with address, top and impact always. A `scene` of the record's
    checkpoints that is there already need not be made again.
    """
    pegged = {name for clip in record.clips for name in clip.checkpoints} | {"address", "top", "impact"}
    wanted = tuple(name for name in CHECKPOINTS if name in pegged)
    scene = scene or Scene(record)
    found = [
        each
        for kind in KINDS.values()
        for each in _at_checkpoints(scene, kind, [name for name in kind.at if name in wanted])
    ]
    return found + timed_readings(record, found)


def read_whole(record: SwingRecord) -> tuple[list[Reading], list[Series]]:
    """Readings and series of a record; events that nobody pegged are read from the series."""
    curves = series(record)
    marked = [each for each in read(record) if each.reading not in TIMED]
    return marked + timed_readings(record, marked, {curve.reading: curve for curve in curves}), curves


def sign_of(reading: str) -> str:
    """What a reading's sign means, in words."""
    return KINDS[reading].sign if reading in KINDS else TIMED[reading].sign


def group_of(reading: str) -> Group:
    """Where in the body a reading belongs, from the floor up."""
    return KINDS[reading].group if reading in KINDS else TIMED[reading].group


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
    scene = Scene(record)
    view = next((v for v in ("face_on", "down_the_line") if v in scene.clips), None)
    if view is None:
        return []
    clip = scene.clips[view]
    first = clip.checkpoints.get("address", 0)
    frames = np.arange(first, clip.checkpoints.get("finish", len(clip.frame_times_s) - 1) + 1)
    scene = Scene(record, moments_of(scene, view, frames))
    impact = clip.checkpoints.get("impact", first)
    struck = clip.frame_times_s[impact]
    if clip.impact_between:
        struck = (struck + clip.frame_times_s[impact + 1]) / 2
    times = np.array(clip.frame_times_s)[frames] - struck
    found = []
    for kind in KINDS.values():
        if not kind.changing or (ids is not None and kind.id not in ids):
            continue
        look = Look(scene)
        measured = _spread_out(kind.formula(look), len(frames))
        ok = _usable(scene, kind, look, len(frames)) & np.isfinite(measured.value) & np.isfinite(measured.sd)
        if ok.sum() > 1:
            values, u95 = np.where(ok, measured.value, np.nan), np.where(ok, measured.u95, np.nan)
            found.append(Series(kind.id, frames, times, values, u95))
    return found


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


def _usable(scene: Scene, kind: Kind, look: Look, count: int) -> Array:
    """At which moments one set of views has all marks, and nothing was refused."""
    ok = np.zeros(count, bool)
    for views in kind.seen:
        if any(view not in scene.eyes or not _scaled(scene, kind, view) for view in views):
            continue
        having = np.ones(count, bool)
        for name, checkpoint in look.used:
            for view in views:
                has = scene.has(view, name)
                having &= has[scene.here] if checkpoint is None else bool(has[scene.column(checkpoint)])
        ok |= having
    for flags, _ in look.refused:
        ok &= ~np.broadcast_to(flags, ok.shape)
    return ok


def _scaled(scene: Scene, kind: Kind, view: View) -> bool:
    scale = scene.eyes[view].scale
    return kind.scale == "none" or scale == "mat" or (kind.scale == "length" and scale == "length")


def _at_checkpoints(scene: Scene, kind: Kind, names: list[Checkpoint]) -> Iterator[Reading]:
    look = Look(scene)
    values, errors = _errors(kind.formula(look), len(CHECKPOINTS))
    usable = _usable(scene, kind, look, len(CHECKPOINTS))
    for at in names:
        column = CHECKPOINTS.index(at)
        clips, frames = _from(scene, look, at)
        try:
            if not usable[column]:
                _check(scene, kind, look, at)
            value, u95 = float(values[column]), NORMAL_95 * math.sqrt(errors.squares[:, column].sum())
            if not math.isfinite(value) or not math.isfinite(u95):
                raise Refused(
                    "A mark lies where the camera sees no floor: check it and the mat.", Need("mat")
                )
        except Refused as refusal:
            yield Reading(
                kind.id,
                at,
                kind.unit,
                "refused",
                kind.method,
                reason=refusal.reason,
                needs=refusal.needs,
                clips=clips,
                frames=frames,
            )
            continue
        yield Reading(
            kind.id,
            at,
            kind.unit,
            "ok",
            kind.method,
            value=value,
            u95=u95,
            largest_error=errors.largest(column),
            budget=errors.budget(column),
            clips=clips,
            frames=frames,
        )


def _from(scene: Scene, look: Look, at: Checkpoint) -> tuple[tuple[str, ...], tuple[int, ...]]:
    """The clips and frames a reading comes from: first its own moment's."""
    moments = dict.fromkeys([at, *(checkpoint or at for _, checkpoint in look.used)])
    clips: list[str] = []
    frames: list[int] = []
    for view, clip in scene.clips.items():
        used = [
            frame
            for moment in moments
            if (frame := scene.frame(view, scene.column(moment))) >= 0
            and any(
                (checkpoint or at) == moment and bool(scene.has(view, name)[scene.column(moment)])
                for name, checkpoint in look.used
            )
        ]
        if used:
            clips.append(clip.id)
            frames += used if not frames else []
    return tuple(clips), tuple(frames)


def _check(scene: Scene, kind: Kind, look: Look, at: Checkpoint) -> None:
    """Refused with all that is missing, by the set of views that misses least."""
    tries = [_missing(scene, kind, look, at, views) for views in kind.seen]
    missing = min(tries, key=lambda each: (any(n.kind == "view" for m in each for n in m.needs), len(each)))
    if missing:
        first, *others = missing
        raise Refused(
            first.reason + (f" ({len(others)} more to do)" if others else ""),
            *(need for each in missing for need in each.needs),
        )
    column = CHECKPOINTS.index(at)
    for flags, reason in look.refused:
        if np.broadcast_to(flags, len(CHECKPOINTS))[column]:
            raise Refused(reason)


def _missing(scene: Scene, kind: Kind, look: Look, at: Checkpoint, views: tuple[View, ...]) -> list[Refused]:
    found: list[Refused] = []

    def miss(reason: str, *needs: Need) -> None:
        if all(each.reason != reason for each in found):
            found.append(Refused(reason, *needs))

    for view in views:
        side = spoken(view).replace("face on", "face-on")
        several = len(scene.clips) > 1
        clip = scene.clips.get(view)
        if clip is None:
            miss(f"Needs a {side.replace(' ', '-')} clip.", Need("view", view, view=view))
            continue
        if view in scene.troubles:
            miss(scene.troubles[view], Need("mat", view=view))
        elif not _scaled(scene, kind, view):
            if kind.scale == "mat":
                miss("Set the corners of the mat: this is measured on the floor.", Need("mat", view=view))
            else:
                words = "Set a known length in the picture, or the corners of the mat."
                miss(words, Need("known_length", view=view))
        for name, checkpoint in look.used:
            moment = checkpoint or at
            frame = clip.checkpoints.get(moment)
            where = f", {side}" if several else ""
            if frame is None:
                miss(f"Set the {spoken(moment)} peg{where}.", Need("peg", moment, moment, view))
            elif frame in clip.hidden.get(name, ()):
                miss(f"The {spoken(name)} was hidden at {spoken(moment)} (frame {frame}{where}).")
            elif frame not in clip.marks.get(name, {}):
                words = f"Mark the {spoken(name)} at {spoken(moment)} (frame {frame}{where})."
                miss(words, Need("mark", name, moment, view))
    return found


class _Errors:
    """Variance by source and moment."""

    def __init__(self, sources: list[str], squares: Array) -> None:
        self.sources = sources
        self.squares = squares

    def largest(self, column: int) -> str:
        """The source that brings most of one moment's variance, in words."""
        if not self.squares[:, column].any():
            return ""
        kind, _, what = self.sources[int(self.squares[:, column].argmax())].partition(": ")
        return what if kind == "mark" else f"{BUDGET[kind]}, {what}"

    def budget(self, column: int) -> tuple[Share, ...]:
        """Shares of one moment's variance by kind of source, the largest first."""
        kinds: dict[str, float] = {}
        for source, square in zip(self.sources, self.squares[:, column].tolist(), strict=True):
            kind = BUDGET[source.partition(":")[0]]
            kinds[kind] = kinds.get(kind, 0.0) + square
        whole = sum(kinds.values()) or 1.0
        falling = sorted(kinds.items(), key=lambda item: -item[1])
        return tuple(Share(kind, square / whole) for kind, square in falling if square > 1e-3 * whole)


def _errors(measured: Measured, count: int) -> tuple[Array, _Errors]:
    """Values (n,), and their variance by source."""
    squares = [np.broadcast_to(np.einsum("...q,...q", part, part), count) for part in measured.parts.values()]
    rows = np.array(squares).reshape(len(squares), count)
    return np.broadcast_to(measured.value, count), _Errors(list(measured.parts), rows)


def _spread_out(measured: Measured, count: int) -> Measured:
    """One value as a row of the same."""
    if measured.value.ndim:
        return measured
    parts = {k: np.broadcast_to(part, (count, part.shape[-1])) for k, part in measured.parts.items()}
    return Measured(np.broadcast_to(measured.value, count), parts)
