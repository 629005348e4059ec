"""Goals: what a reading should come to next, and whether it is there."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.readings.reading import Unit
from tropometer.teaching.judging.finding import Finding, Witness
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.over_time.repeatability import minimal_detectable_change
from tropometer.teaching.over_time.typical import Typical, typical_scatter

MOST_SWINGS = 12  # more are not asked for to check a goal
# Nobody is asked for tenths of a degree.
FINE: dict[Unit, float] = {
    "m": 0.005, "deg": 1.0, "ratio": 0.01, "to_one": 0.1, "s": 0.005, "m_s": 0.05, "hours": 0.1, "sd": 0.1,
}  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class Goal:
    """A reading and where it should come to lie, in its unit; an end that is not there is not asked for.

    `swings`: so many a check needs to tell its near end from what was read; None: no count of them does.
    """

    reading: str
    at: str
    low: float | None
    high: float | None
    swings: int | None = 1


def goal_for(finding: Finding, bands: Mapping[Key, Band]) -> Goal | None:
    """Half of the way from the surest evidence that one reading gives by itself to its band, or its limit.

    Never less than what can be told to be a change, and never past the band, whose ends a student's range of
    motion has moved. None where the evidence is a change or a difference alone, or nothing of it was seen.
    """
    alone = [each for each in finding.witnesses if each.since is None and each.less is None]
    seen = [each for each in alone if each.value is not None]
    if not seen:
        return None
    surest = max(seen, key=lambda each: each.certainty or 0.0)
    band = bands.get((surest.reading, surest.at))
    if band is not None:
        whole = Goal(reading=surest.reading, at=surest.at, low=band.low, high=band.high)
    else:
        low, high = (surest.limit, None) if surest.way < 0 else (None, surest.limit)
        whole = Goal(reading=surest.reading, at=surest.at, low=low, high=high)
    return _next_step(whole, surest, typical_scatter(surest.reading))


def _next_step(whole: Goal, seen: Witness, typical: Typical) -> Goal:
    """The part of the way to a goal that comes first."""
    value, sd = seen.value or 0.0, (seen.u95 or 0.0) / NORMAL_95
    if whole.low is not None and value < whole.low:
        step = _step(whole.low - value, sd, typical)
        unit = FINE[seen.unit]
        low = min(math.ceil((value + step) / unit - 1e-9) * unit, whole.low)
        return replace(whole, low=round(low, 6), swings=swings_to_tell(step, sd, typical))
    if whole.high is not None and value > whole.high:
        step = _step(value - whole.high, sd, typical)
        unit = FINE[seen.unit]
        high = max(math.floor((value - step) / unit + 1e-9) * unit, whole.high)
        return replace(whole, high=round(high, 6), swings=swings_to_tell(step, sd, typical))
    return whole


def _step(distance: float, sd: float, typical: Typical) -> float:
    return min(max(distance / 2, detectable(sd, typical)), distance)


def detectable(sd: float, typical: Typical) -> float:
    """The least change of one swing that is more than error and scatter.

    `sd` is one standard deviation of measuring one of the two.
    """
    return minimal_detectable_change(math.hypot(typical.within, typical.within * typical.between, sd))


def swings_to_tell(step: float, sd: float, typical: Typical) -> int | None:
    """How many swings of a day tell their mean that surely from what lies a step away; None: too many.

    A day's own difference, and half of the error of measuring, do not grow less with more swings.
    """
    within, between = typical.within, typical.within * typical.between
    fixed = between**2 + sd**2 / 2
    left = (step / NORMAL_95) ** 2 - fixed
    if left <= 0:
        return None
    count = math.ceil((within**2 + sd**2 / 2) / left)
    return count if count <= MOST_SWINGS else None
