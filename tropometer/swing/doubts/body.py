"""How marks go together over a whole swing: where they usually are, how golfers differ, what hangs on what.

A point distribution model (Cootes, Taylor, Cooper and Graham 1995, Computer Vision and Image Understanding
61:38-59; from memory) of all marks at all nine checkpoints: a mean, and the few ways in which most of what
golfers differ by can be said. What those ways leave is a mark's own, or that of the mark it hangs on.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.doubts import usual_swings
from tropometer.swing.names import CHECKPOINTS, MARKS
from tropometer.swing.scene.hangs_on import HANGS_ON
from tropometer.swing.scene.usual import FOOT, part_of

NAMES = tuple(sorted(MARKS))
SCALE = 1e4  # the table's whole numbers to a stature
LEGS = ("hip", "hip_edge", "seat", "knee", "ankle", *FOOT)
CLUB = ("grip", "grip_butt", "club_head")
# People differ by so much more than the made-up golfers do, in their ways and in what is left; at shaft level
# through and at the finish, where anything goes, by so much more again.
WIDER_WAYS, WIDER_REST = 2.0, 1.8
WIDER = {
    "shoulder": 1.5, "head": 1.7, "neck": 1.2, "sternum": 1.6, "seat": 0.7, "hip_edge": 0.8,
    "grip": 1.2, "club_head": 2.0,
}  # fmt: skip
AFTER_IMPACT = CHECKPOINTS.index("impact") + 1
LATER = {"leg": (1.6, 3.0), "rest": (2.0, 3.0)}
LEAST_REST, LEAST_CLUB = 0.004, 0.03
# What a mark's place differs by at all moments, by build and by custom.
OWN = {"leg": 0.01, "grip_butt": 0.005, "ball": 0.005, "club_head": 0.01, "rest": 0.02}


@dataclass(frozen=True, eq=False)
class Body:
    """In statures, for m marks in the order of `NAMES` at the nine checkpoints, along T, B and U.

    Mean (m, 9, 3), ways (m, 9, 3, K), a standard deviation of what is left of each mark beside what it hangs
    on (m, 9, 3), and `carries` (m, m): how much of each such rest a mark has.
    """

    mean: Array
    ways: Array
    rest: Array
    carries: Array
    own: Array  # (m,)


@lru_cache(maxsize=1)
def usual_body() -> Body:
    """The body of the table, widened to what people are."""
    shape = (len(CHECKPOINTS), 3)
    mean = np.array([_numbers(usual_swings.MEAN[name]).reshape(shape) for name in NAMES])
    ways = np.array([_numbers(usual_swings.WAYS[name]).reshape(*shape, -1) for name in NAMES])
    left = np.array([_numbers(usual_swings.REST[name]).reshape(shape) for name in NAMES])
    wider = np.array([WIDER.get(part_of(name), 1.0) for name in NAMES])[:, None, None]
    least = np.array([LEAST_CLUB if name == "club_head" else LEAST_REST for name in NAMES])[:, None, None]
    later = np.ones((len(NAMES), len(CHECKPOINTS), 1))
    later[:, AFTER_IMPACT:, 0] = [LATER["leg" if part_of(name) in LEGS else "rest"] for name in NAMES]
    rest = np.hypot(left * WIDER_REST * wider, least) * later
    own = np.array(
        [OWN.get(part_of(name), OWN["leg" if part_of(name) in LEGS else "rest"]) for name in NAMES]
    )
    return Body(mean, ways * WIDER_WAYS, rest, _carries(), own)


def _numbers(text: str) -> Array:
    return np.array(text.split(), float) / SCALE


def _carries() -> Array:
    found: dict[str, Array] = {}

    def of(name: str) -> Array:
        if name not in found:
            found[name] = np.eye(len(NAMES))[NAMES.index(name)]
            for parent, share in HANGS_ON.get(name, {}).items():
                found[name] = found[name] + share * of(parent)
        return found[name]

    return np.array([of(name) for name in NAMES])
