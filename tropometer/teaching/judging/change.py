"""Whether a reading changed between two swings, by more than its errors and a golfer's own scatter."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from tropometer.teaching.judging.population import Population
from tropometer.teaching.knowledge.band import Band, Key

NORMAL_95 = 1.959964
# One golfer's swings scatter by so much of what golfers differ by; common practice, no source.
OWN_SCATTER = 0.15

Moved = Literal["toward", "away", "not_shown"]


@dataclass(frozen=True, kw_only=True)
class Change:
    """From then to now: by how much, within what, and whether it went toward the band or away from it."""

    then: float
    now: float
    u95: float
    moved: Moved

    @property
    def by(self) -> float:
        """Now less then."""
        return self.now - self.then


def minimal_detectable_change(sem: float) -> float:
    """The least change of one that is more than error, at 95 %: SEM · 1.96 · √2.

    Weir 2005, J Strength Cond Res 19:231, "minimum difference". SEM: standard error of one measurement,
    which holds both how it is measured and how the measured scatters.
    """
    return NORMAL_95 * math.sqrt(2) * sem


def change_of(
    key: Key, then: Sequence[float], now: Sequence[float], band: Band | None, population: Population | None
) -> Change:
    """`then` and `now` are a value and its u95 each."""
    (then_value, then_u95), (now_value, now_u95) = then, now
    spread = population.spread(((key, 1.0),)) if population else None
    scatter = minimal_detectable_change(OWN_SCATTER * (spread or 0.0))
    # Two errors of measuring, which may differ, beside a scatter that is the same at both times.
    u95 = math.sqrt(then_u95**2 + now_u95**2 + scatter**2)
    moved: Moved = "not_shown"
    if abs(now_value - then_value) > u95:
        moved = "toward" if _beyond(now_value, band) < _beyond(then_value, band) else "away"
    return Change(then=then_value, now=now_value, u95=u95, moved=moved)


def _beyond(value: float, band: Band | None) -> float:
    """How far a value lies outside its band."""
    low = band.low if band and band.low is not None else -math.inf
    high = band.high if band and band.high is not None else math.inf
    return max(low - value, value - high, 0.0)
