"""All marks of a swing in the player's axes: at the checkpoints, and at other moments that are asked for."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import NamedTuple

import numpy as np

from tropometer.swing.arrays import Array, Flags, Frames
from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.measured import Measured, combined, hypot
from tropometer.swing.names import CHECKPOINTS, PROPOSED, UNSEEN, Checkpoint, View, spoken
from tropometer.swing.origins import Origin, Sources, sources, variances
from tropometer.swing.record import Clip, SwingRecord
from tropometer.swing.scene.eye import FEET, SOLE_SD_M, Eye, eye_of
from tropometer.swing.scene.fuse import DEPTH, OF_A_VIEW, Fused, Seen, fuse
from tropometer.swing.usual import SPEED_SPREAD, STATURE_M, kept_as, shares_kept, spreads_m, usual

WAYS = np.eye(3)[..., None]
SEEN_ALONG: tuple[View, View] = ("face_on", "down_the_line")  # which view shows T, and which B
UNMARKED = (np.nan, np.nan, np.nan)
FOLDED = 1 / (1 - 2 / np.pi)  # by the variance of a folded normal
UNKNOWN_M = 3.0  # a standard deviation that says nothing
BALL_LIES = CHECKPOINTS.index("impact") - 1  # up to here the ball lies where it lay
BALL_U_SD_M = 0.012  # how high: on the floor, or on a tee
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
STANDING = {name: np.array([at in stands for at in CHECKPOINTS]) for name, stands in STANDS.items()}


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
    """Angle between two directions, degrees, 0 to 180."""
    return _angle_and_normal(a, b)[0]


def bend_between(a: Place, b: Place, source: str) -> Measured:
    """Angle between two directions, degrees, of a limb whose bend out of its seen plane is unsure too.

    A bend s out of the plane makes the whole √(bend² + s²). What s is on average does so here, and its
    spread widens the error: as s²/√2·bend for large bends, as the 0.6 s of a folded normal for none.
    """
    bend, normal = _angle_and_normal(a, b)
    with np.errstate(divide="ignore", invalid="ignore"):
        by_a, by_b = (np.degrees(normal / np.sqrt(np.sum(_values(way) ** 2, axis=0))) for way in (a, b))
        aside = _hanging_on(np.zeros_like(bend.value), (a, -by_a), (b, by_b)).variance
        whole = np.sqrt(bend.value**2 + aside)
        spread = aside / np.sqrt(2 * bend.value**2 + FOLDED * aside)
        return combined(whole, (bend, bend.value / whole)) + Measured.of(0.0, spread, source)


def _angle_and_normal(a: Place, b: Place) -> tuple[Measured, Array]:
    """The angle, degrees, and the unit vector (3, …) across both: turning about it opens the angle."""
    way_a, way_b = _values(a), _values(b)
    across = _cross(way_a, way_b)
    size = np.sqrt(np.sum(across * across, axis=0))
    angle = np.degrees(np.arctan2(size, np.sum(way_a * way_b, axis=0)))
    with np.errstate(divide="ignore", invalid="ignore"):
        normal = across / size
        by_a = np.degrees(_cross(way_a, normal) / np.sum(way_a * way_a, axis=0))
        by_b = np.degrees(_cross(normal, way_b) / np.sum(way_b * way_b, axis=0))
    return _hanging_on(angle, (a, by_a), (b, by_b)), normal


def _cross(a: Array, b: Array) -> Array:
    """Products across (3, …), which `numpy.cross` takes six times as long for."""
    return np.array([a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]])


def _values(place: Place) -> Array:
    return np.array([each.value for each in place])


def _hanging_on(value: Array, *places: tuple[Place, Array]) -> Measured:
    """A value with these slopes along T, B and U of some places."""
    return combined(value, *(pair for place, ways in places for pair in zip(place, ways, strict=True)))


def length_of(way: Place, source: str) -> Measured:
    """How long a way is.

    What is unsure across it lengthens it by σ²/2L on average and σ²/√2L in spread: the second-order term of
    the law of propagation (JCGM 100:2008, 5.1.2, note), which matters where a depth is only what is usual.
    """
    first = hypot(*way)
    *along, whole = variances([each.slopes for each in (*way, first)], first.value.size).whole()
    across = np.maximum(sum(along) - whole, 0.0).reshape(first.value.shape)
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
        self._moves: dict[str, Place] = {}
        self._bends: dict[tuple[str, str, str, Checkpoint | None], Measured] = {}
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
        return (
            np.asarray(self._seen[view][self._names.get(name, -1)]) if view in self._seen else self._nowhere
        )

    def proposed(self, *names: str) -> Flags:
        """At which moments some view has all of these marks from a machine's proposals."""
        found = np.zeros(self.asked or len(CHECKPOINTS), bool)
        for view in self.eyes:
            marks = [self.clips[view].marks.get(name, {}) for name in names]
            for column, frame in enumerate(self.frames[view][self.here].tolist()):
                there = [each.get(frame) for each in marks]
                found[column] |= all(mark is not None and mark.source in PROPOSED for mark in there)
        return found

    def unseen(self) -> dict[View, frozenset[tuple[str, int]]]:
        """Names and frames of the marks of each view's checkpoints that nobody looked at."""
        return {
            view: frozenset(
                (name, frame)
                for frame in set(clip.checkpoints.values())
                for name, marks in clip.marks.items()
                if frame in marks and marks[frame].source in UNSEEN
            )
            for view, clip in self.clips.items()
            if view in self.eyes
        }

    def marked(self, view: View, names: Sequence[str]) -> Flags:
        """In which columns a view has each of some marks (names, columns)."""
        if view not in self._seen:
            return np.zeros((len(names), len(self.through)), bool)
        return np.asarray(self._seen[view][[self._names.get(name, -1) for name in names]])

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
        if name not in self._moves:
            gone = self._gone
            ways = zip(self.place(name), self.at(name, "address"), strict=True)
            self._moves[name] = Place(
                *(
                    combined(np.where(gone, now.value - then.value, 0.0), (now, gone), (then, -gone))
                    for now, then in ways
                )
            )
        return self._moves[name]

    @cached_property
    def _gone(self) -> Array:
        """0 where a moment is the very frame of address, else 1."""
        return np.where(self.same_as("address"), 0.0, 1.0)

    def bend(self, near: str, joint: str, far: str, checkpoint: Checkpoint | None) -> Measured:
        """180° less the inside angle of a limb at its joint: from the near part's way to the far part's."""
        key = (near, joint, far, checkpoint)
        if key not in self._bends:
            a, b, c = (
                self.at(name, checkpoint) if checkpoint else self.place(name) for name in (near, joint, far)
            )
            then = f" at {spoken(checkpoint)}" if checkpoint else ""
            source = f"depth: how the {spoken(joint)} stands aside{then}"
            self._bends[key] = bend_between(b.minus(a), c.minus(b), source)
        return self._bends[key]

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
    def _nowhere(self) -> Flags:
        return np.zeros(len(self.through), bool)

    @cached_property
    def _seen(self) -> dict[View, Flags]:
        """Where each view has marks (marks + 1, columns); the last row is of marks that nobody set."""
        return {
            view: np.vstack([np.isfinite(pixels[0]), self._nowhere]) for view, pixels in self._pixels.items()
        }

    @cached_property
    def _pixels(self) -> dict[View, Array]:
        """Each view's x, y and standard deviation (3, marks, columns), in a right-hander's picture."""
        found: dict[View, Array] = {}
        for view, eye in self.eyes.items():
            clip = self.clips[view]
            frames, column = np.unique(self.frames[view], return_inverse=True)
            rows = _marks_on(clip, self._names, frames.tolist())[:, :, column]
            rows[:2] = np.moveaxis(eye.upright(np.moveaxis(rows[:2], 0, -1)), -1, 0)
            found[view] = rows
        return found

    @cached_property
    def _fused(self) -> Fused:
        """All places in one go: (3, marks, columns), and what errors do to them (3, Q, marks, columns)."""
        names = tuple(self._names)
        shape = (3, len(names), len(self.through))
        means, speeds = usual(names, self.through, self.tall)
        kept = np.zeros((3, len(names), 1))
        kept[:2, :, 0] = shares_kept(names)
        kept = np.broadcast_to(kept, shape)
        views = [
            Seen(
                eye,
                self._pixels[view][:2].reshape(2, -1),
                np.nan_to_num(self._pixels[view][2].ravel(), nan=1.0),
                np.tile(self._moment_s(view), len(self._names)),
            )
            for view, eye in self.eyes.items()
        ]
        flat = (each.reshape(3, -1) for each in (means, self._spreads, speeds * SPEED_SPREAD))
        fused = fuse(views, *flat)
        # Part of what is unusual about a place is the player's build or stance, the same at all moments.
        depth = fused.effects[:, :DEPTH]
        of_kept = kept.reshape(3, -1)
        always = depth[:, :2] * np.sqrt(of_kept[:2])
        effects = np.concatenate([depth * np.sqrt(1 - of_kept), always, fused.effects[:, DEPTH:]], axis=1)
        seen = np.zeros(shape[1:], bool)
        for pixels in self._pixels.values():
            seen |= np.isfinite(pixels[0])
        places = np.where(seen, fused.places.reshape(shape), np.nan)
        return Fused(places, effects.reshape(3, -1, *shape[1:]))

    @property
    def _spreads(self) -> Array:
        """How unsure usual places are (3, marks, columns): only where no view tells does it count."""
        spreads = np.full((3, len(self._names), len(self.through)), UNKNOWN_M)
        for axis, view in enumerate(SEEN_ALONG):
            own = spreads_m(tuple(self._names), self.tall)[axis][:, None]
            seen = np.isfinite(self._pixels[view][0]) if view in self._pixels else False
            spreads[axis] = np.where(seen, UNKNOWN_M, own)
        nearest = np.rint(self.through)
        near = np.abs(self.through - nearest) < 0.5
        for name in FEET:
            if name in self._names:
                stands = near & STANDING[name][nearest.astype(int)]
                spreads[2, self._names[name], stands] = STANDING_U_M
                spreads[2, self._names[name], stands & (nearest == 0)] = SOLE_SD_M
        if "ball" in self._names:
            spreads[2, self._names["ball"], near & (nearest <= BALL_LIES)] = BALL_U_SD_M
        return spreads

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
            nowhere = np.asarray(np.full(len(self.through), np.nan)[columns])
            return Place(*(Measured(nowhere) for _ in range(3)))
        effects = self._fused.effects[:, :, row, columns]
        effects = effects if isinstance(columns, slice) else effects[..., None]
        origin = Origin(effects, _sources(name, words, tuple(self.eyes)))
        places = self._fused.places[:, row, columns]
        return Place(*(Measured(places[axis], {origin: WAYS[axis]}) for axis in range(3)))


