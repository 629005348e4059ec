"""How a camera moved while it filmed: what stands still behind the player is followed from frame to frame.

A phone in a hand turns about its lens, which maps one picture to the next by a homography (Hartley and
Zisserman, 2nd ed., 8.4.2); for a fraction of a degree it is a similarity within a fifth of a pixel, and four
unknowns hold where the background shows at the sides alone. It is fitted to corners that pyramidal
Lucas-Kanade flow follows from one frame that all others are compared with, those that disagree left out
(RANSAC; 4.7).
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt

from tropometer.video.lens import bending
from tropometer.video.proxy import upright_frames

Array = npt.NDArray[np.float64]
Gray = npt.NDArray[np.uint8]
Box = tuple[float, float, float, float]  # left, top, right, bottom

MOST_CORNERS, LEAST_CORNERS = 200, 16
APART_PX, WINDOW_PX = 10, 21
THERE_AND_BACK_PX = 0.5
AGREES_PX = 1.5
FLOW_SD_PX = 0.2  # measured on drawn clips: what all corners of a frame have in common
LEAST_SHARE = 0.4  # of the corners followed; with fewer nobody knows what stands still
ROOM = 0.25  # of the player's box, about it: arms and club


def save_camera_motion(
    proxy: Path, target: Path, box: Box, still_frame: int, progress: Callable[[float], None]
) -> float | None:
    """Write the motion of every frame of a proxy (n, 9); returns how its lens bends lines, if it does."""
    pictures = [
        np.asarray(cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY), np.uint8)
        for picture, _ in upright_frames(proxy)
    ]
    moves = camera_motion(pictures, box, still_frame, progress)
    np.save(target, moves)
    return bending(pictures[still_frame])


def camera_motion(
    pictures: list[Gray], box: Box, still_frame: int, progress: Callable[[float], None] = lambda share: None
) -> Array:
    """From the picture of `still_frame` to each: a homography and a standard deviation in pixels (n, 9).

    Of the homography the first eight entries; its last is 1. `box` is where the player is: nothing there is
    looked at. NaN on frames whose background shows too little to follow.
    """
    moves = np.full((len(pictures), 9), np.nan)
    corners = _corners(pictures[still_frame], box)
    if len(corners) < LEAST_CORNERS:
        return moves
    moves[still_frame] = 1, 0, 0, 0, 1, 0, 0, 0, 0
    done = 1
    for way in (range(still_frame + 1, len(pictures)), range(still_frame - 1, -1, -1)):
        guess = corners
        for frame in way:
            found, moves[frame] = _compare(pictures[still_frame], pictures[frame], corners, guess)
            guess = corners if found is None else found
            done += 1
            progress(done / len(pictures))
    return moves


def _corners(picture: Gray, box: Box) -> npt.NDArray[np.float32]:
    height, width = picture.shape
    left, top, right, bottom = box
    aside, above = ROOM * (right - left), ROOM * (bottom - top)
    mask = np.full(picture.shape, 255, np.uint8)
    mask[
        int(max(0, top - above)) : int(min(height, bottom)),
        int(max(0, left - aside)) : int(min(width, right + aside)),
    ] = 0
    unit = min(picture.shape) / 720
    found = cv2.goodFeaturesToTrack(picture, MOST_CORNERS, 0.01, APART_PX * unit, mask=mask)
    return np.zeros((0, 1, 2), np.float32) if found is None else np.asarray(found, np.float32)


def _compare(
    still: Gray, picture: Gray, corners: npt.NDArray[np.float32], guess: npt.NDArray[np.float32]
) -> tuple[npt.NDArray[np.float32] | None, Array]:
    """Where the corners lie now, as the motion has it, and the motion with its standard deviation."""
    unknown = np.full(9, np.nan)
    flow: dict[str, Any] = {"winSize": (WINDOW_PX, WINDOW_PX), "maxLevel": 2}
    use = cv2.OPTFLOW_USE_INITIAL_FLOW
    there, seen, _ = cv2.calcOpticalFlowPyrLK(still, picture, corners, guess.copy(), flags=use, **flow)
    back, seen_back, _ = cv2.calcOpticalFlowPyrLK(picture, still, there, corners.copy(), flags=use, **flow)
    missed = np.linalg.norm((back - corners)[:, 0], axis=1)
    good = (seen[:, 0] == 1) & (seen_back[:, 0] == 1) & (missed < THERE_AND_BACK_PX)
    if good.sum() < LEAST_CORNERS:
        return None, unknown
    cv2.setRNGSeed(0)  # the same clip has the same motion, whenever it is looked at
    # Pixel centres lie at half pixels in our pictures and at whole ones in OpenCV's.
    move, agreeing = cv2.estimateAffinePartial2D(
        corners[good] + 0.5, there[good] + 0.5, method=cv2.RANSAC, ransacReprojThreshold=AGREES_PX
    )
    count = 0 if move is None else int(agreeing.sum())
    if count < max(LEAST_CORNERS, LEAST_SHARE * good.sum()):
        return None, unknown
    carried = np.asarray(cv2.transform(corners + 0.5, move), np.float32) - 0.5
    left = (carried - there)[good][agreeing[:, 0] == 1]
    # Four unknowns from 2 n residuals: on average over the points the fit is uncertain by sqrt(4 / 2n).
    spread = float(np.sqrt(np.sum(left**2) / (2 * count - 4)))
    sd = float(np.hypot(spread * np.sqrt(2 / count), FLOW_SD_PX))
    return carried, np.array([*move.ravel(), 0.0, 0.0, sd])
