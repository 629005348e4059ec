"""What the lesson is about: at most three findings, and why these."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

from tropometer.teaching.judging.asked import Asked
from tropometer.teaching.judging.chain import Chain, Root
from tropometer.teaching.judging.finding import Finding
from tropometer.teaching.judging.sparing import Warned, drills_that_fit, warnings
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.trade_words import BallMiss
from tropometer.teaching.student import Student

MOST = 3


@dataclass(frozen=True, kw_only=True)
class Focus:
    """A finding the lesson is about, why, and the drills for it, the best first, each with its cautions."""

    fault: str
    why: str
    drills: tuple[str, ...]
    cautions: tuple[Warned, ...]


@dataclass(frozen=True, kw_only=True)
class LeftOut:
    """A root that the lesson is not about, and why."""

    fault: str
    why: str


@dataclass(frozen=True, kw_only=True)
class Plan:
    """The focus, heaviest first, and what was left out of it."""

    focus: tuple[Focus, ...]
    left_out: tuple[LeftOut, ...]


def planned(
    book: Book,
    asked: Asked,
    found: Collection[Finding],
    chain: Chain,
    student: Student,
    unfinished: Collection[str] = (),
) -> Plan:
    """The heaviest roots, one a phase unless it is a set-up change; last time's unfinished goes first.

    What only waits for a physician's word, and what a body cannot reach, is left out with the reason.
    """
    by_fault = {each.fault: each for each in found}
    roots = {root.fault: root for root in chain.roots}
    order = [id for id in unfinished if id in chain.faults]
    order += [root.fault for root in chain.roots if root.fault not in order]
    focus: list[Focus] = []
    left_out: list[LeftOut] = []
    phases: set[str] = set()
    for id in order:
        why_not = _why_not(book, asked, student, by_fault[id])
        phase = by_fault[id].phase
        if why_not is None and len(focus) == MOST:
            why_not = "three are enough for one lesson"
        if why_not is None and phase in phases and phase != "set_up":
            why_not = "another of the same part of the swing comes first"
        if why_not is not None:
            left_out.append(LeftOut(fault=id, why=why_not))
            continue
        phases.add(phase)
        fitting = drills_that_fit(book, student, id)
        focus.append(
            Focus(
                fault=id,
                why=_why(book, roots.get(id), len(chain.faults), id in unfinished),
                drills=tuple(drill.id for drill, _ in fitting),
                cautions=warnings(book, student, book.faults[id].loads),
            )
        )
    return Plan(focus=tuple(focus), left_out=tuple(left_out))


def _why_not(book: Book, asked: Asked, student: Student, finding: Finding) -> str | None:
    fault = book.faults[finding.fault]
    reach = _out_of_reach(asked, finding)
    if reach is not None:
        return reach
    drills = book.drills_for(fault.id)
    fitting = drills_that_fit(book, student, fault.id)
    if drills and not fitting:
        return "every drill for it loads a part that hurts"
    if fitting and all(any(each.held for each in warned) for _, warned in fitting):
        return "it waits until a physician or physiotherapist has agreed"
    return None


def _out_of_reach(asked: Asked, finding: Finding) -> str | None:
    """Where a band gave way for the body, and the swing holds what is left of it."""
    for narrowed in asked.narrowed:
        for witness in finding.witnesses:
            if (witness.reading, witness.at) != narrowed.key or witness.value is None:
                continue
            band = asked.bands[narrowed.key]
            if band.low is not None and witness.value >= band.low and witness.value < narrowed.from_value:
                return narrowed.why
    return None


def _why(book: Book, root: Root | None, active: int, unfinished: bool) -> str:
    words = ["left from last time"] if unfinished else []
    if root is not None and root.explains:
        others = active - 1
        words.append(f"explains {len(root.explains)} of {others} other{'' if others == 1 else 's'}")
    if root is not None and root.misses:
        words.append("fits the usual miss: " + ", ".join(_spoken(miss) for miss in root.misses))
    if root is not None and root.spares:
        words.append("takes strain off the body")
    return ", ".join(words) or "stands by itself"


def _spoken(miss: BallMiss) -> str:
    return miss.replace("_", "-")
