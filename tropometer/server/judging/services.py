"""A stored swing, judged by a teaching model."""

from __future__ import annotations

from dataclasses import asdict, replace
from typing import TYPE_CHECKING, Any, cast

from tropometer.server.bench.asking import USUAL_MODEL
from tropometer.server.bench.measure import ready_clips, record_of
from tropometer.server.teaching.services import book_of, model_of
from tropometer.swing.names import Hand
from tropometer.swing.read import read
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judge import Judgement, SetUpCheck, judge
from tropometer.teaching.judging.asked import post_of
from tropometer.teaching.judging.finding import Finding, Strength
from tropometer.teaching.judging.population import shipped_population
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.teaching_model import TeachingModel
from tropometer.teaching.student import LengthUnit, Student
from tropometer.teaching.words.sentences import sentences

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing


def judged(swing: Swing, model_id: str, lengths: str) -> dict[str, Any]:
    """A swing judged by its student's model, or by another one; shaped as `JudgementOut`."""
    book = book_of(swing.instructor)  # with the teacher's own faults
    model = model_of(swing.instructor, model_id) if model_id else _model_for(swing, book)
    record = record_of(swing, ready_clips(swing))
    # Another model wants the post mark elsewhere.
    found = read(replace(record, post_m=post_of(book, model) or record.post_m), curves=True)
    hand = cast(Hand, swing.hand)
    student = Student(hand=hand, units=cast(LengthUnit, lengths))
    judgement = judge(found, book, model, population=shipped_population(), student=student)
    readings = {(each.reading, each.at): each for each in found.readings}

    def told(finding: Finding) -> dict[str, Any]:
        fault = book.faults[finding.fault]
        said = sentences(fault, finding, readings, hand, student.units)
        return {
            **asdict(finding),
            "size": finding.sized,
            "name": fault.name,
            "ball": fault.ball,
            **asdict(said),
        }

    return {
        "model": model.id,
        "name": model.name,
        "club_class": judgement.swung.club,
        "swing_length": judgement.swung.length,
        "strengths": [_strength(each) for each in judgement.strengths],
        "findings": [told(each) for each in judgement.findings],
        "clashes": [clash.text for clash in judgement.asked.clashes],
        "set_up": [_checked(each) for each in judgement.set_up],
        **_plan(judgement, book),
    }


def _model_for(swing: Swing, book: Book) -> TeachingModel:
    """The model that a student is taught by, or that a reference shows; else the usual one."""
    id = swing.student.teaching_model if swing.student else swing.reference.teaching_model
    return book.models.get(id) or book.models[USUAL_MODEL]


def _plan(judgement: Judgement, book: Book) -> dict[str, Any]:
    return {
        "links": [asdict(each) for each in judgement.chain.links],
        "roots": [{**asdict(each), "explains": list(each.explains)} for each in judgement.chain.roots],
        "focus": [
            {
                "fault": each.fault,
                "why": each.why,
                "drills": [{"id": drill, "name": book.drills[drill].name} for drill in each.drills],
                "cautions": [warned.text for warned in each.cautions],
            }
            for each in judgement.plan.focus
        ],
        "left_out": [asdict(each) for each in judgement.plan.left_out],
    }


def _strength(strength: Strength) -> dict[str, Any]:
    reading, at = strength.band.key if strength.band else ("", "")
    return {"words": strength.words, "certainty": strength.certainty, "reading": reading, "at": at}


def _checked(check: SetUpCheck) -> dict[str, Any]:
    band = check.band
    return {
        "reading": band.reading,
        "unit": KINDS[band.reading].unit,
        "low": band.low,
        "high": band.high,
        "value": check.value,
        "u95": check.u95,
        "standing": check.standing,
        "reason": check.reason,
    }
