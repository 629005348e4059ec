"""Where the error of a reading comes from."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from tropometer.swing.measured import NORMAL_95, Array, Measured
from tropometer.swing.reading import Share

# What each kind of source is called in a budget.
BUDGET = {
    "mark": "marks",
    "camera": "camera",
    "depth": "depth",
    "stand": "where the player stands",
    "moment": "time between frames",
}
LEAST_SHARE = 1e-3


class Budget:
    """The error of a reading at n moments: `u95` (n,), and its variance by source."""

    def __init__(self, measured: Measured, count: int) -> None:
        self.sources, squares = measured.by_source()
        squares = np.broadcast_to(squares, (len(squares), count))
        whole = squares.sum(axis=0)
        self.u95 = NORMAL_95 * np.sqrt(whole)
        self._largest = squares.argmax(axis=0).tolist() if self.sources else []
        with np.errstate(divide="ignore", invalid="ignore"):
            self._shares = (_by_kind(self.sources) @ squares / whole).T.tolist()

    def largest(self, column: int) -> str:
        """The source that brings most of one moment's variance, in words."""
        if not self.u95[column] > 0:
            return ""
        kind, _, what = self.sources[self._largest[column]].partition(": ")
        return what if kind == "mark" else f"{BUDGET[kind]}, {what}"

    def shares(self, column: int) -> tuple[Share, ...]:
        """Shares of one moment's variance by kind of source, the largest first."""
        named = zip(self._shares[column], BUDGET.values(), strict=True)
        falling = sorted((each for each in named if each[0] > LEAST_SHARE), reverse=True)
        return tuple(Share(kind, share) for share, kind in falling)


@lru_cache(maxsize=1024)
def _by_kind(sources: tuple[str, ...]) -> Array:
    """Which of the sources are of which kind (kinds, sources): 1 where they are, else 0."""
    kinds = list(BUDGET)
    of_kind = np.zeros((len(kinds), len(sources)))
    for i, source in enumerate(sources):
        of_kind[kinds.index(source.partition(":")[0]), i] = 1
    return of_kind
