"""Whether a book makes sense: what it names exists, no cause is its own effect, nothing lacks its remedy."""

from __future__ import annotations

import re
from collections.abc import Iterator
from graphlib import CycleError, TopologicalSorter
from itertools import combinations
from typing import cast

from tropometer.swing.names import CHECKPOINTS, Checkpoint
from tropometer.swing.readings.by_part import going_back  # noqa: F401 - enters all readings
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.knowledge.book import Book, Piece, named
from tropometer.teaching.knowledge.book_error import BookError
from tropometer.teaching.knowledge.dispute import Dispute
from tropometer.teaching.knowledge.drill import Check
from tropometer.teaching.knowledge.rule import Condition, conditions

PLACEHOLDER = re.compile(r"\{([^{}]*)\}")
Trouble = tuple[Piece, str, str]  # of which piece, in which field, what


def check(book: Book) -> None:
    """Raises BookError, which names the piece and the field, for the first thing that makes no sense."""
    for piece, field, why in troubles(book):
        raise BookError(named(piece), field, why)


def troubles(book: Book) -> Iterator[Trouble]:
    """All that makes no sense in a book."""
    yield from _bands(book)
    yield from _disputes_and_models(book)
    yield from _faults(book)
    yield from _drills(book)
    yield from _motions(book)
    yield from _causes(book)


def _bands(book: Book) -> Iterator[Trouble]:
    where: list[tuple[Piece, str, tuple[Band, ...]]] = [
        (each, "bands", each.bands) for each in book.standards.values()
    ]
    for dispute in book.disputes.values():
        where += [(dispute, f"options.{each.id}.bands", each.bands) for each in dispute.options]
    where += [(each, "changes", each.changes) for each in book.models.values()]
    for piece, field, bands in where:
        for i, band in enumerate(bands):
            yield from _reads(piece, f"{field}[{i}]", band.key)
        for (i, a), (j, b) in combinations(enumerate(bands), 2):
            if a.key == b.key and _meet(a, b):
                yield piece, f"{field}[{j}]", f"asks the same swing for the same reading as {field}[{i}]"


def _meet(a: Band, b: Band) -> bool:
    lengths = [set(each.lengths) for each in (a, b)]
    return bool(set(a.clubs) & set(b.clubs)) and (not all(lengths) or bool(lengths[0] & lengths[1]))


def _disputes_and_models(book: Book) -> Iterator[Trouble]:
    for dispute in book.disputes.values():
        ids = [option.id for option in dispute.options]
        for id in {id for id in ids if ids.count(id) > 1}:
            yield dispute, f"options.{id}", "there is another of this id"
    for model in book.models.values():
        for dispute_id, option in model.chosen.items():
            yield from _option(book, model, f"chosen.{dispute_id}", dispute_id, option)
        for dispute_id in book.disputes.keys() - model.chosen.keys():
            yield model, f"chosen.{dispute_id}", "nothing is chosen"
    for clash in book.clashes.values():
        for i, chosen in enumerate(clash.options):
            yield from _option(book, clash, f"options[{i}]", chosen.dispute, chosen.option)
        if clash.motion is not None and clash.motion not in book.motions:
            yield clash, "motion", f"there is no motion {clash.motion}"
        if (clash.motion is None) != (clash.under is None):
            yield clash, "under", "motion and under belong together"


def _option(book: Book, piece: Piece, field: str, dispute: str, option: str) -> Iterator[Trouble]:
    if dispute not in book.disputes:
        yield piece, field, f"there is no dispute {dispute}"
    elif book.option(dispute, option) is None:
        yield piece, field, f"{dispute} has no option {option}"


