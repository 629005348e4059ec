"""A stranger's body: how long and broad it is, metres.

Shares of stature are those of Drillis and Contini (1966), as Winter prints them (Biomechanics and Motor
Control of Human Movement, 4th ed., figure 4.1; from memory): people differ from them by 4 % of each length,
which is about what is left of the lengths in ANSUR II when stature is taken out (from memory). Hip joints lie
0.107 of stature apart, the breadth and the depth of a clothed pelvis are common practice, no source.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

DIFFER = 0.04
SHARES = {
    "thigh": 0.245,
    "shank": 0.246,
    "ankle_height": 0.039,
    "foot": 0.152,
    "foot_breadth": 0.055,
    "hip_joints": 0.107,
    "pelvis_breadth": 0.200,  # over the trousers
    "pelvis_depth": 0.140,
    "trunk": 0.300,  # from between the hip joints to the base of the neck
    "shoulders": 0.215,  # joint to joint
    "upper_arm": 0.186,
    "forearm": 0.146,
    "head": 0.100,  # from the base of the neck to the middle of the head
    "chest": 0.065,  # from the spine to the breastbone
}
SHOE_M = (0.025, 0.012, 0.022)  # longer and broader than the foot, and how thick its sole is
# Mean and standard deviation of stature of men and women, metres (NHANES 2015-2018; from memory).
STATURES_M = ((1.755, 0.075), (1.615, 0.070))


@dataclass(frozen=True)
class Body:
    """Lengths by their names in `SHARES`, metres; shoes are worn."""

    stature_m: float
    lengths: dict[str, float]

    def __getitem__(self, name: str) -> float:
        return self.lengths[name]


def draw_body(random: np.random.Generator) -> Body:
    """Somebody, a man or a woman."""
    mean, sd = STATURES_M[random.integers(2)]
    stature = float(np.clip(random.normal(mean, sd), 1.45, 2.0))
    lengths = {name: stature * share * random.normal(1, DIFFER) for name, share in SHARES.items()}
    longer, broader, sole = SHOE_M
    lengths["foot"] += longer
    lengths["foot_breadth"] += broader
    lengths["ankle_height"] += sole
    return Body(stature, {name: float(length) for name, length in lengths.items()})
