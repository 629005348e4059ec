"""A length that everybody brings along: the own legs, as a scale where nothing of known length lies."""

from __future__ import annotations

import math

import numpy as np

from tropometer.swing.names import Checkpoint
from tropometer.swing.proposals.provisional import SeenClip
from tropometer.swing.record.clip import KnownLength, Mark
from tropometer.swing.scene.usual import STATURE_M, STATURE_SD_M, usual

STANDING: Checkpoint = "address"
LEGS = ("lead_hip", "trail_hip", "lead_ankle", "trail_ankle")
# Of people as tall as each other, legs from hip joint to ankle differ by so much, one standard deviation, and
# so does how far they are bent at address: common practice, no source.
LEGS_DIFFER = 0.05


def body_length(seen: SeenClip, stature_m: float | None) -> KnownLength | None:
    """From the middle of the hip joints to that of the ankles at address, in the plane of the body.

    As high as it usually is of people of that height, or of any height where nobody said it. None where the
    machine saw no address, or not all four joints at it.
    """
    frame = seen.pegs.get(STANDING)
    if frame is None:
        return None
    marks = {name: seen.mark(name, frame) for name in LEGS}
    if any(mark is None for mark in marks.values()):
        return None
    tall = stature_m or STATURE_M
    heights, _ = usual(LEGS, np.zeros(1), tall)
    hips_m, ankles_m = heights[2, :2].mean(), heights[2, 2:].mean()
    length = float(hips_m - ankles_m)
    unsure = math.hypot(LEGS_DIFFER, 0.0 if stature_m else STATURE_SD_M / STATURE_M)
    hips, ankles = (
        [mark for name, mark in marks.items() if part in name and mark] for part in ("hip", "ankle")
    )
    return KnownLength(
        a=_middle(hips),
        b=_middle(ankles),
        length_m=length,
        place="body_plane",
        length_sd_m=unsure * length,
        sd_px=max(mark.sd_px for mark in (*hips, *ankles)),
    )


def _middle(marks: list[Mark]) -> tuple[float, float]:
    return sum(mark.x for mark in marks) / len(marks), sum(mark.y for mark in marks) / len(marks)
