"""How the club head comes to the ball: where it goes, how steeply and how fast, at the strike."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.golfer.motion import Motion

STEP_S = 1e-4  # of the central difference


@dataclass(frozen=True)
class Delivery:
    """Club speed in m/s; path in degrees from the target line toward the ball's side; attack, up positive."""

    club_speed_m_s: float
    club_path_deg: float
    attack_deg: float


def delivery(motion: Motion, impact_s: float) -> Delivery:
    """That of a swing whose strike is at `impact_s`."""
    head = motion.poses(np.array([impact_s - STEP_S, impact_s + STEP_S])).club.head
    forward, up, aside = (head[1] - head[0]) / (2 * STEP_S)
    return Delivery(
        float(np.linalg.norm((forward, up, aside))),
        float(np.degrees(np.arctan2(aside, forward))),
        float(np.degrees(np.arctan2(up, np.hypot(forward, aside)))),
    )
