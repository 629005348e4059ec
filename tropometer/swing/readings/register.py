"""The register that every reading enters itself into."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from tropometer.swing.error.value import Measured
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.reading import Group, Unit

AFTER_ADDRESS: tuple[Checkpoint, ...] = CHECKPOINTS[1:]
ADDRESS: tuple[Checkpoint, ...] = ("address",)
FACE_ON: tuple[View, ...] = ("face_on",)
DOWN_THE_LINE: tuple[View, ...] = ("down_the_line",)
BOTH: tuple[View, ...] = ("face_on", "down_the_line")

Formula = Callable[[Look], Measured]


@dataclass(frozen=True)
class Kind:
    """A registered reading.

    `seen` lists, best first, the sets of views of which one must have all its marks; `scale` says what the
    views must be measured by: nothing, a length, or the mat.
    """

    id: str
    unit: Unit
    group: Group
    seen: tuple[tuple[View, ...], ...]
    at: tuple[Checkpoint, ...]
    sign: str
    scale: Literal["none", "length", "mat"]
    method: str
    formula: Formula
    changing: bool  # whether it has a value at any moment, not at its checkpoints alone


KINDS: dict[str, Kind] = {}


def reading(
    id: str,
    *,
    unit: Unit,
    group: Group,
    seen: tuple[tuple[View, ...], ...],
    at: tuple[Checkpoint, ...] = CHECKPOINTS,
    sign: str,
    scale: Literal["none", "length", "mat"] | None = None,
    changing: bool = True,
) -> Callable[[Formula], Formula]:
    """Register a formula as the reading `id`; the first line of its docstring becomes the method.

    Lengths need a scale, others do not, unless something else is said.
    """

    def register(formula: Formula) -> Formula:
        method = (formula.__doc__ or "").strip().splitlines()[0]
        needed = scale or ("length" if unit == "m" else "none")
        KINDS[id] = Kind(id, unit, group, seen, at, sign, needed, method, formula, changing)
        return formula

    return register
