"""What is known of a swing's readings after measuring: many equally likely sets of their true values."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.special import ndtri
from scipy.stats import qmc

from tropometer.swing.arrays import Array
from tropometer.swing.readings.reading import Reading
from tropometer.teaching.judging.population import Population
from tropometer.teaching.knowledge.band import Key

LOG2_DRAWS = 11
EXACT = 1e-12  # a spread below this is none


@dataclass(frozen=True, kw_only=True, eq=False)
class Evidence:
    """Given readings, and draws (n, N) from what their true values may jointly be."""

    readings: Mapping[Key, Reading]
    refused: Mapping[Key, Reading]
    draws: Mapping[Key, Array]

    def sees(self, key: Key) -> bool:
        """Whether a reading is given."""
        return key in self.draws


def weighed(
    readings: Iterable[Reading],
    covariance: Callable[[Sequence[Key]], Array],
    keys: Iterable[Key],
    population: Population | None,
) -> Evidence:
    """The readings of some keys, with what their joint error and the population leave open.

    With measured values m, their covariance S, and a population of mean μ and covariance P, true values are
    normal about μ + P(P + S)⁻¹(m − μ) with covariance P − P(P + S)⁻¹P (Gelman et al., Bayesian Data Analysis,
    3rd ed., 3.5). Without a population, or for a reading that it does not know, they are so about m with S.
    """
    wanted = dict.fromkeys(keys)
    found = {(each.reading, each.at): each for each in readings if (each.reading, each.at) in wanted}
    given = {key: each for key, each in found.items() if each.status == "ok" and each.value is not None}
    order = list(given)
    measured = np.array([each.value for each in given.values()], float)
    error = covariance(order) if order else np.zeros((0, 0))
    mean, spread = measured.copy(), error.copy()
    usual = population.readings if population is not None else {}
    known = [i for i, key in enumerate(order) if key in usual]
    if known:
        prior_mean = np.array([usual[order[i]].mean for i in known])
        prior = np.diag([usual[order[i]].sd ** 2 for i in known])
        inside = np.ix_(known, known)
        whole = prior + error[inside] + EXACT * np.eye(len(known))
        # gain = P (P + S)⁻¹, of symmetric matrices
        gain = np.linalg.solve(whole, prior).T
        mean[known] = prior_mean + gain @ (measured[known] - prior_mean)
        spread[inside] = prior - gain @ prior
    drawn = mean[:, None] + _root(spread) @ _normal(len(order))
    return Evidence(
        readings=given,
        refused={key: each for key, each in found.items() if key not in given},
        draws=dict(zip(order, drawn, strict=True)),
    )


def _root(covariance: Array) -> Array:
    """R with R Rᵀ = covariance, also where that is not of full rank."""
    values, vectors = np.linalg.eigh(covariance) if len(covariance) else (np.zeros(0), np.zeros((0, 0)))
    return np.asarray(vectors * np.sqrt(np.maximum(values, 0.0)))


@lru_cache(maxsize=8)
def _table(rows: int) -> Array:
    """Quasi-random normal numbers (rows, N): a scrambled Sobol sequence, the same every time."""
    return np.asarray(ndtri(qmc.Sobol(rows, seed=20).random_base2(LOG2_DRAWS)).T)


def _normal(rows: int) -> Array:
    # In steps of many, so that a swing with one reading more finds the table ready.
    return _table(max(64, -(-rows // 64) * 64))[:rows]
