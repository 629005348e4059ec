"""What is usual where nobody measured: how far from the camera a mark lies, how fast it moves.

All of it common practice, no source; the tables are those of the made-up golfers.
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.usual_places import USUAL

STATURE_M = 1.75
# One standard deviation of where a mark lies toward or away from a camera, shares of stature, by part.
_SPREAD = {
    "heel": 0.012,
    "toe": 0.016,
    "foot_outer": 0.014,
    "foot_inner": 0.014,
    "ankle": 0.014,
    "knee": 0.022,
    "hip": 0.018,
    "hip_edge": 0.024,
    "seat": 0.024,
    "sternum": 0.022,
    "neck": 0.022,
    "head": 0.024,
    "shoulder": 0.026,
    "ball": 0.05,
    "grip": 0.03,
    "grip_butt": 0.03,
}
_OTHER_SPREAD = 0.06
ALONG_SPREAD = 0.03  # of stature: stances are wider and narrower, and pelves go farther or not at all
SPEED_SPREAD = 1.3  # others move up to so much faster than the table says


FOOT = ("heel", "toe", "foot_outer", "foot_inner")
LEG = ("hip", "hip_edge", "knee", "ankle", *FOOT)


def kept_as(name: str, axis: int) -> str:
    """What shares a mark's unusual place along T (0) or B (1) at all moments.

    Along the target line a whole leg goes with its stance; toward the ball a foot does but for its toe, which
    goes with the flare; else a mark by itself.
    """
    side, part = name.partition("_")[0], part_of(name)
    if axis == 0 and part in LEG:
        return f"{side} leg"
    return f"{side} foot" if part in FOOT and part != "toe" else name.replace("_", " ")


def share_kept(name: str, axis: int) -> float:
    """How much of the variance of that place is the same at all moments: feet stand, the rest turns."""
    if axis == 0 and part_of(name) in LEG:
        return 0.8
    return 0.85 if part_of(name) in FOOT else 0.5


@lru_cache(maxsize=64)
def shares_kept(names: tuple[str, ...]) -> Array:
    """`share_kept` of several marks along T and B (2, marks)."""
    return np.array([[share_kept(name, axis) for name in names] for axis in (0, 1)])


@lru_cache(maxsize=64)
def spreads_m(names: tuple[str, ...], stature_m: float) -> Array:
    """`spread_m` of several marks along T and B (2, marks)."""
    return np.array([[spread_m(name, axis, stature_m) for name in names] for axis in (0, 1)])


def part_of(name: str) -> str:
    """A mark's part of the body: `lead_hip` is a hip."""
    return name.removeprefix("lead_").removeprefix("trail_")


def usual(names: tuple[str, ...], moment: Array, stature_m: float) -> tuple[Array, Array]:
    """Where marks usually are, and how fast: metres (3, marks, n) and metres a second (3, marks, n).

    `moment` (n,) counts checkpoints: 3 is the top, 3.5 half-way from there to lead arm level down.
    """
    table = _table(names)
    moment = np.clip(moment, 0, table.shape[2] - 1)
    before = np.minimum(moment.astype(int), table.shape[2] - 2)
    both = table[..., before] + (moment - before) * (table[..., before + 1] - table[..., before])
    return both[:3] * stature_m, both[3:] * stature_m


@lru_cache(maxsize=64)
def _table(names: tuple[str, ...]) -> Array:
    """Places and speeds (6, marks, checkpoints), shares of stature."""
    return np.moveaxis(np.array([USUAL[name] for name in names]).reshape(len(names), -1, 6), -1, 0)


def spread_m(name: str, axis: int, stature_m: float) -> float:
    """One standard deviation of that place along T (0) or B (1), metres."""
    own = _SPREAD.get(part_of(name), _OTHER_SPREAD)
    return stature_m * (max(own, ALONG_SPREAD) if axis == 0 else own)
