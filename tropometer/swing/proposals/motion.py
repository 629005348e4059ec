"""Finds the swings of a clip in how much moves, and guesses how slow the file plays.

A swing is a stretch of movement of about a second and a half between two stillnesses, from the club's
start to the finish: common practice, no source; 1.45 to 1.65 s on our made-up golfers.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.ndimage import gaussian_filter1d

Array = npt.NDArray[np.float64]

USUAL_S = 1.55
STILL_SHARE = 0.1  # of the fastest movement; below it nothing of a swing happens
SMOOTHED_OVER_S = 0.04
JOINED_GAP_S = 0.35  # the pause at the top of a slow swing
SHORTEST_S, LONGEST_S = 0.7, 3.5
BEFORE_S, AFTER_S = 0.6, 0.5  # kept about a swing, so that address and finish are in it
STRIKE_AFTER_START = (0.3, 0.97)  # where in the stretch a strike can be
ABOUT_STRIKE_S = (1.9, 1.3)  # kept about a strike where the stretch itself is too long to be a swing
SLOWNESSES = (1, 2, 4, 8, 16)


@dataclass(frozen=True)
class Heard:
    """A sharp sound, real seconds from the first frame, and how far it stands out, 0 to 1."""

    at_s: float
    confidence: float


@dataclass(frozen=True)
class FoundSwing:
    """A stretch of frames that seems to hold one swing, both ends included, and the strike heard in it."""

    first: int
    last: int
    strike: Heard | None


def speed_of(times_s: Sequence[float], motion: Sequence[float]) -> Array:
    """How much moves a second, smoothed; `motion` is the change of each frame against the one before."""
    times, change = np.asarray(times_s, float), np.asarray(motion, float)
    steps = np.diff(times)
    usual = float(np.median(steps))
    per_second = change / np.concatenate([[usual], np.maximum(steps, usual / 4)])
    per_second[0] = per_second[1]
    smooth: Array = gaussian_filter1d(per_second, max(SMOOTHED_OVER_S / usual, 0.5))
    return smooth


def find_swings(
    times_s: Sequence[float], motion: Sequence[float], heard: Sequence[Heard]
) -> tuple[FoundSwing, ...]:
    """The swings of a clip in order; none where nothing moves like one.

    Times are real seconds. Where strikes are heard, movement without one is a practice swing or a walk, and
    is left out. A clip's only swing may be cut at its ends by the clip itself.
    """
    times = np.asarray(times_s, float)
    stretches = _stretches(times, speed_of(times_s, motion))
    found: list[tuple[float, float, Heard | None]] = []
    for start, end in stretches:
        strike = _strike_in(start, end, heard)
        if SHORTEST_S <= end - start <= LONGEST_S:
            found.append((start - BEFORE_S, end + AFTER_S, strike))
        elif strike is not None and end - start > LONGEST_S:
            found.append((strike.at_s - ABOUT_STRIKE_S[0], strike.at_s + ABOUT_STRIKE_S[1], strike))
    if any(strike for *_, strike in found):
        found = [each for each in found if each[2]]
    return tuple(
        FoundSwing(int(np.searchsorted(times, start)), int(np.searchsorted(times, end, "right")) - 1, strike)
        for start, end, strike in _apart(found)
    )


def plausible_slowness(played_times_s: Sequence[float], motion: Sequence[float]) -> int | None:
    """How many times slower than life the file seems to play; None when its movement tells nothing.

    The one of 1, 2, 4, 8, 16 for which its stretches of movement last most nearly as long as a swing does.
    """
    played = np.asarray(played_times_s, float)
    best: tuple[float, int] | None = None
    for slowness in SLOWNESSES:
        times = played / slowness
        lengths = [end - start for start, end in _stretches(times, speed_of(times.tolist(), motion))]
        if not lengths:
            continue
        misfit = abs(float(np.log(max(lengths) / USUAL_S)))
        if best is None or misfit < best[0]:
            best = misfit, slowness
    return best[1] if best and best[0] < np.log(2) / 2 else None


def _stretches(times: Array, speed: Array) -> list[tuple[float, float]]:
    """Stretches in which more moves than in stillness, with short pauses bridged, seconds."""
    floor, peak = float(np.quantile(speed, 0.05)), float(speed.max())
    moving = np.flatnonzero(speed > floor + STILL_SHARE * (peak - floor))
    stretches: list[tuple[float, float]] = []
    for time in times[moving]:
        if stretches and time - stretches[-1][1] < JOINED_GAP_S:
            stretches[-1] = (stretches[-1][0], float(time))
        else:
            stretches.append((float(time), float(time)))
    return stretches


def _strike_in(start: float, end: float, heard: Sequence[Heard]) -> Heard | None:
    low, high = (start + share * (end - start) for share in STRIKE_AFTER_START)
    return max(
        (each for each in heard if low <= each.at_s <= high), key=lambda each: each.confidence, default=None
    )


def _apart(
    found: list[tuple[float, float, Heard | None]],
) -> list[tuple[float, float, Heard | None]]:
    """The same stretches, cut in the middle where two overlap."""
    apart = list(found)
    for i in range(len(apart) - 1):
        (start, end, strike), (after, last, other) = apart[i], apart[i + 1]
        if end > after:
            middle = (end + after) / 2
            apart[i], apart[i + 1] = (start, middle, strike), (middle + 1e-6, last, other)
    return apart
