"""Where the errors of readings come from."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from tropometer.swing.arrays import Frames
from tropometer.swing.error.source import Origins, Source, SourceKind, variances
from tropometer.swing.error.value import NORMAL_95, Measured

# What each kind of source is called in a budget.
BUDGET: dict[SourceKind, str] = {
    "mark": "marks",
    "eye": "where the eye puts it",
    "camera": "camera",
    "depth": "depth",
    "stand": "where the player stands",
    "moment": "time between frames",
    "mat": "how the mat lies",
    "plate": "the pressure plate",
    "others": "the readings that it is made of",
}
WORDS = tuple(BUDGET.values())
LEAST_SHARE = 1e-3


class Share(NamedTuple):
    """How much of a reading's variance comes from one kind of source, 0 to 1."""

    source: str
    share: float


def in_words(source: Source) -> str:
    """A source as a budget names it."""
    of = () if source.kind == "mark" else (BUDGET[source.kind],)
    return ", ".join(word for word in (*of, source.words) if word)


class Budgets:
    """The errors of readings at n moments: `u95` (readings, n), and what their variance comes from."""

    def __init__(self, values: Sequence[Measured], count: int) -> None:
        found = variances([value.slopes for value in values], count)
        whole = found.whole()
        self.u95 = NORMAL_95 * np.sqrt(whole)
        self._sources = found.origins.sources
        self._largest = [
            found.squares[first : first + len(told)].argmax(axis=0).tolist() if told else []
            for first, told in zip(found.origins.firsts, self._sources, strict=True)
        ]
        by_kind = np.zeros((len(values) * len(WORDS), count))
        np.add.at(by_kind, _kinds(found.origins), found.squares)
        with np.errstate(divide="ignore", invalid="ignore"):
            shares = by_kind.reshape(len(values), len(WORDS), count) / whole[:, None]
        order = np.argsort(-shares, axis=1)
        self._order = order.swapaxes(1, 2).tolist()
        self._shares = np.take_along_axis(shares, order, axis=1).swapaxes(1, 2).tolist()
        self._told = (shares > LEAST_SHARE).sum(axis=1).tolist()

    def largest(self, reading: int, column: int) -> Source | None:
        """The source that brings most of the variance at one moment; None where there is no error."""
        if not self.u95[reading, column] > 0:
            return None
        source: Source = self._sources[reading][self._largest[reading][column]]
        return source

    def shares(self, reading: int, column: int) -> tuple[Share, ...]:
        """Shares of the variance at one moment by kind of source, the largest first."""
        told = self._told[reading][column]
        kinds, shares = self._order[reading][column][:told], self._shares[reading][column][:told]
        return tuple(map(Share, map(WORDS.__getitem__, kinds), shares))


@lru_cache(maxsize=64)
def _kinds(origins: Origins) -> Frames:
    """For each source of each reading, which kind of which reading it is, counted through."""
    kinds = list(BUDGET)
    return np.array(
        [
            reading * len(kinds) + kinds.index(source.kind)
            for reading, told in enumerate(origins.sources)
            for source in told
        ],
        int,
    )
