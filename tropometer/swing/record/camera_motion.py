"""How a hand-held camera moved, and marks carried to where they would lie had it stood still."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from tropometer.swing.arrays import Array, Frames


@dataclass(frozen=True, eq=False)
class CameraMotion:
    """From one still picture to the picture of every frame.

    `moves` (n, 9) holds, row by row, a homography's first eight entries (the ninth is 1; Hartley and
    Zisserman, 2nd ed., 8.4.2) and one standard deviation in pixels of where it carries a point. Frames on
    which nobody could tell (NaN) take the motion of the nearest known one, five times as uncertain.
    """

    moves: Array

    def __post_init__(self) -> None:
        """Raises ValueError unless there are nine numbers a frame."""
        if self.moves.ndim != 2 or self.moves.shape[1] != 9:
            raise ValueError(f"moves is {self.moves.shape}: it takes nine numbers a frame")

    @cached_property
    def _known(self) -> tuple[Array, Array]:
        """Homographies (n, 3, 3) and standard deviations (n,), without gaps."""
        seen = np.flatnonzero(np.isfinite(self.moves[:, 0]))
        frames = np.arange(len(self.moves))
        nearest = seen[np.abs(frames[:, None] - seen).argmin(axis=1)]
        rows = self.moves[nearest]
        sd = np.where(nearest == frames, rows[:, 8], 5 * np.maximum(rows[:, 8], 0.2))
        return np.concatenate([rows[:, :8], np.ones((len(rows), 1))], axis=1).reshape(-1, 3, 3), sd

    @property
    def known_rows(self) -> Array:
        """The rows (n, 9) with their gaps filled."""
        matrices, sd = self._known
        return np.column_stack([matrices.reshape(-1, 9)[:, :8], sd])

    def still(self, frames: Frames, pixels: Array) -> tuple[Array, Array]:
        """Points (n, 2) of frames (n,) in the still picture, and its standard deviations (n,), pixels."""
        matrices, sd = self._known
        there = np.linalg.solve(matrices[frames], np.insert(pixels, 2, 1.0, axis=1)[..., None])[..., 0]
        return there[:, :2] / there[:, 2:], sd[frames]

    def moved(self, frame: int, x: float, y: float) -> tuple[float, float]:
        """A still point as it lies in a frame's picture."""
        matrices, _ = self._known
        across, down, scale = matrices[frame] @ np.array([x, y, 1.0])
        return float(across / scale), float(down / scale)

    def most_px(self, width: int, height: int) -> float:
        """How far the picture's middle moves on all but the wildest twentieth of the frames, pixels."""
        matrices, _ = self._known
        middle = np.array([width / 2, height / 2])
        there = matrices @ np.array([*middle, 1.0])
        aside = np.linalg.norm(there[:, :2] / there[:, 2:] - middle, axis=1)
        return float(np.percentile(aside, 95))
