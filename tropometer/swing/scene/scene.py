"""All marks of a swing in the player's axes: at the checkpoints, and at other moments that are asked for."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.measured import Array, Flags, Measured, combined, degrees_of, hypot
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View, spoken
from tropometer.swing.record import Clip, SwingRecord
from tropometer.swing.scene.eye import FEET, SOLE_SD_M, Eye, eye_of
from tropometer.swing.scene.fuse import Fused, Seen, fuse
from tropometer.swing.usual import SPEED_SPREAD, STATURE_M, kept_as, share_kept, spread_m, usual

Frames = npt.NDArray[np.int64]
UNKNOWN_M = 3.0  # a standard deviation that says nothing
STANDING_U_M = 0.02  # a lead sole after address, while nobody says that it rises
# Checkpoints at which a foot still stands where it stood, so that its sole's height is known.
STANDS: dict[str, tuple[Checkpoint, ...]] = {
    "lead_toe": ("address", "shaft_back", "arm_back", "top", "arm_down", "shaft_down", "impact"),
    "trail_toe": CHECKPOINTS,
    "lead_foot_inner": ("address", "shaft_back", "arm_down", "shaft_down", "impact"),
    "trail_foot_inner": ("address", "shaft_back", "arm_back", "top"),
    "lead_foot_outer": ("address", "shaft_back", "arm_down", "shaft_down", "impact"),
    "trail_foot_outer": ("address", "shaft_back", "arm_back", "top"),
    "lead_heel": ("address", "shaft_down", "impact"),
    "trail_heel": ("address", "shaft_back", "arm_back", "top"),
}


class Place(NamedTuple):
    """Where something is: along T, B and U, metres."""

    t: Measured
    b: Measured
    u: Measured

    def minus(self, other: Place) -> Place:
        """From another place to this one."""
        return Place(self.t - other.t, self.b - other.b, self.u - other.u)


def middle(a: Place, b: Place) -> Place:
    """Half-way between two places."""
    return Place((a.t + b.t) * 0.5, (a.b + b.b) * 0.5, (a.u + b.u) * 0.5)


def angle_between(a: Place, b: Place) -> Measured:
    """Angle between two directions, degrees, 0 to 180: of what they do not share, against what they do."""
    across = hypot(a.b * b.u - a.u * b.b, a.u * b.t - a.t * b.u, a.t * b.b - a.b * b.t)
    return degrees_of(across, a.t * b.t + a.b * b.b + a.u * b.u)


def length_of(way: Place, source: str) -> Measured:
    """How long a way is.

    What is unsure across it lengthens it by σ²/2L on average and σ²/√2L in spread: the second-order term of
    the law of propagation (JCGM 100:2008, 5.1.2, note), which matters where a depth is only what is usual.
    """
    first = hypot(*way)
    across = np.maximum(sum(each.variance for each in way) - first.variance, 0.0)
    with np.errstate(divide="ignore", invalid="ignore"):
        second = across / first.value
        return first + Measured.of(second / 2, second / np.sqrt(2), source)


@dataclass(frozen=True, eq=False)
class Moments:
    """Moments to measure at: each view's frame (n,), −1 for none; how far each is through the checkpoints."""

    frames: dict[View, Frames]
    through: Array

    @property
    def count(self) -> int:
        """How many there are."""
        return len(self.through)


