"""How far landmarks lie from the marks of their names, and how far they scatter: for either network.

Measured on the made-up golfers from each side, and on one real person who walks, filmed by four calibrated
cameras (open data of Pose2Sim, Demo_SinglePerson, BSD 3-clause): what three cameras see of a joint, seen from
the fourth.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tropometer.swing.names import View


@dataclass(frozen=True)
class Offset:
    """Where a landmark lies beside its mark, torso lengths: toward the lead or the ball's side, and down.

    `sd` is the spread that is left along each axis.
    """

    aside: float
    down: float
    sd: float


Network = Literal["fast", "close"]

# Medians over the demo clips and, from behind and up the line, over golfers of either hand drawn for the
# purpose; what is left: the larger of 1.48 median deviations and what holds 95 %, along the axis on which it
# is larger. The close one's between address and finish alone, where hands and hips go fast. A hip's edge has
# the spread across the outline: its height is not what is read from it.
OFFSETS: dict[Network, dict[tuple[View, str], Offset]] = {
    "fast": {
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
    },
    "close": {
        ("face_on", "grip"): Offset(0.038, 0.042, 0.169),
        ("face_on", "head"): Offset(0.014, 0.071, 0.042),
        ("face_on", "lead_ankle"): Offset(0.007, -0.027, 0.017),
        ("face_on", "lead_elbow"): Offset(0.014, 0.002, 0.122),
        ("face_on", "lead_foot_inner"): Offset(-0.041, -0.053, 0.028),
        ("face_on", "lead_foot_outer"): Offset(0.045, -0.036, 0.014),
        ("face_on", "lead_heel"): Offset(-0.001, -0.069, 0.015),
        ("face_on", "lead_hip"): Offset(-0.011, -0.010, 0.055),
        ("face_on", "lead_hip_edge"): Offset(-0.013, -0.025, 0.017),
        ("face_on", "lead_knee"): Offset(-0.000, 0.012, 0.031),
        ("face_on", "lead_shoulder"): Offset(0.068, -0.089, 0.094),
        ("face_on", "lead_toe"): Offset(-0.028, -0.086, 0.036),
        ("face_on", "lead_wrist"): Offset(-0.004, 0.007, 0.183),
        ("face_on", "neck"): Offset(0.017, 0.149, 0.090),
        ("face_on", "sternum"): Offset(0.052, 0.142, 0.105),
        ("face_on", "trail_ankle"): Offset(-0.018, -0.016, 0.020),
        ("face_on", "trail_elbow"): Offset(0.008, -0.084, 0.193),
        ("face_on", "trail_foot_inner"): Offset(0.024, -0.048, 0.017),
        ("face_on", "trail_foot_outer"): Offset(-0.038, -0.043, 0.016),
        ("face_on", "trail_heel"): Offset(-0.013, -0.049, 0.065),
        ("face_on", "trail_hip"): Offset(-0.020, -0.012, 0.054),
        ("face_on", "trail_hip_edge"): Offset(-0.002, -0.043, 0.027),
        ("face_on", "trail_knee"): Offset(-0.002, 0.004, 0.044),
        ("face_on", "trail_shoulder"): Offset(-0.055, -0.076, 0.116),
        ("face_on", "trail_toe"): Offset(0.020, -0.087, 0.025),
        ("face_on", "trail_wrist"): Offset(0.006, -0.002, 0.199),
        ("down_the_line", "grip"): Offset(0.035, 0.043, 0.128),
        ("down_the_line", "grip_butt"): Offset(0.063, 0.012, 0.117),
        ("down_the_line", "head"): Offset(0.024, 0.040, 0.018),
        ("down_the_line", "lead_ankle"): Offset(0.010, -0.010, 0.034),
        ("down_the_line", "lead_elbow"): Offset(0.007, -0.007, 0.080),
        ("down_the_line", "lead_foot_outer"): Offset(0.013, -0.008, 0.072),
        ("down_the_line", "lead_heel"): Offset(0.038, -0.058, 0.041),
        ("down_the_line", "lead_hip"): Offset(0.084, 0.025, 0.049),
        ("down_the_line", "lead_knee"): Offset(0.012, -0.002, 0.039),
        ("down_the_line", "lead_shoulder"): Offset(0.028, -0.076, 0.063),
        ("down_the_line", "lead_toe"): Offset(-0.057, 0.005, 0.108),
        ("down_the_line", "lead_wrist"): Offset(-0.012, 0.004, 0.097),
        ("down_the_line", "neck"): Offset(-0.044, 0.118, 0.057),
        ("down_the_line", "seat"): Offset(-0.004, 0.001, 0.021),
        ("down_the_line", "sternum"): Offset(-0.106, 0.114, 0.072),
        ("down_the_line", "trail_ankle"): Offset(-0.022, -0.041, 0.020),
        ("down_the_line", "trail_elbow"): Offset(0.010, -0.017, 0.101),
        ("down_the_line", "trail_foot_outer"): Offset(-0.021, -0.128, 0.040),
        ("down_the_line", "trail_heel"): Offset(0.015, -0.060, 0.053),
        ("down_the_line", "trail_hip"): Offset(0.009, -0.008, 0.057),
        ("down_the_line", "trail_knee"): Offset(-0.010, -0.029, 0.027),
        ("down_the_line", "trail_shoulder"): Offset(-0.015, -0.103, 0.105),
        ("down_the_line", "trail_toe"): Offset(-0.082, -0.103, 0.033),
        ("down_the_line", "trail_wrist"): Offset(-0.015, 0.005, 0.122),
        ("from_behind", "grip"): Offset(0.072, 0.019, 0.229),
        ("from_behind", "head"): Offset(0.004, -0.015, 0.032),
        ("from_behind", "lead_ankle"): Offset(0.001, -0.010, 0.021),
        ("from_behind", "lead_elbow"): Offset(0.078, -0.034, 0.108),
        ("from_behind", "lead_foot_outer"): Offset(0.026, -0.100, 0.021),
        ("from_behind", "lead_heel"): Offset(0.019, -0.074, 0.027),
        ("from_behind", "lead_hip"): Offset(-0.046, -0.036, 0.063),
        ("from_behind", "lead_hip_edge"): Offset(-0.014, -0.050, 0.026),
        ("from_behind", "lead_knee"): Offset(-0.008, 0.020, 0.016),
        ("from_behind", "lead_shoulder"): Offset(0.015, -0.124, 0.157),
        ("from_behind", "lead_wrist"): Offset(0.025, -0.046, 0.229),
        ("from_behind", "neck"): Offset(-0.004, 0.082, 0.069),
        ("from_behind", "trail_ankle"): Offset(-0.022, 0.024, 0.037),
        ("from_behind", "trail_elbow"): Offset(0.006, -0.105, 0.146),
        ("from_behind", "trail_foot_outer"): Offset(-0.022, -0.077, 0.039),
        ("from_behind", "trail_heel"): Offset(-0.015, -0.032, 0.023),
        ("from_behind", "trail_hip"): Offset(0.026, -0.027, 0.043),
        ("from_behind", "trail_hip_edge"): Offset(0.009, -0.056, 0.018),
        ("from_behind", "trail_knee"): Offset(-0.007, 0.010, 0.029),
        ("from_behind", "trail_shoulder"): Offset(-0.020, -0.118, 0.118),
        ("from_behind", "trail_wrist"): Offset(-0.012, 0.019, 0.161),
        ("up_the_line", "grip"): Offset(0.044, 0.020, 0.191),
        ("up_the_line", "head"): Offset(0.032, 0.033, 0.026),
        ("up_the_line", "lead_ankle"): Offset(-0.012, -0.030, 0.023),
        ("up_the_line", "lead_elbow"): Offset(0.016, 0.004, 0.109),
        ("up_the_line", "lead_heel"): Offset(-0.001, -0.068, 0.027),
        ("up_the_line", "lead_hip"): Offset(0.052, -0.002, 0.033),
        ("up_the_line", "lead_knee"): Offset(-0.008, -0.023, 0.025),
        ("up_the_line", "lead_shoulder"): Offset(-0.001, -0.098, 0.075),
        ("up_the_line", "lead_toe"): Offset(-0.047, -0.107, 0.046),
        ("up_the_line", "lead_wrist"): Offset(0.008, 0.020, 0.127),
        ("up_the_line", "neck"): Offset(-0.038, 0.082, 0.044),
        ("up_the_line", "seat"): Offset(-0.001, -0.009, 0.027),
        ("up_the_line", "trail_ankle"): Offset(-0.020, -0.005, 0.065),
        ("up_the_line", "trail_elbow"): Offset(0.034, -0.074, 0.170),
        ("up_the_line", "trail_heel"): Offset(0.006, -0.044, 0.138),
        ("up_the_line", "trail_hip"): Offset(0.015, -0.019, 0.048),
        ("up_the_line", "trail_knee"): Offset(-0.003, -0.006, 0.040),
        ("up_the_line", "trail_shoulder"): Offset(0.008, -0.126, 0.113),
        ("up_the_line", "trail_toe"): Offset(-0.053, -0.016, 0.046),
        ("up_the_line", "trail_wrist"): Offset(-0.026, 0.018, 0.357),
    },
}
# What holds 95 % of the landmarks of a real person along either axis, over 1.96, torso lengths. The close
# network's are a fifth wider than measured: one person says little of others. The fast one took left for
# right for some time, which is in its figures.
REAL_PEOPLE: dict[Network, dict[str, float]] = {
    "fast": {"hip": 0.135, "knee": 0.06, "ankle": 0.055, "heel": 0.07, "toe": 0.08},
    "close": {
        "shoulder": 0.03,
        "elbow": 0.053,
        "wrist": 0.075,
        "hip": 0.042,
        "knee": 0.055,
        "ankle": 0.035,
        "heel": 0.05,
        "toe": 0.07,
    },
}


def spread(network: Network, view: View, name: str) -> float:
    """One standard deviation of a proposed mark along each axis, torso lengths; KeyError of one without."""
    part = name.removeprefix("lead_").removeprefix("trail_")
    return max(OFFSETS[network][view, name].sd, REAL_PEOPLE[network].get(part, 0.0))
