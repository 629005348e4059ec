"""Solves a camera from points of the floor whose places are known: a mat's corners, two sticks.

Seven unknowns (focal length, place, three angles) are fitted to the points, to whatever else is known of
the camera, and to what phones and their stands are usually like, each weighed by its standard deviation: a
maximum a posteriori estimate, with the covariance of the linearised problem (Hartley and Zisserman, 2nd
ed., 5.2 and A6). An upright edge points at the vertical vanishing point, wherever it stands (8.6).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from scipy.optimize import least_squares

from tropometer.swing.camera.facts import (
    DISTANCE_SD,
    HEIGHT_SD_M,
    PLAYER_ON_MAT_M,
    CameraFacts,
)
from tropometer.swing.camera.pinhole import Array, Pinhole
from tropometer.swing.measured import Measured
from tropometer.swing.names import View

LEAST_POINTS = 4
# What a phone on a stand is like, as mean and standard deviation; common practice, no source.
FOCAL_OF_LONG_SIDE = (1.0, 0.3)  # a ratio; the spread is of its logarithm
HEIGHT_M = (1.1, 0.4)
ROLL = (0.0, math.radians(2.0))
TILT = (math.radians(5.0), math.radians(10.0))
OFF_SQUARE = (0.0, math.radians(12.0))
STARTS_M = (3.0, 4.5, 7.0)  # distances the fit is begun from
WORST_MISFIT = (
    4.0  # standard deviations, root mean square, beyond which the points are not what they are said to be
)
GOOD_COST = 8.0  # of a fit that needs no other start: half the sum of squares of a dozen residuals
STRANGEST = 3.5  # standard deviations from what is usual, beyond which nobody would have put up the camera so
USUAL = 5  # unknowns of which it is known what is usual
SOURCE = "camera"


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


@dataclass(frozen=True)
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
        moved = np.array([values(camera) for camera in self._moved]) - mean
        return [
            Measured(float(mean[i]), {f"{SOURCE} {k}": float(moved[k, i]) for k in range(len(moved))})
            for i in range(len(mean))
        ]

    @cached_property
    def _moved(self) -> list[Pinhole]:
        """The camera one standard deviation away along each independent direction of its error."""
        own = _unknowns(self.camera)
        return [_camera(own + column, self.camera) for column in self.columns.T]


def solve_camera(
    points: Sequence[FloorPoint], view: View, width: int, height: int, facts: CameraFacts | None = None
) -> SolvedCamera:
    """The camera that saw these floor points, and of which these facts are known.

    Raises Unsolved when there are too few points, when they lie on a line, or when no camera sees
    them as they are said to lie.
    """
    if len(points) < LEAST_POINTS:
        raise Unsolved(f"It takes {LEAST_POINTS} floor points; there are {len(points)}.")
    floor = np.array([[p.t_m, p.b_m, 0.0] for p in points])
    pixels = np.array([[p.x, p.y] for p in points])
    sd = np.array([p.sd_px for p in points])
    if np.linalg.svd(floor[:, :2] - floor[:, :2].mean(axis=0), compute_uv=False)[-1] < 0.05:
        raise Unsolved("The floor points lie on one line.")
    blank = Pinhole(view, width, height, 1.0, np.zeros(3))

    def residuals(unknowns: Array) -> Array:
        camera = _camera(unknowns, blank)
        missed = (camera.project(floor) - pixels) / sd[:, None]
        return np.concatenate(
            [
                np.nan_to_num(missed, nan=1e3).ravel(),
                _unusual(unknowns, max(width, height)),
                np.nan_to_num(_against(camera, facts or CameraFacts()), nan=1e3),
            ]
        )

    fits = []
    for start in _starts(floor, blank):
        fits.append(least_squares(residuals, start, method="lm"))
        if float(fits[-1].cost) < GOOD_COST:
            break
    best = min(fits, key=lambda fit: float(fit.cost))
    misfit = float(np.sqrt(np.mean(np.square(best.fun[: 2 * len(points)]))))
    strangest = float(np.abs(best.fun[2 * len(points) : 2 * len(points) + USUAL]).max())
    if misfit > WORST_MISFIT or strangest > STRANGEST:
        raise Unsolved("No camera sees points that lie so: check their order and the size that was given.")
    if float(np.abs(best.fun[2 * len(points) + USUAL :]).max(initial=0.0)) > STRANGEST:
        raise Unsolved(
            "The mat disagrees with what else was said of the camera: "
            "check the distance, the height, the plumb line and the known length."
        )
    slopes = np.asarray(best.jac, float)
    columns = np.asarray(np.linalg.cholesky(np.linalg.inv(slopes.T @ slopes)), float)
    return SolvedCamera(_camera(best.x, blank), columns, misfit)


def _unusual(unknowns: Array, long_side: int) -> Array:
    """How far the unknowns lie from what is usual, standard deviations."""
    log_focal, _, _, up, off_square, tilt, roll = unknowns
    return np.array(
        [
            (log_focal - math.log(FOCAL_OF_LONG_SIDE[0] * long_side)) / FOCAL_OF_LONG_SIDE[1],
            (up - HEIGHT_M[0]) / HEIGHT_M[1],
            (off_square - OFF_SQUARE[0]) / OFF_SQUARE[1],
            (tilt - TILT[0]) / TILT[1],
            (roll - ROLL[0]) / ROLL[1],
        ]
    )


def _against(camera: Pinhole, facts: CameraFacts) -> Array:
    """How far a camera is from what is known of it, standard deviations."""
    missed = []
    if facts.distance_m is not None:
        behind, spread = PLAYER_ON_MAT_M
        far = math.hypot(camera.eye[0], camera.eye[1] - behind)
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
        pixels = math.dist(facts.length.a, facts.length.b)
        found = float(np.linalg.norm(ends[1] - ends[0]))
        of_click = math.sqrt(2) * facts.length.sd_px * facts.length.length_m / pixels
        missed.append((found - facts.length.length_m) / math.hypot(facts.length.length_sd_m, of_click))
    return np.array(missed, float)


def _starts(floor: Array, blank: Pinhole) -> list[Array]:
    middle = floor.mean(axis=0)
    away = -blank.rotation[2]  # from what is looked at back to the camera
    log_focal = math.log(FOCAL_OF_LONG_SIDE[0] * max(blank.width, blank.height))
    return [
        np.array([log_focal, *(middle + far * away)[:2], HEIGHT_M[0], 0.0, TILT[0], 0.0]) for far in STARTS_M
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
