"""How one golfer's swings scatter: within a day, and from day to day.

y = mean of the stretch + day + swing + error of measuring, all but the mean normal. The two scatters are
looked for on a grid, with typical scatter as a wide prior and every stretch's mean unknown and taken out
(restricted likelihood: Patterson and Thompson 1971, Biometrika 58:545). So few swings borrow from what is
typical, many speak for themselves, and what a lesson changed is not taken for scatter.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import brentq
from scipy.special import ndtr

from tropometer.swing.arrays import Array
from tropometer.teaching.over_time.series import Series
from tropometer.teaching.over_time.typical import Typical

# Both scatters are looked for between these parts of the typical one within a day.
WITHIN_STEPS = np.geomspace(0.12, 9.0, 27)
BETWEEN_STEPS = np.geomspace(0.04, 8.0, 19)
NEGLIGIBLE = 1e-12  # a normal of less weight moves no end that anybody could read
FINEST = 1e-8  # of the ground that a quantile is looked for on


@dataclass(frozen=True, kw_only=True, eq=False)
class Means:
    """What is known of each stretch's mean, for each of g scatters: `mean`, `variance` (g, stretches)."""

    weight: Array
    within: Array
    between: Array
    mean: Array
    variance: Array


def means_of(series: Series, typical: Typical) -> Means:
    """Where the mean of every stretch lies; ValueError without a point."""
    if not series.points:
        raise ValueError("points: there is none")
    within = typical.within * WITHIN_STEPS
    between = typical.within * BETWEEN_STEPS
    days, stretches = len(series.stretch_of_block), int(series.stretch_of_block.max()) + 1
    of_day = np.eye(days)[series.blocks]  # (n, days)
    of_stretch = np.eye(stretches)[series.stretch_of_block]  # (days, stretches)

    # What the scatter within a day alone decides, shape (within, …).
    variance = series.own_variances + within[:, None] ** 2
    weight = 1 / variance
    weights = weight @ of_day  # S = Σ w
    day = (weight * series.values) @ of_day / weights
    residual = series.values - day[:, series.blocks]
    of_swings = (
        np.log(variance).sum(axis=1) + (weight * residual**2).sum(axis=1) + np.log(weights).sum(axis=1)
    )

    # And with the scatter from day to day, shape (within, between, …).
    day = day[:, None]
    day_variance = 1 / weights[:, None] + between[:, None] ** 2 + series.set_up_variances
    precision = (1 / day_variance) @ of_stretch
    seen = precision > 0
    safe = np.where(seen, precision, 1.0)
    mean = (day / day_variance) @ of_stretch / safe
    off = day - mean[..., series.stretch_of_block]
    # −2 log likelihood, a day in closed form: |V| = Π v · S · (1/S + s²)
    twice = (
        of_swings[:, None]
        + np.log(day_variance).sum(axis=-1)
        + (off**2 / day_variance).sum(axis=-1)
        + np.log(safe).sum(axis=-1)
    )
    log = -0.5 * twice + typical.log_prior(within[:, None], between)
    chance = np.exp(log - log.max()).ravel()
    return Means(
        weight=chance / chance.sum(),
        within=np.repeat(within, len(between)),
        between=np.tile(between, len(within)),
        mean=mean.reshape(-1, stretches),
        variance=np.where(seen, 1 / safe, np.inf).reshape(-1, stretches),
    )


def interval(weight: Array, mean: Array, sd: Array, share: float = 0.95) -> tuple[float, float]:
    """Ends of the middle `share` of a mixture of normals, each shape (g,)."""
    tail, counts = (1 - share) / 2, weight > NEGLIGIBLE
    weight, mean, sd = weight[counts], mean[counts], sd[counts]
    return _quantile(weight, mean, sd, tail), _quantile(weight, mean, sd, 1 - tail)


def below(weight: Array, mean: Array, sd: Array, at: float) -> float:
    """How much of a mixture of normals lies below a value."""
    return float(weight @ ndtr((at - mean) / sd))


def _quantile(weight: Array, mean: Array, sd: Array, share: float) -> float:
    low, high = float((mean - 9 * sd).min()), float((mean + 9 * sd).max())
    return float(
        brentq(lambda at: below(weight, mean, sd, at) - share, low, high, xtol=FINEST * (high - low))
    )
