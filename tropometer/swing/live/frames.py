"""A pressure plate's frames as they come: put in order, counted, and kept for a while."""

from __future__ import annotations

import bisect
import math
from collections.abc import Iterable
from dataclasses import dataclass, field

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.record.plate import STANDING_N

KEPT_S = 12.0
MOST_N = 10_000.0  # under one foot
LEAST_N = -200.0  # an unloaded cell that is not quite at zero
FAR_OFF = 1.0  # of a shoe's length or breadth outside it: a place is none
GAP_STEPS = 1.9  # of the usual step between two frames: then one at least is missing
JUMP_S = 20.0  # no stream pauses so long without a new greeting: the clock jumped

Place = tuple[float, float]  # heel 0 to toe 1, inner edge 0 to outer edge 1


@dataclass(frozen=True, kw_only=True)
class Frame:
    """The force under each foot at a time of the plate's clock, newtons, and where in each shoe it is."""

    t_s: float
    left_n: float
    right_n: float
    left: Place | None = None
    right: Place | None = None
    unsure: float = 0.0  # of the places, one standard deviation beside what any plate's have

    @property
    def sound(self) -> bool:
        """Whether a plate can feel that."""
        if not math.isfinite(self.t_s):
            return False
        if not all(LEAST_N <= force <= MOST_N for force in (self.left_n, self.right_n)):
            return False
        places = (each for place in (self.left, self.right) if place for each in place)
        return all(-FAR_OFF <= each <= 1 + FAR_OFF for each in places)


@dataclass(kw_only=True)
class Counts:
    """How many frames came, and what was wrong with how many."""

    taken: int = 0
    doubled: int = 0
    late: int = 0  # after one that is younger; put in its place
    lost: int = 0  # never came
    nonsense: int = 0  # what no plate can feel; dropped
    jumps: int = 0  # of the clock; what was kept before one is forgotten


@dataclass(frozen=True, kw_only=True)
class Stands:
    """How somebody stands: shares of 1, and the place in each shoe where it is told."""

    total_n: float
    left_share: float
    left: Place | None
    right: Place | None


@dataclass(kw_only=True)
class Frames:
    """The last KEPT_S seconds of a plate's frames in the order of its clock."""

    counts: Counts = field(default_factory=Counts)
    _kept: list[Frame] = field(default_factory=list)

    def take(self, frames: Iterable[Frame]) -> None:
        """Take frames in, in whatever order they come."""
        for frame in frames:
            self._take(frame)
        if self._kept:
            first = bisect.bisect_left(self._kept, self._kept[-1].t_s - KEPT_S, key=_time)
            del self._kept[:first]

    def _take(self, frame: Frame) -> None:
        counts, kept = self.counts, self._kept
        if not frame.sound:
            counts.nonsense += 1
            return
        if kept and (frame.t_s < kept[0].t_s - KEPT_S or frame.t_s > kept[-1].t_s + JUMP_S):
            counts.jumps += 1
            kept.clear()
        place = bisect.bisect_left(kept, frame.t_s, key=_time)
        if place < len(kept) and kept[place].t_s == frame.t_s:
            counts.doubled += 1
            return
        counts.taken += 1
        if place < len(kept):
            counts.late += 1
            counts.lost = max(0, counts.lost - 1)  # it was thought lost
        elif kept:
            step = self.step_s
            gap = frame.t_s - kept[-1].t_s
            if step and gap > GAP_STEPS * step:
                counts.lost += round(gap / step) - 1
        kept.insert(place, frame)

    @property
    def step_s(self) -> float | None:
        """The usual time between two frames; None before there are a few."""
        latest = [each.t_s for each in self._kept[-41:]]
        return float(np.median(np.diff(latest))) if len(latest) > 5 else None

    @property
    def last_s(self) -> float | None:
        """The youngest frame's time."""
        return self._kept[-1].t_s if self._kept else None

    def between(self, from_s: float, to_s: float) -> list[Frame]:
        """The frames from one time of the plate's clock to another."""
        first = bisect.bisect_left(self._kept, from_s, key=_time)
        last = bisect.bisect_right(self._kept, to_s, key=_time)
        return self._kept[first:last]

    def stands(self, over_s: float = 0.1) -> Stands | None:
        """How somebody stands on it now, over the last tenth of a second; None where nobody does."""
        if not self._kept:
            return None
        latest = self.between(self._kept[-1].t_s - over_s, math.inf)
        left, right = (np.array([getattr(each, side) for each in latest]) for side in ("left_n", "right_n"))
        total = float((left + right).mean())
        if total < STANDING_N:
            return None
        return Stands(
            total_n=total,
            left_share=float(left.mean()) / total,
            left=_mean([each.left for each in latest], left),
            right=_mean([each.right for each in latest], right),
        )


def _mean(places: list[Place | None], forces: Array) -> Place | None:
    """A foot's place by its force; None where some frame does not tell it, or nobody stands on the foot."""
    told = [place for place in places if place is not None]
    weight = np.maximum(forces, 0.0)
    if len(told) < len(places) or weight.sum() <= 0:
        return None
    toe, outer = (weight / weight.sum()) @ np.array(told, float)
    return float(toe), float(outer)


def _time(frame: Frame) -> float:
    return frame.t_s
