"""A number that carries its error, and knows where the error comes from."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

NORMAL_95 = 1.959964


@dataclass(frozen=True)
class Measured:
    """A value with first-order error propagation (law of propagation, JCGM 100:2008, 5.1).

    `parts` maps an independent source of error to its signed standard deviation in this value, so
    that two values which share a source are correlated as they should be.
    """

    value: float
    parts: dict[str, float] = field(default_factory=dict)

    @classmethod
    def of(cls, value: float, sd: float, source: str) -> Measured:
        """A value with standard deviation `sd` from one named source."""
        return cls(value, {source: sd})

    @property
    def sd(self) -> float:
        """Standard deviation, in the unit of the value."""
        return math.sqrt(sum(part * part for part in self.parts.values()))

    @property
    def u95(self) -> float:
        """Half-width of the 95 % interval under a normal error."""
        return NORMAL_95 * self.sd

    def _with(self, value: float, own: float, other: Measured | None, others: float) -> Measured:
        parts = {source: own * part for source, part in self.parts.items()}
        if other is not None:
            for source, part in other.parts.items():
                parts[source] = parts.get(source, 0.0) + others * part
        return Measured(value, parts)

    def __add__(self, other: Measured | float) -> Measured:
        b = exact(other)
        return self._with(self.value + b.value, 1.0, b, 1.0)

    def __sub__(self, other: Measured | float) -> Measured:
        b = exact(other)
        return self._with(self.value - b.value, 1.0, b, -1.0)

    def __mul__(self, other: Measured | float) -> Measured:
        b = exact(other)
        return self._with(self.value * b.value, b.value, b, self.value)

    def __truediv__(self, other: Measured | float) -> Measured:
        b = exact(other)
        quotient = self.value / b.value
        return self._with(quotient, 1 / b.value, b, -quotient / b.value)

    def __radd__(self, other: float) -> Measured:
        return self + other

    def __rmul__(self, other: float) -> Measured:
        return self * other

    def __rsub__(self, other: float) -> Measured:
        return exact(other) - self

    def __rtruediv__(self, other: float) -> Measured:
        return exact(other) / self


def exact(value: Measured | float) -> Measured:
    """The value itself, or a plain number as one without error."""
    return value if isinstance(value, Measured) else Measured(float(value))


def hypot(a: Measured, b: Measured) -> Measured:
    """Length of the vector (a, b); it must not be zero."""
    length = math.hypot(a.value, b.value)
    return a._with(length, a.value / length, b, b.value / length)
