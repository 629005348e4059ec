"""Values that carry their error, and know where the error comes from: one, or a row of them over frames."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Flags = npt.NDArray[np.bool_]

NORMAL_95 = 1.959964


@dataclass(frozen=True, eq=False)
class Measured:
    """Values of any shape S with first-order error propagation (law of propagation, JCGM 100:2008, 5.1).

    `parts` maps a source of error to what its independent standard deviations, one or several, do to the
    values: shape S + (q,). Values that share a source are correlated as they should be.
    """

    value: Array
    parts: dict[str, Array] = field(default_factory=dict)

    @classmethod
    def of(cls, value: float | Array, sd: float | Array, source: str) -> Measured:
        """A value with standard deviation `sd` from one named source."""
        return cls(np.asarray(value, float), {source: np.asarray(sd, float)[..., None]})

    @property
    def variance(self) -> Array:
        """Square of the standard deviation."""
        squares = (np.sum(part * part, axis=-1) for part in self.parts.values())
        return sum(squares, np.zeros(np.shape(self.value)))

    @property
    def sd(self) -> Array:
        """Standard deviation, in the unit of the value."""
        return np.asarray(np.sqrt(self.variance))

    @property
    def u95(self) -> Array:
        """Half-width of the 95 % interval under a normal error."""
        return NORMAL_95 * self.sd

    def __getitem__(self, index: int | slice) -> Measured:
        parts = {
            source: part[index] if part.ndim > self.value.ndim and self.value.ndim else part
            for source, part in self.parts.items()
        }
        return Measured(np.asarray(self.value[index]), parts)

    def __add__(self, other: Measured | float | Array) -> Measured:
        b = exact(other)
        return combined(self.value + b.value, (self, 1.0), (b, 1.0))

    def __sub__(self, other: Measured | float | Array) -> Measured:
        b = exact(other)
        return combined(self.value - b.value, (self, 1.0), (b, -1.0))

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
    parts: dict[str, Array] = {}
    for other, slope in slopes:
        factor = np.asarray(slope, float)[..., None]
        for source, part in other.parts.items():
            own = factor * part
            parts[source] = parts[source] + own if source in parts else own
    return Measured(np.asarray(value, float), parts)


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
    value = np.where(flags, yes.value, no.value)
    zero = np.zeros(())
    first = Measured(value, {k: np.where(flags[..., None], part, zero) for k, part in yes.parts.items()})
    second = Measured(value, {k: np.where(flags[..., None], zero, part) for k, part in no.parts.items()})
    return combined(value, (first, 1.0), (second, 1.0))


def mean(values: Iterable[Measured]) -> Measured:
    """Their mean."""
    all_values = list(values)
    share = 1 / len(all_values)
    return combined(sum(each.value for each in all_values) * share, *((each, share) for each in all_values))
