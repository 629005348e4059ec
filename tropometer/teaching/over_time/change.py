"""Whether a reading changed between two stretches of time, by more than its errors and a golfer's scatter."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.error.value import NORMAL_95
from tropometer.teaching.knowledge.band import Band
from tropometer.teaching.over_time.scatter import Means, below, interval, means_of
from tropometer.teaching.over_time.series import Series
from tropometer.teaching.over_time.typical import Typical

# Toward the band, away from it, or moved without being nearer or farther; or nothing was shown although what
# matters would have been seen; or it cannot be told.
Moved = Literal["toward", "away", "moved", "not_shown", "unsure"]

MOST_SWINGS = 12  # more are not asked for on one day
MOST_DAYS = 6
A_DAY = 3  # swings on each further day
WORTH_OF_BAND = 0.25  # of its width: a change that an eye for the band notices; common practice, no source
WORTH_OF_SCATTER = 2.0  # where nothing is asked for, of the typical scatter


@dataclass(frozen=True, kw_only=True)
class Settles:
    """What would tell: so many more swings on so many further days, 0 days meaning the same day.

    `swings` 0: no count of swings would, because of how it is measured or of how little there was then.
    """

    swings: int
    days: int
    measuring: bool  # most of what is unsure now is how it is measured


@dataclass(frozen=True, kw_only=True)
class Change:
    """From then to now, in the reading's unit: how the mean of the swings moved, between `low` and `high`.

    `sure` is the probability that it moved the way it seems to; `then_u95` and `now_u95` are those of the
    means of so many swings.
    """

    then: float
    then_u95: float
    then_swings: int
    now: float
    now_u95: float
    now_swings: int
    low: float
    high: float
    sure: float
    moved: Moved
    settles: Settles | None

    @property
    def by(self) -> float:
        """Now less then."""
        return self.now - self.then

    @property
    def u95(self) -> float:
        """Half of the interval of the change."""
        return (self.high - self.low) / 2


def change_between(series: Series, then: int, now: int, band: Band | None, typical: Typical) -> Change:
    """Of two stretches that have points; KeyError where one has none."""
    for stretch in (then, now):
        if stretch not in series.stretch_of_block:
            raise KeyError(stretch)
    means = means_of(series, typical)
    moved_by = means.mean[:, now] - means.mean[:, then]
    sd = np.sqrt(means.variance[:, now] + means.variance[:, then])
    low, high = interval(means.weight, moved_by, sd)
    ends = [_mean(means, stretch) for stretch in (then, now)]
    (then_value, then_u95), (now_value, now_u95) = ends
    down = below(means.weight, moved_by, sd, 0.0)
    worth = _worth(then_value, band, typical)
    moved: Moved = "unsure" if (high - low) / 2 > worth else "not_shown"
    if low > 0 or high < 0:
        moved = _way(then_value, now_value, band)
    return Change(
        then=then_value,
        then_u95=then_u95,
        then_swings=_count(series, then),
        now=now_value,
        now_u95=now_u95,
        now_swings=_count(series, now),
        low=low,
        high=high,
        sure=max(down, 1 - down),
        moved=moved,
        settles=_settles(series, means, then, now, worth) if moved == "unsure" else None,
    )


def _mean(means: Means, stretch: int) -> tuple[float, float]:
    value = float(means.weight @ means.mean[:, stretch])
    low, high = interval(means.weight, means.mean[:, stretch], np.sqrt(means.variance[:, stretch]))
    return value, (high - low) / 2


def _count(series: Series, stretch: int) -> int:
    return sum(each.stretch == stretch for each in series.points)


def _way(then: float, now: float, band: Band | None) -> Moved:
    nearer = beyond(then, band) - beyond(now, band)
    return "toward" if nearer > 0 else "away" if nearer < 0 else "moved"


def beyond(value: float, band: Band | None) -> float:
    """How far a value lies outside its band; 0 inside, or where none is asked for."""
    low = band.low if band and band.low is not None else -math.inf
    high = band.high if band and band.high is not None else math.inf
    return max(low - value, value - high, 0.0)


def _worth(then: float, band: Band | None, typical: Typical) -> float:
    """A change that matters: half of the way to the band, or a part of the band's width."""
    width = (band.half_width or 0.0) * 2 if band else 0.0
    return max(beyond(then, band) / 2, WORTH_OF_BAND * width) or WORTH_OF_SCATTER * typical.within


def _settles(series: Series, means: Means, then: int, now: int, worth: float) -> Settles:
    """The fewest further swings after which half of the interval should be no more than what matters.

    On the same day they share its day and its camera; further days bring both anew.
    """
    within, between = (float(means.weight @ each**2) for each in (means.within, means.between))
    fixed = float(means.weight @ means.variance[:, then])
    today = max(each.day for each in series.points if each.stretch == now)
    of_today = np.array([(each.stretch, each.day) == (now, today) for each in series.points])
    own = float(series.own_variances[of_today].mean())
    shared = float(series.set_up_variances[series.blocks[of_today][0]])
    earlier = _precision_before(series, now, today, within, between)
    wanted = (worth / NORMAL_95) ** 2
    have = int(of_today.sum())

    def day(swings: int) -> float:
        return 1 / (between + shared + (within + own) / swings)

    measuring = own / have + shared > within / have + between
    for more in range(1, MOST_SWINGS + 1):
        if fixed + 1 / (earlier + day(have + more)) <= wanted:
            return Settles(swings=more, days=0, measuring=measuring)
    for days in range(1, MOST_DAYS + 1):
        if fixed + 1 / (earlier + day(have) + days * day(A_DAY)) <= wanted:
            return Settles(swings=days * A_DAY, days=days, measuring=measuring)
    return Settles(swings=0, days=0, measuring=measuring)


def _precision_before(series: Series, now: int, today: int, within: float, between: float) -> float:
    """What the other days of a stretch tell of its mean."""
    others: list[int] = sorted(
        {
            int(block)
            for block, each in zip(series.blocks, series.points, strict=True)
            if each.stretch == now and each.day != today
        }
    )
    variances: list[Array] = [series.own_variances[series.blocks == block] for block in others]
    return sum(
        1 / (between + float(series.set_up_variances[block]) + float(1 / (1 / (within + own)).sum()))
        for block, own in zip(others, variances, strict=True)
    )
