"""What is expected of a swing's clicks: where a body usually is, and all that makes a click lie elsewhere.

Some errors are shared by all checkpoints (the ways in which golfers differ, cameras, the eye, a build, the
frames' moments); what is left is a mark's own at a checkpoint, or that of the mark it hangs on.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.doubts.body import CLUB, NAMES, Body, usual_body
from tropometer.swing.doubts.shaft import HEAD, Shaft
from tropometer.swing.names import CHECKPOINTS, PLANE_OF, PLANES, View
from tropometer.swing.scene.eye import Eye
from tropometer.swing.scene.eyesight import ANEW, missed_m
from tropometer.swing.scene.fuse import pixels_in, project
from tropometer.swing.scene.placed import OUTLINE_M, OUTLINES, Placed
from tropometer.swing.scene.usual import part_of, usual

TALLNESS = 0.03  # a body's size beside its stature; more where nobody said that
UNKNOWN_TALLNESS = 0.06
# Of the way a mark goes within a frame's moment, how much it may lie elsewhere by; a club's, along it.
ELSEWHERE, CLUB_ALONG = 0.2, 0.46
ARC_M = 1.1  # radius of the way of what is fast: it leaves its tangent
REACH = 4.0  # standard deviations from the usual place within which a mark is thought to be
LAST_BALL = 0  # a ball is looked for at address


class Click(NamedTuple):
    """A mark of a view at a checkpoint: its row among the swing's names, and the checkpoint's column."""

    view: View
    row: int
    column: int


class Block(NamedTuple):
    """A checkpoint's clicks: missed (k,), their own covariance (k, k), shared errors (k, Q)."""

    clicks: list[Click]
    missed: Array
    own: Array
    shared: Array


class _Seen(NamedTuple):
    """A view's clicks (n, 9): whether there, slopes (2, 3), missed (2,), shared errors (2, Q).

    Their own are a variance, and an error along the way that each goes (2,).
    """

    there: Flags
    slopes: Array
    missed: Array
    shared: Array
    variance: Array
    along: Array


