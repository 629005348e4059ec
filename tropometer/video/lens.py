"""Whether a lens bends what is straight: an ultra-wide one does, and lengths near the picture's edges too.

Edges on one straight line of the world lie on one line of the picture only once the bending is taken out. It
is tried with the division model (Fitzgibbon, Simultaneous linear estimation of multiple view geometry and
lens distortion, CVPR 2001): the strength with which most edge falls on common lines is the lens's. Edges are
found by the line segment detector of von Gioi, Jakubowicz, Morel and Randall (PAMI 2010).
"""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Gray = npt.NDArray[np.uint8]

# Radial terms of the division model, in half the longer side; below nought lines bulge outward.
TRIED = np.arange(-0.40, 0.05, 0.02)
LEAST_EDGES, MOST_EDGES, SHORTEST = 20, 300, 0.02  # of the shorter side
ALONG_DEG, BESIDE_PX = 0.7, 3.0  # how nearly two edges lie on one line; px at a shorter side of 720
# On 40 drawn clips and four real cameras no straight lens comes to more than a third of this; of an ultra-
# wide one with a term of 0.22 it is seen in five of six.
BENT, SURE = -0.12, 1.04


def bending(gray: Gray) -> float | None:
    """The strength of a lens that bends straight lines, below nought; None where it shows none."""
    edges = _edges(gray)
    if len(edges) < LEAST_EDGES:
        return None
    height, width = gray.shape
    middle, scale, unit_px = (
        np.array([width / 2, height / 2]),
        max(width, height) / 2,
        min(height, width) / 720,
    )
    on_lines = np.array(
        [_on_common_lines((edges - [*middle, *middle]) / scale, k, unit_px / scale) for k in TRIED]
    )
    best = int(on_lines.argmax())
    straight = float(on_lines[np.abs(TRIED).argmin()])
    if TRIED[best] > BENT or on_lines[best] < SURE * straight:
        return None
    return round(float(TRIED[best]), 2)


def _edges(gray: Gray) -> Array:
    """The longest straight edges of a picture (n, 4): x, y of both ends."""
    detector: Any = cv2.createLineSegmentDetector(
        cv2.LSD_REFINE_NONE, scale=0.8, sigma_scale=0.6, quant=2.0, ang_th=15.0
    )
    found = detector.detect(gray)[0]
    edges = np.zeros((0, 4)) if found is None else np.asarray(found, float).reshape(-1, 4)
    long = np.hypot(edges[:, 2] - edges[:, 0], edges[:, 3] - edges[:, 1])
    longest = np.argsort(-long)[:MOST_EDGES]
    kept: Array = edges[longest[long[longest] > SHORTEST * min(gray.shape)]]
    return kept


def _on_common_lines(edges: Array, strength: float, unit: float) -> float:
    """How much edge lies on common lines once `strength` is taken out: all pairs' products of lengths."""
    a, b = (
        ends / (1 + strength * np.sum(ends**2, axis=1, keepdims=True))
        for ends in (edges[:, :2], edges[:, 2:])
    )
    along = b - a
    angle = np.arctan2(along[:, 1], along[:, 0]) % np.pi
    normal = np.stack([-np.sin(angle), np.cos(angle)], axis=1)
    off = np.sum((a + b) / 2 * normal, axis=1)
    turned = np.abs(angle[:, None] - angle)
    other_way = turned > np.pi / 2  # the same line, its normal the other way round
    turned = np.where(other_way, np.pi - turned, turned)
    beside = np.where(other_way, off[:, None] + off, off[:, None] - off)
    alike = np.exp(-((turned / np.radians(ALONG_DEG)) ** 2) - (beside / (BESIDE_PX * unit)) ** 2)
    # The lengths as they are in the picture: else what stretches the picture most would win.
    lengths = np.hypot(edges[:, 2] - edges[:, 0], edges[:, 3] - edges[:, 1])
    return float(lengths @ alike @ lengths)
