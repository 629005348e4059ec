"""Where the hands are when they do not swing a club: on the body, or on a club that is held against it.

Places are given on the body at rest (x toward the lead side, y up, z ahead, metres) and go with a bone.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from tropometer.golfer.body import Body
from tropometer.golfer.feet import Letter
from tropometer.golfer.rotations import TARGET, UP, Floats

Hold = Literal["folded", "hips", "belt", "thighs", "breastbone", "shoulders"]
CHEST, PELVIS = "spine_03", "pelvis"
NEAR_M = 0.04  # the surface at a place is that of the skin and cloth so near to it
HAND_THICK_M = 0.035
GRIP_UP_M = 0.085  # from the middle of a gripping fist to its wrist


@dataclass(frozen=True)
class Placed:
    """A wrist's place, how its hand is turned, and where the elbow points, on the bone it goes with."""

    bone: str
    wrist: Floats
    fingers: Floats
    palm: Floats
    pole: Floats
    curl: float


@dataclass(frozen=True)
class ClubAt:
    """Where a club is held: its butt, and which way its shaft goes, on the bone it goes with."""

    bone: str
    butt: Floats
    shaft: Floats


def hands(hold: Hold, body: Body) -> dict[Letter, Placed]:
    """Both hands of a hold."""
    both: tuple[Letter, Letter] = ("l", "r")
    return {side: _placed(hold, body, side) for side in both}


def club_at(hold: Hold, body: Body, length_m: float) -> ClubAt | None:
    """The club of a hold that has one."""
    across = np.array([1.0, 0, 0])
    if hold == "thighs":
        return ClubAt(PELVIS, _thighs(body) + across * length_m / 2, -across)
    if hold == "shoulders":
        return ClubAt(CHEST, _collar(body) - across * length_m / 2, across)
    if hold == "breastbone":
        top = _breastbone(body, 0.04)
        return ClubAt(CHEST, top + np.array([0, 0.12 - length_m, 0.02]), np.array([0.0, 1, 0]))
    return None


def _placed(hold: Hold, body: Body, side: Letter) -> Placed:
    sign = 1.0 if side == "l" else -1.0

    def facing(x: float, y: float, z: float) -> Floats:
        return np.array([sign * x, y, z])

    if hold in ("folded", "shoulders"):
        far = body.head[f"upperarm_{'r' if side == 'l' else 'l'}"]
        above = 0.05 if side == "l" else 0.0  # one arm lies over the other
        low = -0.10 - above if hold == "folded" else -0.05
        place = far + facing(0.10, low, 0)
        place[2] = _ahead(body, place) + HAND_THICK_M * (2 if side == "r" else 1)
        fingers, palm = facing(-0.85, 0.5, -0.15), facing(0.1, 0.1, -1)
        return Placed(CHEST, place, fingers, palm, facing(0.5, -1, 0.5), 0.25)
    if hold == "thighs":
        grip = _thighs(body) + facing(0.24, 0, 0)
        return Placed(
            PELVIS,
            grip + np.array([0, GRIP_UP_M, 0.03]),
            facing(0, -1, -0.1),
            facing(0, -0.1, -1),
            facing(0.8, -0.2, -0.8),
            0.9,
        )
    if hold == "breastbone":
        grip = _breastbone(body, 0.10 if side == "l" else 0.20)
        return Placed(
            CHEST,
            grip + facing(0.075, 0, 0.045),
            facing(-1, 0.1, -0.1),
            facing(0, 0, -1),
            facing(0.7, -1, 0.2),
            0.8,
        )
    if hold == "belt" and side == "r":
        place = body.head["thigh_r"] + [-0.02, 0.16, 0]
        place[2] = _behind(body, place) - 0.03
        return Placed(PELVIS, place, facing(-0.3, -1, 0.0), facing(0, 0, 1), facing(1, 0.2, -0.8), 0.1)
    place = body.head[f"thigh_{side}"] + [0, 0.13, 0.02]
    place[0] = sign * (_aside(body, place, sign) + 0.02)
    return Placed(PELVIS, place, facing(-0.35, -0.55, 0.75), facing(-1, 0, -0.2), facing(1, 0.1, -0.7), 0.2)


def _thighs(body: Body) -> Floats:
    """In front of the thighs, just under the hips."""
    place = (body.head["thigh_l"] + body.head["thigh_r"]) / 2 + [0, -0.06, 0]
    place[2] = max(_ahead(body, place + x * TARGET) for x in (-0.1, 0.0, 0.1)) + 0.075
    return place


def _collar(body: Body) -> Floats:
    """In front of the shoulders."""
    place = (body.head["upperarm_l"] + body.head["upperarm_r"]) / 2 + [0, -0.03, 0]
    place[2] = _ahead(body, place - 0.05 * UP) + 0.02
    return place


def _breastbone(body: Body, below: float) -> Floats:
    """In front of the breastbone, so far below the shoulders."""
    place = (body.head["upperarm_l"] + body.head["upperarm_r"]) / 2 + [0, -below, 0]
    place[2] = _ahead(body, (body.head["upperarm_l"] + body.head["upperarm_r"]) / 2 + [0, -0.12, 0]) + 0.01
    return place


def _ahead(body: Body, place: Floats) -> float:
    near = np.linalg.norm(body.places[:, :2] - place[:2], axis=1) < NEAR_M
    return float(body.places[near, 2].max())


def _behind(body: Body, place: Floats) -> float:
    near = np.linalg.norm(body.places[:, :2] - place[:2], axis=1) < NEAR_M
    return float(body.places[near, 2].min())


def _aside(body: Body, place: Floats, sign: float) -> float:
    near = np.linalg.norm(body.places[:, 1:] - place[1:], axis=1) < NEAR_M
    return float((body.places[near, 0] * sign).max())
