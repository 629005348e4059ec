"""Where a band lies in the picture: the places at which a gauge's end would be if its reading were in it.

From where the end is now it is moved as far as the reading is from the band's ends, along an axis of the
player or around a pivot in a plane of theirs: so the end lies on the target where the value lies in the band.
"""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.names import Plane

Ends = tuple[float | None, float | None]  # of a band; an end that is not there is not asked for
# How much more the reading is than now -> where the end would be (3,), metres in the player's axes.
Reach = Callable[[float], Array]

BEYOND_M, BEYOND_DEG = 0.06, 10.0  # of a band that is open at one end so much is drawn
STEPS = 8  # of an arc
LARGEST_OFF_DEG = 12.0  # so much a reading may differ from the angle in a plane that it is taken to be
# The axis that points to the side.
ASIDE: dict[Plane, int] = {"frontal": 0, "sagittal": 1}


def along(now: Array, axis: int, sign: float = 1.0) -> Reach:
    """The end moves along an axis of the player as the reading grows, or against it."""
    way = np.zeros(3)
    way[axis] = sign
    return lambda more: np.asarray(now + more * way)


def around(pivot: Array, now: Array, plane: Plane, value: float, *, from_level: bool) -> Reach | None:
    """The end turns about a pivot in a plane as the reading, an angle from the upright or the level, grows.

    None where the picture's angle is not the reading's: it is then no angle in this plane.
    """
    side = ASIDE[plane]
    arm = now - pivot
    seen = math.degrees(math.atan2(arm[2], arm[side]) if from_level else math.atan2(arm[side], arm[2]))
    sign = 1.0 if abs(_turned(seen - value)) <= abs(_turned(seen + value)) else -1.0
    if abs(_turned(seen - sign * value)) > LARGEST_OFF_DEG:
        return None
    long = math.hypot(arm[side], arm[2])

    def reach(more: float) -> Array:
        angle = math.radians(seen + sign * more)
        first, second = long * math.cos(angle), long * math.sin(angle)
        end = now.copy()
        end[side], end[2] = (first, second) if from_level else (second, first)
        end[side] += pivot[side]
        end[2] += pivot[2]
        return end

    return reach


def target(ends: Ends, value: float, beyond: float, reach: Reach, *, arc: bool) -> tuple[Array, ...]:
    """Places from a band's low end to its high one; of an open end `beyond` more than the other is drawn."""
    low, high = ends
    if low is None and high is None:
        return ()
    low = low if low is not None else (high or 0.0) - beyond
    high = high if high is not None else low + beyond
    steps = STEPS if arc else 1
    return tuple(reach(low + (high - low) * k / steps - value) for k in range(steps + 1))


def _turned(angle: float) -> float:
    """An angle between −180 and 180."""
    return (angle + 180.0) % 360.0 - 180.0
