"""Whether what somebody does is a golf swing: both hands on one club, back, and fast through where they were.

Common practice, no source. On the made-up golfers the wrists are 0.19 to 0.28 torso lengths apart, the hands
go 1.6 to 2.2 back, return to within a fifth of that, and reach 12 to 20 a second; a pitch does half of it.
"""

from __future__ import annotations

import numpy as np

from tropometer.swing.proposals.landmarks import HANDS, WRISTS, Landmarks

# In torso lengths. Arms that hang or swing as somebody walks are 0.7 and more apart.
TOGETHER = 0.5
GONE_BACK = 0.45
FAST_A_S = 4.0
COME_BACK = 0.6  # of the way back


def is_golf_swing(landmarks: Landmarks, address: int, top: int, impact: int) -> bool:
    """Whether the body swings a club between three frames in this order."""
    if not address < top < impact:
        return False
    places, torso_px = landmarks.places, landmarks.torso_px
    apart = np.linalg.norm(places[:, WRISTS[0]] - places[:, WRISTS[1]], axis=1)[address : impact + 1]
    hands = landmarks.middle(HANDS)
    back = float(np.linalg.norm(hands[top] - hands[address])) / torso_px
    left = float(np.linalg.norm(hands[impact] - hands[address])) / torso_px
    fastest = float(landmarks.hand_speed[top : impact + 2].max())
    return (
        float(np.median(apart)) < TOGETHER * torso_px
        and back > GONE_BACK
        and left < COME_BACK * back
        and fastest > FAST_A_S
    )
