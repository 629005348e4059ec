"""Whether a goal is reached, from the swings since it was set."""

from __future__ import annotations

from typing import Literal, Protocol

import numpy as np

from tropometer.teaching.over_time.change import Change
from tropometer.teaching.over_time.scatter import below, means_of
from tropometer.teaching.over_time.series import Series
from tropometer.teaching.over_time.typical import Typical

State = Literal["reached", "on_the_way", "not_yet", "cannot_be_told"]
SURE = 0.9  # as what is shown is in a finding


class Wanted(Protocol):
    """Where a reading should come to lie; an end that is None is not asked for."""

    @property
    def low(self) -> float | None: ...
    @property
    def high(self) -> float | None: ...


def inside(series: Series, stretch: int, wanted: Wanted, typical: Typical) -> float:
    """How likely the mean of a stretch's swings lies where it should."""
    means = means_of(series, typical)
    mean, sd = means.mean[:, stretch], np.sqrt(means.variance[:, stretch])
    under = 0.0 if wanted.low is None else below(means.weight, mean, sd, wanted.low)
    over = 0.0 if wanted.high is None else 1 - below(means.weight, mean, sd, wanted.high)
    return min(max(1 - under - over, 0.0), 1.0)


def state_of(share_inside: float, change: Change | None) -> State:
    """Of a goal, from how likely it is inside and from what changed since it was set, if that is known."""
    if share_inside >= SURE:
        return "reached"
    if change is not None and change.moved == "toward":
        return "on_the_way"
    return "not_yet" if share_inside <= 1 - SURE else "cannot_be_told"
