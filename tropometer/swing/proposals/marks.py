"""Proposes marks from a body's landmarks: lead and trail, moved to where the marks are meant to be.

A landmark is not quite the mark of its name: a network's heel lies on the heel's back above the sole, its
hip a little beside the joint. How far, in torso lengths, was measured on the made-up golfers from each
side (`./tropo bench marks`), and is taken off. What is left is the mark's standard deviation.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from tropometer.swing.names import Hand, View
from tropometer.swing.proposals.landmarks import Landmarks

Array = npt.NDArray[np.float64]

# The left one of each pair; the right one follows it.
LEFT_OF_PAIR = {
    "shoulder": 11,
    "elbow": 13,
    "wrist": 15,
    "hip": 23,
    "knee": 25,
    "ankle": 27,
    "heel": 29,
    "toe": 31,
}


@dataclass(frozen=True)
class Offset:
    """Where a landmark lies beside its mark, torso lengths: toward the lead or the ball's side, and down.

    `sd` is the spread that is left along each axis.
    """

    aside: float
    down: float
    sd: float


# Medians over the demo clips; what is left: the larger of 1.48 median deviations and what holds 95 %.
OFFSETS: dict[tuple[View, str], Offset] = {
    ("face_on", "lead_shoulder"): Offset(0.043, -0.075, 0.074),
    ("face_on", "trail_shoulder"): Offset(-0.054, -0.078, 0.106),
    ("face_on", "lead_elbow"): Offset(-0.008, 0.004, 0.136),
    ("face_on", "trail_elbow"): Offset(-0.005, -0.104, 0.186),
    ("face_on", "lead_wrist"): Offset(-0.010, 0.036, 0.182),
    ("face_on", "trail_wrist"): Offset(-0.018, -0.024, 0.138),
    ("face_on", "lead_hip"): Offset(-0.019, 0.043, 0.080),
    ("face_on", "trail_hip"): Offset(-0.014, 0.028, 0.043),
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
}


@dataclass(frozen=True)
class ProposedMark:
    """One mark over a clip: places (n, 2) in pixels, and one standard deviation in pixels."""

    places: Array
    sd_px: float


def propose_marks(landmarks: Landmarks, view: View, hand: Hand) -> dict[str, ProposedMark]:
    """Marks of hips, legs, feet and arms in every frame of the landmarks.

    The left side of a right-hander is the lead side. Down the line the far leg is often hidden; its marks
    are proposed with the same spread, which was measured with it hidden.
    """
    toward = 1.0 if hand == "right" else -1.0
    found: dict[str, ProposedMark] = {}
    for part, left in LEFT_OF_PAIR.items():
        for side, index in (("lead", left + (hand == "left")), ("trail", left + (hand == "right"))):
            offset = OFFSETS[view, f"{side}_{part}"]
            shift = np.array([toward * offset.aside, offset.down]) * landmarks.torso_px
            found[f"{side}_{part}"] = ProposedMark(
                landmarks.places[:, index] - shift, offset.sd * landmarks.torso_px
            )
    return found
