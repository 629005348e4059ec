"""Readings of marks, as they are declared: one formula a reading, over all moments of a scene at once."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from tropometer.swing.error.value import Measured
from tropometer.swing.names import CHECKPOINTS, Checkpoint, Plane
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.reading import Group, Unit
from tropometer.swing.readings.register import Kind, enter, method_of

AFTER_ADDRESS: tuple[Checkpoint, ...] = CHECKPOINTS[1:]
ADDRESS: tuple[Checkpoint, ...] = ("address",)
FRONTAL: tuple[Plane, ...] = ("frontal",)
SAGITTAL: tuple[Plane, ...] = ("sagittal",)
BOTH: tuple[Plane, ...] = ("frontal", "sagittal")

Formula = Callable[[Look], Measured]
Ground = Literal["none", "length", "mat"]


@dataclass(frozen=True, kw_only=True)
class FromMarks(Kind):
    """A reading of marks.

    `seen` lists, best first, the sets of planes of which one must be filmed with all its marks; `scale` says
    what the views must be measured by: nothing, a length, or the mat.
    """

    at: tuple[Checkpoint, ...]
    seen: tuple[tuple[Plane, ...], ...]
    scale: Ground
    formula: Formula
    changing: bool  # whether it has a value at any moment, not at its checkpoints alone
    least_at: str  # what it is called where it is least of all frames before impact; "" where nobody asks


def from_marks(
    id: str,
    *,
    unit: Unit,
    group: Group,
    seen: tuple[tuple[Plane, ...], ...],
    at: tuple[Checkpoint, ...] = CHECKPOINTS,
    sign: str,
    scale: Ground | None = None,
    changing: bool = True,
    least_at: str = "",
) -> Callable[[Formula], Formula]:
    """Register a formula as the reading `id`; the first paragraph of its docstring becomes the method.

    Lengths need a scale, others do not, unless something else is said.
    """

    def register(formula: Formula) -> Formula:
        enter(
            FromMarks(
                id=id,
                unit=unit,
                group=group,
                sign=sign,
                method=method_of(formula),
                at=at,
                seen=seen,
                scale=scale or ("length" if unit == "m" else "none"),
                formula=formula,
                changing=changing,
                least_at=least_at,
            )
        )
        return formula

    return register
