"""What a swing does well: bands that it holds, and faults of last time that are gone."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from tropometer.swing.names import CHECKPOINTS, Checkpoint
from tropometer.teaching.judging.asked import Asked
from tropometer.teaching.judging.evidence import Evidence
from tropometer.teaching.judging.finding import SHOWN, Finding, Strength
from tropometer.teaching.knowledge.band import Band
from tropometer.teaching.knowledge.book import Book


def strengths(
    book: Book, asked: Asked, evidence: Evidence, found: Sequence[Finding], before: Collection[str] = ()
) -> list[Strength]:
    """First what was a fault `before` and is not shown now, then bands held, in the order of the swing."""
    gone = [
        Strength(
            words=f"{book.faults[each.fault].name}: gone", certainty=1 - each.certainty, fault=each.fault
        )
        for each in found
        if each.fault in before and each.verdict == "not_shown" and each.decision is None
    ]
    held = []
    for band in asked.bands.values():
        certainty = inside(band, evidence) if band.keep else None
        if band.keep and certainty is not None and certainty >= SHOWN:
            held.append(Strength(words=band.keep, certainty=certainty, band=band))
    held.sort(key=lambda each: _order(each.band.at) if each.band else 0)
    return [*gone, *held]


def inside(band: Band, evidence: Evidence) -> float | None:
    """How sure it is that a reading lies inside its band; None where nobody saw it or its marks."""
    if not evidence.sees(band.key) or evidence.readings[band.key].provisional:
        return None
    drawn = evidence.draws[band.key]
    held = drawn >= (-float("inf") if band.low is None else band.low)
    held &= drawn <= (float("inf") if band.high is None else band.high)
    return float(held.mean())


def _order(at: str) -> int:
    moments: tuple[Checkpoint | str, ...] = CHECKPOINTS
    return moments.index(at) if at in moments else len(moments)
