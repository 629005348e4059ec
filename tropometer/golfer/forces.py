"""Forces that belong to a swing: what a mat under each foot would feel.

The vertical force is that of the moving masses (Newton): body segments after de Leva 1996, J Biomech
29:1223 (fractions from memory), and the club. How it is shared between the feet, and where it acts in
each, is the pressure style of the settings.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.golfer.motion import Motion, Poses
from tropometer.golfer.rotations import Floats

GRAVITY = 9.80665
STEP_S = 2e-3  # of the central difference that gives accelerations
# Segment: mass share for a woman and a man, then where its mass centre lies from its upper end.
HEAD = (0.0668, 0.0694)
TRUNK = (0.4257, 0.4346, 0.43)
LIMBS: dict[str, tuple[float, float, float]] = {
    "upper arm": (0.0255, 0.0271, 0.577),
    "forearm": (0.0138, 0.0162, 0.457),
    "hand": (0.0056, 0.0061, 0.0),
    "thigh": (0.1478, 0.1416, 0.410),
    "shank": (0.0481, 0.0433, 0.446),
    "foot": (0.0129, 0.0137, 0.440),
}
CLUB_KG = {"wedge": 0.46, "mid_iron": 0.43, "driver": 0.32}
CLUB_CENTRE = 0.72  # of its length from the butt


@dataclass(frozen=True)
class Pressure:
    """What the mat feels at n instants: newtons under each foot, and the place in each foot (n, 2).

    A place is heel 0 to toe 1, inner 0 to outer 1; `floor` is the same in the range (target, ball), metres.
    """

    lead_force_n: Floats
    trail_force_n: Floats
    lead_place: Floats
    trail_place: Floats
    lead_floor: Floats
    trail_floor: Floats


def mass_centre(motion: Motion, poses: Poses, man: float, mass_kg: float) -> Floats:
    """Mass centre (n, 3) of body and club; `man` blends the fractions from 0, a woman, to 1."""

    def share(pair: tuple[float, ...]) -> float:
        return pair[0] + man * (pair[1] - pair[0])

    shoulders = (poses.arms["lead"].shoulder + poses.arms["trail"].shoulder) / 2
    pieces = [
        (share(HEAD), poses.heads["head"] + (poses.heads["head"] - poses.heads["neck_01"]) * 0.5),
        (share(TRUNK), shoulders + TRUNK[2] * (poses.pelvis.middle - shoulders)),
    ]
    for side in ("lead", "trail"):
        arm, leg, foot = poses.arms[side], poses.legs[side], poses.feet[side]
        ends = {
            "upper arm": (arm.shoulder, arm.elbow),
            "forearm": (arm.elbow, arm.wrist),
            "hand": (poses.club.grip, poses.club.grip),
            "thigh": (leg.hip, leg.knee),
            "shank": (leg.knee, leg.ankle),
            "foot": (foot.heel, foot.toe),
        }
        for name, (upper, lower) in ends.items():
            pieces.append((share(LIMBS[name]), upper + LIMBS[name][2] * (lower - upper)))
    body = sum(part * place for part, place in pieces) / sum(part for part, _ in pieces)
    club_kg = CLUB_KG[motion.settings.club]
    club = poses.club.butt + CLUB_CENTRE * motion.club_length_m * poses.club.shaft
    centre: Floats = (mass_kg * body + club_kg * club) / (mass_kg + club_kg)
    return centre


def pressure(motion: Motion, times_s: Floats, man: float, mass_kg: float) -> Pressure:
    """Forces and their places at instants (n,)."""
    steps = np.array([-1.0, 0.0, 1.0]) * STEP_S
    around = motion.poses((times_s[:, None] + steps).ravel())
    heights = mass_centre(motion, around, man, mass_kg)[:, 1].reshape(-1, 3)
    acceleration = (heights[:, 0] - 2 * heights[:, 1] + heights[:, 2]) / STEP_S**2
    total = (mass_kg + CLUB_KG[motion.settings.club]) * (GRAVITY + acceleration)
    values, poses = motion.values(times_s), motion.poses(times_s)
    places, floors = {}, {}
    for side in ("lead", "trail"):
        along, across = values[f"{side}_cop_toe"], values[f"{side}_cop_outer"]
        foot = poses.feet[side]
        width = foot.outer - foot.inner
        floor = foot.heel + along[:, None] * (foot.toe - foot.heel) + (across[:, None] - 0.5) * width
        places[side], floors[side] = np.stack([along, across], 1), floor[:, [0, 2]]
    lead = values["lead_share"] * total
    return Pressure(lead, total - lead, places["lead"], places["trail"], floors["lead"], floors["trail"])
