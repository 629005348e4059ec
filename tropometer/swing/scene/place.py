"""Where things are in the player's axes, and what follows from where they are."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.error.source import Source, variances
from tropometer.swing.error.value import Measured, combined, hypot

FOLDED = 1 / (1 - 2 / np.pi)  # by the variance of a folded normal


class Place(NamedTuple):
    """Where something is: along T, B and U, metres."""

    t: Measured
    b: Measured
    u: Measured

    def minus(self, other: Place) -> Place:
        """From another place to this one."""
        return Place(self.t - other.t, self.b - other.b, self.u - other.u)


def middle(a: Place, b: Place) -> Place:
    """Half-way between two places."""
    return Place((a.t + b.t) * 0.5, (a.b + b.b) * 0.5, (a.u + b.u) * 0.5)


def angle_between(a: Place, b: Place) -> Measured:
    """Angle between two directions, degrees, 0 to 180."""
    return _angle_and_normal(a, b)[0]


def bend_between(a: Place, b: Place, source: Source) -> Measured:
    """Angle between two directions, degrees, of a limb whose bend out of its seen plane is unsure too.

    A bend s out of the plane makes the whole √(bend² + s²). What s is on average does so here, and its
    spread widens the error: as s²/√2·bend for large bends, as the 0.6 s of a folded normal for none.
    """
    bend, normal = _angle_and_normal(a, b)
    with np.errstate(divide="ignore", invalid="ignore"):
        by_a, by_b = (np.degrees(normal / np.sqrt(np.sum(_values(way) ** 2, axis=0))) for way in (a, b))
        aside = _hanging_on(np.zeros_like(bend.value), (a, -by_a), (b, by_b)).variance
        whole = np.sqrt(bend.value**2 + aside)
        spread = aside / np.sqrt(2 * bend.value**2 + FOLDED * aside)
        return combined(whole, (bend, bend.value / whole)) + Measured.of(0.0, spread, source)


def _angle_and_normal(a: Place, b: Place) -> tuple[Measured, Array]:
    """The angle, degrees, and the unit vector (3, …) across both: turning about it opens the angle."""
    way_a, way_b = _values(a), _values(b)
    across = _cross(way_a, way_b)
    size = np.sqrt(np.sum(across * across, axis=0))
    angle = np.degrees(np.arctan2(size, np.sum(way_a * way_b, axis=0)))
    with np.errstate(divide="ignore", invalid="ignore"):
        normal = across / size
        by_a = np.degrees(_cross(way_a, normal) / np.sum(way_a * way_a, axis=0))
        by_b = np.degrees(_cross(normal, way_b) / np.sum(way_b * way_b, axis=0))
    return _hanging_on(angle, (a, by_a), (b, by_b)), normal


def _cross(a: Array, b: Array) -> Array:
    """Products across (3, …), which `numpy.cross` takes six times as long for."""
    return np.array([a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]])


def _values(place: Place) -> Array:
    return np.array([each.value for each in place])


def _hanging_on(value: Array, *places: tuple[Place, Array]) -> Measured:
    """A value with these slopes along T, B and U of some places."""
    return combined(value, *(pair for place, ways in places for pair in zip(place, ways, strict=True)))


def length_of(way: Place, source: Source) -> Measured:
    """How long a way is.

    What is unsure across it lengthens it by σ²/2L on average and σ²/√2L in spread: the second-order term of
    the law of propagation (JCGM 100:2008, 5.1.2, note), which matters where a depth is only what is usual.
    """
    first = hypot(*way)
    *along, whole = variances([each.slopes for each in (*way, first)], first.value.size).whole()
    across = np.maximum(sum(along) - whole, 0.0).reshape(first.value.shape)
    with np.errstate(divide="ignore", invalid="ignore"):
        second = across / first.value
        return first + Measured.of(second / 2, second / np.sqrt(2), source)
