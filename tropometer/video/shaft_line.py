"""Finds where a club's head is by the straight line of its shaft, on one frame.

Of the straight edges about the grip (line segment detector of von Gioi, Jakubowicz, Morel and Randall, PAMI
2010) those count that point to it, are no longer than the club and lie along neither arm; the direction in
which they cover most is the shaft's, and its farthest end the head's.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Gray = npt.NDArray[np.uint8]

# In torso lengths, but for angles.
BESIDE_GRIP, FROM_GRIP, SHORTEST = 0.07, 0.3, 0.06
BORDER = 0.05
LONGER = 1.15  # times the club's length: it may come toward the camera
ONE_LINE_DEG, ALONG_ARM_DEG, BEYOND_ARM = 2.5, 14.0, 1.1
LEAST_COVERED = 0.7  # on the demo clips what is no shaft covers 0.6 at most


@dataclass(frozen=True, kw_only=True)
class Hands:
    """Where the grip is on a frame, and elbows and shoulders, along which no shaft is looked for: pixels.

    A shaft that ends before `least` of the club's length was not seen to its end.
    """

    frame: int
    grip: tuple[float, float]
    arms: tuple[tuple[float, float], ...]
    least: float = 0.0


def club_head(gray: Gray, hands: Hands, torso_px: float, club_px: float) -> tuple[float, float] | None:
    """The end of the shaft that is farthest from the grip; None where no line is surely a shaft."""
    grip = np.array(hands.grip)
    reach = club_px * LONGER + torso_px * FROM_GRIP
    left, top = (int(max(each - reach, 0)) for each in grip)
    part = np.ascontiguousarray(gray[top : int(grip[1] + reach), left : int(grip[0] + reach)])
    near, far = _pointing_away(_segments(part) + np.array([left, top, left, top]) - np.tile(grip, 2))
    along = far - near
    length = np.hypot(*along.T)
    way = along / np.maximum(length, 1e-9)[:, None]
    aside = np.abs(near[:, 0] * way[:, 1] - near[:, 1] * way[:, 0])
    begins, ends = np.hypot(*near.T), np.hypot(*far.T)
    kept = (length > SHORTEST * torso_px) & (aside < BESIDE_GRIP * torso_px)
    kept &= (np.sum(near * way, axis=1) > -0.1 * torso_px) & (ends > FROM_GRIP * torso_px)
    kept &= ends < LONGER * club_px
    angle = np.arctan2(way[:, 1], way[:, 0])
    for arm in hands.arms:
        x, y = np.array(arm) - grip
        kept &= ~(
            (_turned(angle, np.arctan2(y, x)) < np.radians(ALONG_ARM_DEG))
            & (begins < BEYOND_ARM * np.hypot(x, y))
        )
    best: tuple[float, int] | None = None
    for each in np.flatnonzero(kept):
        same = np.flatnonzero(kept & (_turned(angle, angle[each]) < np.radians(ONE_LINE_DEG)))
        covered = _covered(begins[same], ends[same]) / torso_px
        if best is None or covered > best[0]:
            best = covered, int(same[ends[same].argmax()])
    if best is None or best[0] < LEAST_COVERED or ends[best[1]] < hands.least * club_px:
        return None
    x, y = (grip + far[best[1]]).tolist()
    room = min(x, y, gray.shape[1] - x, gray.shape[0] - y)
    return (x, y) if room > BORDER * torso_px else None  # it goes on beyond the picture


def _segments(gray: Gray) -> Array:
    if min(gray.shape, default=0) < 8:
        return np.zeros((0, 4))
    found: Any = cv2.createLineSegmentDetector(cv2.LSD_REFINE_NONE).detect(gray)[0]
    return np.zeros((0, 4)) if found is None else np.asarray(found, float).reshape(-1, 4)


def _pointing_away(segments: Array) -> tuple[Array, Array]:
    """The nearer and the farther end of each (n, 2), about the grip."""
    a, b = segments[:, :2], segments[:, 2:]
    other_way = (np.hypot(*a.T) > np.hypot(*b.T))[:, None]
    return np.where(other_way, b, a), np.where(other_way, a, b)


def _turned(angles: Array, by: float) -> Array:
    turned: Array = np.abs((angles - by + np.pi) % (2 * np.pi) - np.pi)
    return turned


def _covered(begins: Array, ends: Array) -> float:
    """How much of a line some stretches of it cover together."""
    covered, reached = 0.0, 0.0
    for begin, end in sorted(zip(begins.tolist(), ends.tolist(), strict=True)):
        covered += max(0.0, end - max(begin, reached))
        reached = max(reached, end)
    return covered
