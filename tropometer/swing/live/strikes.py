"""Finds strikes in a plate's frames as they come, and cuts a swing out around each."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.clocks.felt_strike import FeltStrike, felt_strike
from tropometer.swing.live.frames import Frame, Frames, Place
from tropometer.swing.names import Hand
from tropometer.swing.record.plate import STANDING_N, PressurePlate

BEFORE_S, AFTER_S = 3.0, 2.0  # of a strike, what is kept
BACK_S = 1.6  # before the strike the swing goes back
LEAST_CROSSING = 0.08  # of the force that goes from the trail foot to the lead foot in a swing
APART_S = 4.0  # nobody strikes two balls within so long


@dataclass(frozen=True, kw_only=True, eq=False)
class Swung:
    """A swing that was felt: when it was struck on the plate's clock, and what was felt about that."""

    strike: FeltStrike
    frames: tuple[Frame, ...]

    def plate(self, hand: Hand) -> PressurePlate:
        """The same as a swing record keeps it, impact at its own time."""
        left_n, right_n = _forces(self.frames)
        left, right = _places([each.left for each in self.frames]), _places([e.right for e in self.frames])
        leads_left = hand == "right"
        return PressurePlate(
            times_s=np.array([each.t_s for each in self.frames]) - self.strike.at_s,
            lead_force_n=left_n if leads_left else right_n,
            trail_force_n=right_n if leads_left else left_n,
            impact_s=0.0,
            lead_place=left if leads_left else right,
            trail_place=right if leads_left else left,
            impact_sd_s=self.strike.sd_s,
            place_sd=math.hypot(PressurePlate.place_sd, max(each.unsure for each in self.frames)),
        )


class StrikeWatch:
    """Looks for strikes in what a plate felt; each is told once."""

    def __init__(self) -> None:
        self._last_s: float | None = None

    def look(self, frames: Frames, hand: Hand) -> Swung | None:
        """The swing whose strike is AFTER_S old by now, if there was one."""
        now = frames.last_s
        if now is None:
            return None
        if self._last_s is not None and now < self._last_s:  # the clock jumped
            self._last_s = None
        felt = frames.between(now - BEFORE_S - 2 * AFTER_S, now)
        if len(felt) < 20 or now - felt[0].t_s < BACK_S + AFTER_S:
            return None
        times = np.array([each.t_s for each in felt])
        left_n, right_n = _forces(felt)
        lead, trail = (left_n, right_n) if hand == "right" else (right_n, left_n)
        strike = felt_strike(times, lead + trail)
        if strike is None or now - strike.at_s < AFTER_S:
            return None
        if self._last_s is not None and strike.at_s - self._last_s < APART_S:
            return None
        if not _swings(times - strike.at_s, lead, trail):
            return None
        self._last_s = strike.at_s
        return Swung(
            strike=strike,
            frames=tuple(frames.between(strike.at_s - BEFORE_S, strike.at_s + AFTER_S)),
        )


def _forces(frames: Sequence[Frame]) -> tuple[Array, Array]:
    return np.array([each.left_n for each in frames]), np.array([each.right_n for each in frames])


def _places(places: Sequence[Place | None]) -> Array | None:
    """All of them (n, 2); None where one frame does not tell it."""
    told = [place for place in places if place is not None]
    return np.array(told, float) if len(told) == len(places) else None


def _swings(times_s: Array, lead_n: Array, trail_n: Array) -> bool:
    """Whether somebody stands there all the while, and the force crosses to the lead foot as in a swing."""
    total = lead_n + trail_n
    back = (times_s >= -BACK_S) & (times_s <= -0.1)
    through = (times_s >= -0.05) & (times_s <= 0.5)
    if not back.any() or not through.any() or (total[back] < STANDING_N).any():
        return False
    share = lead_n / np.maximum(total, 1.0)
    return bool(np.median(share[through]) - np.quantile(share[back], 0.05) >= LEAST_CROSSING)
