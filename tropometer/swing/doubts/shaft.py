"""A shaft that stays as long as it is: where both views show a club, its head moves across it, not along.

Where the head goes is hardly known, but that it goes about the grip on a sphere is: what is usual of its
place is therefore turned to where the shaft points, and kept at the shaft's length.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.doubts.body import NAMES

HEAD = NAMES.index("club_head")
LENGTH_SD_M = 0.06  # how unsure the length is that most checkpoints agree on
ALONG_M = 0.012  # how far from there a head is taken to be, besides what an eye misses: it is no point


@dataclass(frozen=True, eq=False)
class Shaft:
    """Rows of grip and head among a scene's marks, the shaft's way at each checkpoint (9, 3), its length.

    No way (0, 0, 0) where not both views show it: nothing is said of the shaft there.
    """

    grip: int
    head: int
    way: Array
    long_m: float

    @classmethod
    def of(cls, names: tuple[str, ...], places: Array, shown: Flags) -> Shaft | None:
        """The shaft of marks that lie at places (n, 9, 3), shown from both sides at some checkpoints (9,)."""
        if not shown.any():
            return None
        grip, head = names.index("grip"), names.index("club_head")
        whole = places[head] - places[grip]
        long = np.linalg.norm(whole, axis=-1)
        way = np.where(shown[:, None], whole / np.maximum(long, 1e-6)[:, None], 0.0)
        return cls(grip, head, way, float(np.median(long[shown])))

    def lengthened(self, mean: Array, carries: Array) -> Array:
        """What to add to places (n, 9, 3) to put the head, and what goes with it, at the shaft's length."""
        along = np.sum(self.way * (mean[self.head] - mean[self.grip]), axis=-1)
        return self._with_head(self.way * (self.long_m - along)[:, None], carries)

    def kept(self, ways: Array, carries: Array) -> Array:
        """What to add to what errors do (n, 9, 3, Q) for none to change the shaft's length."""
        along = np.einsum("ci,ciq->cq", self.way, ways[self.head] - ways[self.grip])
        return self._with_head(-self.way[..., None] * along[:, None], carries)

    def unknown(self, carries: Array) -> Array:
        """What one standard deviation of the shaft's length does (n, 9, 3, 1)."""
        return self._with_head(LENGTH_SD_M * self.way[..., None], carries)

    def own(self, column: int, rest: Array) -> Array:
        """What is left of the head beside the grip at a checkpoint (3, 3): rest (3,), but along the shaft."""
        way = self.way[column]
        along = np.outer(way, way)
        across = (np.eye(3) - along) * rest
        return np.asarray(np.linalg.cholesky(across @ across.T + ALONG_M**2 * along + 1e-9 * np.eye(3)))

    def _with_head(self, change: Array, carries: Array) -> Array:
        with_head = carries[:, HEAD]
        return np.asarray(with_head.reshape(-1, *[1] * change.ndim) * change)
