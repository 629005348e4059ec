"""Finds the ball by what is gone after the strike: a small bright spot that lay still until then.

What a few frames before impact have in common (their median) is compared with what a few after it have. The
spot is the strongest answer of a Laplacian of a Gaussian as wide as a ball (Lindeberg, Feature detection with
automatic scale selection, IJCV 1998).
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt

Array = npt.NDArray[Any]
Box = tuple[float, float, float, float]  # left, top, right, bottom

BEFORE, AFTER = 15, 9  # frames that are compared
GONE_SHARE = 0.2  # of the clip's rest after impact: until then the club passes
SCALES = (0.8, 1.1, 1.5)
LEAST = 15.0  # grey levels
SURE = 1.8  # times as strong as the next best spot
SD_PX = 1.5  # at a shorter side of 720: measured on drawn clips


def find_ball(
    clip: Iterable[Array],
    frames: tuple[int, int, int],
    box: Box,
    across_px: float,
    moves: Array | None = None,
) -> dict[str, float] | None:
    """Where a ball lies inside `box` of a clip's pictures and how surely, pixels; None where none surely is.

    `frames` are those of address and of impact, and the last that is looked at. `moves` (n, 9) is how the
    camera moved: all is found in the picture that its motion starts from.
    """
    address, impact, last = frames
    later = impact + max(2, round((last - impact) * GONE_SHARE))
    before = _spread(address, max(impact - 2, address), BEFORE)
    after = _spread(later, last, AFTER) if later <= last else []
    pictures: dict[int, Array] = {}
    shorter = 0
    for number, picture in enumerate(clip):
        if number in before or number in after:
            pictures[number] = _part(picture, box, None if moves is None else moves[number])
            shorter = min(picture.shape[:2])
    if not after or len(pictures) < len(before) + len(after):
        return None  # it ends too soon after the strike
    gone = np.median([pictures[frame] for frame in before], axis=0) - np.median(
        [pictures[frame] for frame in after], axis=0
    )
    place = brightest_spot(gone.min(axis=2).astype(np.float32), across_px)
    if place is None:
        return None
    x, y = place
    return {"x": x + int(box[0]), "y": y + int(box[1]), "sd_px": SD_PX * shorter / 720}


def brightest_spot(gone: Array, across_px: float) -> tuple[float, float] | None:
    """The middle of the one round spot of a size in a picture (h, w), its pixels' middles at halves."""
    bright = np.maximum(gone, 0)
    sigma = across_px / 2 / np.sqrt(2)
    answer = np.max([_spots(bright, sigma * scale) for scale in SCALES], axis=0)
    rim = round(across_px)  # a spot that is cut off there looks like one
    answer[:rim], answer[-rim:], answer[:, :rim], answer[:, -rim:] = 0, 0, 0, 0
    _, best, _, (x, y) = cv2.minMaxLoc(answer)
    others = answer.copy()
    cv2.circle(others, (x, y), round(4 * sigma) + 2, float(answer.min()), -1)
    _, second, _, _ = cv2.minMaxLoc(others)
    if best < LEAST or best < SURE * second:
        return None
    reach = round(across_px) + 2
    left, top = max(x - reach, 0), max(y - reach, 0)
    about = bright[top : y + reach + 1, left : x + reach + 1]
    rows, columns = np.nonzero(about > 0.5 * bright[y, x])
    if not len(rows):
        return None
    return left + float(columns.mean()) + 0.5, top + float(rows.mean()) + 0.5


def _spots(bright: Array, sigma: float) -> Array:
    smooth = cv2.GaussianBlur(bright, (0, 0), sigma)
    return -(sigma**2) * cv2.Laplacian(smooth, cv2.CV_32F, ksize=3)


def _spread(first: int, last: int, most: int) -> list[int]:
    return sorted({int(frame) for frame in np.linspace(first, last, most)})


def _part(picture: Array, box: Box, move: Array | None) -> Array:
    """The box's part of a picture, as it would be had the camera stood still."""
    left, top, right, bottom = (int(side) for side in box)
    if move is None or not np.isfinite(move[0]):
        return picture[top:bottom, left:right].astype(np.float32)
    to_frame = np.append(move[:8], 1.0).reshape(3, 3) @ np.array([[1, 0, left], [0, 1, top], [0, 0, 1.0]])
    size: Sequence[int] = (right - left, bottom - top)
    flags, border = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP, cv2.BORDER_REPLICATE
    return np.asarray(
        cv2.warpPerspective(picture, to_frame, size, flags=flags, borderMode=border), np.float32
    )
