"""All faults of a book judged on one swing."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import get_args

from tropometer.swing.names import CHECKPOINTS, View
from tropometer.swing.readings.reading import Group
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.asked import Asked, Swung
from tropometer.teaching.judging.evidence import Evidence
from tropometer.teaching.judging.finding import LIKELY, OPEN, Finding, Verdict, Witness, verdict_of
from tropometer.teaching.judging.holding import holds, is_asked, limit_of, value_of
from tropometer.teaching.judging.population import Population
from tropometer.teaching.judging.settling import settled_by
from tropometer.teaching.judging.size import size_of
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.fault import Fault
from tropometer.teaching.knowledge.rule import Condition, conditions
from tropometer.teaching.knowledge.teaching_model import TeachingModel

NORMAL_95 = 1.959964
FROM_THE_FLOOR_UP = get_args(Group)


def keys_of(book: Book, bands: Iterable[Band]) -> set[Key]:
    """Every reading that a fault or a band of the book is about."""
    found = {band.key for band in bands}
    for fault in book.faults.values():
        found |= {key for condition in conditions(fault.evidence) for key, _ in condition.terms}
    return found


def applies(fault: Fault, model: TeachingModel, swung: Swung, bands: Mapping[Key, Band]) -> bool:
    """Whether a fault is a fault to this teacher, with this club and swing."""
    if swung.club not in fault.clubs or swung.length not in fault.lengths:
        return False
    if any(model.chosen.get(dispute) not in options for dispute, options in fault.options.items()):
        return False
    return is_asked(fault.evidence, bands)


def findings(
    book: Book,
    model: TeachingModel,
    swung: Swung,
    asked: Asked,
    evidence: Evidence,
    population: Population | None,
    views: frozenset[View],
) -> list[Finding]:
    """One for each fault that applies, by the time of the swing, from the floor up in each."""
    return [
        _judged(fault, asked.bands, evidence, population, views)
        for fault in sorted(book.faults.values(), key=_place)
        if applies(fault, model, swung, asked.bands)
    ]


def _place(fault: Fault) -> tuple[int, int]:
    """When a fault happens, and how high up the body: where most of its evidence is read."""
    groups = [KINDS[each.reading].group for each in conditions(fault.evidence)]
    most = max(groups, key=lambda group: (groups.count(group), -FROM_THE_FLOOR_UP.index(group)))
    return CHECKPOINTS.index(fault.moment), FROM_THE_FLOOR_UP.index(most)


def _judged(
    fault: Fault,
    bands: Mapping[Key, Band],
    evidence: Evidence,
    population: Population | None,
    views: frozenset[View],
) -> Finding:
    held = holds(fault.evidence, evidence.draws, bands)
    least, most = float(held.least.mean()), float(held.most.mean())
    certainty, verdict = least, verdict_of(least)
    if most < OPEN:
        certainty, verdict = most, verdict_of(most)
    elif least < LIKELY and not held.seen:
        verdict = "cannot_be_seen"
    told = [each for each in conditions(fault.evidence) if limit_of(each, bands) is not None]
    witnesses = tuple(_witness(each, evidence, bands) for each in told)
    unsure: tuple[Verdict, ...] = ("likely", "open", "cannot_be_seen")
    used = [evidence.readings[key] for each in told for key, _ in each.terms if evidence.sees(key)]
    return Finding(
        fault=fault.id,
        moment=fault.moment,
        phase=fault.phase,
        verdict=verdict,
        certainty=certainty,
        size=size_of(fault.evidence, evidence.draws, bands, population),
        witnesses=witnesses,
        settled_by=settled_by(told, evidence, bands, views) if verdict in unsure else (),
        provisional=any(each.provisional for each in used),
    )


def _witness(condition: Condition, evidence: Evidence, bands: Mapping[Key, Band]) -> Witness:
    limit, drawn = limit_of(condition, bands), value_of(condition, evidence.draws)
    assert limit is not None
    used = [evidence.readings[key] for key, _ in condition.terms if evidence.sees(key)]
    return Witness(
        reading=condition.reading,
        at=condition.at,
        since=condition.since,
        less=condition.less.key if condition.less else None,
        unit=KINDS[condition.reading].unit,
        limit=limit,
        way=condition.way,
        value=None if drawn is None else _read(condition, evidence),
        u95=None if drawn is None else NORMAL_95 * float(drawn.std()),
        certainty=None if drawn is None else float((condition.way * (drawn - limit) > 0).mean()),
        clips=tuple(dict.fromkeys(clip for each in used for clip in each.clips)),
        frames=tuple(dict.fromkeys(frame for each in used for frame in each.frames)),
    )


def _read(condition: Condition, evidence: Evidence) -> float:
    return sum(sign * (evidence.readings[key].value or 0.0) for key, sign in condition.terms)
