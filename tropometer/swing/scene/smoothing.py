"""From a mark's raw path to a smooth one: short gaps bridged, noise taken off, and both said.

Zero-lag Butterworth, second order, run forward and backward. Two passes lower the gain at the cutoff
twice, so each pass is made at a cutoff raised by (√2 − 1)^¼ = 0.802 (Winter, Biomechanics and Motor Control
of Human Movement, 4th ed., 3.4.4.2; Robertson and Dowling 2003), on the pre-warped frequency axis, so that
the gain at the cutoff is 0.7071 at any frame rate. The cutoff is found by residual analysis (3.4.4.3).
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from scipy.interpolate import PchipInterpolator
from scipy.signal import filtfilt

from tropometer.swing.arrays import Array, Flags

PASSES = (np.sqrt(2) - 1) ** 0.25
LONGEST_GAP_S = 0.05
LOWEST_HZ, STEP_HZ = 2.0, 0.5
HIGHEST_OF_RATE = 0.4  # a cutoff nearer to half the rate filters nothing
NOISE_FROM = 0.6  # the residuals' straight tail begins at this share of the highest cutoff
LEAST_FRAMES = 16


@dataclass(frozen=True)
class Smoothed:
    """A path (n, 2) with NaN in long gaps; the frames that were bridged; the cutoff, None if unfiltered."""

    places: Array
    bridged: Flags
    cutoff_hz: float | None


def smooth_path(times_s: Array, places: Array) -> Smoothed:
    """A raw path (n, 2), NaN in its gaps, smoothed stretch by stretch with one cutoff for the whole mark."""
    filled, bridged = bridge_gaps(times_s, places)
    stretches = [each for each in _stretches(filled) if each.stop - each.start >= LEAST_FRAMES]
    if not stretches:
        return Smoothed(filled, bridged, None)
    longest = max(stretches, key=lambda each: each.stop - each.start)
    rate = 1 / float(np.median(np.diff(times_s)))
    cutoff = max(residual_cutoff(column, rate) for column in filled[longest].T)
    out = filled.copy()
    for each in stretches:
        out[each] = _evenly(times_s[each], filled[each], rate, cutoff)
    return Smoothed(out, bridged, cutoff)


def bridge_gaps(times_s: Array, places: Array, longest_s: float = LONGEST_GAP_S) -> tuple[Array, Flags]:
    """Places (n, 2) with gaps up to `longest_s` bridged by a monotone cubic; and which frames those are."""
    known = np.isfinite(places).all(axis=1)
    out, bridged = places.copy(), np.zeros(len(places), bool)
    if known.sum() < 2:
        return out, bridged
    at = np.flatnonzero(known)
    for a, b in pairwise(at):
        if b - a > 1 and times_s[b] - times_s[a] <= longest_s:
            bridged[a + 1 : b] = True
    out[bridged] = PchipInterpolator(times_s[known], places[known])(times_s[bridged])
    return out, bridged


def low_pass(values: Array, rate_hz: float, cutoff_hz: float) -> Array:
    """Values (n, …) through the filter, without lag; the gain of both passes at the cutoff is 0.7071."""
    # Bilinear transform of a second-order Butterworth at the raised, pre-warped cutoff (Winter, 3.4.4.2).
    k = np.tan(np.pi * min(cutoff_hz, 0.49 * rate_hz) / rate_hz) / PASSES
    whole = 1 + np.sqrt(2) * k + k * k
    forward = np.array([1.0, 2.0, 1.0]) * k * k / whole
    back = np.array([1.0, 2 * (k * k - 1) / whole, (1 - np.sqrt(2) * k + k * k) / whole])
    out: Array = filtfilt(
        forward, back, values, axis=0, padlen=min(len(values) - 1, int(rate_hz / cutoff_hz))
    )
    return out


def residual_cutoff(values: Array, rate_hz: float) -> float:
    """The cutoff in Hz at which what the filter takes off is as much as the noise alone (Winter, 3.4.4.3).

    Noise makes the residuals fall along a straight line at high cutoffs; carried back to 0 Hz the line
    says how large the noise is.
    """
    tried = np.arange(LOWEST_HZ, HIGHEST_OF_RATE * rate_hz, STEP_HZ)
    if len(tried) < 4:
        return float(HIGHEST_OF_RATE * rate_hz)
    left = np.array([np.sqrt(np.mean((values - low_pass(values, rate_hz, hz)) ** 2)) for hz in tried])
    tail = tried >= NOISE_FROM * tried[-1]
    _, noise = np.polyfit(tried[tail], left[tail], 1)
    enough = np.flatnonzero(left <= noise)
    return float(tried[enough[0]] if len(enough) else tried[-1])


def _stretches(places: Array) -> list[slice]:
    known = np.concatenate([[False], np.isfinite(places).all(axis=1), [False]])
    turns = np.flatnonzero(known[1:] != known[:-1])
    return [slice(int(a), int(b)) for a, b in zip(turns[::2], turns[1::2], strict=True)]


def _evenly(times_s: Array, places: Array, rate: float, cutoff: float) -> Array:
    """The filter wants even times: phones that vary their rate are carried to even ones and back."""
    even = np.linspace(times_s[0], times_s[-1], len(times_s))
    columns = [np.interp(even, times_s, column) for column in places.T]
    smooth = low_pass(np.column_stack(columns), rate, cutoff)
    return np.column_stack([np.interp(times_s, even, column) for column in smooth.T])
