"""How readings lie among golfers, before one is looked at: the prior of every certainty."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from pathlib import Path

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.teaching.knowledge.band import Key

SHIPPED = Path(__file__).parents[1] / "book" / "population.json"


@dataclass(frozen=True, kw_only=True, eq=False)
class Population:
    """Mean (n,) and covariance (n, n) of readings over golfers, in their units, and where they are from."""

    origin: str
    keys: tuple[Key, ...]
    mean: Array
    covariance: Array

    def __post_init__(self) -> None:
        """Raises ValueError where a column is of another shape than its keys."""
        count = len(self.keys)
        if self.mean.shape != (count,) or self.covariance.shape != (count, count):
            raise ValueError(f"{count} keys, mean {self.mean.shape}, covariance {self.covariance.shape}")

    def knows(self, key: Key) -> bool:
        """Whether it says anything of a reading."""
        return key in self._rows

    def of(self, keys: Sequence[Key]) -> tuple[Array, Array]:
        """Mean and covariance of some readings that it knows."""
        rows = [self._rows[key] for key in keys]
        return self.mean[rows], self.covariance[np.ix_(rows, rows)]

    def spread(self, terms: Sequence[tuple[Key, float]]) -> float | None:
        """One standard deviation of a sum of readings with signs; None where it does not know one of them."""
        if not all(self.knows(key) for key, _ in terms):
            return None
        _, covariance = self.of([key for key, _ in terms])
        signs = np.array([sign for _, sign in terms])
        return float(np.sqrt(max(signs @ covariance @ signs, 0.0)))

    @cached_property
    def _rows(self) -> dict[Key, int]:
        return {key: row for row, key in enumerate(self.keys)}


@lru_cache
def shipped_population() -> Population:
    """The one that comes with the book."""
    document = json.loads(SHIPPED.read_text("utf-8"))
    sd = np.array([each["sd"] for each in document["readings"]]) * document["widened"]
    correlation = np.eye(len(sd))
    for row, told in enumerate(document["correlation"]):
        correlation[row, : row + 1] = np.append(np.array(told) / 100, 1.0)
    correlation = np.tril(correlation) + np.tril(correlation, -1).T
    return Population(
        origin=document["origin"],
        keys=tuple((each["reading"], each["at"]) for each in document["readings"]),
        mean=np.array([each["mean"] for each in document["readings"]]),
        covariance=_positive(correlation) * np.outer(sd, sd),
    )


def _positive(correlation: Array) -> Array:
    """The nearest that rounding to hundredths left positive: eigenvalues below nothing are lifted."""
    values, vectors = np.linalg.eigh(correlation)
    lifted = vectors @ np.diag(np.maximum(values, 1e-4)) @ vectors.T
    spread = np.sqrt(np.diag(lifted))
    return np.asarray(lifted / np.outer(spread, spread))
