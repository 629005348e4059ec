"""All marks of a swing in the player's axes: placed by all cameras that see them, with their errors."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.camera.squaring import mat_turn
from tropometer.swing.error.source import Origin
from tropometer.swing.error.value import Measured
from tropometer.swing.names import CHECKPOINTS, PLANE_OF, PLANES, VIEWS, Checkpoint, Plane, View
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.beside import marks_with_neighbours
from tropometer.swing.scene.errors import rows_but, rows_of, sources_of
from tropometer.swing.scene.eye import Eye, eye_of
from tropometer.swing.scene.eyesight import ANEW, missed_m
from tropometer.swing.scene.fuse import DEPTH, Fused, Seen, fuse
from tropometer.swing.scene.moments import Moments
from tropometer.swing.scene.pixels import marks_on
from tropometer.swing.scene.place import Place
from tropometer.swing.scene.rigid import APART, Pair, apart_m, keep_apart
from tropometer.swing.scene.unseen import spreads_unseen
from tropometer.swing.scene.usual import (
    SPEED_SPREAD,
    STATURE_M,
    STATURE_SD_M,
    hanging,
    part_of,
    shares_kept,
    usual,
)

EYE_MARK_MOMENT = ("eye", "mark", "moment")
WAYS = np.eye(3)[..., None]
# What a line of sight grazes lies beside the outermost point unless it is square: radius of a pelvis's side.
OUTLINES, OUTLINE_M = ("hip_edge", "seat"), 0.25
STRETCHED = 0.1  # how far off either camera's lengths may be where no mat tells them, a share


class Placed:
    """All marks of a swing that some camera sees, as places, at all moments at once.

    Columns are the moments that were asked for beside the checkpoints, then the nine checkpoints.
    """

    def __init__(self, record: SwingRecord, others: Moments | None = None) -> None:
        self.record = record
        self.tall = record.stature_m or STATURE_M
        self._tall_sd = 0.0 if record.stature_m else STATURE_SD_M
        self.clips: dict[View, Clip] = {}
        for clip in record.clips:
            self.clips.setdefault(clip.view, clip)
        self.turn = mat_turn(self.clips.values(), record.hand)
        self.eyes: dict[View, Eye] = {}
        self.troubles: dict[View, str] = {}
        for view, clip in self.clips.items():
            try:
                self.eyes[view] = eye_of(clip, record.hand, record.stature_m, self.turn)
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

    def marked(self, view: View, names: Sequence[str]) -> Flags:
        """In which columns a view has each of some marks (names, columns)."""
        if view not in self._seen:
            return np.zeros((len(names), len(self.through)), bool)
        return np.asarray(self._seen[view][[self._names.get(name, -1) for name in names]])

    @property
    def names(self) -> tuple[str, ...]:
        """All marks that some view has, in the order of `places` and `clicked`."""
        return tuple(self._names)

    @property
    def places(self) -> Array:
        """Where all marks are at all moments (3, marks, columns); NaN where no view has them."""
        return self._fused.places

    def clicked(self, view: View) -> Array:
        """A view's x, y and standard deviation (3, marks, columns), in a right-hander's picture."""
        return self._pixels[view]

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
        """Each view's x, y, standard deviation and its shared part (4, marks, columns).

        They are those of a right-hander's picture.
        """
        found: dict[View, Array] = {}
        for view, eye in self.eyes.items():
            clip = self.clips[view]
            frames, column = np.unique(self.frames[view][: self.asked], return_inverse=True)
            others = marks_on(clip, self._names, frames.tolist())[:, :, column]
            own = marks_with_neighbours(clip, tuple(self._names), self.frames[view][self.asked :].tolist())
            rows = np.concatenate([others, own], axis=2)
            rows[:2] = np.moveaxis(eye.upright(np.moveaxis(rows[:2], 0, -1)), -1, 0)
            found[view] = rows
        return found

    @cached_property
    def _fused(self) -> Fused:
        """All places in one go: (3, marks, columns), and what errors do to them (3, Q, marks, columns)."""
        names = tuple(self._names)
        shape = (3, len(names), len(self.through))
        means, speeds = usual(names, self.through, self.tall)
        speeds = speeds * SPEED_SPREAD
        views = [self._seen_from(view, eye, names) for view, eye in self.eyes.items()]
        shown: dict[Plane, Flags] = {
            plane: np.any([self._seen[view][:-1] for view in views], axis=0)
            for plane, views in self._filmed.items()
        }
        spreads = spreads_unseen(names, self.through, self.tall, self._tall_sd, shown)
        fused = fuse(views, *(each.reshape(3, -1) for each in (means, spreads, speeds)))
        hung = self._hang(names, fused.places.reshape(shape), means, spreads)
        if hung:
            of = np.ravel(np.arange(shape[1] * shape[2]).reshape(shape[1:])[hung])
            anew = fuse(
                [view.part(of) for view in views],
                *(each.reshape(3, -1)[:, of] for each in (means, spreads, speeds)),
            )
            fused.places[:, of], fused.effects[:, :, of] = anew.places, anew.effects
        kept = np.zeros((3, len(names), 1))
        kept[:2, :, 0] = shares_kept(names)
        kept = np.broadcast_to(kept, shape)
        # Part of what is unusual about a place is the player's build or stance, the same at all moments.
        depth = self._turned(fused.effects[:, :DEPTH])
        of_kept = kept.reshape(3, -1)
        always = depth[:, :2] * np.sqrt(of_kept[:2])
        effects = [depth * np.sqrt(1 - of_kept), always, fused.effects[:, DEPTH:]]
        if self.by_mat:
            # Turned about the upright, all lies elsewhere at once.
            t, b, _ = fused.places
            effects.append(np.radians(self.turn.sd_deg) * np.array([-b, t, np.zeros_like(t)])[:, None])
        seen = np.zeros(shape[1:], bool)
        for pixels in self._pixels.values():
            seen |= np.isfinite(pixels[0])
        places = np.where(seen, fused.places.reshape(shape), np.nan)
        return Fused(places, np.concatenate(effects, axis=1).reshape(3, -1, *shape[1:]))

    def _turned(self, depth: Array) -> Array:
        """What an unsure depth does to places (3, DEPTH, n), by a camera that looks another way than thought.

        A second order: neither error alone shows it.
        """
        depth = depth.copy()
        for plane, views in self._filmed.items():
            axis = 1 - PLANES.index(plane)  # along which its cameras look
            for view in views:
                beside = self.eyes[view].turned[:, None] * np.abs(depth[axis, axis])
                beside[axis] = 0.0
                depth[:, axis] = np.copysign(np.hypot(depth[:, axis], beside), depth[:, axis])
        return depth

    @cached_property
    def _kept_apart(self) -> dict[str, tuple[Array, Array]]:
        """Places (3, columns) of paired joints, and what is left of the eye's errors does (3, Q, columns).

        Only where all views see them and show both planes: the eyes' errors then show in how far apart the
        two seem.
        """
        if len(self._filmed) < len(PLANES):
            return {}
        own, found = len(CHECKPOINTS), {}
        for part in APART:
            names = (f"lead_{part}", f"trail_{part}")
            if not self._names.keys() >= set(names):
                continue
            rows = [self._names[name] for name in names]
            known = np.all([seen[rows].all(axis=0) for seen in self._seen.values()], axis=0)
            places = self._fused.places[:, rows]
            eye, mark, moment = (
                self._fused.effects[:, rows_of(kind, len(self.eyes))][:, :, rows] for kind in EYE_MARK_MOMENT
            )
            once = np.square(mark).sum(axis=(1, 2)) + np.square(moment[:, :, 0] - moment[:, :, 1]).sum(axis=1)
            pair = Pair(
                lead=places[:, 0],
                trail=places[:, 1],
                lead_eye=eye[:, :, 0],
                trail_eye=eye[:, :, 1],
                sd=np.sqrt(once),
            )
            # Each checkpoint tells once, also where other moments are asked for.
            telling = known & (np.arange(len(known)) >= len(known) - own)
            apart, differ = apart_m(part, self.tall, self._tall_sd, self.record.hip_width_m)
            kept = keep_apart(pair, telling, apart, differ, 0.0 if self.by_mat else STRETCHED)
            for name, place, left in zip(
                names, (kept.lead, kept.trail), (kept.lead_eye, kept.trail_eye), strict=True
            ):
                found[name] = (place, left)
        return found

    @property
    def by_mat(self) -> bool:
        """Whether the target line is taken to be that of a mat."""
        return any(eye.scale == "mat" for eye in self.eyes.values())

    def _seen_from(self, view: View, eye: Eye, names: tuple[str, ...]) -> Seen:
        """What a view says of all marks at all moments, one mark after the other."""
        pixels = self._pixels[view]
        clicked = np.nan_to_num(pixels[2], nan=1.0)
        missed = (missed_m(names) * eye.px_per_m)[:, None]
        always, anew = np.square(missed) + np.square(_shared(pixels[3])), np.square(ANEW * missed)
        grazed = np.array([part_of(name) in OUTLINES for name in names])[:, None]
        outline = np.square(grazed * OUTLINE_M * eye.aside**2 / 2 * eye.px_per_m)
        whole = np.square(clicked) + anew + np.square(missed) + outline
        return Seen(
            eye,
            pixels[:2].reshape(2, -1),
            np.sqrt(whole).ravel(),
            (always / whole).ravel(),
            np.tile(self.moment_s(view), len(names)),
        )

    def _hang(self, names: tuple[str, ...], places: Array, means: Array, spreads: Array) -> list[int]:
        """Where a view tells of what a mark hangs on but not of the mark, take its depth from there.

        Changes `means` and `spreads` (3, marks, columns); the rows of the marks that it changed.
        """
        hangs = hanging(names, self.through, self.tall)
        changed = []
        for i, (name, parents) in enumerate(zip(hangs.names, hangs.parents, strict=True)):
            row, of = self._names[name], [self._names[parent] for parent in parents]
            for axis, plane in enumerate(PLANES):
                views = [self._seen[view] for view in self._filmed.get(plane, ())]
                known = np.any([seen[of].all(axis=0) for seen in views], axis=0)
                known &= ~np.any([seen[row] for seen in views], axis=0)
                if known.any():
                    means[axis, row, known] = (places[axis, of].mean(axis=0) + hangs.beside[axis, i])[known]
                    spreads[axis, row, known] = hangs.spread[axis, i, known]
                    changed.append(row)
        return changed

    def moment_s(self, view: View) -> Array:
        """How far each column's frame is from its moment: any time within half a frame is as likely."""
        times = self.clips[view].frame_times_s
        step = float(np.median(np.diff(times))) if len(times) > 1 else 0.0
        of = np.full(len(self.through), step / np.sqrt(12))
        for at, sd_s in self.clips[view].peg_sd_s.items():
            of[self.column(at)] = np.hypot(of[self.column(at)], sd_s)
        if self.asked and view == self._leading:
            of[: self.asked] = 0.0  # its own frames are the moments
        return of

    @cached_property
    def _leading(self) -> View:
        return min(self.clips, key=VIEWS.index)

    @cached_property
    def _filmed(self) -> dict[Plane, list[View]]:
        """The planes that some camera shows, and the views that show each."""
        found: dict[Plane, list[View]] = {}
        for view in self.eyes:
            found.setdefault(PLANE_OF[view], []).append(view)
        return found

    def cut(self, name: str, columns: slice | int, at: Checkpoint | None) -> Place:
        """A mark in some columns; a single one is that of the checkpoint `at`. NaN where no view has it."""
        row = self._names.get(name)
        if row is None:
            nowhere = np.asarray(np.full(len(self.through), np.nan)[columns])
            return Place(*(Measured(nowhere) for _ in range(3)))
        effects, places = self._fused.effects[:, :, row], self._fused.places[:, row]
        kept = self._kept_apart.get(name)
        if kept is not None:
            places = kept[0]
            effects = np.concatenate(
                [effects[:, rows_but("eye", len(self.eyes), effects.shape[1])], kept[1]], axis=1
            )
        effects, places = effects[:, :, columns], places[:, columns]
        effects = effects if isinstance(columns, slice) else effects[..., None]
        origin = Origin(effects, sources_of(name, at, tuple(self.eyes), self.by_mat, kept is not None))
        return Place(*(Measured(places[axis], {origin: WAYS[axis]}) for axis in range(3)))


def _shared(shared_px: Array) -> Array:
    """What the errors of each mark share on all its frames (marks, columns), pixels.

    Nothing where a mark also has places without it: a hand's would seem to err the same way.
    """
    shared = np.nan_to_num(shared_px)
    without = (np.isfinite(shared_px) & (shared_px == 0)).any(axis=1, keepdims=True)
    return np.where(without, 0.0, shared)
