"""One reading of one golfer over time."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.error.value import NORMAL_95


@dataclass(frozen=True, kw_only=True)
class Point:
    """A reading of one swing: `day` is any count of days, `stretch` the count of lessons before it.

    `u95` holds all of its error, in the reading's unit; `set_up_share`, 0 to 1, is the part of its variance
    that other swings before the same camera share: where the camera stood, how long a length was.
    """

    value: float
    u95: float
    day: int
    stretch: int = 0
    set_up_share: float = 0.0


class Series:
    """The points of one reading; ValueError names a point that is not a finite number with an error."""

    def __init__(self, points: Sequence[Point]) -> None:
        for number, each in enumerate(points):
            if not np.isfinite(each.value) or not (np.isfinite(each.u95) and each.u95 >= 0):
                raise ValueError(f"point {number} is no number with an error")
            if not 0 <= each.set_up_share <= 1:
                raise ValueError(f"point {number}: a share lies between 0 and 1")
        self.points = tuple(points)

    @cached_property
    def values(self) -> Array:
        """Shape (n,)."""
        return np.array([each.value for each in self.points], float)

    @cached_property
    def own_variances(self) -> Array:
        """Variance of each point's error that it shares with no other, shape (n,)."""
        return np.array([self._variance(each) * (1 - each.set_up_share) for each in self.points], float)

    @cached_property
    def blocks(self) -> Frames:
        """For each point, which day within which stretch it is of, counted from 0."""
        return np.unique([(each.stretch, each.day) for each in self.points], axis=0, return_inverse=True)[1]

    @cached_property
    def stretch_of_block(self) -> Frames:
        """For each day within a stretch, which stretch."""
        return np.unique([(each.stretch, each.day) for each in self.points], axis=0)[:, 0]

    @cached_property
    def set_up_variances(self) -> Array:
        """Variance that all swings of a day share through their camera, by day within a stretch."""
        shared = np.array([self._variance(each) * each.set_up_share for each in self.points], float)
        return np.bincount(self.blocks, shared) / np.bincount(self.blocks)

    @staticmethod
    def _variance(point: Point) -> float:
        return (point.u95 / NORMAL_95) ** 2