class Expected:
    """What is usual of a body, put where a swing's cameras see it."""

    def __init__(self, placed: Placed) -> None:
        self.placed, self.names, self.body = placed, placed.names, usual_body()
        self.rows = np.array([NAMES.index(name) for name in self.names])
        self.tall = placed.tall
        self.mean = self.body.mean[self.rows] * self.tall
        self.places = self._about(np.moveaxis(placed.places, 0, -1))
        self.shaft = Shaft.of(self.names, self.places, self._shaft_shown)
        if self.shaft is not None:
            self.mean = self.mean + self.shaft.lengthened(self.mean, self._carries)
        self.speeds = np.moveaxis(usual(self.names, placed.through, self.tall)[1], 0, -1)
        self.bodily = self._bodily(self.body)
        self.views = list(placed.eyes)
        count, views = len(self.names), len(self.views)
        widths = [self.bodily.shape[-1], *[9 + 2 * count + len(CHECKPOINTS)] * views]
        self.starts = np.cumsum([0, *widths])
        self.seen = {view: self._seen(i, view, placed.eyes[view]) for i, view in enumerate(self.views)}

    @property
    def _shaft_shown(self) -> Flags:
        """At which checkpoints both planes show both ends of the shaft (9,)."""
        shown = {plane: np.zeros(len(CHECKPOINTS), bool) for plane in PLANES}
        for view in self.placed.eyes:
            shown[PLANE_OF[view]] |= self.placed.has(view, "grip") & self.placed.has(view, "club_head")
        return np.asarray(np.all(list(shown.values()), axis=0))

    @property
    def _carries(self) -> Array:
        """How much of the rest of each of the body's marks each of the swing's marks has (n, m)."""
        return np.asarray(self.body.carries[self.rows])

    def _about(self, places: Array) -> Array:
        """Where the marks are thought to be (n, 9, 3): what errors do is reckoned there, so not at a slip."""
        rest = np.einsum("nm,mci->nci", np.square(self.body.carries[self.rows]), np.square(self.body.rest))
        ways = np.square(self.body.ways[self.rows]).sum(axis=-1)
        far = REACH * self.tall * np.sqrt(ways + rest + np.square(self.body.own[self.rows])[:, None, None])
        gone = np.nan_to_num(places - self.mean)
        return np.asarray(self.mean + np.clip(gone, -far, far))

    def _bodily(self, body: Body) -> Array:
        """What the errors of the whole body do to each mark's place (n, 9, 3, Q), metres."""
        count = len(self.names)
        ways = body.ways[self.rows] * self.tall
        if self.shaft is not None:
            ways = np.concatenate(
                [ways + self.shaft.kept(ways, self._carries), self.shaft.unknown(self._carries)], axis=-1
            )
        size = UNKNOWN_TALLNESS if self.placed.record.stature_m is None else TALLNESS
        turn = np.radians(self.placed.turn.sd_deg if self.placed.by_mat else 0.0)
        t, b, _ = np.moveaxis(self.places, -1, 0)
        turned = turn * np.stack([-b, t, np.zeros_like(t)], axis=-1)
        own = np.zeros((count, len(CHECKPOINTS), 3, count, 3))
        each = np.arange(count)
        for axis in range(3):
            own[each, :, axis, each, axis] = body.own[self.rows][:, None] * self.tall
        parts = [ways, size * self.places[..., None], turned[..., None], own.reshape(*own.shape[:3], -1)]
        return np.concatenate(parts, axis=-1)

    def _seen(self, number: int, view: View, eye: Eye) -> _Seen:
        clicked = np.moveaxis(self.placed.clicked(view), 0, -1)
        shape = clicked.shape[:2]
        flat = self.places.reshape(-1, 3).T + eye.origin[:, None]
        pixels, slopes = project(eye.solved.camera, flat)
        slopes = np.moveaxis(slopes, -1, 0).reshape(*shape, 2, 3)
        by_camera = pixels_in((eye.solved.camera, *eye.solved.moved), flat)
        by_camera = np.moveaxis(by_camera[:, 1:] - by_camera[:, :1], -1, 0).reshape(*shape, 2, -1)
        there = np.array(np.isfinite(clicked).all(axis=-1) & np.isfinite(slopes).all(axis=(2, 3)))
        if "ball" in self.names:
            there[self.names.index("ball"), LAST_BALL + 1 :] = False
        away = np.einsum("ncij,ncj->nci", slopes, self.mean - self.places)
        missed = clicked[..., :2] - pixels.T.reshape(*shape, 2) - away
        shared = np.zeros((*shape, 2, self.starts[-1]))
        shared[..., : self.starts[1]] = slopes @ self.bodily
        first = self.starts[1 + number]
        # A camera that is far from sure may see a mark behind itself: that tells nothing.
        shared[..., first : first + 7] = np.nan_to_num(by_camera) + slopes @ eye.origin_by_camera
        shared[..., first + 7 : first + 9] = slopes @ eye.origin_own
        eye_px = missed_m(self.names) * eye.px_per_m
        for row, wrong in enumerate(eye_px):
            for axis in range(2):
                shared[row, :, axis, first + 9 + 2 * row + axis] = wrong
        gone = self.speeds * self.placed.moment_s(view)[:, None]
        columns = np.arange(shape[1])
        by_moment = np.einsum("ncij,ncj->nci", slopes, gone)
        shared[:, columns, :, first + 9 + 2 * shape[0] + columns] = np.moveaxis(by_moment, 1, 0)
        of_club = np.array([part_of(name) in CLUB for name in self.names])
        along = CLUB_ALONG * by_moment * of_club[:, None, None]
        return _Seen(there, slopes, missed, shared, self._variance(eye, clicked[..., 2], eye_px, gone), along)

    def _variance(self, eye: Eye, sd_px: Array, eye_px: Array, gone: Array) -> Array:
        """Of a click by itself (n, 9), square pixels."""
        parts = [part_of(name) for name in self.names]
        way = np.linalg.norm(gone, axis=-1)
        grazed = np.isin(parts, OUTLINES)[:, None] * OUTLINE_M * eye.aside**2 / 2
        own_m = np.square(ELSEWHERE * way + way**2 / ARC_M) + np.square(grazed)
        return np.asarray(sd_px**2 + np.square(ANEW * eye_px)[:, None] + own_m * eye.px_per_m**2)

    def block(self, column: int) -> Block | None:
        """The clicks of a checkpoint."""
        clicks, weights, missed, shared, variance, along = [], [], [], [], [], []
        for view, seen in self.seen.items():
            rows = np.flatnonzero(seen.there[:, column])
            clicks += [Click(view, int(row), column) for row in rows]
            of_mark = np.zeros((len(rows), 2, len(self.names), 3))
            of_mark[np.arange(len(rows)), :, rows] = seen.slopes[rows, column]
            weights.append(of_mark.reshape(-1, len(self.names), 3))
            missed.append(seen.missed[rows, column].ravel())
            shared.append(seen.shared[rows, column].reshape(2 * len(rows), self.starts[-1]))
            variance.append(np.repeat(seen.variance[rows, column], 2))
            along.append(seen.along[rows, column])
        if not clicks:
            return None
        # A mark's rest is that of what it hangs on, and its own.
        by_rest = np.einsum("kni,nm->kmi", np.concatenate(weights), self._carries)
        rest = self.body.rest[:, column] * self.tall
        effect = (by_rest * rest).reshape(len(by_rest), -1)
        if self.shaft is not None:
            head = slice(3 * HEAD, 3 * HEAD + 3)
            effect[:, head] = by_rest[:, HEAD] @ self.shaft.own(column, rest[HEAD])
        by_way = np.kron(np.eye(len(clicks)), np.ones((2, 1))) * np.concatenate(along).reshape(-1, 1)
        own = effect @ effect.T + by_way @ by_way.T + np.diag(np.concatenate(variance))
        return Block(clicks, np.concatenate(missed), own, np.concatenate(shared))
