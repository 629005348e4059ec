"""Places on a player's outline, from how surely a network takes each picture point for the player.

Landmarks lie inside the body; edges are where the outline is cut. The network's mask is coarse (a cell is
some three pixels), but falls steadily across an edge, so where it is in doubt is met to about a pixel.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Mask = npt.NDArray[np.float32]

SHOULDERS, HIPS, TOES = (11, 12), (23, 24), (31, 32)
# Rows: what is left and right of the hips at their height; what is farthest left and right about the
# pelvis; the left shoe's left and right edge, and the right shoe's, across its toe.
COUNT = 8
# Torso lengths.
HIPS_ABOVE = 0.035  # of where a network puts the hips, the trousers' edge is looked for
PELVIS_ABOVE, PELVIS_BELOW = 0.30, 0.25
HIP_REACH, PELVIS_REACH, SHOE_REACH = 0.7, 0.9, 0.35
STEP_PX, PELVIS_ROW_PX = 0.7, 3.0
SURE = 20.0  # a logit beyond which nothing is in doubt


@dataclass(frozen=True)
class PlayerMask:
    """Logits (rows, columns) of a crop, and the affine map (2, 3) from the picture into the crop."""

    logits: Mask
    into: Array

    def at(self, x: Array, y: Array) -> Array:
        """Shares, 0 to 1, at places of the picture, in the shape of x."""
        (a, b, c), (d, e, f) = self.into
        xs, ys = (np.asarray(each, np.float32) for each in (a * x + b * y + c, d * x + e * y + f))
        logits = cv2.remap(self.logits, xs, ys, cv2.INTER_LINEAR)
        return np.asarray(1 / (1 + np.exp(-logits)), float)


def outline_points(mask: PlayerMask, landmarks: Array) -> Array:
    """The eight places (8, 2) in pixels, from landmarks (33, 3); NaN where the outline is not met."""
    places = landmarks[:, :2]
    hips = places[list(HIPS)]
    middle = hips.mean(axis=0)
    torso = float(np.hypot(*(places[list(SHOULDERS)].mean(axis=0) - middle)))
    found = np.full((COUNT, 2), np.nan)
    row = float(middle[1]) - HIPS_ABOVE * torso
    found[0] = _first_edge(mask, (float(hips[:, 0].min()), row), -1, HIP_REACH * torso)
    found[1] = _first_edge(mask, (float(hips[:, 0].max()), row), 1, HIP_REACH * torso)
    rows = np.arange(middle[1] - PELVIS_ABOVE * torso, middle[1] + PELVIS_BELOW * torso, PELVIS_ROW_PX)
    for i, way in ((2, -1), (3, 1)):
        found[i] = _farthest(mask, float(middle[0]), rows, way, PELVIS_REACH * torso)
    for first, toe in zip((4, 6), TOES, strict=True):
        x, y = places[toe]
        for i, way in ((first, -1), (first + 1, 1)):
            found[i] = _first_edge(mask, (float(x), float(y)), way, SHOE_REACH * torso)
    return found


def _first_edge(mask: PlayerMask, start: tuple[float, float], way: int, reach: float) -> Array:
    crossed = _crossings(mask, start[0], np.array([start[1]]), way, reach)
    return np.array([start[0] + way * crossed[0], start[1]])


def _farthest(mask: PlayerMask, x: float, rows: Array, way: int, reach: float) -> Array:
    crossed = _crossings(mask, x, rows, way, reach)
    if not np.isfinite(crossed).any():
        return np.full(2, np.nan)
    best = int(np.nanargmax(crossed))
    return np.array([x + way * crossed[best], rows[best]])


def _crossings(mask: PlayerMask, x: float, rows: Array, way: int, reach: float) -> Array:
    """How far from x each row (n,) leaves the player, pixels; NaN where it does not within reach."""
    far = np.arange(0.0, reach, STEP_PX)
    shares = mask.at(np.tile(x + way * far, (len(rows), 1)), np.tile(rows[:, None], (1, len(far))))
    outside = shares < 0.5
    at = outside.argmax(axis=1)
    met = outside.any(axis=1) & (at > 0)
    each = np.arange(len(rows))
    inner, outer = shares[each, np.maximum(at - 1, 0)], shares[each, at]
    within = np.where(met, (inner - 0.5) / np.where(inner == outer, 1.0, inner - outer), np.nan)
    crossed: Array = (at - 1 + within) * STEP_PX
    return crossed
