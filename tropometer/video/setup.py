"""Whether two clips were filmed from the same place: the same floor points are looked for in both."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import islice
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt

from tropometer.video.proxy import upright_frames

Array = npt.NDArray[np.float64]
Gray = npt.NDArray[np.uint8]

# Pixels at a picture whose shorter side is 720.
PATCH_PX, SEARCH_PX = 25, 45


def find_points(before: Path, before_frame: int, after: Path, after_frame: int, points: Array) -> Array:
    """Where points (n, 2) of one clip's frame lie in another's: x, y and likeness -1 to 1 (n, 3).

    NaN for points outside the picture.
    """
    here, there = _gray(before, before_frame), _gray(after, after_frame)
    if here.shape != there.shape:
        raise ValueError("The two clips have pictures of different sizes.")
    return np.array([_find(here, there, point) for point in points])


def _gray(proxy: Path, frame: int) -> Gray:
    picture = next(islice((picture for picture, _ in upright_frames(proxy)), frame, None))
    return np.asarray(cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY), np.uint8)


def _find(here: Gray, there: Gray, point: Sequence[float]) -> list[float]:
    unit = min(here.shape) / 720
    patch, search = round(PATCH_PX * unit), round(SEARCH_PX * unit)
    x, y = (round(each) for each in point)
    if not (0 <= x < here.shape[1] and 0 <= y < here.shape[0]):
        return [np.nan] * 3
    # Near the border both patch and search end with the picture.
    left, right = max(0, x - patch), min(here.shape[1], x + patch + 1)
    top, bottom = max(0, y - patch), min(here.shape[0], y + patch + 1)
    from_x, from_y = max(0, left - search), max(0, top - search)
    room = there[from_y : bottom + search, from_x : right + search]
    likeness = cv2.matchTemplate(room, here[top:bottom, left:right], cv2.TM_CCOEFF_NORMED)
    _, best, _, (column, row) = cv2.minMaxLoc(likeness)
    dx = _between(likeness[row], column) + from_x - left
    dy = _between(likeness[:, column], row) + from_y - top
    return [point[0] + dx, point[1] + dy, float(best)]


def _between(line: npt.NDArray[Any], at: int) -> float:
    """The peak of a parabola through the largest value and its neighbours."""
    if not 0 < at < len(line) - 1:
        return float(at)
    before, here, after = (float(each) for each in line[at - 1 : at + 2])
    bend = before - 2 * here + after
    return at + (0.5 * (before - after) / bend if bend < 0 else 0.0)
