"""How far landmarks lie from the marks of their names, and how far they scatter: for either network.

Measured on the made-up golfers from each side (measured_offsets.py), and on one real person who walks,
filmed by four calibrated cameras (open data of Pose2Sim, Demo_SinglePerson, BSD 3-clause): what three cameras
see of a joint, seen from the fourth.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.names import View
from tropometer.swing.proposals.measured_offsets import MEASURED
from tropometer.swing.scene.usual import part_of

Network = Literal["fast", "close"]

# What holds 95 % of the landmarks of a real person along either axis, over 1.96, torso lengths: what is the
# same on all frames of a clip, and what is not. The fast network took left for right for some time, which
# is in its figures. The close one's are without the three cameras' own share, a third of the variance that
# the fourth sees; then wider by three tenths, the wrists' by one, since one person says little of others.
REAL_PEOPLE: dict[Network, dict[str, tuple[float, float]]] = {
    "fast": {
        "hip": (0.0, 0.135),
        "knee": (0.0, 0.06),
        "ankle": (0.0, 0.055),
        "heel": (0.0, 0.07),
        "toe": (0.0, 0.08),
    },
    "close": {
        "shoulder": (0.016, 0.022),
        "elbow": (0.029, 0.038),
        "wrist": (0.015, 0.055),
        "hip": (0.029, 0.028),
        "knee": (0.018, 0.048),
        "ankle": (0.018, 0.025),
        "heel": (0.025, 0.034),
        "toe": (0.038, 0.045),
    },
}


@dataclass(frozen=True, eq=False)
class Offset:
    """Where a landmark lies beside its mark at the nine checkpoints (9, 2), torso lengths.

    Toward the lead or the ball's side, and down. `shared` is one standard deviation of what is left that is
    the same on all frames of a clip, `own` of what is not, along each axis.
    """

    beside: Array
    shared: float
    own: float


def offset_of(network: Network, view: View, name: str) -> Offset | None:
    """How a network misses a mark from a side; None of a mark that it says too little of."""
    measured = MEASURED[network].get((view, name))
    if measured is None:
        return None
    shared, own, beside = measured
    real_shared, real_own = REAL_PEOPLE[network].get(part_of(name), (0.0, 0.0))
    return Offset(np.array(beside), max(shared, real_shared), max(own, real_own))
