"""When a noisy curve turns round or passes a level: between its frames, with an error that holds.

About a turn the curve is fitted by a cubic, over as many frames as make the error least: few leave the noise,
many carry in what the curve does elsewhere. A part goes forward more sharply than it came to rest; of two
parabolas that meet, the second r times as sharp, the cubic's turn lies (5/32)·h·(r − 1)/(r + 1) too early, h
the half-width of the fit (least squares of x·|x| by x and x³). What is usual of that is taken off, and what
it differs is in the error.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import stdtrit

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.readings.reading import Refused

HALF_WIDTHS_S = (0.05, 0.065, 0.08, 0.10, 0.125, 0.15)
# Of a fit's half-width, how much too early its turn is, and one standard deviation.
EARLY, EARLY_SD = 0.06, 0.08
LEAST_FRAMES = 7
RATE_HALF_S = 0.05  # a rate is of so long to each side
UNDECIDED = 2.5  # standard deviations of another turn's value, under which nobody knows which is the start
APART_S = 0.06  # turns nearer to each other are one
LONGEST_STEP_S = 0.05  # between two frames that something is read between
SMOOTHED_S = 0.025  # to each side, for a first look
STAYS_S = 0.05  # beyond a level, for it to have been passed
SLOWEST_S = 0.12  # how unsure a passing may be
LEAST_RISE = 1e-6
ROUNDING_S = 1e-9


@dataclass(frozen=True)
class Found:
    """A value and one standard deviation."""

    value: float
    sd: float


@dataclass(frozen=True, kw_only=True)
class Turn:
    """When a curve is least, and how much it is then; standard deviations are of the frames' noise."""

    at_s: float
    sd_s: float
    value: float
    value_sd: float


def turn_of(times_s: Array, values: Array, low_s: float, high_s: float) -> Turn | None:
    """Where a curve (n,) is least between two times; NaN are no frames.

    None where too few frames show it, where it does not turn there, or where it turns elsewhere as low.
    """
    known = np.isfinite(values)
    times, values = times_s[known], values[known]
    inside = (times >= low_s) & (times <= high_s)
    if inside.sum() < LEAST_FRAMES:
        return None
    smooth = _smoothed(times, values)
    about = float(times[inside][np.argmin(smooth[inside])])
    fits = [fit for half in HALF_WIDTHS_S if (fit := _cubic(times, values, about, half))]
    best = min(fits, key=lambda fit: fit.sd_s, default=None)
    if best is None or not low_s <= best.at_s <= high_s:
        return None
    lower = inside & (np.abs(times - best.at_s) > APART_S) & _turns(smooth)
    if (smooth[lower] < best.value + UNDECIDED * best.value_sd).any():
        return None
    return best


def _turns(smooth: Array) -> Flags:
    """Which frames are lower than their neighbours."""
    beside = np.pad(smooth, 1, constant_values=np.inf)
    return np.asarray((smooth < beside[:-2]) & (smooth <= beside[2:]))


def _cubic(times: Array, values: Array, about_s: float, half_s: float) -> Turn | None:
    """The turn by a cubic over the frames so near; None where they are too few, or show none."""
    for _ in range(3):
        near = np.abs(times - about_s) <= half_s
        if near.sum() < LEAST_FRAMES or np.diff(times[near]).max() > LONGEST_STEP_S:
            return None
        since = (times[near] - about_s) / half_s
        weights, covariance = np.polyfit(since, values[near], 3, cov="unscaled")
        slope, bend = weights[2], 2 * weights[1]
        if bend <= 0 or abs(slope / bend) > 1:
            return None
        turned = float(-slope / bend)
        turned -= float((3 * weights[0] * turned**2) / (bend + 6 * weights[0] * turned))
        if abs(turned) > 1:
            return None
        about_s += turned * half_s
    left = values[near] - np.polyval(weights, since)
    noise = np.sqrt(np.sum(left**2) / max(1, near.sum() - 4))
    step = float(np.median(np.diff(times)))
    # The noise is known from few frames only (Student's t).
    noise *= stdtrit(max(1, near.sum() - 4), 0.975) / NORMAL_95
    of_noise = noise * np.sqrt(covariance[2, 2]) / bend * half_s
    return Turn(
        at_s=about_s + EARLY * half_s,
        sd_s=float(np.sqrt(of_noise**2 + (EARLY_SD * half_s) ** 2 + step**2 / 12)),
        value=float(np.polyval(weights, turned)),
        value_sd=float(noise * np.sqrt(covariance[3, 3])),
    )


def least_of(times_s: Array, values: Array, low_s: float, high_s: float) -> tuple[int, float] | None:
    """The row at which a curve (n,) is least between two times, and how much it is without its noise.

    The least of many noisy frames would be too low.
    """
    inside = np.isfinite(values) & (times_s >= low_s) & (times_s <= high_s)
    if not inside.any():
        return None
    turn = turn_of(times_s, values, low_s, high_s)
    rows = np.flatnonzero(inside)
    if turn is not None:
        return int(rows[np.argmin(np.abs(times_s[rows] - turn.at_s))]), turn.value
    smooth = _smoothed(times_s[rows], values[rows])
    least = int(np.argmin(smooth))
    return int(rows[least]), float(smooth[least])


