"""A stored swing, read and judged by a teaching model."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import TYPE_CHECKING, cast

from tropometer.server.bench.asking import USUAL_MODEL
from tropometer.server.bench.record import ready_clips, record_of
from tropometer.server.judging.decisions import decisions_on
from tropometer.server.judging.earlier import Earlier, focused_before
from tropometer.server.people.body import judged_as
from tropometer.server.teaching.services import book_of, model_of
from tropometer.swing.read import SwingRead, read
from tropometer.swing.readings.reading import Reading
from tropometer.teaching.judge import Beside, Judgement, judge
from tropometer.teaching.judging.asked import post_of
from tropometer.teaching.judging.finding import Decision, Finding
from tropometer.teaching.judging.population import shipped_population
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.teaching_model import TeachingModel
from tropometer.teaching.student import Student
from tropometer.teaching.words.sentences import Sentences, sentences

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.judging.models import DecidedFault


@dataclass(frozen=True, kw_only=True)
class JudgedSwing:
    """A swing as its student's model judges it, with what the instructor decided; or as another one does."""

    swing: Swing
    book: Book
    model: TeachingModel
    student: Student
    found: SwingRead
    judgement: Judgement
    decided: dict[str, DecidedFault]
    earlier: list[Earlier]

    @cached_property
    def readings(self) -> dict[Key, Reading]:
        """What was read, by reading and place."""
        return {(each.reading, each.at): each for each in self.found.readings}

    def said(self, finding: Finding) -> Sentences:
        """A finding in the book's words."""
        fault = self.book.faults[finding.fault]
        return sentences(fault, finding, self.readings, self.student.hand, self.student.units)

    def finding(self, fault: str) -> Finding | None:
        """The finding of a fault, if the model looks for it."""
        return next((each for each in self.judgement.findings if each.fault == fault), None)


def judged(swing: Swing, model_id: str, units: str) -> JudgedSwing:
    """A swing judged by its student's model with what was decided on it, or by another model as it is.

    BookError where there is no such model.
    """
    book = book_of(swing.instructor)  # with the teacher's own faults
    own = _model_for(swing, book)
    model = model_of(swing.instructor, model_id) if model_id else own
    record = record_of(swing, ready_clips(swing))
    # Another model wants the post mark elsewhere.
    found = read(replace(record, post_m=post_of(book, model) or record.post_m), curves=True)
    student = _student(swing, units)
    decided = {each.fault: each for each in decisions_on(swing)} if model.id == own.id else {}
    population = shipped_population()
    earlier = focused_before(swing, found)
    judgement = judge(
        found,
        book,
        model,
        population=population,
        student=student,
        beside=Beside(
            focused=[each.fault for each in earlier],
            unfinished=[each.fault for each in earlier if not (each.check and each.check.state == "reached")],
            decisions={fault: cast(Decision, each.decision) for fault, each in decided.items()},
        ),
    )
    return JudgedSwing(
        swing=swing,
        book=book,
        model=model,
        student=student,
        found=found,
        judgement=judgement,
        decided=decided,
        earlier=earlier,
    )


def _model_for(swing: Swing, book: Book) -> TeachingModel:
    """The model that a student is taught by, or that a reference shows; else the usual one."""
    id = swing.student.teaching_model if swing.student else swing.reference.teaching_model
    return book.models.get(id) or book.models[USUAL_MODEL]


def _student(swing: Swing, units: str) -> Student:
    if swing.student is not None:
        return judged_as(swing.student, swing.misses, swing.hurts, units)
    return Student(hand="left" if swing.hand == "left" else "right", units="in" if units == "in" else "cm")
