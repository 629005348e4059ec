"""What stands on a student's sheet beside the plan: what works, why it matters, all that was measured."""

from __future__ import annotations

from typing import Any

from tropometer.server.judging.judged import JudgedSwing
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.words.sentences import for_student

MOST_STRENGTHS = 4
MOST_LINKS = 2  # from the focus on: three plates and the miss are read on a phone at a glance


def beside_the_plan(found: JudgedSwing, document: dict[str, Any]) -> dict[str, Any]:
    """Strengths, chain and measures, shaped as in `SentPlan`; nothing hangs on a mark nobody looked at."""
    hand = found.student.hand
    focus = document["focus"][:1]
    return {
        "strengths": [for_student(each.words, hand) for each in found.judgement.strengths[:MOST_STRENGTHS]],
        "chain": _chain(found, focus[0]["fault"]) if focus else [],
        "measured": _measured(found),
    }


def _chain(found: JudgedSwing, fault: str) -> list[dict[str, str]]:
    """The focus, the strongest of what follows from it, and the usual miss at its end."""
    chain, book = found.judgement.chain, found.book
    path = [fault]
    while len(path) <= MOST_LINKS:
        ways = [each for each in chain.links if each.cause == path[-1] and each.effect not in path]
        if not ways:
            break
        path.append(max(ways, key=lambda each: each.strength).effect)
    known = [id for id in path if id in book.faults]
    plates = [{"name": for_student(book.faults[id].name, found.student.hand), "miss": ""} for id in known]
    ends = [miss for id in reversed(known) for miss in book.faults[id].ball if miss in found.student.misses]
    return [*plates, *({"name": "", "miss": miss} for miss in ends[:1])]


def _measured(found: JudgedSwing) -> list[dict[str, Any]]:
    rows = []
    for band in found.judgement.asked.bands.values():
        read = found.readings.get(band.key)
        if read is None or read.value is None or read.u95 is None or read.provisional:
            continue
        rows.append(
            {
                "reading": band.reading,
                "at": band.at,
                "unit": KINDS[band.reading].unit,
                "value": read.value,
                "u95": read.u95,
                "low": band.low,
                "high": band.high,
            }
        )
    return rows
