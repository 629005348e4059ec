"""How unsure a place is along the way that no view shows: by what is usual, and by where feet stand."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.names import CHECKPOINTS, PLANES, Checkpoint, Plane
from tropometer.swing.scene.eye import FEET, SOLE_SD_M
from tropometer.swing.scene.usual import spreads_m, usual

UNKNOWN_M = 3.0  # a standard deviation that says nothing
BALL_LIES = CHECKPOINTS.index("impact") - 1  # up to here the ball lies where it lay
BALL_U_SD_M = 0.012  # how high: on the floor, or on a tee
STANDING_U_M = 0.02  # a lead sole after address, while nobody says that it rises
# Checkpoints at which a foot still stands where it stood, so that its sole's height is known.
STANDS: dict[str, tuple[Checkpoint, ...]] = {
    "lead_toe": ("address", "shaft_back", "arm_back", "top", "arm_down", "shaft_down", "impact"),
    "trail_toe": CHECKPOINTS,
    "lead_foot_inner": ("address", "shaft_back", "arm_down", "shaft_down", "impact"),
    "trail_foot_inner": ("address", "shaft_back", "arm_back", "top"),
    "lead_foot_outer": ("address", "shaft_back", "arm_down", "shaft_down", "impact"),
    "trail_foot_outer": ("address", "shaft_back", "arm_back", "top"),
    "lead_heel": ("address", "shaft_down", "impact"),
    "trail_heel": ("address", "shaft_back", "arm_back", "top"),
}
STANDING = {name: np.array([at in stands for at in CHECKPOINTS]) for name, stands in STANDS.items()}


def spreads_unseen(
    names: tuple[str, ...], through: Array, tall_m: float, tall_sd_m: float, seen: Mapping[Plane, Flags]
) -> Array:
    """How unsure usual places are (3, marks, n), one standard deviation in metres.

    Only where no view tells does it count: `seen` says where each plane shows a mark (marks, n).
    """
    spreads = np.full((3, len(names), len(through)), UNKNOWN_M)
    own = spreads_m(names, through, tall_m)
    if tall_sd_m:
        own = np.hypot(own, tall_sd_m / tall_m * usual(names, through, tall_m)[0][:2])
    for axis, plane in enumerate(PLANES):
        spreads[axis] = np.where(seen.get(plane, False), UNKNOWN_M, own[axis])
    nearest = np.rint(through)
    near = np.abs(through - nearest) < 0.5
    for row, name in enumerate(names):
        if name in FEET:
            stands = near & STANDING[name][nearest.astype(int)]
            spreads[2, row, stands] = STANDING_U_M
            spreads[2, row, stands & (nearest == 0)] = SOLE_SD_M
        if name == "ball":
            spreads[2, row, near & (nearest <= BALL_LIES)] = BALL_U_SD_M
    return spreads
