"""Two cards of one person made one: all that is theirs is on it, and the other card is gone."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from django.db import transaction
from django.dispatch import Signal
from django.utils import timezone

from tropometer.server.people.models import Ache, MotionMeasured, Student, StudentNote

# Two cards become one: `into` and `other`. Apps settle what both cards have and only one can keep, and
# names that stand in documents; rows that hang on a student follow by themselves.
cards_merging = Signal()

LONGEST_HISTORY = 2000
FILLED = (
    "email", "units", "stature_m", "misses", "good_clubs", "bad_clubs",
    "guardian", "guardian_email", "consent_on",
)  # fmt: skip


class CannotMerge(ValueError):
    """Two cards that are not one person's; the text says why."""


def merge(into: Student, other: Student) -> Student:
    """Put all that is the other's on one card; what both say, the first card says. It cannot be undone."""
    if into.pk == other.pk:
        raise CannotMerge("other: a card cannot be merged with itself.")
    if into.hand != other.hand:
        raise CannotMerge(f"other: {other.name} plays {other.hand}-handed: it is not the same player.")
    with transaction.atomic():
        both = Student.objects.select_for_update().filter(pk__in=[into.pk, other.pk])
        if both.count() < 2:
            raise CannotMerge("other: that card is gone.")
        _fill(into, other)
        _body(into, other)
        if hasattr(into, "page") and hasattr(other, "page"):
            other.page.delete()
        cards_merging.send(None, into=into, other=other)
        for relation in hanging_on_students():
            rows = relation.related_model._base_manager.filter(**{relation.field.name: other})
            rows.update(**{relation.field.name: into})
        Student.objects.get(pk=other.pk).delete()
    return Student.objects.get(pk=into.pk)


def hanging_on_students() -> list[Any]:
    """Every relation by which a row of any app belongs to a student."""
    fields = Student._meta.get_fields(include_hidden=True)
    return [each for each in fields if each.auto_created and (each.one_to_many or each.one_to_one)]


def _fill(into: Student, other: Student) -> None:
    for field in FILLED:
        if not getattr(into, field):
            setattr(into, field, getattr(other, field))
    both = "\n".join(dict.fromkeys(filter(None, (into.history, other.history))))
    if len(both) <= LONGEST_HISTORY:
        into.history = both
    else:  # there is no room for both on the card
        StudentNote.objects.create(pk=uuid4(), student=into, day=timezone.localdate(), words=other.history)
    into.minor = into.minor or other.minor
    into.added_at = min(into.added_at, other.added_at)
    into.save()


def _body(into: Student, other: Student) -> None:
    for ache in Ache.objects.filter(student=other):
        same = Ache.objects.filter(student=into, part=ache.part, trouble=ache.trouble).first()
        if same is None:
            continue
        if not same.agreed_by and ache.agreed_by:
            same.agreed_by, same.agreed_on = ache.agreed_by, ache.agreed_on
            same.save()
        ache.delete()
    for motion in MotionMeasured.objects.filter(student=other):
        known = MotionMeasured.objects.filter(student=into, motion=motion.motion).first()
        if known is None:
            continue
        (motion if known.measured_on >= motion.measured_on else known).delete()
