"""What a swing's teacher asks of it."""

from __future__ import annotations

from collections.abc import Collection
from typing import TYPE_CHECKING, cast

from tropometer.server.people.body import reach_of
from tropometer.server.teaching.services import book_of
from tropometer.swing.names import ClubClass, SwingLength
from tropometer.swing.record.swing import POST_M
from tropometer.teaching.judging.asked import Asked, Swung, asked_by_others, asked_of, post_of
from tropometer.teaching.knowledge.band import Band
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.knowledge.teaching_model import TeachingModel

USUAL_MODEL = "loaded_shift"

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.people.models import Student


def swung(swing: Swing) -> Swung:
    """Club and length as they were said; where nobody has, a full swing with an iron is meant."""
    return Swung(
        club=cast(ClubClass, swing.club_class or "iron"),
        length=cast(SwingLength, swing.swing_length or "full"),
    )


def taught_by(student: Student) -> tuple[Book, TeachingModel]:
    """The book and the model that a student is taught by.

    A model that is not in the book any more is the usual one.
    """
    id = student.teaching_model
    # Nothing of one's own changes what a shipped model asks.
    book = shipped() if id in shipped().models else book_of(student.instructor)
    return book, book.models.get(id) or book.models[USUAL_MODEL]


def asked_of_swing(swing: Swing) -> Asked | None:
    """The bands that a student's swing is held against; None of a reference."""
    if swing.student is None:
        return None
    return asked_of_kind(swing.student, swung(swing))


def asked_of_kind(student: Student, kind: Swung) -> Asked:
    """The bands that a student's swings of one kind are held against."""
    return asked_of(*taught_by(student), kind, reach_of(student))


def asked_by_other_teachers(swing: Swing, readings: Collection[str]) -> list[tuple[str, Band]]:
    """What those ask of some readings who teach otherwise; nothing of a reference."""
    return asked_by_others(*taught_by(swing.student), swung(swing), readings) if swing.student else []


def post_of_swing(swing: Swing) -> float:
    """Where the post mark stands for this swing, metres."""
    return (post_of(*taught_by(swing.student)) if swing.student else None) or POST_M