@lru_cache(maxsize=1024)
def _sources(name: str, words: str, views: tuple[View, ...]) -> Sources:
    """What each of a scene's errors of a place comes from."""
    widths = [(f"depth: {spoken(name)}{words or ' then'}", DEPTH)]
    widths += [(f"depth: {kept_as(name, axis)} {'TB'[axis]}", 1) for axis in (0, 1)]
    for view in views:
        side = spoken(view).replace("face on", "face-on")
        of = {"mark": f" {spoken(name)}{words}, {side}", "moment": f" {side}{words}"}
        widths += [(f"{kind}:{of.get(kind, f' {side}')}", width) for kind, width in OF_A_VIEW.items()]
    return sources(*widths)


def _marks_on(clip: Clip, names: Iterable[str], frames: list[int]) -> Array:
    """x, y and standard deviation (3, names, frames), as if the camera had stood still; NaN for none."""
    columns = []
    for name in names:
        there = clip.marks.get(name, {})
        columns += [(m.x, m.y, m.sd_px) if (m := there.get(frame)) else UNMARKED for frame in frames]
    found = np.array(columns).T.reshape(3, -1, len(frames))
    if clip.camera_motion is not None:
        row, at = np.nonzero(np.isfinite(found[0]))
        still, sd_px = clip.camera_motion.still(np.array(frames)[at], found[:2, row, at].T)
        found[:2, row, at] = still.T
        found[2, row, at] = np.hypot(found[2, row, at], sd_px)
    return found
