"""A mat on the floor as four floor points: its corners, clicked in any order."""

from __future__ import annotations

import cmath
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import combinations

from tropometer.swing.camera.pinhole import SQUARE
from tropometer.swing.camera.solve import FloorPoint, SolvedCamera, Unsolved, solve_camera
from tropometer.swing.names import Hand, View
from tropometer.swing.record.calibration import CameraFacts, Mat

MAT_OFF_DEG = (
    1.5  # how far a mat lies off the target line, one standard deviation; common practice, no source
)
LEAST_APART_PX = 4.0  # corners nearer than that to each other, or to a line through two, tell nothing


@dataclass(frozen=True)
class MatTurn:
    """How far a mat points from the target line toward the ball, and one standard deviation, degrees."""

    off_deg: float = 0.0
    sd_deg: float = MAT_OFF_DEG


UNSQUARED = MatTurn()


def check_corners(corners: Sequence[tuple[float, float]]) -> None:
    """Raises Unsolved unless there are four corners that span an area, each apart from the others."""
    if len(corners) != 4:
        raise Unsolved(f"A mat has four corners; there are {len(corners)}.")
    if any(math.dist(a, b) < LEAST_APART_PX for a, b in combinations(corners, 2)):
        raise Unsolved("Two of the mat's corners lie in one place.")
    # Any three of them are a triangle; a flat one has three corners in a line.
    for a, b, c in combinations(corners, 3):
        twice_area = abs((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]))
        if twice_area < LEAST_APART_PX * max(math.dist(a, b), math.dist(b, c), math.dist(a, c)):
            raise Unsolved("Three of the mat's corners lie in one line.")


def floor_points(mat: Mat, view: View, off_deg: float = 0.0) -> tuple[FloorPoint, ...]:
    """The corners with their places about the mat's middle, for a right-hander's picture.

    The two lower in the picture are nearer to the camera: face-on the near side is the ball's and the target
    lies right. The mat is turned `off_deg` from the target line.
    Raises Unsolved unless there are four corners that span an area.
    """
    check_corners(mat.corners)
    turn = cmath.rect(1, math.radians(off_deg))
    rising = sorted(mat.corners, key=lambda corner: corner[1])
    rightward, _, ahead = SQUARE[view][:, :2]
    points = []
    for pair, far in ((rising[:2], 1), (rising[2:], -1)):
        for (x, y), right in zip(sorted(pair), (-1, 1), strict=True):
            t, b = right * rightward + far * ahead
            place = complex(t * mat.along_m / 2, b * mat.across_m / 2) * turn
            points.append(FloorPoint(x, y, place.real, place.imag, mat.sd_px))
    return tuple(points)


@lru_cache(maxsize=64)  # every reading of a clip asks for the same one
def camera_from_mat(
    mat: Mat,
    view: View,
    hand: Hand,
    width: int,
    height: int,
    facts: CameraFacts | None = None,
    turn: MatTurn = UNSQUARED,
) -> SolvedCamera:
    """The camera that saw a mat, in a right-hander's picture; Unsolved with the reason when none did."""
    known = facts or CameraFacts()
    if known.off_square_deg is not None:  # from the target line, along which the mat lies only nearly
        angle, sd = known.off_square_deg
        known = replace(known, off_square_deg=(angle, math.hypot(sd, turn.sd_deg)))
    seen, told = (mat, known) if hand == "right" else (mat.mirrored(width), known.mirrored(width))
    return solve_camera(floor_points(seen, view, turn.off_deg), view, width, height, told)
