"""Boxes and stretched things that props are made of."""

from __future__ import annotations

import numpy as np

from tropometer.golfer.rotations import Floats
from tropometer.golfer.shapes import Colour, Mesh, mesh


def stretched(start: Floats, end: Floats) -> Floats:
    """Where a thing one metre long along y is (4, 4) that reaches from one point to another."""
    way = end - start
    up = way / np.linalg.norm(way)
    side = np.cross(up, [0.0, 0, 1])
    side /= np.linalg.norm(side)
    place = np.eye(4)
    place[:3] = np.stack([side, way, np.cross(side, up), start], axis=1)
    return place


def box(low: tuple[float, float, float], high: tuple[float, float, float], colour: Colour) -> Mesh:
    """A box between two corners."""
    return prism((low[0], high[0]), (low[2], high[2]), {low[0]: low[1], high[0]: low[1]}, colour, high[1])


def prism(
    x: tuple[float, float], z: tuple[float, float], deep: dict[float, float], colour: Colour, top: float = 0.0
) -> Mesh:
    """A box with a level top whose underside lies at a height of its own at either end along x."""
    corner = {
        (i, j, k): np.array([x[i], top if k else deep[x[i]], z[j]])
        for i in (0, 1) for j in (0, 1) for k in (0, 1)
    }  # fmt: skip
    sides = [
        [(0, 0, 1), (1, 0, 1), (1, 1, 1), (0, 1, 1)],
        [(0, 0, 0), (1, 0, 0), (1, 1, 0), (0, 1, 0)],
        [(0, 1, 0), (1, 1, 0), (1, 1, 1), (0, 1, 1)],
        [(0, 0, 0), (1, 0, 0), (1, 0, 1), (0, 0, 1)],
        [(0, 0, 0), (0, 1, 0), (0, 1, 1), (0, 0, 1)],
        [(1, 0, 0), (1, 1, 0), (1, 1, 1), (1, 0, 1)],
    ]
    outward = [(0, 1, 0), (0, -1, 0), (0, 0, 1), (0, 0, -1), (-1, 0, 0), (1, 0, 0)]
    parts = []
    for names, out in zip(sides, outward, strict=True):
        corners = np.array([corner[name] for name in names])
        parts.append(
            mesh(corners, np.tile(out, (4, 1)).astype(float), np.array([[0, 1, 2], [0, 2, 3]]), colour)
        )
    return np.concatenate(parts)
