"""Several swings of one day, read together: their mean, their scatter, and the one unlike the rest."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr

from tropometer.swing.arrays import Array
from tropometer.teaching.over_time.scatter import BETWEEN_STEPS, WITHIN_STEPS, interval, means_of
from tropometer.teaching.over_time.series import Point, Series
from tropometer.teaching.over_time.typical import Typical

LEAST_SWINGS = 3
UNLIKE = 0.01  # so seldom would any swing of a day lie so far from the others


@dataclass(frozen=True, kw_only=True)
class Together:
    """Mean of a day's swings with its u95 and their scatter (one standard deviation), in the reading's unit.

    `unlike` is the place of the swing that does not belong to the others, `low` to `high` where the others
    would have it; None where each does.
    """

    mean: float
    u95: float
    scatter: float
    unlike: int | None
    low: float | None
    high: float | None


def together(points: list[Point], typical: Typical) -> Together | None:
    """None for fewer than three swings: which of two is unlike the other nobody can say."""
    if len(points) < LEAST_SWINGS:
        return None
    one_day = [_same_day(each) for each in points]
    means = means_of(Series(one_day), typical)
    low, high = interval(means.weight, means.mean[:, 0], np.sqrt(means.variance[:, 0]))
    others = others_of(Series(one_day), typical)
    chances = others.chances
    number = int(np.argmin(chances))
    found = float(chances[number]) * len(points) < UNLIKE
    low_other, high_other = others.interval(number) if found else (None, None)
    return Together(
        mean=float(means.weight @ means.mean[:, 0]),
        u95=(high - low) / 2,
        scatter=float(means.weight @ means.within),
        unlike=number if found else None,
        low=low_other,
        high=high_other,
    )


def _same_day(point: Point) -> Point:
    return Point(value=point.value, u95=point.u95, day=0, stretch=0, set_up_share=point.set_up_share)


@dataclass(frozen=True, kw_only=True, eq=False)
class Others:
    """Where the other n - 1 swings of a day would have each: mixtures of normals, each shape (g, n)."""

    values: Array
    weight: Array
    mean: Array
    sd: Array

    @property
    def chances(self) -> Array:
        """How seldom each swing lies so far out when the others are the rule (n,)."""
        under = (self.weight * ndtr((self.values - self.mean) / self.sd)).sum(axis=0)
        return np.asarray(2 * np.minimum(under, 1 - under))

    def interval(self, number: int) -> tuple[float, float]:
        """Ends of where the others would have one in 95 of 100 swings."""
        return interval(self.weight[:, number], self.mean[:, number], self.sd[:, number])


def others_of(series: Series, typical: Typical) -> Others:
    """What `means_of` says of a day's swings without each in turn, from the sums over all of them.

    Day and camera are the same for the one left out as for the others, so they count for nothing here: the
    scatter from day to day is summed out of the prior, and each normal stands for one scatter within a day.
    """
    values, own = series.values, series.own_variances
    within, between = typical.within * WITHIN_STEPS, typical.within * BETWEEN_STEPS
    variance = own + within[:, None] ** 2  # (g, n)
    weight = 1 / variance
    rest = weight.sum(axis=1, keepdims=True) - weight
    mean = ((weight * values).sum(axis=1, keepdims=True) - weight * values) / rest
    # About the mean of all, so that far from nothing no figures are lost.
    off = values - values.mean()
    squares = (weight * off**2).sum(axis=1, keepdims=True) - weight * off**2
    spread = np.maximum(squares - rest * (mean - values.mean()) ** 2, 0.0)
    logs = np.log(variance).sum(axis=1, keepdims=True) - np.log(variance)
    prior = np.logaddexp.reduce(typical.log_prior(within[:, None], between), axis=1)
    log = -0.5 * (logs + spread + np.log(rest)) + prior[:, None]
    chance = np.exp(log - log.max(axis=0))
    return Others(
        values=values,
        weight=chance / chance.sum(axis=0),
        mean=mean,
        sd=np.sqrt(1 / rest + variance),
    )
