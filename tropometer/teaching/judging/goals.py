"""Goals: what a reading should be when a fault is gone, and whether it is."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from tropometer.teaching.judging.finding import Finding
from tropometer.teaching.knowledge.band import Band, Key


@dataclass(frozen=True, kw_only=True)
class Goal:
    """A reading and where it should come to lie, in its unit; an end that is not there is not asked for."""

    reading: str
    at: str
    low: float | None
    high: float | None

    def is_reached(self, value: float) -> bool:
        """Whether a value lies where it should."""
        return (self.low is None or value >= self.low) and (self.high is None or value <= self.high)


def goal_for(finding: Finding, bands: Mapping[Key, Band]) -> Goal | None:
    """The band of the surest evidence that one reading gives by itself; else that its limit is kept.

    None where the evidence is a change or a difference alone, or nothing of it was seen.
    """
    alone = [each for each in finding.witnesses if each.since is None and each.less is None]
    seen = [each for each in alone if each.value is not None]
    if not seen:
        return None
    surest = max(seen, key=lambda each: each.certainty or 0.0)
    band = bands.get((surest.reading, surest.at))
    if band is not None:
        return Goal(reading=surest.reading, at=surest.at, low=band.low, high=band.high)
    low, high = (surest.limit, None) if surest.way < 0 else (None, surest.limit)
    return Goal(reading=surest.reading, at=surest.at, low=low, high=high)
