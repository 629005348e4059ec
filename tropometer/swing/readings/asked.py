"""Readings asked for one at a time, given or refused: all but those of marks, which are read in columns."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from tropometer.swing.error.budget import Budgets
from tropometer.swing.readings.reading import Given, Reading, Refused
from tropometer.swing.readings.register import Kind


@dataclass(frozen=True, kw_only=True)
class Asked:
    """A reading, what it is of, and what finds it or raises Refused."""

    kind: Kind
    at: str
    find: Callable[[], Given]


def answered(asked: Iterable[Asked]) -> list[Reading]:
    """All of them, given or refused, in their order."""
    found = [(each, _found(each)) for each in asked]
    given = [answer for _, answer in found if isinstance(answer, Given)]
    budgets = Budgets([each.value for each in given], 1)
    rows = iter(range(len(given)))
    return [
        refusal(each.kind, each.at, answer)
        if isinstance(answer, Refused)
        else _reading(each, answer, budgets, next(rows))
        for each, answer in found
    ]


def refusal(
    kind: Kind, at: str, why: Refused, clips: tuple[str, ...] = (), frames: tuple[int, ...] = ()
) -> Reading:
    """A reading that is refused."""
    return Reading(
        reading=kind.id,
        at=at,
        unit=kind.unit,
        status="refused",
        method=kind.method,
        reason=why.reason,
        needs=why.needs,
        clips=clips,
        frames=frames,
    )


def _found(asked: Asked) -> Given | Refused:
    try:
        return asked.find()
    except Refused as why:
        return why


def _reading(asked: Asked, given: Given, budgets: Budgets, row: int) -> Reading:
    return Reading(
        reading=asked.kind.id,
        at=asked.at,
        unit=asked.kind.unit,
        status="ok",
        method=asked.kind.method,
        value=float(given.value.value),
        u95=float(budgets.u95[row, 0]),
        clips=given.clips,
        frames=given.frames,
        largest_source=budgets.largest(row, 0),
        budget=budgets.shares(row, 0),
        said=given.said,
        provisional=given.provisional,
    )
