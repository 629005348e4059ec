"""The front door: a swing that was read, judged by a teaching model for a student."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, field

from tropometer.swing.arrays import Array
from tropometer.swing.names import View
from tropometer.swing.read import SwingRead
from tropometer.swing.readings.reading import Reading
from tropometer.teaching.judging.asked import Asked, Swung, asked_of
from tropometer.teaching.judging.chain import Chain, chained
from tropometer.teaching.judging.deciding import with_decisions
from tropometer.teaching.judging.evidence import weighed
from tropometer.teaching.judging.finding import Decision, Finding, Strength
from tropometer.teaching.judging.findings import findings, keys_of
from tropometer.teaching.judging.focus import Plan, planned
from tropometer.teaching.judging.population import Population
from tropometer.teaching.judging.strengths import strengths
from tropometer.teaching.knowledge.band import Band, Key, Standing
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.teaching_model import TeachingModel
from tropometer.teaching.student import Student


@dataclass(frozen=True, kw_only=True)
class SetUpCheck:
    """A set-up reading against the model; None where it is not given."""

    band: Band
    value: float | None
    u95: float | None
    standing: Standing | None
    reason: str = ""


@dataclass(frozen=True, kw_only=True)
class Judgement:
    """What a swing means to a teacher: strengths first, findings by the time of the swing, causes, a plan."""

    model: str
    swung: Swung
    asked: Asked
    strengths: tuple[Strength, ...]
    findings: tuple[Finding, ...]
    chain: Chain
    plan: Plan
    set_up: tuple[SetUpCheck, ...]


@dataclass(frozen=True, kw_only=True)
class Beside:
    """What is known of a swing beside its readings.

    `focused` are the faults of the last lesson's focus, `unfinished` those whose goal was not reached, and
    `decisions` what the instructor decided of faults in this swing.
    """

    focused: Collection[str] = ()
    unfinished: Collection[str] = ()
    decisions: Mapping[str, Decision] = field(default_factory=dict)


def judge(
    read: SwingRead,
    book: Book,
    model: TeachingModel,
    *,
    population: Population | None,
    student: Student | None = None,
    beside: Beside | None = None,
) -> Judgement:
    """Judge what was read; without a `population` a certainty says only what this one swing says."""
    record = read.record
    swung = Swung(club=record.club_class or "iron", length=record.swing_length or "full")
    return judge_readings(
        read.readings,
        read.covariance,
        frozenset(clip.view for clip in record.clips),
        swung,
        book,
        model,
        population=population.with_post_mark(record.post_m) if population else None,
        student=student or Student(hand=record.hand),
        beside=beside or Beside(),
    )


def judge_readings(
    readings: Sequence[Reading],
    covariance: Callable[[Sequence[Key]], Array],
    views: frozenset[View],
    swung: Swung,
    book: Book,
    model: TeachingModel,
    *,
    population: Population | None,
    student: Student,
    beside: Beside,
) -> Judgement:
    """The same for readings that are kept somewhere, with how their errors hang together."""
    asked = asked_of(book, model, swung, student.motions)
    evidence = weighed(readings, covariance, keys_of(book, asked.bands.values()), population)
    judged = findings(book, model, swung, asked, evidence, population, views)
    found = with_decisions(book, judged, beside.decisions)
    chain = chained(book, found, student.misses)
    return Judgement(
        model=model.id,
        swung=swung,
        asked=asked,
        strengths=tuple(strengths(book, asked, evidence, found, beside.focused)),
        findings=found,
        chain=chain,
        plan=planned(book, asked, found, chain, student, beside.unfinished),
        set_up=tuple(
            _checked(band, evidence.readings.get(band.key) or evidence.refused.get(band.key))
            for band in asked.bands.values()
            if band.at == "address"
        ),
    )


def _checked(band: Band, reading: Reading | None) -> SetUpCheck:
    if reading is None or reading.value is None or reading.u95 is None:
        reason = reading.reason if reading else "This is not read off this swing."
        return SetUpCheck(band=band, value=None, u95=None, standing=None, reason=reason)
    return SetUpCheck(
        band=band,
        value=reading.value,
        u95=reading.u95,
        standing=band.standing(reading.value, reading.u95),
    )
