"""What hurts, and what that holds back."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import dataclass

from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.caution import Caution
from tropometer.teaching.knowledge.drill import Drill
from tropometer.teaching.knowledge.trade_words import BodyPart
from tropometer.teaching.student import Ache, Student


@dataclass(frozen=True, kw_only=True)
class Warned:
    """A caution for an ache; while it is `held`, what it is on waits until somebody has agreed."""

    caution: str
    text: str
    ache: Ache
    held: bool


def warnings(book: Book, student: Student, loads: Collection[BodyPart]) -> tuple[Warned, ...]:
    """The cautions of a student for something that loads some parts of the body."""
    found = []
    for ache in student.aches:
        touches = ache.part is None or ache.part in loads
        for caution in book.cautions.values() if touches else ():
            if _meant(caution, ache):
                held = caution.holds and not ache.agreed_by
                found.append(Warned(caution=caution.id, text=caution.text, ache=ache, held=held))
    return tuple(found)


def is_barred(drill: Drill, student: Student) -> Ache | None:
    """The ache for which a drill is not, if there is one; a stiff part bars nothing."""
    return next(
        (each for each in student.aches if each.part in drill.not_for and each.trouble != "stiff"), None
    )


def drills_that_fit(book: Book, student: Student, fault: str) -> list[tuple[Drill, tuple[Warned, ...]]]:
    """The drills against a fault that are for this student, each with its cautions, those without first."""
    found = [
        (drill, warnings(book, student, drill.loads))
        for drill in book.drills_for(fault)
        if is_barred(drill, student) is None
    ]
    return sorted(found, key=lambda each: _weight(each[1]))


def _weight(warned: Iterable[Warned]) -> int:
    return sum(1 + 10 * each.held for each in warned)


def _meant(caution: Caution, ache: Ache) -> bool:
    return ache.trouble in caution.troubles and (not caution.parts or ache.part in caution.parts)
