"""Readings of other readings: what several of them say together."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import partial

from tropometer.swing.readings.asked import Asked, answered
from tropometer.swing.readings.reading import Given, Group, Reading, Unit
from tropometer.swing.readings.register import Kind, enter, kinds_of, method_of

Formula = Callable[[Mapping[tuple[str, str], Reading]], Given]


@dataclass(frozen=True, kw_only=True)
class FromReadings(Kind):
    """A reading of others, which its formula gets by their ids and what they are of."""

    formula: Formula


def from_readings(id: str, *, unit: Unit, group: Group, at: str, sign: str) -> Callable[[Formula], Formula]:
    """Register a formula as the reading `id`; the first paragraph of its docstring becomes the method."""

    def register(formula: Formula) -> Formula:
        method = method_of(formula)
        enter(
            FromReadings(id=id, unit=unit, group=group, sign=sign, method=method, at=(at,), formula=formula)
        )
        return formula

    return register


def readings_of_readings(found: Sequence[Reading]) -> list[Reading]:
    """Every reading that follows from others."""
    by_key = {(each.reading, each.at): each for each in found}
    return answered(
        Asked(kind=kind, at=at, find=partial(kind.formula, by_key))
        for kind in kinds_of(FromReadings)
        for at in kind.at
    )