def rate_about(times_s: Array, values: Array, sd: Array, at_s: float, at_sd_s: float) -> Found:
    """How fast a curve (n,) changes about an instant, a second, and one standard deviation.

    The slope of the straight line through the curve over 50 ms to either side, which is that of a cubic
    c0 + c1 x + c2 x² + c3 x³ on −1 to 1: c1 + 3/5 c3 (least squares of x and x³ by x). The noise is what the
    cubic leaves of the frames; `sd` (n,) is one standard deviation of the values that is the same on
    neighbouring frames, so that only its change counts; `at_sd_s` that of the instant.
    Raises Refused where too few frames show it.
    """
    near = np.isfinite(values) & (np.abs(times_s - at_s) <= RATE_HALF_S + ROUNDING_S)
    times, values, sd = times_s[near], values[near], sd[near]
    bounds = np.concatenate([[at_s - RATE_HALF_S], times, [at_s + RATE_HALF_S]])
    if len(times) < LEAST_FRAMES or np.diff(bounds).max() > LONGEST_STEP_S / 2:
        raise Refused("It takes its marks on every frame from 50 ms before impact to 50 ms after.")
    since = (times - at_s) / RATE_HALF_S
    weights, covariance = np.polyfit(since, values, 3, cov="unscaled")
    free = len(times) - 4
    noise = np.sqrt(np.sum((values - np.polyval(weights, since)) ** 2) / free)
    noise *= stdtrit(free, 0.975) / NORMAL_95  # known from few frames only (Student's t)
    slope = np.array([0.6, 0.0, 1.0, 0.0])
    of_noise = noise * np.sqrt(slope @ covariance @ slope)
    of_change = slope @ np.polyfit(since, sd, 3)
    of_time = 2 * weights[1] * at_sd_s / RATE_HALF_S
    off = np.sqrt(of_noise**2 + of_change**2 + of_time**2)
    return Found(float(slope @ weights / RATE_HALF_S), float(off / RATE_HALF_S))


NOT_THERE = "It does not happen on the frames that are marked."
UNTOLD = "It happens so slowly that its time cannot be told."


def passing(times_s: Array, values: Array, sd: Array, low_s: float) -> Found:
    """When a curve (n,) first rises through nothing for good after some time; else raises Refused.

    `sd` (n,) is one standard deviation of its values that is the same on neighbouring frames: were the curve
    so much higher or lower, it would pass so much earlier or later.
    """
    known = np.isfinite(values) & (times_s >= low_s)
    times, values, sd = times_s[known], values[known], sd[known]
    if len(times) < LEAST_FRAMES:
        raise Refused(NOT_THERE)
    smooth = _smoothed(times, values)
    passed = _first_passing(times, smooth)
    if passed is None:
        raise Refused(NOT_THERE)
    earlier, later = _first_passing(times, smooth + sd), _first_passing(times, smooth - sd)
    if later is None or (earlier is None and smooth[0] + sd[0] < 0):
        raise Refused(UNTOLD)
    off = max(later - passed, passed - (times[0] if earlier is None else earlier))
    if off > SLOWEST_S:
        raise Refused(UNTOLD)
    noise = float(np.sqrt(np.mean((values - smooth)[np.abs(times - passed) <= STAYS_S] ** 2)))
    rise = np.gradient(smooth, times)[np.argmin(np.abs(times - passed))]
    count = int((np.abs(times - passed) <= SMOOTHED_S).sum())
    of_noise = noise / max(count, 1) ** 0.5 / max(float(rise), LEAST_RISE)
    step = float(np.median(np.diff(times)))
    return Found(passed, float(np.sqrt(off**2 + of_noise**2 + step**2 / 12)))


def _first_passing(times: Array, smooth: Array) -> float | None:
    """When a smooth curve first passes nothing and stays beyond it for a while."""
    for i in np.flatnonzero((smooth[:-1] < 0) & (smooth[1:] >= 0)):
        after = (times > times[i]) & (times <= times[i] + STAYS_S)
        if times[i + 1] - times[i] <= LONGEST_STEP_S and smooth[after].min(initial=0.0) >= 0:
            share = smooth[i] / (smooth[i] - smooth[i + 1])
            return float(times[i] + share * (times[i + 1] - times[i]))
    return None


def _smoothed(times: Array, values: Array) -> Array:
    """The mean of the frames about each."""
    first = np.searchsorted(times, times - SMOOTHED_S - ROUNDING_S)
    last = np.searchsorted(times, times + SMOOTHED_S + ROUNDING_S)
    sums = np.concatenate([[0.0], np.cumsum(values)])
    return np.asarray((sums[last] - sums[first]) / (last - first))
