"""How far landmarks lie from the marks of their names, and how far they scatter: for either network.

Measured on the made-up golfers from each side, and on one real person who walks, filmed by four calibrated
cameras (open data of Pose2Sim, Demo_SinglePerson, BSD 3-clause): what three cameras see of a joint, seen from
the fourth.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tropometer.swing.names import View
from tropometer.swing.proposals.close_offsets import CLOSE_OFFSETS
from tropometer.swing.scene.usual import part_of


@dataclass(frozen=True)
class Offset:
    """Where a landmark lies beside its mark, torso lengths: toward the lead or the ball's side, and down.

    `sd` is the spread that is left along each axis.
    """

    aside: float
    down: float
    sd: float


Network = Literal["fast", "close"]

# Of the fast network. Medians over the demo clips and, from behind and up the line, over golfers of either
# hand drawn for the purpose; what is left: the larger of 1.48 median deviations and what holds 95 %, along
# the axis on which it is larger. A hip's edge has the spread across the outline: its height is not read.
OFFSETS: dict[tuple[View, str], Offset] = {
    ("face_on", "lead_shoulder"): Offset(0.043, -0.075, 0.074),
    ("face_on", "trail_shoulder"): Offset(-0.054, -0.078, 0.106),
    ("face_on", "lead_elbow"): Offset(-0.008, 0.004, 0.136),
    ("face_on", "trail_elbow"): Offset(-0.005, -0.104, 0.186),
    ("face_on", "lead_wrist"): Offset(-0.010, 0.036, 0.182),
    ("face_on", "trail_wrist"): Offset(-0.018, -0.024, 0.138),
    ("face_on", "lead_knee"): Offset(-0.001, 0.029, 0.028),
    ("face_on", "trail_knee"): Offset(-0.002, 0.012, 0.032),
    ("face_on", "lead_ankle"): Offset(-0.007, -0.020, 0.017),
    ("face_on", "trail_ankle"): Offset(-0.027, -0.002, 0.024),
    ("face_on", "lead_heel"): Offset(-0.013, -0.067, 0.023),
    ("face_on", "trail_heel"): Offset(-0.024, -0.028, 0.063),
    ("face_on", "lead_toe"): Offset(-0.016, -0.085, 0.031),
    ("face_on", "trail_toe"): Offset(-0.003, -0.086, 0.049),
    ("down_the_line", "lead_shoulder"): Offset(0.041, -0.061, 0.047),
    ("down_the_line", "trail_shoulder"): Offset(-0.019, -0.118, 0.082),
    ("down_the_line", "lead_elbow"): Offset(-0.002, -0.008, 0.077),
    ("down_the_line", "trail_elbow"): Offset(0.008, -0.081, 0.094),
    ("down_the_line", "lead_wrist"): Offset(-0.009, 0.008, 0.089),
    ("down_the_line", "trail_wrist"): Offset(-0.027, -0.021, 0.072),
    ("down_the_line", "lead_hip"): Offset(0.098, 0.049, 0.044),
    ("down_the_line", "trail_hip"): Offset(0.004, 0.009, 0.045),
    ("down_the_line", "lead_knee"): Offset(0.003, 0.020, 0.041),
    ("down_the_line", "trail_knee"): Offset(-0.016, -0.034, 0.033),
    ("down_the_line", "lead_ankle"): Offset(0.008, 0.003, 0.032),
    ("down_the_line", "trail_ankle"): Offset(-0.026, -0.044, 0.021),
    ("down_the_line", "lead_heel"): Offset(0.022, -0.047, 0.045),
    ("down_the_line", "trail_heel"): Offset(0.006, -0.065, 0.058),
    ("down_the_line", "lead_toe"): Offset(-0.055, 0.038, 0.098),
    ("down_the_line", "trail_toe"): Offset(-0.083, -0.114, 0.044),
    ("face_on", "lead_hip"): Offset(-0.007, 0.003, 0.059),
    ("face_on", "trail_hip"): Offset(-0.024, -0.012, 0.043),
    ("face_on", "lead_hip_edge"): Offset(-0.012, -0.022, 0.023),
    ("face_on", "trail_hip_edge"): Offset(-0.001, -0.037, 0.023),
    ("face_on", "lead_foot_outer"): Offset(0.047, -0.036, 0.014),
    ("face_on", "trail_foot_outer"): Offset(-0.036, -0.043, 0.022),
    ("face_on", "lead_foot_inner"): Offset(-0.029, -0.049, 0.023),
    ("face_on", "trail_foot_inner"): Offset(0.021, -0.049, 0.019),
    ("face_on", "neck"): Offset(0.033, 0.162, 0.083),
    ("face_on", "sternum"): Offset(0.049, 0.144, 0.096),
    ("face_on", "head"): Offset(0.016, 0.087, 0.045),
    ("face_on", "grip"): Offset(0.032, 0.031, 0.113),
    ("down_the_line", "seat"): Offset(-0.005, 0.001, 0.017),
    ("down_the_line", "neck"): Offset(-0.039, 0.121, 0.050),
    ("down_the_line", "head"): Offset(0.021, 0.040, 0.015),
    ("down_the_line", "sternum"): Offset(-0.113, 0.116, 0.073),
    ("down_the_line", "grip"): Offset(0.034, 0.027, 0.078),
    ("down_the_line", "grip_butt"): Offset(0.076, 0.016, 0.102),
    ("down_the_line", "lead_foot_outer"): Offset(0.006, 0.027, 0.059),
    ("down_the_line", "trail_foot_outer"): Offset(-0.024, -0.143, 0.037),
    ("from_behind", "grip"): Offset(0.044, 0.007, 0.281),
    ("from_behind", "head"): Offset(0.003, -0.007, 0.034),
    ("from_behind", "lead_ankle"): Offset(-0.001, 0.000, 0.017),
    ("from_behind", "lead_elbow"): Offset(0.060, -0.067, 0.080),
    ("from_behind", "lead_foot_outer"): Offset(0.033, -0.101, 0.029),
    ("from_behind", "lead_heel"): Offset(0.015, -0.062, 0.021),
    ("from_behind", "lead_hip"): Offset(-0.019, -0.019, 0.053),
    ("from_behind", "lead_hip_edge"): Offset(-0.007, -0.022, 0.025),
    ("from_behind", "lead_knee"): Offset(-0.011, 0.029, 0.020),
    ("from_behind", "lead_shoulder"): Offset(0.022, -0.098, 0.101),
    ("from_behind", "lead_wrist"): Offset(0.042, -0.084, 0.181),
    ("from_behind", "neck"): Offset(0.013, 0.088, 0.077),
    ("from_behind", "trail_ankle"): Offset(-0.012, 0.001, 0.019),
    ("from_behind", "trail_elbow"): Offset(-0.001, -0.127, 0.175),
    ("from_behind", "trail_foot_outer"): Offset(-0.027, -0.083, 0.030),
    ("from_behind", "trail_heel"): Offset(-0.000, -0.046, 0.035),
    ("from_behind", "trail_hip"): Offset(0.017, -0.036, 0.039),
    ("from_behind", "trail_hip_edge"): Offset(0.005, -0.063, 0.025),
    ("from_behind", "trail_knee"): Offset(-0.008, 0.021, 0.029),
    ("from_behind", "trail_shoulder"): Offset(-0.038, -0.112, 0.112),
    ("from_behind", "trail_wrist"): Offset(-0.024, 0.012, 0.190),
    ("up_the_line", "grip"): Offset(0.033, -0.023, 0.144),
    ("up_the_line", "head"): Offset(0.030, 0.029, 0.022),
    ("up_the_line", "lead_ankle"): Offset(-0.010, -0.040, 0.018),
    ("up_the_line", "lead_elbow"): Offset(-0.012, -0.005, 0.083),
    ("up_the_line", "lead_heel"): Offset(-0.007, -0.074, 0.028),
    ("up_the_line", "lead_hip"): Offset(0.022, -0.007, 0.048),
    ("up_the_line", "lead_knee"): Offset(-0.008, -0.022, 0.029),
    ("up_the_line", "lead_shoulder"): Offset(-0.004, -0.098, 0.087),
    ("up_the_line", "lead_toe"): Offset(-0.070, -0.115, 0.036),
    ("up_the_line", "lead_wrist"): Offset(0.006, 0.011, 0.143),
    ("up_the_line", "neck"): Offset(-0.036, 0.086, 0.038),
    ("up_the_line", "seat"): Offset(-0.000, -0.001, 0.019),
    ("up_the_line", "trail_ankle"): Offset(0.001, 0.003, 0.068),
    ("up_the_line", "trail_elbow"): Offset(0.048, -0.072, 0.146),
    ("up_the_line", "trail_heel"): Offset(0.036, -0.020, 0.135),
    ("up_the_line", "trail_hip"): Offset(0.017, -0.010, 0.050),
    ("up_the_line", "trail_knee"): Offset(0.005, -0.018, 0.032),
    ("up_the_line", "trail_shoulder"): Offset(0.020, -0.108, 0.097),
    ("up_the_line", "trail_toe"): Offset(-0.026, -0.018, 0.051),
    ("up_the_line", "trail_wrist"): Offset(-0.034, -0.000, 0.234),
}
# What holds 95 % of the landmarks of a real person along either axis, over 1.96, torso lengths. The fast
# network took left for right for some time, which is in its figures.
REAL_PEOPLE = {"hip": 0.135, "knee": 0.06, "ankle": 0.055, "heel": 0.07, "toe": 0.08}
# The same of the close network: what is the same on all frames of a clip, and what is not. Without the three
# cameras' own share, a third of the variance that the fourth sees; then wider by three tenths, the wrists' by
# one, since one person says little of others.
REAL_PEOPLE_CLOSE = {
    "shoulder": (0.016, 0.022),
    "elbow": (0.029, 0.038),
    "wrist": (0.015, 0.055),
    "hip": (0.029, 0.028),
    "knee": (0.018, 0.048),
    "ankle": (0.018, 0.025),
    "heel": (0.025, 0.034),
    "toe": (0.038, 0.045),
}


def spread(view: View, name: str) -> float:
    """One standard deviation of a fast network's mark along each axis, torso lengths."""
    return max(OFFSETS[view, name].sd, REAL_PEOPLE.get(part_of(name), 0.0))


def close_spreads(view: View, name: str) -> tuple[float, float]:
    """The same of a close network's mark: what all frames of a clip share, and what is each one's own."""
    shared, own, _ = CLOSE_OFFSETS[view, name]
    real_shared, real_own = REAL_PEOPLE_CLOSE.get(part_of(name), (0.0, 0.0))
    return max(shared, real_shared), max(own, real_own)
