"""What a swing's teacher asks of it."""

from __future__ import annotations

from typing import TYPE_CHECKING, cast

from tropometer.server.people.body import reach_of
from tropometer.server.teaching.services import book_of
from tropometer.swing.names import ClubClass, SwingLength
from tropometer.swing.record.swing import POST_M
from tropometer.teaching.judging.asked import Asked, Swung, asked_of, post_of
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.knowledge.teaching_model import TeachingModel

USUAL_MODEL = "loaded_shift"

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing


def swung(swing: Swing) -> Swung:
    """Club and length as they were said; where nobody has, a full swing with an iron is meant."""
    return Swung(
        club=cast(ClubClass, swing.club_class or "iron"),
        length=cast(SwingLength, swing.swing_length or "full"),
    )


def taught_by(swing: Swing) -> tuple[Book, TeachingModel] | None:
    """The book and the model that a swing's student is taught by; None of a reference.

    A model that is not in the book any more is the usual one.
    """
    if swing.student is None:
        return None
    id = swing.student.teaching_model
    # Nothing of one's own changes what a shipped model asks.
    book = shipped() if id in shipped().models else book_of(swing.instructor)
    return book, book.models.get(id) or book.models[USUAL_MODEL]


def asked_of_swing(swing: Swing) -> Asked | None:
    """The bands that a swing is held against."""
    taught = taught_by(swing)
    return asked_of(*taught, swung(swing), reach_of(swing.student)) if taught and swing.student else None


def post_of_swing(swing: Swing) -> float:
    """Where the post mark stands for this swing, metres."""
    taught = taught_by(swing)
    return (post_of(*taught) if taught else None) or POST_M
