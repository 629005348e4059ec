"""Values that carry their error, and know where the error comes from: one, or a row of them over frames."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.error.source import Origin, Source, Variances, sources, variances

NORMAL_95 = 1.959964
NORMAL_95_ONE_SIDED = 1.644854
ONE = np.ones((1, 1))
UNCHANGED = 1.0  # the slope of what is only added to


@dataclass(frozen=True, eq=False, slots=True)
class Measured:
    """A value, or a row of n, with first-order error propagation (law of propagation, JCGM 100:2008, 5.1).

    `slopes` says how the value answers to the coordinates of what it was made of: (k, 1 or n) for each
    origin. What errors do to it follows only when it is asked for. Values that share a source are
    correlated as they should be.
    """

    value: Array
    slopes: dict[Origin, Array] = field(default_factory=dict)

    @classmethod
    def of(cls, value: float | Array, sd: float | Array, source: Source) -> Measured:
        """A value with standard deviation `sd` from one named source."""
        effects = np.asarray(sd, float).reshape(1, 1, -1)
        return cls(np.asarray(value, float), {Origin(effects, sources((source, 1))): ONE})

    def by_source(self) -> Variances:
        """Its variance, and what each source brings of it."""
        return variances((self.slopes,), self.value.size)

    @property
    def variance(self) -> Array:
        """Square of the standard deviation."""
        return self.by_source().whole().reshape(self.value.shape)

    @property
    def sd(self) -> Array:
        """Standard deviation, in the unit of the value."""
        return np.asarray(np.sqrt(self.variance))

    @property
    def u95(self) -> Array:
        """Half-width of the 95 % interval under a normal error."""
        return NORMAL_95 * self.sd

    def __add__(self, other: Measured | float | Array) -> Measured:
        b = exact(other)
        return combined(self.value + b.value, (self, UNCHANGED), (b, UNCHANGED))

    def __sub__(self, other: Measured | float | Array) -> Measured:
        b = exact(other)
        return combined(self.value - b.value, (self, UNCHANGED), (b, -1.0))

    def __mul__(self, other: Measured | float | Array) -> Measured:
        b = exact(other)
        return combined(self.value * b.value, (self, b.value), (b, self.value))

    def __truediv__(self, other: Measured | float | Array) -> Measured:
        b = exact(other)
        with np.errstate(divide="ignore", invalid="ignore"):
            quotient = self.value / b.value
            return combined(quotient, (self, 1 / b.value), (b, -quotient / b.value))

    def __neg__(self) -> Measured:
        return self * -1.0

    def __radd__(self, other: float | Array) -> Measured:
        return self + other

    def __rmul__(self, other: float | Array) -> Measured:
        return self * other

    def __rsub__(self, other: float | Array) -> Measured:
        return exact(other) - self

    def __rtruediv__(self, other: float | Array) -> Measured:
        return exact(other) / self


def exact(value: Measured | float | Array) -> Measured:
    """The value itself, or plain numbers as values without error."""
    return value if isinstance(value, Measured) else Measured(np.asarray(value, float))


def combined(value: Array | float, *slopes: tuple[Measured, Array | float]) -> Measured:
    """A value that depends on others with these slopes."""
    total: dict[Origin, Array] = {}
    for other, slope in slopes:
        if slope is UNCHANGED and not total:
            total.update(other.slopes)
            continue
        for origin, way in other.slopes.items():
            own = way if slope is UNCHANGED else slope * way
            total[origin] = total[origin] + own if origin in total else own
    return Measured(np.asarray(value, float), total)


def coordinates(values: Array, effects: Mapping[Source, Array]) -> tuple[Measured, ...]:
    """The k coordinates of one quantity: values (k,), and what each source's errors do to them (k, q)."""
    named = sources(*((source, effect.shape[1]) for source, effect in effects.items()))
    origin = Origin(np.concatenate(list(effects.values()), axis=1)[..., None], named)
    return tuple(
        Measured(np.asarray(value), {origin: way[:, None]})
        for value, way in zip(values, np.eye(len(values)), strict=True)
    )


def hypot(*sides: Measured) -> Measured:
    """Length of a vector, which must not be zero."""
    length = np.sqrt(sum(side.value**2 for side in sides))
    with np.errstate(divide="ignore", invalid="ignore"):
        return combined(length, *((side, side.value / length) for side in sides))


def degrees_of(y: Measured, x: Measured) -> Measured:
    """Angle of the vector (x, y) from the first axis, degrees, −180 to 180."""
    square = x.value**2 + y.value**2
    with np.errstate(divide="ignore", invalid="ignore"):
        angle = np.degrees(np.arctan2(y.value, x.value))
        return combined(angle, (y, np.degrees(x.value / square)), (x, np.degrees(-y.value / square)))


def where(flags: Flags, yes: Measured, no: Measured) -> Measured:
    """Values of one where the flags are set, of the other where they are not."""
    total = {origin: np.where(flags, way, 0.0) for origin, way in yes.slopes.items()}
    for origin, way in no.slopes.items():
        own = np.where(flags, 0.0, way)
        total[origin] = total[origin] + own if origin in total else own
    return Measured(np.where(flags, yes.value, no.value), total)
