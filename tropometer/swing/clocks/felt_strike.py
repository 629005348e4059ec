"""When the ball is struck on a pressure plate's own clock, from the shape of the force.

The club that meets ball and ground shakes what the player stands on: for a few milliseconds the force leaves
the smooth course that muscles can give it. Where no such spike is felt, or the plate is too slow to feel it,
the strike lies about the downswing's largest force.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.signal import savgol_filter

from tropometer.swing.arrays import Array
from tropometer.swing.record.plate import STANDING_N

SMOOTHED_S = 0.09
LEAST_RISE = 1.12  # of the player's weight that the downswing's force reaches, or nobody swings
# The largest vertical force of a full swing comes between the lead arm level coming down and just after the
# strike (published force curves, from memory; no table at hand): before impact by so much, give or take.
PEAK_BEFORE_S, PEAK_SD_S = 0.02, 0.04
SPIKE_NEAR_S = 0.16  # of that largest force
SLOWEST_S = 0.006  # between two samples: a slower plate sees no spike
# What a body does is followed by a cubic over so long (Savitzky and Golay 1964, Anal Chem 36:1627).
BODY_S, BODY_DEGREE = 0.045, 3
SPIKE_OVER_NOISE, SPIKE_OF_WEIGHT = 7.0, 0.09  # common practice, no source
RISING_S = 0.012  # from a spike's first half to its largest
SHAKEN_S = 0.002  # from the strike to the feet; common practice, no source


@dataclass(frozen=True, kw_only=True)
class FeltStrike:
    """The strike on the plate's clock with one standard deviation, and what tells it."""

    at_s: float
    sd_s: float
    by: Literal["spike", "course"]


def felt_strike(times_s: Array, total_n: Array) -> FeltStrike | None:
    """The strike in the force under both feet (n,), newtons; None where no swing is felt.

    Raises ValueError where times and forces are of another shape, or times do not rise.
    """
    if times_s.ndim != 1 or times_s.shape != total_n.shape:
        raise ValueError(f"times_s {times_s.shape} and total_n {total_n.shape} are not of one shape (n,)")
    steps = np.diff(times_s)
    if (steps <= 0).any():
        raise ValueError("times_s do not rise")
    stands = total_n >= STANDING_N
    if stands.sum() < 10:
        return None
    step = float(np.median(steps))
    weight = float(np.median(total_n[stands]))
    smooth = savgol_filter(total_n, _odd(SMOOTHED_S / step, 5, len(total_n)), 2, mode="nearest")
    peak = int(np.argmax(smooth))
    if smooth[peak] < LEAST_RISE * weight:
        return None
    spike = _spike(times_s, total_n, step, float(times_s[peak]), weight)
    if spike is not None:
        return FeltStrike(at_s=spike, sd_s=float(np.hypot(step / np.sqrt(12), SHAKEN_S)), by="spike")
    return FeltStrike(at_s=float(times_s[peak]) + PEAK_BEFORE_S, sd_s=PEAK_SD_S, by="course")


def _spike(times_s: Array, total_n: Array, step: float, peak_s: float, weight: float) -> float | None:
    """When the force leaves its course, near the downswing's largest; None where that is only noise."""
    if step > SLOWEST_S:
        return None
    course = savgol_filter(total_n, _odd(BODY_S / step, 7, len(total_n)), BODY_DEGREE, mode="nearest")
    apart = np.abs(total_n - course)
    noise = 1.4826 * float(np.median(apart))  # of a normal's median deviation
    apart = np.where(np.abs(times_s - peak_s) <= SPIKE_NEAR_S, apart, 0.0)
    most = int(np.argmax(apart))
    if apart[most] < max(SPIKE_OVER_NOISE * noise, SPIKE_OF_WEIGHT * weight):
        return None
    rising = (times_s >= times_s[most] - RISING_S) & (apart >= apart[most] / 2)
    # The first sample that feels it comes up to a step after it.
    return float(times_s[np.argmax(rising)]) - step / 2


def _odd(samples: float, least: int, count: int) -> int:
    """An odd number of samples near `samples`, not less than `least`, not more than there are."""
    most = count if count % 2 else count - 1
    return min(max(2 * round((samples - 1) / 2) + 1, least), most)
