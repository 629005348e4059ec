"""Rotations of many instants at once: matrices (n, 3, 3) and vectors (n, 3), right-handed, degrees."""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt
from scipy.spatial.transform import Rotation

Floats = npt.NDArray[np.float64]

TARGET, UP, BALL = np.eye(3)


def about(axis: Literal["x", "y", "z"], degrees: Floats) -> Floats:
    """Matrices (n, 3, 3) turning about one axis of the range by each angle (n,)."""
    turns: Floats = Rotation.from_euler(axis, np.reshape(degrees, (-1, 1)), degrees=True).as_matrix()
    return turns


def about_axis(axis: Floats, degrees: Floats) -> Floats:
    """Matrices turning about unit vectors (n, 3) by each angle (n,)."""
    turns: Floats = Rotation.from_rotvec(axis * np.radians(degrees)[:, None]).as_matrix()
    return turns


def turned(matrices: Floats, vectors: Floats) -> Floats:
    """Each matrix (n, 3, 3) on its vector (n, 3), or all on one vector (3,)."""
    moved: Floats = np.einsum("nij,nj->ni", matrices, np.broadcast_to(vectors, (len(matrices), 3)))
    return moved


def dot(a: Floats, b: Floats) -> Floats:
    """Scalar product of each pair (n, 3) as a column (n, 1)."""
    product: Floats = np.sum(a * b, axis=-1, keepdims=True)
    return product


def length(vectors: Floats) -> Floats:
    """Length of each vector (n, 3) as a column (n, 1)."""
    lengths: Floats = np.linalg.norm(vectors, axis=-1, keepdims=True)
    return lengths


def unit(vectors: Floats) -> Floats:
    """Each vector (n, 3) at length one."""
    scaled: Floats = vectors / length(vectors)
    return scaled


def square_to(vectors: Floats, axis: Floats) -> Floats:
    """The part of each vector square to a unit axis, at length one."""
    return unit(vectors - dot(vectors, axis) * axis)


def frame(along: Floats, toward: Floats) -> Floats:
    """Right-handed axes (n, 3, 3) in columns: along each vector, then as near `toward` as can be."""
    first = unit(along)
    second = square_to(toward, first)
    axes: Floats = np.stack([first, second, np.cross(first, second)], axis=-1)
    return axes


def between(start: Floats, end: Floats, share: float) -> Floats:
    """The matrices a share of the way from `start` to `end` along the shortest turn."""
    way = Rotation.from_matrix(np.swapaxes(start, 1, 2) @ end).as_rotvec()
    turns: Floats = start @ Rotation.from_rotvec(way * share).as_matrix()
    return turns


def shortest(start: Floats, end: Floats) -> Floats:
    """The smallest turns that take unit vectors `start` (n, 3) to `end` (n, 3); never for opposite ones."""
    k = np.cross(start, end)
    c = dot(start, end)[:, :, None]
    zero = np.zeros(len(k))
    cross = np.stack([zero, -k[:, 2], k[:, 1], k[:, 2], zero, -k[:, 0], -k[:, 1], k[:, 0], zero], 1)
    cross = cross.reshape(-1, 3, 3)
    turns: Floats = np.eye(3) + cross + cross @ cross / (1 + c)
    return turns
