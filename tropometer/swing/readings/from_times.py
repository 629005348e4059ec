"""Readings of times: one formula a reading, of a swing's clock."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import partial

from tropometer.swing.readings.asked import Asked, answered
from tropometer.swing.readings.clock import Clock
from tropometer.swing.readings.reading import Given, Group, Reading, Unit
from tropometer.swing.readings.register import Kind, enter, kinds_of, method_of
from tropometer.swing.readings.series import Series
from tropometer.swing.record.swing import SwingRecord

SINCE = "before is negative"
FROM_TOP = f"from the top; {SINCE}"
FROM_IMPACT = f"from impact; {SINCE}"

Formula = Callable[[Clock, str], Given]


@dataclass(frozen=True, kw_only=True)
class FromTimes(Kind):
    """A reading of times; its formula is also told what it is asked for, one of `at`."""

    formula: Formula


def from_times(
    id: str, *, unit: Unit, group: Group, at: tuple[str, ...], sign: str
) -> Callable[[Formula], Formula]:
    """Register a formula as the reading `id`; the first paragraph of its docstring becomes the method."""

    def register(formula: Formula) -> Formula:
        method = method_of(formula)
        enter(FromTimes(id=id, unit=unit, group=group, sign=sign, method=method, at=at, formula=formula))
        return formula

    return register


def readings_of_times(record: SwingRecord, curves: Mapping[str, Series] | None = None) -> list[Reading]:
    """Every reading of times; with `curves`, also of events that nobody pegged."""
    clock = Clock(record, curves or {})
    return answered(
        Asked(kind=kind, at=at, find=partial(kind.formula, clock, at))
        for kind in kinds_of(FromTimes)
        for at in kind.at
    )
