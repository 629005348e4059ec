"""Writes swing/doubts/usual_swings.py: how the marks of many made-up golfers go together over a swing."""

from __future__ import annotations

import textwrap
from collections.abc import Iterator

import numpy as np

from tropometer.golfer.rotations import Floats
from tropometer.swing.doubts.body import NAMES, SCALE
from tropometer.swing.scene.hangs_on import HANGS_ON
from tropometer.swing.scene.usual import FOOT, part_of

WAYS = 16
# How much a mark counts when ways are looked for: feet tell more than their size, a club less.
COUNTS = {
    "club_head": 0.15,
    "ball": 0.05,
    "grip": 0.5,
    "grip_butt": 0.5,
    "wrist": 0.4,
    "elbow": 0.4,
    "ankle": 2.0,
}
COUNTS |= dict.fromkeys(FOOT, 2.0)
STRUCK = 0.3  # of that, for a club after impact
HEAD = '''"""How the marks of a swing go together: mean places, ways in which golfers differ, what is left.

Written by `./tropo golfer --usual` from {count} made-up golfers of every school, fault and club: common
practice, no source. In ten-thousandths of stature, checkpoint by checkpoint along T, B and U.
"""

'''
ABOUT = {
    "MEAN": "Where a mark is (9, 3).",
    "WAYS": "One standard deviation of each way in which golfers differ (9, 3, ways).",
    "REST": "One standard deviation of what the ways leave, beside what the mark hangs on (9, 3).",
}


def text_of(swings: Floats) -> Iterator[str]:
    """The file's text from places (n, marks, 9, 3) of n golfers, in statures and the order of `NAMES`."""
    swings = _ball_lies(swings)
    mean, beside = swings.mean(axis=0), swings - swings.mean(axis=0)
    weights = _weights()
    weighed = (beside * weights).reshape(len(swings), -1)
    along, spread = _ways(weighed)
    ways = np.moveaxis((along * spread[:, None]).reshape(WAYS, *mean.shape) / weights, 0, -1)
    tables = {"MEAN": mean, "WAYS": ways, "REST": _rest(_left(weighed).reshape(beside.shape) / weights)}
    yield HEAD.format(count=len(swings))
    for table, values in tables.items():
        yield f"# {ABOUT[table]}\n{table}: dict[str, str] = {{\n"
        for name, of_mark in zip(NAMES, values, strict=True):
            numbers = " ".join(str(round(each)) for each in (of_mark * SCALE).ravel())
            lines = "\n".join(f'        "{line} "' for line in textwrap.wrap(numbers, 98))
            yield f'    "{name}": (\n{lines}\n    ),\n'
        yield "}\n"


def _ball_lies(swings: Floats) -> Floats:
    """A ball is looked for where it lay at address."""
    swings = swings.copy()
    ball = NAMES.index("ball")
    swings[:, ball] = swings[:, ball, :1]
    return swings


def _weights() -> Floats:
    weights = np.ones((len(NAMES), 9, 3))
    for row, name in enumerate(NAMES):
        weights[row] = COUNTS.get(part_of(name), 1.0)
    weights[NAMES.index("club_head"), 7:] *= STRUCK
    return weights


def _ways(weighed: Floats) -> tuple[Floats, Floats]:
    """The first ways (WAYS, values) in which golfers (n, values) differ, and their standard deviations."""
    _, spread, along = np.linalg.svd(weighed, full_matrices=False)
    return along[:WAYS], spread[:WAYS] / np.sqrt(len(weighed))


def _left(weighed: Floats) -> Floats:
    """What the ways of one half of the golfers leave of the other half."""
    left = np.empty_like(weighed)
    half = len(weighed) // 2
    for known, asked in ((slice(0, half), slice(half, None)), (slice(half, None), slice(0, half))):
        along, _ = _ways(weighed[known])
        left[asked] = weighed[asked] - weighed[asked] @ along.T @ along
    return left


def _rest(left: Floats) -> Floats:
    rows = {name: left[:, row] for row, name in enumerate(NAMES)}
    beside = dict(rows)
    for name, parents in HANGS_ON.items():
        for parent, share in parents.items():
            beside[name] = beside[name] - share * rows[parent]
    return np.array([beside[name].std(axis=0) for name in NAMES])
