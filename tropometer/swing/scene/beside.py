"""Marks on the frames beside a checkpoint's: they say where its own would lie without its click's error.

A local polynomial through the marks of neighbouring frames, read off at the frame itself: a straight line
through three or four close ones, a parabola through five and more (Fan and Gijbels 1996, Local Polynomial
Modelling, 2.3; from memory). The clicks' errors average out, the eye's does not.
"""

from __future__ import annotations

from collections.abc import Callable, Container, Iterable, Iterator, Sequence
from functools import lru_cache
from itertools import islice
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array, Flags, Frames
from tropometer.swing.names import UNSEEN
from tropometer.swing.record.clip import Clip
from tropometer.swing.scene.pixels import marks_on
from tropometer.swing.scene.usual import part_of

# Within so long a body's way is a parabola, and within so short a one a line, to 2 mm; a club's is not.
PARABOLA_S, LINE_S = 0.05, 0.02
LEAST_LINE, LEAST_PARABOLA = 3, 5
MOST_A_SIDE = 4  # more would hardly help
FAST = ("grip", "grip_butt", "club_head", "wrist", "elbow", "ball")


def marks_with_neighbours(clip: Clip, names: Sequence[str], frames: Sequence[int]) -> Array:
    """x, y, standard deviation and its shared part (4, names, frames) as `marks_on`, but bettered.

    The frames beside each better it. Only marks that somebody looked at count: a followed one goes where its
    neighbours were placed.
    """
    rows = marks_on(clip, names, frames)
    slow = [row for row, name in enumerate(names) if part_of(name) not in FAST and name in clip.marks]
    marked = [clip.marks[names[row]] for row in slow]
    times = np.array(clip.frame_times_s)
    near = [_marked_near(marked, clip.frame_times_s, frame) if frame >= 0 else [] for frame in frames]
    used = sorted({each for of_one in near if len(of_one) >= LEAST_LINE for each in of_one})
    if not used:
        return rows
    there = marks_on(clip, [names[row] for row in slow], used)
    counts = _looked_at(clip, [names[row] for row in slow], used)
    for column, of_one in enumerate(near):
        if len(of_one) < LEAST_LINE:
            continue
        first = used.index(of_one[0])
        these = [used.index(each, first) for each in of_one]
        aside_s = times[of_one] - times[frames[column]]
        for same, pattern in _alike(counts[:, these]):
            weights = _weights(tuple(aside_s[pattern].tolist()))
            if weights is None:
                continue
            found = there[:, same][:, :, np.array(these)[pattern]]
            shared = found[3].max(axis=1)
            own = np.square(found[2]) - np.square(found[3])
            averaged = np.sqrt(own @ np.square(weights) + np.square(shared))
            at = np.array(slow)[same]
            better = averaged < rows[2, at, column]
            rows[:2, at[better], column] = (found[:2] @ weights)[:, better]
            rows[2, at[better], column] = averaged[better]
            rows[3, at[better], column] = shared[better]
    return rows


def _alike(counts: Flags) -> Iterator[tuple[Frames, Flags]]:
    """Rows that have marks on the same frames, mostly all, and on which (marks, frames)."""
    if counts.all():
        yield np.arange(len(counts)), counts[0]
        return
    patterns, of = np.unique(counts, axis=0, return_inverse=True)
    for i, pattern in enumerate(patterns):
        yield np.flatnonzero(of.ravel() == i), pattern


def frames_beside(frame_times_s: Sequence[float], frames: Iterable[int]) -> set[int]:
    """Frames whose marks tell something of marks on some frames: these, and those beside them."""
    return {near for frame in frames for near in _near(frame_times_s, frame, lambda _: True)}


def _marked_near(marked: Sequence[Container[int]], times: Sequence[float], frame: int) -> list[int]:
    """The frames with marks that lie beside a frame, and itself; none where it has no mark."""

    def has_a_mark(of: int) -> bool:
        return any(of in by_frame for by_frame in marked)

    return _near(times, frame, has_a_mark) if has_a_mark(frame) else []


def _near(times: Sequence[float], frame: int, counts: Callable[[int], bool]) -> list[int]:
    """A frame and the nearest of those that count to either side of it, in order."""
    before, after = (
        list(islice(filter(counts, side), MOST_A_SIDE))
        for side in (_within(times, frame, -1), _within(times, frame, 1))
    )
    return [*reversed(before), frame, *after]


def _within(times: Sequence[float], frame: int, step: Literal[-1, 1]) -> Iterator[int]:
    """The frames to one side of a frame, from it outward, as long as a body's way is a parabola."""
    beside = frame + step
    while 0 <= beside < len(times) and abs(times[beside] - times[frame]) <= PARABOLA_S:
        yield beside
        beside += step


def _looked_at(clip: Clip, names: Sequence[str], frames: Sequence[int]) -> Flags:
    """Which marks (names, frames) are there and were looked at by somebody."""
    return np.array(
        [
            [(mark := by_frame.get(frame)) is not None and mark.source not in UNSEEN for frame in frames]
            for by_frame in (clip.marks[name] for name in names)
        ]
    )


@lru_cache(maxsize=256)
def _weights(aside_s: tuple[float, ...]) -> Array | None:
    """What each mark counts for the place at 0 s; None where there are too few, or none there."""
    aside = np.array(aside_s)
    before, after = -aside.min(initial=0.0), aside.max(initial=0.0)
    if 0.0 not in aside_s or min(before, after) <= 0:
        return None
    if len(aside) >= LEAST_PARABOLA:
        degree = 2
    elif len(aside) >= LEAST_LINE and max(before, after) <= LINE_S:
        degree = 1
    else:
        return None
    # The first row of (Xᵀ X)⁻¹ Xᵀ: what each mark counts for the polynomial's value at 0 s.
    design = np.vander(aside / max(before, after), degree + 1, increasing=True)
    return np.asarray(np.linalg.pinv(design)[0])
