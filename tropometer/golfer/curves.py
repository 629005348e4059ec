"""Curves of the swing: twice differentiable, exact at their keys, without overshoot of flat stretches."""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise

import numpy as np
import numpy.typing as npt
from scipy.interpolate import BPoly, CubicSpline, PchipInterpolator

Floats = npt.NDArray[np.float64]
Curve = Callable[[Floats], Floats]


def through_keys(times_s: Floats, values: Floats, flowing: bool = False) -> Curve:
    """A twice differentiable curve through keys; constant before the first and after the last.

    Quintic Hermite pieces. Slopes are those of the monotone cubic (Fritsch and Carlson 1980, SIAM J.
    Numer. Anal. 17:238), accelerations the three-point ones; both are zero at the ends and wherever the
    curve is flat on one side, so that a heel on the floor stays there. A `flowing` curve takes the slopes
    of a cubic spline between its turning points instead: it does not slow down at its keys.
    """
    slopes = np.asarray(PchipInterpolator(times_s, values).derivative()(times_s))
    steps, rises = np.diff(times_s), np.diff(values)
    bends = np.zeros(len(values))
    bends[1:-1] = 2 * np.diff(rises / steps) / (steps[:-1] + steps[1:])
    flat = np.concatenate([[True], (rises[:-1] == 0) | (rises[1:] == 0), [True]])
    slopes[flat] = 0.0
    bends[flat] = 0.0
    if flowing:
        turning = np.nonzero(flat | (slopes == 0))[0]
        for start, end in pairwise(turning):
            if end - start > 1:
                _flow(times_s, values, slopes, bends, int(start), int(end))
    pieces = BPoly.from_derivatives(times_s, np.stack([values, slopes, bends], 1))

    def curve(t: Floats) -> Floats:
        at: Floats = pieces(np.clip(t, times_s[0], times_s[-1]))
        return at

    return curve


def _flow(times_s: Floats, values: Floats, slopes: Floats, bends: Floats, start: int, end: int) -> None:
    """Replace slopes and bends inside one rising or falling run by those of a spline at rest at both ends."""
    run = slice(start, end + 1)
    spline = CubicSpline(times_s[run], values[run], bc_type="clamped")
    inside = slice(start + 1, end)
    secants = np.diff(values[run]) / np.diff(times_s[run])
    steepest = 3 * np.minimum(np.abs(secants[:-1]), np.abs(secants[1:]))  # stays monotone
    wanted = spline(times_s[inside], 1)
    slopes[inside] = np.sign(secants[0]) * np.clip(np.sign(secants[0]) * wanted, 0, steepest)
    bends[inside] = spline(times_s[inside], 2)


def smooth_positive(x: Floats, softness: float) -> Floats:
    """max(x, 0) without its corner: x + sqrt(x² + s²), halved; never below max(x, 0)."""
    return (x + np.sqrt(x * x + softness * softness)) / 2
