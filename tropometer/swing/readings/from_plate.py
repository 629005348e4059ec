"""Readings of a pressure plate: what it feels at a checkpoint, and when it feels what."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import partial

from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.readings.asked import Asked, answered
from tropometer.swing.readings.felt import Channel, Felt
from tropometer.swing.readings.reading import Given, Group, Need, Reading, Refused, Unit
from tropometer.swing.readings.register import Kind, enter, kinds_of, method_of
from tropometer.swing.readings.series import Series, leading_clip
from tropometer.swing.record.swing import SwingRecord

NO_PLATE = "Needs the data of a pressure plate."
GROUP: Group = "pressure"

Formula = Callable[[Felt], Given]
Feels = Callable[[Felt], Channel]


@dataclass(frozen=True, kw_only=True)
class FromPlate(Kind):
    """A reading of a plate: found once in a swing, or felt at every sample and read at the checkpoints."""

    formula: Formula | None = None
    feels: Feels | None = None

    def find(self, felt: Felt, at: str) -> Given:
        """What it is at one of `at`; raises Refused."""
        if self.feels:
            return felt.at(self.feels(felt), at)
        assert self.formula
        return self.formula(felt)


def from_plate(id: str, *, unit: Unit, at: str, sign: str) -> Callable[[Formula], Formula]:
    """Register what finds a reading in a plate's data; the first paragraph of its docstring is the method."""

    def register(formula: Formula) -> Formula:
        method = method_of(formula)
        enter(FromPlate(id=id, unit=unit, group=GROUP, sign=sign, method=method, at=(at,), formula=formula))
        return formula

    return register


def felt_by_plate(id: str, *, sign: str) -> Callable[[Feels], Feels]:
    """Register a share that a plate feels at every sample; its docstring's first paragraph is the method."""

    def register(feels: Feels) -> Feels:
        method = method_of(feels)
        enter(
            FromPlate(id=id, unit="ratio", group=GROUP, sign=sign, method=method, at=CHECKPOINTS, feels=feels)
        )
        return feels

    return register


def readings_of_plate(record: SwingRecord) -> list[Reading]:
    """All readings of the plate, given or refused; at the checkpoints that a clip pegs.

    Without a plate's data each is refused once, as a whole.
    """
    return answered(_asked(record))


def _asked(record: SwingRecord) -> Iterator[Asked]:
    clip = next((each for each in record.clips if "impact" in each.checkpoints), None)
    pegged = [at for at in CHECKPOINTS if clip and at in clip.checkpoints] or ["impact"]
    felt = None if record.plate is None or clip is None else Felt(record.plate, clip)
    for kind in kinds_of(FromPlate):
        if record.plate is None:
            yield Asked(kind=kind, at="swing", find=partial(_refuse, Refused(NO_PLATE)))
            continue
        for at in pegged if kind.feels else kind.at:
            unpegged = Refused("Set the impact peg.", Need("peg", "impact", "impact"))
            find = partial(_refuse, unpegged) if felt is None else partial(kind.find, felt, at)
            yield Asked(kind=kind, at=at, find=find)


def _refuse(why: Refused) -> Given:
    raise why


def curves_of_plate(record: SwingRecord) -> list[Series]:
    """What the plate feels on every frame from address to finish; none while impact is not pegged."""
    clip = leading_clip(record)
    if record.plate is None or clip is None or "impact" not in clip.checkpoints:
        return []
    felt = Felt(record.plate, clip)
    found = []
    for kind in kinds_of(FromPlate):
        try:
            curve = felt.curve(kind.id, kind.feels(felt)) if kind.feels else None
        except Refused:  # the plate does not tell it at any time
            continue
        if curve is not None:
            found.append(curve)
    return found