class Scene:
    """The swing's marks as places, at the nine checkpoints and at other moments.

    Columns are the moments asked for, then the checkpoints.
    """

    def __init__(self, record: SwingRecord, others: Moments | None = None) -> None:
        self.record = record
        self.tall = record.stature_m or STATURE_M
        self._cuts: dict[tuple[str, int | None], Place] = {}
        self._had: dict[tuple[View, str], Flags] = {}
        self.clips: dict[View, Clip] = {}
        for clip in record.clips:
            self.clips.setdefault(clip.view, clip)
        self.eyes: dict[View, Eye] = {}
        self.troubles: dict[View, str] = {}
        for view, clip in self.clips.items():
            try:
                self.eyes[view] = eye_of(clip, record.hand, record.stature_m)
            except Unsolved as trouble:
                self.troubles[view] = str(trouble)
        self.asked = others.count if others else 0
        pegs = {
            view: np.array([clip.checkpoints.get(at, -1) for at in CHECKPOINTS])
            for view, clip in self.clips.items()
        }
        through = np.arange(len(CHECKPOINTS), dtype=float)
        self.frames = pegs
        self.through = through
        if others is not None:
            self.through = np.concatenate([others.through, through])
            nowhere = np.full(others.count, -1)
            self.frames = {
                view: np.concatenate([others.frames.get(view, nowhere), at]) for view, at in pegs.items()
            }

    @property
    def here(self) -> slice:
        """The columns that readings are of."""
        return slice(0, self.asked or len(CHECKPOINTS))

    def column(self, at: Checkpoint) -> int:
        """The column of a checkpoint."""
        return self.asked + CHECKPOINTS.index(at)

    def frame(self, view: View, column: int) -> int:
        """A view's frame in a column; −1 where it has none."""
        return int(self.frames[view][column]) if view in self.frames else -1

    def has(self, view: View, name: str) -> Flags:
        """In which columns a view has a mark."""
        if (view, name) not in self._had:
            row, seen = self._names.get(name), self._pixels.get(view)
            none = np.zeros(len(self.through), bool)
            self._had[view, name] = (
                none if row is None or seen is None else np.asarray(np.isfinite(seen[row, :, 0]))
            )
        return self._had[view, name]

    def place(self, name: str) -> Place:
        """A mark at every moment asked for; NaN where no view has it."""
        if (name, None) not in self._cuts:
            self._cuts[name, None] = self._cut(name, self.here, "")
        return self._cuts[name, None]

    def at(self, name: str, checkpoint: Checkpoint) -> Place:
        """A mark at one checkpoint."""
        column = self.column(checkpoint)
        if (name, column) not in self._cuts:
            self._cuts[name, column] = self._cut(name, column, f" at {spoken(checkpoint)}")
        return self._cuts[name, column]

    def moved(self, name: str) -> Place:
        """How far a mark has gone since address; nothing at address itself, where both are the same mark."""
        away = self.place(name).minus(self.at(name, "address"))
        still = self.same_as("address")
        return Place(*(_zeroed(each, still) for each in away))

    def same_as(self, checkpoint: Checkpoint) -> Flags:
        """Which of the moments are the very frames of a checkpoint."""
        column = self.column(checkpoint)
        same = np.zeros(self.asked or len(CHECKPOINTS), bool)
        for frames in self.frames.values():
            if frames[column] >= 0:
                same |= frames[self.here] == frames[column]
        return same

    @cached_property
    def _names(self) -> dict[str, int]:
        names = dict.fromkeys(name for view in self.eyes for name in self.clips[view].marks)
        return {name: row for row, name in enumerate(names)}

    @cached_property
    def _pixels(self) -> dict[View, Array]:
        """Each view's x, y and standard deviation (marks, columns, 3), in a right-hander's picture."""
        found: dict[View, Array] = {}
        for view, eye in self.eyes.items():
            clip = self.clips[view]
            rows = np.full((len(self._names), len(self.through), 3), np.nan)
            columns: dict[int, list[int]] = {}
            for column, frame in enumerate(self.frames[view].tolist()):
                columns.setdefault(frame, []).append(column)
            for name, by_frame in clip.marks.items():
                for frame in columns.keys() & by_frame.keys():
                    mark = clip.still_mark(name, frame)
                    if mark is not None:
                        rows[self._names[name], columns[frame]] = mark.x, mark.y, mark.sd_px
            rows[..., :2] = eye.upright(rows[..., :2])
            found[view] = rows
        return found

    @cached_property
    def _fused(self) -> Fused:
        """All places in one go, row by row of marks by columns."""
        width = len(self.through)
        means, speeds, spreads = [], [], []
        for name in self._names:
            mean, speed = usual(name, self.through, self.tall)
            means.append(mean)
            speeds.append(speed * SPEED_SPREAD)
            spreads.append(self._spread(name))
        views = [
            Seen(
                eye,
                self._pixels[view][..., :2].reshape(-1, 2),
                np.nan_to_num(self._pixels[view][..., 2].reshape(-1), nan=1.0),
                np.tile(self._moment_s(view), len(self._names)),
            )
            for view, eye in self.eyes.items()
        ]
        shape = (len(self._names) * width, 3)
        return fuse(views, *(np.array(each).reshape(shape) for each in (means, spreads, speeds)))

    def _spread(self, name: str) -> Array:
        """How unsure the usual place of a mark is (columns, 3): only where no view tells does it count."""
        spread = np.full((len(self.through), 3), UNKNOWN_M)
        if not self.has("down_the_line", name).all():
            alone = ~self.has("down_the_line", name)
            spread[alone, 1] = spread_m(name, 1, self.tall)
        alone = ~self.has("face_on", name)
        spread[alone, 0] = spread_m(name, 0, self.tall)
        if name in FEET:
            for at in STANDS[name]:
                stands = np.abs(self.through - CHECKPOINTS.index(at)) < 0.5
                spread[stands, 2] = SOLE_SD_M if at == "address" else STANDING_U_M
        return spread

    def _moment_s(self, view: View) -> Array:
        """How far each column's frame is from its moment: any time within half a frame is as likely."""
        times = self.clips[view].frame_times_s
        step = float(np.median(np.diff(times))) if len(times) > 1 else 0.0
        of = np.full(len(self.through), step / np.sqrt(12))
        if self.asked and view == self._leading:
            of[: self.asked] = 0.0  # its own frames are the moments
        return of

    @property
    def _leading(self) -> View:
        return "face_on" if "face_on" in self.clips else "down_the_line"

    def _cut(self, name: str, columns: slice | int, words: str) -> Place:
        row = self._names.get(name)
        if row is None:
            shape = np.zeros(len(self.through))[columns].shape
            return Place(*(Measured(np.full(shape, np.nan)) for _ in range(3)))
        width = len(self.through)
        fused = self._fused

        def cut(all_rows: Array) -> Array:
            return np.asarray(all_rows[row * width : (row + 1) * width][columns])

        seen = np.zeros(width, bool)
        for view in self.eyes:
            seen |= self.has(view, name)
        places = np.where(seen[columns][..., None], cut(fused.places), np.nan)
        # Part of what is unusual about a place is the player's build or stance, the same at all moments.
        depth = cut(fused.depth)
        kept = np.array([share_kept(name, 0), share_kept(name, 1), 0.0])
        parts: dict[str, Array] = {f"depth: {spoken(name)}{words or ' then'}": depth * np.sqrt(1 - kept)}
        for axis in (0, 1):
            source = f"depth: {kept_as(name, axis)} {'TB'[axis]}"
            parts[source] = depth[..., axis : axis + 1] * np.sqrt(kept[axis])
        for i, view in enumerate(self.eyes):
            side = spoken(view).replace("face on", "face-on")
            parts[f"mark: {spoken(name)}{words}, {side}"] = cut(fused.clicks[i])
            parts[f"camera: {side}"] = cut(fused.cameras[i])
            parts[f"stand: {side}"] = cut(fused.stands[i])
            parts[f"moment: {side}{words}"] = cut(fused.moments[i])
        return Place(
            *(
                Measured(places[..., axis], {k: part[..., axis, :] for k, part in parts.items()})
                for axis in range(3)
            )
        )


def _zeroed(value: Measured, flags: Flags) -> Measured:
    kept = np.where(flags, 0.0, 1.0)
    return combined(np.where(flags, 0.0, value.value), (value, kept))
