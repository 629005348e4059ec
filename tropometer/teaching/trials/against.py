"""Tries with one thing changed, held against the tries before: real, or a lucky one.

All tries of an hour stand before the same cameras: what they share of their error goes out of differences.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.error.value import NORMAL_95
from tropometer.teaching.over_time.scatter import below, interval, means_of
from tropometer.teaching.over_time.series import Point, Series
from tropometer.teaching.over_time.typical import Typical

# Real: by the interval, and by the exact test of enough tries. Seems: by the interval, of too few tries.
# Not shown: what matters would have been seen. Unsure: it would not.
Verdict = Literal["real", "seems", "not_shown", "unsure"]

SURE = 0.05  # of the two-sided test
LEAST_EACH = 4  # three against three come out no rarer than once in ten: 2 of C(6, 3)
MOST_EACH = 12  # more tries each way are not asked for in an hour
MOST_ORDERS = 200_000  # ways to deal the tries out, beyond which they are drawn at random
DRAWN, SEED = 20_000, 11


@dataclass(frozen=True, kw_only=True)
class Tried:
    """A column's value of one try with its u95; `set_up_share` of its variance is the same in all tries."""

    value: float
    u95: float
    set_up_share: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Against:
    """Changed tries against the base, in the column's unit: means, and their difference from `low` to `high`.

    `sure` is the probability that it went the way it seems to; `p` the exact permutation test's, two-sided,
    None where either side has fewer than four tries; `rarest` what it could be at the least with so many.
    `more` is how many tries each way would settle it; 0 where none are needed, or none would.
    """

    base: float
    changed: float
    low: float
    high: float
    sure: float
    p: float | None
    rarest: float
    verdict: Verdict
    more: int

    @property
    def by(self) -> float:
        """Changed less base."""
        return self.changed - self.base


@dataclass(frozen=True, kw_only=True, eq=False)
class HourScatter:
    """How one golfer's tries of an hour scatter: g standard deviations, and how likely each is."""

    within: Array
    weight: Array


def hour_scatter(groups: Sequence[Sequence[Tried]], typical: Typical) -> HourScatter:
    """From all groups of tries, each about its own mean; what is typical where they are few.

    Raises ValueError where there is no try.
    """
    points = [
        Point(value=each.value, u95=each.u95, day=number, stretch=number, set_up_share=each.set_up_share)
        for number, group in enumerate([group for group in groups if group])
        for each in group
    ]
    means = means_of(Series(points), typical)
    return HourScatter(within=means.within, weight=means.weight)


def against(base: Sequence[Tried], changed: Sequence[Tried], scatter: HourScatter, worth: float) -> Against:
    """Hold changed tries against the base; a difference smaller than `worth` matters to nobody.

    Raises ValueError where either side has none.
    """
    if not base or not changed:
        raise ValueError("tries: one side has none")
    (base_mean, base_variance), (changed_mean, changed_variance) = (
        _mean(side, scatter) for side in (base, changed)
    )
    by, sd = changed_mean - base_mean, np.sqrt(base_variance + changed_variance)
    low, high = interval(scatter.weight, by, sd)
    down = below(scatter.weight, by, sd, 0.0)
    p = exact_p([each.value for each in base], [each.value for each in changed])
    fewest = min(len(base), len(changed))
    verdict: Verdict
    if low > 0 or high < 0:
        verdict = "seems" if fewest < LEAST_EACH else "real" if p is not None and p <= SURE else "unsure"
    else:
        verdict = "not_shown" if max(-low, high) <= worth and fewest >= LEAST_EACH else "unsure"
    expected, settled = float(scatter.weight @ by), verdict in ("real", "not_shown")
    return Against(
        base=float(scatter.weight @ base_mean),
        changed=float(scatter.weight @ changed_mean),
        low=low,
        high=high,
        sure=max(down, 1 - down),
        p=p,
        rarest=rarest(len(base), len(changed)),
        verdict=verdict,
        more=0 if settled else _more(base, changed, scatter, max(abs(expected), worth)),
    )


def exact_p(base: Sequence[float], changed: Sequence[float]) -> float | None:
    """Of all ways to deal the values out to both sides, the share whose means lie at least as far apart.

    Fisher 1935, The Design of Experiments, 21, for two samples. None where a side has fewer than four; of
    more ways than can be gone through, a fixed draw of them, with the one that was seen (Phipson and Smyth
    2010, Stat. Appl. Genet. Mol. Biol. 9:39).
    """
    if min(len(base), len(changed)) < LEAST_EACH:
        return None
    values, count = np.array([*base, *changed], float), len(base)
    total = values.sum()
    found = abs(_apart(np.array([values[:count].sum()]), total, count, len(values))[0])
    ways = math.comb(len(values), count)
    if ways <= MOST_ORDERS:
        rows = np.array(list(combinations(range(len(values)), count)))
        sums = values[rows].sum(axis=1)
    else:
        random = np.random.default_rng(SEED)
        dealt = random.permuted(np.tile(values, (DRAWN, 1)), axis=1)
        sums = np.append(dealt[:, :count].sum(axis=1), values[:count].sum())
    apart = np.abs(_apart(sums, total, count, len(values)))
    # Equal but for rounding counts as equally far apart.
    return float(np.mean(apart >= found - 1e-9 * max(found, 1e-300)))


def rarest(base: int, changed: int) -> float:
    """The least p that so many tries can come to: both sides wholly apart, either way."""
    return min(1.0, 2 / math.comb(base + changed, base))


def _apart(sums: Array, total: float, count: int, all_of_them: int) -> Array:
    return np.asarray(sums / count - (total - sums) / (all_of_them - count))


def _mean(tries: Sequence[Tried], scatter: HourScatter) -> tuple[Array, Array]:
    """The mean of some tries and its variance, for each scatter (g,), without what all tries share."""
    values = np.array([each.value for each in tries], float)
    weight = 1 / (_own(tries) + scatter.within[:, None] ** 2)
    return weight @ values / weight.sum(axis=1), 1 / weight.sum(axis=1)


def _own(tries: Sequence[Tried]) -> Array:
    return np.array([(each.u95 / NORMAL_95) ** 2 * (1 - each.set_up_share) for each in tries], float)


def _more(base: Sequence[Tried], changed: Sequence[Tried], scatter: HourScatter, wanted: float) -> int:
    """The fewest further tries each way after which a difference of that size would be told from none."""
    variance = float(scatter.weight @ scatter.within**2)
    own = [float(_own(side).mean()) + variance for side in (base, changed)]
    for more in range(1, MOST_EACH + 1):
        counts = len(base) + more, len(changed) + more
        sd = math.sqrt(sum(each / count for each, count in zip(own, counts, strict=True)))
        if min(counts) >= LEAST_EACH and NORMAL_95 * sd <= wanted:
            return more
    return 0
