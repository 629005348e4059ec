"""How far a swing was meant to go back, by how high its hands are at the top.

Marked, the way from lead shoulder to grip tells: a full swing carries it to 120° from hanging and beyond,
one to lead-arm level to 90 or 100°; between them the hands stop shoulder high, before that it is a pitch.
Unmarked, the height of the landmarks' hands does, from whichever side it is filmed; behind a head or an arm
they are seen too low. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np

from tropometer.swing.names import SWING_LENGTHS, SwingLength
from tropometer.swing.proposals.landmarks import ANKLES, HANDS, HIPS, Landmarks
from tropometer.swing.proposals.seeing import Seen
from tropometer.swing.readings.reading import Reading

# Where one length ends and the next begins: of the lead arm, degrees from hanging; of the hands over the
# hips, heights of the hips over the ankles at address.
ENDS_DEG = (77.0, 103.0, 116.0)
ENDS = (0.25, 0.51, 0.66)
REACH = 0.12  # so far from an end nothing is in doubt; hands of full swings were seen down to 0.61


def propose_swing_length(landmarks: Landmarks, address: int, top: int) -> Seen[SwingLength]:
    """How long a swing looks, from its address and its top."""
    hands, hips, ankles = (landmarks.middle(of)[:, 1] for of in (HANDS, HIPS, ANKLES))
    high = float((hips - hands)[top] / (ankles - hips)[address])
    sure = min(1.0, min(abs(high - end) for end in ENDS) / REACH)
    return Seen(SWING_LENGTHS[int(np.searchsorted(ENDS, high))], round(sure, 2))


def swing_length_of(readings: Sequence[Reading]) -> SwingLength | None:
    """The one length that holds the whole interval of the lead arm's raise at the top; None if none does."""
    for each in readings:
        if (each.reading, each.at) == ("lead_arm_raise", "top") and each.value is not None:
            u95 = each.u95 or 0.0
            for length, (begins, ends) in zip(SWING_LENGTHS, pairwise((0.0, *ENDS_DEG, 181.0)), strict=True):
                if begins <= each.value - u95 and each.value + u95 <= ends:
                    return length
    return None
