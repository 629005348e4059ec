"""A stranger's pelvis in its clothes, and where a line of sight grazes it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

Floats = npt.NDArray[np.float64]
U = np.array([0.0, 0.0, 1.0])


@dataclass(frozen=True, eq=False)
class Pelvis:
    """Hip joints (n, 3) and the clothed pelvis: an elliptic cylinder, its middle `behind` the joints."""

    middle: Floats
    lead_hip: Floats
    trail_hip: Floats
    ahead: Floats
    half_breadth: float
    half_depth: float
    behind: float
    tilt: Floats

    def outline(self, name: str, way: Floats) -> Floats:
        """Where an outline's mark is (n, 3), seen so that it lies farthest along some way (n, 3)."""
        return (
            self.seat(way)
            if name == "seat"
            else self.edge("lead" if name == "lead_hip_edge" else "trail", way)
        )

    def edge(self, side: Literal["lead", "trail"], way: Floats) -> Floats:
        """The outline (n, 3) at the hip joint's height, farthest along some way (n, 3) over the floor."""
        hip = self.lead_hip if side == "lead" else self.trail_hip
        found = self._farthest(way)
        found[:, 2] = hip[:, 2]
        return found

    def seat(self, way: Floats) -> Floats:
        """The outline farthest along some way (n, 3): it lies lower as the pelvis tips back."""
        found = self._farthest(way)
        found[:, 2] = self.middle[:, 2] - 0.02 + 0.10 * np.sin(self.tilt)
        return found

    def _farthest(self, way: Floats) -> Floats:
        across = np.cross(self.ahead, U)
        a, b = (np.sum(way * axis, -1) for axis in (across, self.ahead))
        far = np.sqrt((a * self.half_breadth) ** 2 + (b * self.half_depth) ** 2)
        # Tipped forward, the seat goes back.
        behind = self.behind + 0.04 * np.sin(self.tilt)
        return np.asarray(
            self.middle
            - behind[:, None] * self.ahead
            + (a * self.half_breadth**2 / far)[:, None] * across
            + (b * self.half_depth**2 / far)[:, None] * self.ahead
        )