def _faults(book: Book) -> Iterator[Trouble]:
    ends = _ends(book)
    for fault in book.faults.values():
        for i, condition in enumerate(conditions(fault.evidence)):
            yield from _condition(fault, f"evidence[{i}]", condition, ends)
        for dispute, options in fault.options.items():
            for option in options:
                yield from _option(book, fault, f"options.{dispute}", dispute, option)
        for i, edge in enumerate(fault.leads_to):
            if edge.fault not in book.faults:
                yield fault, f"leads_to[{i}].fault", f"there is no fault {edge.fault}"
        for name in ("teacher", "student", "line"):
            for placeholder in PLACEHOLDER.findall(getattr(fault.words, name)):
                reading, _, at = placeholder.partition(".")
                yield from _reads(fault, f"words.{name}", (reading, at))
        drilled = bool(book.drills_for(fault.id))
        if drilled == (fault.no_drill is not None):
            yield (
                fault,
                "no_drill",
                "there is a drill" if drilled else "no drill is for it, and nothing says why",
            )


def _ends(book: Book) -> set[tuple[Key, str]]:
    bands = [band for each in book.standards.values() for band in each.bands]
    bands += [band for each in book.disputes.values() for band in _all_bands(each)]
    return {(band.key, end) for band in bands for end in ("low", "high") if getattr(band, end) is not None}


def _all_bands(dispute: Dispute) -> list[Band]:
    return [band for option in dispute.options for band in option.bands]


def _condition(
    piece: Piece, field: str, condition: Condition, ends: set[tuple[Key, str]]
) -> Iterator[Trouble]:
    for key, _ in condition.terms:
        yield from _reads(piece, field, key)
    if isinstance(condition.limit, str) and (condition.key, condition.limit) not in ends:
        yield piece, field, f"no band of {'.'.join(condition.key)} has a {condition.limit} end"


def _reads(piece: Piece, field: str, key: Key) -> Iterator[Trouble]:
    reading, at = key
    kind = KINDS.get(reading)
    if kind is None:
        yield piece, f"{field}.reading", f"there is no reading {reading}"
        return
    least_at = kind.least_at if isinstance(kind, FromMarks) else ""
    if at not in kind.at and at != least_at:
        yield piece, f"{field}.at", f"{reading} is not read at {at or 'nothing'}"


def _drills(book: Book) -> Iterator[Trouble]:
    for drill in book.drills.values():
        for i, fault in enumerate(drill.faults):
            if fault not in book.faults:
                yield drill, f"faults[{i}]", f"there is no fault {fault}"
        yield from _condition(drill, "camera.holds", drill.camera.holds, set())
        if isinstance(drill.camera.alone, Check):
            yield from _condition(drill, "camera.alone.holds", drill.camera.alone.holds, set())
        if drill.drawn_as is not None and drill.drawn_as not in book.drills:
            yield drill, "drawn_as", f"there is no drill {drill.drawn_as}"


def _motions(book: Book) -> Iterator[Trouble]:
    ends = _ends(book)
    for motion in book.motions.values():
        for i, narrowing in enumerate(motion.narrows):
            key = (narrowing.reading, narrowing.at)
            yield from _reads(motion, f"narrows[{i}]", key)
            if (key, narrowing.end) not in ends:
                yield motion, f"narrows[{i}].end", f"no band of {'.'.join(key)} has a {narrowing.end} end"


def _causes(book: Book) -> Iterator[Trouble]:
    for fault in book.faults.values():
        for i, edge in enumerate(fault.leads_to):
            effect = book.faults.get(edge.fault)
            if effect is not None and _order(effect.moment) < _order(fault.moment):
                yield fault, f"leads_to[{i}].fault", f"{edge.fault} comes earlier than its cause"
    graph = {fault.id: [edge.fault for edge in fault.leads_to] for fault in book.faults.values()}
    try:
        TopologicalSorter(graph).prepare()
    except CycleError as error:
        ring = cast(list[str], error.args[1])
        yield book.faults[ring[0]], "leads_to", f"leads back to itself: {' → '.join(reversed(ring))}"


def _order(moment: str) -> int:
    return CHECKPOINTS.index(cast(Checkpoint, moment))
