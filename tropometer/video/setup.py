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

    NaN for points too near to the border to be looked for.
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
    reach = patch + search
    if not (reach <= x < here.shape[1] - reach and reach <= y < here.shape[0] - reach):
        return [np.nan] * 3
    cut = here[y - patch : y + patch + 1, x - patch : x + patch + 1]
    room = there[y - reach : y + reach + 1, x - reach : x + reach + 1]
    likeness = cv2.matchTemplate(room, cut, cv2.TM_CCOEFF_NORMED)
    _, best, _, (column, row) = cv2.minMaxLoc(likeness)
    dx = _between(likeness[row], column) - search
    dy = _between(likeness[:, column], row) - search
    return [point[0] + dx, point[1] + dy, float(best)]


def _between(line: npt.NDArray[Any], at: int) -> float:
    """The peak of a parabola through the largest value and its neighbours."""
    if not 0 < at < len(line) - 1:
        return float(at)
    before, here, after = (float(each) for each in line[at - 1 : at + 2])
    bend = before - 2 * here + after
    return at + (0.5 * (before - after) / bend if bend < 0 else 0.0)
