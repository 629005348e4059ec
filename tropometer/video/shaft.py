"""Follows the club's head by the line of its shaft, between two frames on which head and grip are placed.

A shaft in motion is a thin smear that optical flow cannot hold, but it is there on one frame and gone on the
next but one. About the grip, that change is gathered along every direction; the directions are then
joined from the first placed one to the last by dynamic programming (Viterbi 1967), which lets the club turn
unevenly but not jump, and finds out by itself which way round it went.
"""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Gray = npt.NDArray[np.uint8]

DIRECTIONS = 360
APART_FRAMES = 2  # a frame is compared with those so far before and after it
FROM_GRIP, ALONG = 0.3, 40  # the hands' own motion is left out; samples along the shaft
MOST_CHANGE = 30.0  # grey levels: brighter things count no more
NOISE_LEVELS = 3.0
UNEVEN = 0.09  # cost of turning at another pace than the mean one
BAND_DEG = 20  # beyond either placed direction
MOST_TURN_DEG = 300
CLEAR = 0.7  # share of a frame's clearest direction from which one is believed
HEAD_SD = 0.035  # of the club's length in the picture: it is taken to change evenly


def follow_shaft(frames: Sequence[Gray], grips: Array, start: Array, end: Array) -> Array:
    """x, y and standard deviation of the club head (n, 3); NaN where no direction is clear.

    `frames` run from the first to the last placed one, with APART_FRAMES more at either end; `grips` (n, 2).
    """
    count = len(grips)
    late = np.linspace(0.0, 1.0, count)
    ends = np.array([start - grips[0], end - grips[-1]])
    lengths = (1 - late) * np.hypot(*ends[0]) + late * np.hypot(*ends[1])
    first = float(np.arctan2(ends[0, 1], ends[0, 0]))
    short_way = (float(np.arctan2(ends[1, 1], ends[1, 0])) - first + np.pi) % (2 * np.pi) - np.pi
    clear = np.array([_clearness(frames, i, grips[i], lengths[i], first) for i in range(count)])
    ways = [short_way, short_way - np.copysign(2 * np.pi, short_way)]
    turns = [round(np.degrees(way)) for way in ways if abs(np.degrees(way)) <= MOST_TURN_DEG]
    _, path = min((_joined(clear, turn) for turn in turns), key=lambda found: found[0])
    directions = first + np.radians(path)
    heads = grips + np.column_stack([np.cos(directions), np.sin(directions)]) * lengths[:, None]
    found = np.column_stack([heads, HEAD_SD * lengths])
    found[clear[np.arange(count), path % DIRECTIONS] < CLEAR] = np.nan
    found[0], found[-1] = (*start, 0.0), (*end, 0.0)
    return found


def _clearness(frames: Sequence[Gray], i: int, grip: Array, length: float, first: float) -> Array:
    """How much of each direction (360,) from the grip is there on this frame alone, 0 to 1."""
    here = frames[i + APART_FRAMES].astype(np.float32)
    before, after = (frames[i + way].astype(np.float32) for way in (0, 2 * APART_FRAMES))
    change = np.minimum(np.abs(here - before), np.abs(here - after))
    directions = first + np.radians(np.arange(DIRECTIONS))[:, None]
    far = np.linspace(FROM_GRIP, 1.0, ALONG) * length
    x, y = grip[0] + np.cos(directions) * far, grip[1] + np.sin(directions) * far
    seen = cv2.remap(change, x.astype(np.float32), y.astype(np.float32), cv2.INTER_LINEAR)
    levels = np.minimum(seen, MOST_CHANGE).mean(axis=1)
    clear: Array = (levels / (levels.max() + NOISE_LEVELS)).astype(float)
    return clear


def _joined(clear: Array, turn: int) -> tuple[float, npt.NDArray[np.int64]]:
    """The cheapest way from direction 0 to direction `turn` in degrees: its cost, and its directions (n,)."""
    steps = len(clear) - 1
    mean = turn / steps
    band = np.arange(min(0, turn) - BAND_DEG, max(0, turn) + BAND_DEG + 1)
    most = int(np.ceil(3 * abs(mean))) + 3
    moves = np.arange(-most, most + 1)
    uneven = UNEVEN * ((moves - mean) / (abs(mean) + 1.2)) ** 2
    gain = clear[:, band % DIRECTIONS]
    cost = np.where(band == 0, 0.0, np.inf)
    came: list[npt.NDArray[np.int64]] = []
    for i in range(1, steps + 1):
        padded = np.pad(cost, most, constant_values=np.inf)
        # From `move` degrees before: one row for each move.
        through = (
            np.array([padded[most - move : most - move + len(band)] for move in moves]) + uneven[:, None]
        )
        came.append(through.argmin(axis=0))
        cost = through.min(axis=0) - gain[i]
    at = int(np.flatnonzero(band == turn)[0])
    whole, path = float(cost[at]), [at]
    for back in reversed(came):
        path.append(path[-1] - int(moves[back[path[-1]]]))
    return whole, band[np.array(path[::-1])]
