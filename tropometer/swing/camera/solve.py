"""Solves a camera from points of the floor whose places are known: a mat's corners, two sticks.

Seven unknowns (focal length, place, three angles) are fitted to the points, to whatever else is known of
the camera, and to what phones and their stands are usually like, each weighed by its standard deviation: a
maximum a posteriori estimate, with the covariance of the linearised problem (Hartley and Zisserman, 2nd
ed., 5.2 and A6). An upright edge points at the vertical vanishing point, wherever it stands (8.6).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from scipy.optimize import least_squares

from tropometer.swing.arrays import Array
from tropometer.swing.camera.pinhole import Pinhole
from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured, coordinates
from tropometer.swing.names import PLANE_OF, View
from tropometer.swing.record.calibration import CameraFacts, FloorLength

DISTANCE_SD = 0.04  # share of a distance somebody paced or taped
HEIGHT_SD_M = 0.05
# A distance is said to the player, whose hips stand about so far behind the middle of a mat; see face_on.
PLAYER_ON_MAT_M = (-0.35, 0.15)
LEAST_POINTS = 4
LEAST_SD_PX = 0.01  # what is said to be surer than that would drown all else in its rounding
STARTS_M = (3.0, 4.5, 7.0)  # distances the fit is begun from
WORST_MISFIT = (
    4.0  # standard deviations, root mean square, beyond which the points are not what they are said to be
)
GOOD_COST = 8.0  # of a fit that needs no other start: half the sum of squares of a dozen residuals
STRANGEST = 3.5  # standard deviations from what is usual, beyond which nobody would have put up the camera so
SOURCE = Source("camera")
ALONG = math.radians(2.0)  # how surely a stick that is said to lie along the target line does
BODY_DEPTH_M = 0.04  # what is held in the plane of the body lies in it so surely


@dataclass(frozen=True, kw_only=True)
class UsualCamera:
    """What a phone on a stand is like, each as mean and standard deviation; common practice, no source."""

    focal_of_long_side: tuple[float, float] = (0.85, 0.28)  # a ratio; the spread is of its logarithm
    height_m: tuple[float, float] = (1.1, 0.4)
    roll: tuple[float, float] = (0.0, math.radians(2.0))
    tilt: tuple[float, float] = (math.radians(5.0), math.radians(10.0))
    off_square: tuple[float, float] = (0.0, math.radians(12.0))
    nearness_per_m: tuple[float, float] | None = None  # 1 / distance to the player
    player_b_m: float = PLAYER_ON_MAT_M[0]  # of the hips, from the origin of the floor points


# Where a mat tells, little is taken for granted; where none lies, that somebody placed the phone by eye.
BY_MAT = UsualCamera()
BY_EYE = UsualCamera(
    roll=(0.0, math.radians(1.5)),
    off_square=(0.0, math.radians(8.0)),
    nearness_per_m=(0.261, 0.056),  # phones stand 2.6 to 5.4 m away
    player_b_m=-0.10,
)


@dataclass(frozen=True)
class FloorPoint:
    """A point of the floor: pixels, its place T and B in metres, and one standard deviation in pixels."""

    x: float
    y: float
    t_m: float
    b_m: float
    sd_px: float


class Unsolved(ValueError):
    """Floor points from which no camera follows; says why."""


@dataclass(frozen=True, eq=False)
class SolvedCamera:
    """A camera with its error: `columns` (7, 7) spans the standard deviations of its seven unknowns."""

    camera: Pinhole
    columns: Array
    misfit: float  # root mean square of the points' residuals, standard deviations

    def measure(self, value: Callable[[Pinhole], float]) -> Measured:
        """Something that depends on the camera alone, with the error that the camera brings into it."""
        (found,) = self.measure_all(lambda camera: [value(camera)])
        return found

    def measure_all(self, values: Callable[[Pinhole], Sequence[float]]) -> list[Measured]:
        """Several such things; their errors are correlated as they should be."""
        mean = np.asarray(values(self.camera), float)
        moved = np.array([values(camera) for camera in self.moved]) - mean
        return list(coordinates(mean, {SOURCE: moved.T}))

    @cached_property
    def moved(self) -> list[Pinhole]:
        """The camera one standard deviation away along each independent direction of its error."""
        own = _unknowns(self.camera)
        return [_camera(own + column, self.camera) for column in self.columns.T]


def solve_camera(
    points: Sequence[FloorPoint],
    view: View,
    width: int,
    height: int,
    facts: CameraFacts | None = None,
    usual: UsualCamera = BY_MAT,
) -> SolvedCamera:
    """The camera that saw these floor points, and of which these facts are known.

    Raises Unsolved when no camera sees the points as they are said to lie; and, where they alone are to tell
    (`BY_MAT`), when there are too few of them or they lie on a line.
    """
    if usual is BY_MAT:
        _check_points(points)
    known = facts or CameraFacts()
    floor = np.array([[p.t_m, p.b_m, 0.0] for p in points])
    pixels = np.array([[p.x, p.y] for p in points])
    sd = np.array([max(p.sd_px, LEAST_SD_PX) for p in points])
    blank = Pinhole(view, width, height, 1.0, np.zeros(3))

    def residuals(unknowns: Array) -> Array:
        camera = _camera(unknowns, blank)
        missed = (camera.project(floor) - pixels) / sd[:, None]
        return np.concatenate(
            [
                np.nan_to_num(missed, nan=1e3).ravel(),
                _unusual(unknowns, max(width, height), usual),
                np.nan_to_num(_against(camera, known, usual), nan=1e3),
            ]
        )

    fits = []
    for start in _starts(floor, blank, usual):
        fits.append(least_squares(residuals, start, method="lm"))
        if float(fits[-1].cost) < GOOD_COST:
            break
    best = min(fits, key=lambda fit: float(fit.cost))
    misfit = float(np.sqrt(np.mean(np.square(best.fun[: 2 * len(points)]))))
    beliefs = len(_unusual(best.x, max(width, height), usual))
    strangest = float(np.abs(best.fun[2 * len(points) : 2 * len(points) + beliefs]).max())
    if misfit > WORST_MISFIT or strangest > STRANGEST:
        raise Unsolved(
            "No camera sees points that lie so: check their order and the size that was given."
            if usual is BY_MAT
            else "No camera sees the known length and the feet so: check the length, its place and the feet."
        )
    if float(np.abs(best.fun[2 * len(points) + beliefs :]).max(initial=0.0)) > STRANGEST:
        raise Unsolved(
            "The mat disagrees with what else was said of the camera: "
            "check the distance, the height, the plumb line and the known length."
            if usual is BY_MAT
            else "What was said of the camera disagrees: "
            "check the distance, the height, the plumb line and the known length."
        )
    # Of residuals in standard deviations the covariance of the unknowns is (Jᵀ J)⁻¹; its columns span it.
    slopes = np.asarray(best.jac, float)
    try:
        columns = np.asarray(np.linalg.cholesky(np.linalg.inv(slopes.T @ slopes)), float)
    except np.linalg.LinAlgError:
        raise Unsolved("The marks of the feet and what was said leave the camera open: check both.") from None
    return SolvedCamera(_camera(best.x, blank), columns, misfit)


def _check_points(points: Sequence[FloorPoint]) -> None:
    if len(points) < LEAST_POINTS:
        raise Unsolved(f"It takes {LEAST_POINTS} floor points; there are {len(points)}.")
    floor = np.array([[p.t_m, p.b_m] for p in points])
    if np.linalg.svd(floor - floor.mean(axis=0), compute_uv=False)[-1] < 0.05:
        raise Unsolved("The floor points lie on one line.")


def _unusual(unknowns: Array, long_side: int, usual: UsualCamera) -> Array:
    """How far the unknowns lie from what is usual, standard deviations."""
    log_focal, t, b, up, off_square, tilt, roll = unknowns
    focal, spread = usual.focal_of_long_side
    missed = [(log_focal - math.log(focal * long_side)) / spread]
    for value, (expected, sd) in (
        (up, usual.height_m),
        (off_square, usual.off_square),
        (tilt, usual.tilt),
        (roll, usual.roll),
    ):
        missed.append((value - expected) / sd)
    if usual.nearness_per_m is not None:
        near, sd = usual.nearness_per_m
        missed.append((1 / max(math.hypot(t, b - usual.player_b_m), 0.1) - near) / sd)
    return np.array(missed)


def _against(camera: Pinhole, facts: CameraFacts, usual: UsualCamera) -> Array:
    """How far a camera is from what is known of it, standard deviations."""
    missed = []
    if facts.distance_m is not None:
        _, spread = PLAYER_ON_MAT_M
        far = math.hypot(camera.eye[0], camera.eye[1] - usual.player_b_m)
        missed.append((far - facts.distance_m) / math.hypot(DISTANCE_SD * facts.distance_m, spread))
    if facts.height_m is not None:
        missed.append((camera.eye[2] - facts.height_m) / HEIGHT_SD_M)
    if facts.off_square_deg is not None:
        angle, spread = facts.off_square_deg
        missed.append((math.degrees(camera.off_square) - angle) / spread)
    if facts.plumb is not None:
        a, b = np.array(facts.plumb.a), np.array(facts.plumb.b)
        down = camera.upright_at(a)
        along = b - a
        aside = (along[0] * down[1] - along[1] * down[0]) / math.hypot(*down)
        missed.append(aside / (math.sqrt(2) * facts.plumb.sd_px))
    if facts.length is not None:
        ends = camera.on_plane(np.array([facts.length.a, facts.length.b]), 2, 0.0)
        missed.append(_too_long(facts.length, ends))
        if facts.length.along_b is not None:
            ahead, sd = facts.length.along_b
            frontal = PLANE_OF[camera.view] == "frontal"
            missed.append((ends[:, 1].mean() - ahead) / sd if frontal else 0.0)
            along = ends[1] - ends[0]
            missed.append(math.atan2(along[1], abs(along[0])) / ALONG)
    if facts.body_length is not None:
        axis, plane = (1, usual.player_b_m) if PLANE_OF[camera.view] == "frontal" else (0, 0.0)
        length = facts.body_length
        ends = camera.on_plane(np.array([length.a, length.b]), axis, plane)
        far = max(abs(camera.eye[axis] - plane), 0.1)
        unsure = math.hypot(length.length_sd_m, length.length_m * BODY_DEPTH_M / far)
        missed.append(_too_long(replace(length, length_sd_m=unsure), ends))
    return np.array(missed, float)


def _too_long(length: FloorLength, ends: Array) -> float:
    """By how many standard deviations the ends (2, 3) lie too far apart."""
    of_click = math.sqrt(2) * length.sd_px * length.length_m / math.dist(length.a, length.b)
    found = float(np.linalg.norm(ends[1] - ends[0]))
    return (found - length.length_m) / math.hypot(length.length_sd_m, of_click)


def _starts(floor: Array, blank: Pinhole, usual: UsualCamera) -> list[Array]:
    middle = floor.mean(axis=0)
    away = -blank.rotation[2]  # from what is looked at back to the camera
    log_focal = math.log(usual.focal_of_long_side[0] * max(blank.width, blank.height))
    return [
        np.array([log_focal, *(middle + far * away)[:2], usual.height_m[0], 0.0, usual.tilt[0], 0.0])
        for far in STARTS_M
    ]


def _unknowns(camera: Pinhole) -> Array:
    return np.array(
        [math.log(camera.focal_px), *camera.eye, camera.off_square, camera.tilt, camera.roll], float
    )


def _camera(unknowns: Array, like: Pinhole) -> Pinhole:
    log_focal, t, b, up, off_square, tilt, roll = (float(each) for each in unknowns)
    eye = np.array([t, b, up])
    return Pinhole(
        like.view, like.width, like.height, math.exp(min(log_focal, 12)), eye, off_square, tilt, roll
    )
