"""What is usual where nobody measured: how far from the camera a mark lies, how fast it moves.

All of it common practice, no source; the tables are those of many made-up golfers.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.scene.usual_places import HANGING, KEPT, USUAL

# Grown men and women together (NHANES 2015-2018; from memory).
STATURE_M, STATURE_SD_M = 1.70, 0.10
WIDER = 1.5  # people differ by so much more than the made-up golfers do
# One standard deviation is at least so much, of stature: the golfers have one kind of outline and of neck.
LEAST_SPREAD = 0.010
LEAST_SPREADS = {
    "hip_edge": 0.025, "seat": 0.02, "head": 0.02, "sternum": 0.015, "grip": 0.07, "grip_butt": 0.03,
    "foot_outer": 0.016, "foot_inner": 0.016,
}  # fmt: skip
# After impact some hold their posture, some stand up, and the hands go anywhere: so many times as much.
TALLER = {"neck": 4.0, "head": 6.0, "sternum": 4.0, "shoulder": 4.0, "grip": 4.0, "grip_butt": 4.0}
TALLER_FROM = (5.0, 7.0)  # from shaft level down to shaft level through
# What is not a foot moves at least so fast after address, in shares of stature a second.
LEAST_SPEED = 0.08
SPEED_SPREAD = 1.3  # others move up to so much faster than the table says
BESIDE_M = 0.01  # how unsure the place is that another hangs on


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


@lru_cache(maxsize=64)
def shares_kept(names: tuple[str, ...]) -> Array:
    """How much of the variance of marks' places along T and B is the same at all moments (2, marks)."""
    return np.array([KEPT[name] for name in names]).reshape(-1, 2).T


def part_of(name: str) -> str:
    """A mark's part of the body: `lead_hip` is a hip."""
    return name.removeprefix("lead_").removeprefix("trail_")


def usual(names: tuple[str, ...], moment: Array, stature_m: float) -> tuple[Array, Array]:
    """Where marks usually are, and how fast: metres (3, marks, n) and metres a second (3, marks, n).

    `moment` (n,) counts checkpoints: 3 is the top, 3.5 half-way from there to lead arm level down.
    """
    found = _between(_table(names)[:6], moment)
    moving = np.array([part_of(name) not in FOOT for name in names])[:, None] & (moment > 0)
    speeds = np.where(moving, np.copysign(np.maximum(np.abs(found[3:]), LEAST_SPEED), found[3:]), found[3:])
    return found[:3] * stature_m, speeds * stature_m


def spreads_m(names: tuple[str, ...], moment: Array, stature_m: float) -> Array:
    """One standard deviation of where marks are along T and B (2, marks, n), metres."""
    return _spread(names, _between(_table(names)[6:8], moment), moment, stature_m)


def spread_m(name: str, axis: int, stature_m: float) -> float:
    """One standard deviation of that place along T (0) or B (1) at address, metres."""
    return float(spreads_m((name,), np.zeros(1), stature_m)[axis, 0, 0])


@dataclass(frozen=True, eq=False, kw_only=True)
class Hanging:
    """Marks that hang on others, and at n moments how far beside the middle of those they lie along T and B.

    Metres (2, marks, n), with one standard deviation of either (2, marks, n).
    """

    names: tuple[str, ...]
    parents: tuple[tuple[str, ...], ...]
    beside: Array
    spread: Array


def hanging(names: tuple[str, ...], moment: Array, stature_m: float) -> Hanging:
    """Those of some marks that hang on others of them: these say more of a place than what is usual."""
    found, parents, table = _hanging_table(names)
    rows = _between(table, moment)
    spread = np.hypot(_spread(found, rows[2:], moment, stature_m), BESIDE_M)
    return Hanging(names=found, parents=parents, beside=rows[:2] * stature_m, spread=spread)


@lru_cache(maxsize=64)
def _hanging_table(names: tuple[str, ...]) -> tuple[tuple[str, ...], tuple[tuple[str, ...], ...], Array]:
    found = tuple(name for name in names if name in HANGING and set(HANGING[name][0]) <= set(names))
    rows = np.array([HANGING[name][1] for name in found]).reshape(len(found), len(CHECKPOINTS), 4)
    return found, tuple(HANGING[name][0] for name in found), np.moveaxis(rows, -1, 0)


def _spread(names: tuple[str, ...], shares: Array, moment: Array, stature_m: float) -> Array:
    least = np.array([LEAST_SPREADS.get(part_of(name), LEAST_SPREAD) for name in names])[:, None]
    taller = np.array([TALLER.get(part_of(name), 1.0) for name in names])[:, None]
    later = np.interp(moment, TALLER_FROM, (0.0, 1.0))
    least = least * (1 + (taller - 1) * later)
    return np.asarray(np.maximum(shares * WIDER, least) * stature_m)


def _between(table: Array, moment: Array) -> Array:
    """Rows (k, marks, checkpoints) at moments (k, marks, n)."""
    moment = np.clip(moment, 0, table.shape[2] - 1)
    before = np.minimum(moment.astype(int), table.shape[2] - 2)
    found: Array = table[..., before] + (moment - before) * (table[..., before + 1] - table[..., before])
    return found


@lru_cache(maxsize=64)
def _table(names: tuple[str, ...]) -> Array:
    """Places, speeds and spreads (8, marks, checkpoints), shares of stature."""
    return np.moveaxis(np.array([USUAL[name] for name in names]).reshape(len(names), -1, 8), -1, 0)
