"""Each click of a swing against all the others: both views, all checkpoints.

Clicks are taken for y = m + L z + n, jointly Gaussian: what is usual of a body and its ways, the cameras, the
eye, the frames' moments and every mark's own rest are the errors z. With P the inverse of their covariance,
what all other clicks say of some clicks s is told by e = (Pss)⁻¹ (P y)s, how far these lie from it, and
eᵀ (P y)s, by how much the whole becomes likelier without them (leave-one-out identities of Gaussian
processes, Rasmussen and Williams 2006, 5.4.2; from memory).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.linalg import solve_triangular

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.doubts.expected import Click, Expected
from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.scene.placed import Placed


@dataclass(eq=False)
class WholeSwing:
    """n clicks, by what they missed what is expected (2 n,), pixels, and the inverse of its covariance."""

    clicks: list[Click]
    missed: Array
    inverse: Array

    def slips(self) -> tuple[Array, Array]:
        """How far each click lies from what all others say (n, 2), pixels, and what leaving it out gains."""
        first = 2 * np.arange(len(self.clicks))
        pull = (self.inverse @ self.missed).reshape(-1, 2)
        own = np.array([[self.inverse[first + i, first + k] for k in range(2)] for i in range(2)])
        a, b, d = own[0, 0], own[0, 1], own[1, 1]
        determinant = a * d - b * b
        left_out = determinant <= 0
        safe = np.where(left_out, 1.0, determinant)
        by = np.stack([d * pull[:, 0] - b * pull[:, 1], a * pull[:, 1] - b * pull[:, 0]], axis=1)
        by = np.where(left_out[:, None], 0.0, by / safe[:, None])
        return by, np.sum(by * pull, axis=1)

    def gain(self, rows: Frames, moved: Array) -> float:
        """By how much all becomes likelier when rows (k,) are moved by (k,) pixels; twice a logarithm."""
        pull = self.inverse[rows] @ self.missed
        within = self.inverse[np.ix_(rows, rows)]
        return float(-2 * moved @ pull - moved @ within @ moved)

    def leave_out(self, click: int) -> None:
        """Take one click out: the inverse of the others' covariance, by its Schur complement."""
        own = slice(2 * click, 2 * click + 2)
        column = self.inverse[:, own]
        self.inverse = self.inverse - column @ np.linalg.solve(self.inverse[own, own], column.T)
        self.inverse[own, :] = self.inverse[:, own] = 0.0

    def move(self, rows: Frames, moved: Array) -> None:
        """Put some clicks elsewhere."""
        self.missed[rows] += moved


def whole_swing(placed: Placed) -> WholeSwing | None:
    """All clicks of a swing's checkpoints together; None where there is none."""
    if not placed.eyes or not placed.names:
        return None
    expected = Expected(placed)
    blocks = [block for column in range(len(CHECKPOINTS)) if (block := expected.block(column)) is not None]
    if not blocks:
        return None
    shared = np.concatenate([block.shared for block in blocks])
    missed = np.concatenate([block.missed for block in blocks])
    ends = np.cumsum([0, *(len(block.missed) for block in blocks)])
    inverse = np.zeros((ends[-1], ends[-1]))
    told = np.empty_like(shared)
    for block, first, end in zip(blocks, ends, ends[1:], strict=False):
        own = np.linalg.inv(block.own)
        inverse[first:end, first:end] = own
        told[first:end] = own @ block.shared
    # Woodbury: what all checkpoints share is few errors.
    inner = np.eye(shared.shape[1]) + shared.T @ told
    half = solve_triangular(np.linalg.cholesky(inner), told.T, lower=True)
    inverse -= half.T @ half
    clicks = [click for block in blocks for click in block.clicks]
    return WholeSwing(clicks, missed, inverse)
