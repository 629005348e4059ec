"""A device's clock put on ours, from questions that it answered with its own time.

We ask at one time and hear the answer at another: its clock said what it says somewhere between (Cristian
1989, Distributed Computing 3:146). The quickest answers say most. Offset and drift follow by weighted least
squares, with a drift that no crystal exceeds as prior.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array

KEPT = 80  # exchanges
DRIFT_SD = 60e-6  # of a crystal; common practice, no source
LEAST_SD_S = 0.0005  # of reading a clock at all
JUMPED_S = 0.05  # an answer so far outside what it could be was given by a clock that jumped


@dataclass(frozen=True, kw_only=True)
class Exchange:
    """A question asked and its answer heard, on our clock, and what theirs said; seconds."""

    asked_s: float
    heard_s: float
    theirs_s: float

    def __post_init__(self) -> None:
        """Raises ValueError for what is no time, or an answer before its question."""
        if not all(math.isfinite(each) for each in (self.asked_s, self.heard_s, self.theirs_s)):
            raise ValueError("an exchange's times are finite")
        if self.heard_s < self.asked_s:
            raise ValueError("an answer is heard after it is asked for")

    @property
    def offset_s(self) -> float:
        """Ours less theirs, if the way there takes as long as the way back."""
        return (self.asked_s + self.heard_s) / 2 - self.theirs_s

    @property
    def sd_s(self) -> float:
        """One standard deviation of that: anywhere between question and answer alike."""
        return math.hypot((self.heard_s - self.asked_s) / math.sqrt(12), LEAST_SD_S)


@dataclass(frozen=True, kw_only=True, eq=False)
class Tie:
    """ours = theirs + offset + drift · (theirs − about), with the covariance (2, 2) of offset and drift."""

    about_s: float
    offset_s: float
    drift: float
    covariance: Array

    def ours(self, theirs_s: float) -> tuple[float, float]:
        """A time of theirs on our clock, and one standard deviation of that; seconds."""
        since = theirs_s - self.about_s
        row = np.array([1.0, since])
        return theirs_s + self.offset_s + self.drift * since, math.sqrt(float(row @ self.covariance @ row))


class TiedClock:
    """The exchanges with one device, and what they say of its clock; `jumps` counts how often it jumped."""

    def __init__(self) -> None:
        self.jumps = 0
        self._heard: list[Exchange] = []
        self._tie: Tie | None = None

    @property
    def tie(self) -> Tie | None:
        """None while it has answered nothing."""
        return self._tie

    def hear(self, exchange: Exchange) -> None:
        """Take an answer in; after a jump what was heard before counts no more."""
        if self._tie is not None:
            expected, sd_s = self._tie.ours(exchange.theirs_s)
            early, late = exchange.asked_s - expected, expected - exchange.heard_s
            if max(early, late) > JUMPED_S + 4 * sd_s:
                self.jumps += 1
                self._heard.clear()
        self._heard = [*self._heard, exchange][-KEPT:]
        self._tie = _tied(self._heard)


def _tied(heard: list[Exchange]) -> Tie:
    theirs = np.array([each.theirs_s for each in heard])
    offsets = np.array([each.offset_s for each in heard])
    sds = np.array([each.sd_s for each in heard])
    about = float(theirs[-1])
    design = np.stack([np.ones_like(theirs), theirs - about], axis=1)
    weight = 1 / sds**2
    # The prior: no drift, give or take DRIFT_SD.
    precision = design.T @ (weight[:, None] * design) + np.diag([0.0, 1 / DRIFT_SD**2])
    covariance = np.linalg.inv(precision)
    first = float(offsets[0])  # so that no figures are lost where the clocks are years apart
    offset, drift = covariance @ (design.T @ (weight * (offsets - first)))
    # A way that takes longer there than back does so every time: no count of answers takes that away.
    covariance[0, 0] += float(sds.min()) ** 2
    return Tie(about_s=about, offset_s=first + float(offset), drift=float(drift), covariance=covariance)
