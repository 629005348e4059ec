"""Drills that a student ticks: what of a sent plan is to be done, and what was."""

from __future__ import annotations

from datetime import date, timedelta
from typing import TYPE_CHECKING, Any, cast
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.lessons.sending import links_of
from tropometer.server.lessons.versions import plan_sent
from tropometer.server.talking.models import Practised
from tropometer.teaching.judging.felt import cautions_for, speaking_up
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.student import Student as Judged
from tropometer.teaching.words.sentences import for_student

if TYPE_CHECKING:
    from tropometer.server.people.models import Student
    from tropometer.server.talking.schemas import Tick
    from tropometer.swing.names import Hand

KEPT_DAYS = 400  # of a log, so far back it is shown
EARLIEST_DAYS = 60  # so long after a day it can still be ticked: a phone was away


class BadTick(ValueError):
    """A tick that makes no sense; the text names the field."""


def sent_drills(student: Student) -> dict[str, tuple[UUID, str]]:
    """The drills of lessons that a link still leads to: of each, the latest lesson, and its name."""
    found: dict[str, tuple[UUID, str]] = {}
    for lesson in links_of(student):
        for focus in (plan_sent(lesson) or {"focus": []})["focus"]:
            for drill in focus["drills"]:
                found.setdefault(drill["id"], (lesson.pk, drill["name"]))
    return found


def practised_by(student: Student, since: date | None = None) -> QuerySet[Practised]:
    """What a student has ticked, the latest day first."""
    earliest = since or timezone.localdate() - timedelta(days=KEPT_DAYS)
    return Practised.objects.filter(student=student, day__gte=earliest)


def tick(student: Student, id: UUID, said: Tick) -> tuple[Practised, list[str]]:
    """Tick a drill on a day, or say anew how it felt; returns it with what the student is warned of.

    `id` is the sender's name for the tick: sent twice, or from two devices, it is there once a day.
    """
    drills = sent_drills(student)
    if said.drill not in drills:
        raise Http404("This drill is in none of your lessons.")
    today = timezone.localdate()
    latest = today + timedelta(days=1)  # in zones ahead of ours
    if not today - timedelta(days=EARLIEST_DAYS) <= said.day <= latest:
        raise BadTick(f"day: {said.day} lies too far from today.")
    same = Practised.objects.filter(pk=id).first()
    if same is not None and (same.student_id, same.drill, same.day) != (student.pk, said.drill, said.day):
        raise BadTick("id: it names another tick.")
    lesson_id, name = drills[said.drill]
    parts = speaking_up(said.places)
    with transaction.atomic():
        kept, new = Practised.objects.select_for_update().get_or_create(
            student=student,
            drill=said.drill,
            day=said.day,
            defaults={"id": id, "lesson_id": lesson_id, "name": name[:120]},
        )
        if new or not set(parts) <= set(speaking_up(cast(Any, kept.places))):
            kept.settled_at = kept.mailed_at = None  # it is news
        kept.step, kept.places, kept.words, kept.speaks_up = said.step, said.places, said.words, bool(parts)
        kept.save()
    hand = cast("Hand", student.hand)
    texts = cautions_for(shipped(), Judged(hand=hand), parts)
    return kept, [for_student(text, hand) for text in texts]


def untick(student: Student, id: UUID) -> None:
    """Take a tick back; one that is not there any more is no trouble."""
    Practised.objects.filter(student=student, pk=id).delete()


def one_tick(student: Student, id: UUID) -> Practised:
    """One of the student's ticks, or Http404."""
    return owned(Practised.objects.filter(student=student), id)
