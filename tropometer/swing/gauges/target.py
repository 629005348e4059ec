"""Where a band lies in the picture: the places at which a gauge's end would be if its reading were in it.

From where the end is now it is moved as far as the reading is from the band's ends, along an axis of the
player or around a pivot in a plane of theirs: so the end lies on the target where the value lies in the band.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.names import Plane

Ends = tuple[float | None, float | None]  # of a band; an end that is not there is not asked for
# How much more the reading is than now -> where the end would be (3,), metres in the player's axes.
Reach = Callable[[float], Array]

BEYOND_M, BEYOND_DEG = 0.06, 10.0  # of a band that is open at one end so much is drawn
STEPS = 8  # of an arc
LARGEST_OFF_DEG = 12.0  # so much a reading may differ from the angle in a plane that it is taken to be
Turned = Plane | Literal["floor"]
# The axes to the side and up in a plane; on the floor they are the target's and the ball's.
AXES: dict[Turned, tuple[int, int]] = {"frontal": (0, 2), "sagittal": (1, 2), "floor": (0, 1)}


def along(now: Array, axis: int, sign: float = 1.0) -> Reach:
    """The end moves along an axis of the player as the reading grows, or against it."""
    way = np.zeros(3)
    way[axis] = sign
    return lambda more: np.asarray(now + more * way)


def around(pivot: Array, now: Array, plane: Turned, value: float, *, from_level: bool) -> Reach | None:
    """The end turns about a pivot in a plane as the reading, an angle from its upright or its level, grows.

    None where the picture's angle is not the reading's: it is then no angle in this plane.
    """
    side, up = AXES[plane]
    arm = now - pivot
    # A level's end rises whichever way it lies.
    out = math.copysign(1.0, arm[side]) if from_level else 1.0
    seen = math.degrees(
        math.atan2(arm[up], out * arm[side]) if from_level else math.atan2(arm[side], arm[up])
    )
    sign = 1.0 if abs(_turned(seen - value)) <= abs(_turned(seen + value)) else -1.0
    if abs(_turned(seen - sign * value)) > LARGEST_OFF_DEG:
        return None
    long = math.hypot(arm[side], arm[up])

    def reach(more: float) -> Array:
        angle = math.radians(seen + sign * more)
        first, second = long * math.cos(angle), long * math.sin(angle)
        end = now.copy()
        end[side], end[up] = (first, second) if from_level else (second, first)
        end[side] = pivot[side] + out * end[side]
        end[up] += pivot[up]
        return end

    return reach


def hinged(start: Array, hinge: Array, now: Array, plane: Plane, value: float) -> Reach | None:
    """The end turns about a hinge in a plane as the bend there, 180° less the inside angle, grows.

    None where the picture's bend is not the reading's: the limb then bends in no such plane.
    """
    side, up = AXES[plane]
    before, after = hinge - start, now - hinge
    bend = math.degrees(
        math.atan2(
            before[side] * after[up] - before[up] * after[side],
            before[side] * after[side] + before[up] * after[up],
        )
    )
    if abs(abs(bend) - value) > LARGEST_OFF_DEG:
        return None
    return _turning(hinge, now, (side, up), math.copysign(1.0, bend))


def on_floor(middle: Array, now: Array) -> Reach:
    """The end turns over the floor about a place at its height, toward the target as the reading grows."""
    return _turning(middle, now, AXES["floor"], -1.0)


def _turning(pivot: Array, now: Array, axes: tuple[int, int], sign: float) -> Reach:
    """The end turns about a pivot from the first of two axes to the second as the reading grows, or back."""
    first, second = axes
    arm = now - pivot

    def reach(more: float) -> Array:
        angle = math.radians(sign * more)
        end = now.copy()
        end[first] = pivot[first] + arm[first] * math.cos(angle) - arm[second] * math.sin(angle)
        end[second] = pivot[second] + arm[first] * math.sin(angle) + arm[second] * math.cos(angle)
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
