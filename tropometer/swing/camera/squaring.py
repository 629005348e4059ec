"""How far the mat lies turned off the target line, by a stick that somebody laid along the line at the ball.

All clips of a swing see the same mat, so what one clip's stick tells holds for all. Feet and ball tell
nothing of it: players' toe lines differ by far more than mats do.
"""

from __future__ import annotations

import math
from collections.abc import Iterable

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.camera.mat import MAT_OFF_DEG, UNSQUARED, MatTurn, camera_from_mat
from tropometer.swing.camera.pinhole import Pinhole
from tropometer.swing.camera.solve import SolvedCamera, Unsolved
from tropometer.swing.names import Hand
from tropometer.swing.record.calibration import FloorLength
from tropometer.swing.record.clip import Clip

LAID_DEG = 1.0  # how surely a stick is laid along the line by looking along it; common practice, no source
STRANGE = 3.5  # standard deviations beyond which the mat was never meant to lie along the line
ACROSS_DEG = 20.0  # beyond which a stick at the ball was not laid along the line
STEP_PX = 1.0


def mat_turn(clips: Iterable[Clip], hand: Hand) -> MatTurn:
    """How the mat of some clips lies, as their sticks at the ball tell; as mats do where there is none."""
    told = [each for clip in clips if (each := _stick_on_mat(clip, hand)) is not None]
    if not told:
        return UNSQUARED
    degrees, sd = np.array(told).T
    weight = 1 / sd**2
    found = -float(np.average(degrees, weights=weight))
    unsure = math.hypot(LAID_DEG, 1 / math.sqrt(weight.sum()))
    if abs(found) > ACROSS_DEG:
        return UNSQUARED
    if abs(found) > STRANGE * math.hypot(unsure, MAT_OFF_DEG):
        return MatTurn(found, unsure)
    trust = MAT_OFF_DEG**2 / (MAT_OFF_DEG**2 + unsure**2)
    return MatTurn(trust * found, math.sqrt(trust) * unsure)


def _stick_on_mat(clip: Clip, hand: Hand) -> tuple[float, float] | None:
    """The angle of a clip's stick at the ball on its mat, and one standard deviation, degrees."""
    stick = clip.camera_facts.length
    if (
        clip.mat is None
        or stick is None
        or clip.known_length is None
        or clip.known_length.place != "ball_line"
    ):
        return None
    try:
        solved = camera_from_mat(clip.mat, clip.view, hand, clip.width, clip.height, clip.camera_facts)
    except Unsolved:
        return None
    seen = stick if hand == "right" else stick.mirrored(clip.width)
    degrees = _degrees(solved.camera, np.array([seen.a, seen.b]))
    unsure = _by_clicks(solved, seen, degrees)
    return (degrees, unsure) if math.isfinite(degrees + unsure) else None


def _by_clicks(solved: SolvedCamera, stick: FloorLength, degrees: float) -> float:
    """What the clicks on the stick's ends and the camera's own error do to its angle, degrees."""
    ends = np.array([stick.a, stick.b])
    steps = STEP_PX * np.eye(4).reshape(4, 2, 2)
    clicked = [(_degrees(solved.camera, ends + step) - degrees) / STEP_PX * stick.sd_px for step in steps]
    return math.hypot(*clicked, *(_degrees(camera, ends) - degrees for camera in solved.moved))


def _degrees(camera: Pinhole, ends: Array) -> float:
    """How far a line through two pixels on the floor points from the mat's own toward the ball, degrees."""
    a, b = camera.on_plane(ends, 2, 0.0)
    along = b - a if b[0] > a[0] else a - b
    return math.degrees(math.atan2(along[1], along[0]))
