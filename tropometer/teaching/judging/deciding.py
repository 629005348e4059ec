"""What an instructor decided of a swing's faults stands, whatever the evidence says."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from tropometer.teaching.judging.finding import Decision, Finding
from tropometer.teaching.knowledge.book import Book


def with_decisions(
    book: Book, found: Sequence[Finding], decisions: Mapping[str, Decision]
) -> tuple[Finding, ...]:
    """Findings as an instructor decided on them; a fault that nobody judged comes last, without evidence.

    Decisions on faults that the book no longer has are left out.
    """
    judged = {each.fault for each in found}
    added = [
        Finding(
            fault=id,
            moment=book.faults[id].moment,
            phase=book.faults[id].phase,
            verdict="cannot_be_seen",
            certainty=0.0,
            size=0.0,
            witnesses=(),
        )
        for id in decisions
        if id in book.faults and id not in judged
    ]
    return tuple(replace(each, decision=decisions.get(each.fault)) for each in (*found, *added))
