"""For a practice that brings its past along: what was said and practised before it began here."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING
from uuid import uuid4

from tropometer.server.talking.models import Message, Practised, Side
from tropometer.server.talking.practice import sent_drills
from tropometer.server.talking.services import say
from tropometer.teaching.judging.felt import FeltPlace, speaking_up

if TYPE_CHECKING:
    from tropometer.server.people.models import Student


def said_before(
    student: Student, side: str, words: str, at: datetime, settled: bool = True, voice: bytes = b""
) -> None:
    """What one side said, seen by the other; a student's words that are not settled still wait."""
    message = say(student, Side(side), uuid4(), words, voice=voice)
    seen = at if settled else None
    Message.objects.filter(pk=message.pk).update(said_at=at, mailed_at=at, seen_at=seen, settled_at=seen)


def practised_before(
    student: Student,
    drill: str,
    at: datetime,
    step: int,
    places: tuple[FeltPlace, ...] = (),
    words: str = "",
    settled: bool = True,
) -> None:
    """A tick of a drill that was sent to the student."""
    lesson_id, name = sent_drills(student)[drill]
    kept = Practised.objects.create(
        student=student,
        lesson_id=lesson_id,
        drill=drill,
        name=name,
        day=at.date(),
        step=step,
        places=list(places),
        words=words,
        speaks_up=bool(speaking_up(places)),
        settled_at=at if settled else None,
        mailed_at=at,
    )
    Practised.objects.filter(pk=kept.pk).update(ticked_at=at)
