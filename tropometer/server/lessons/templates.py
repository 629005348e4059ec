"""Words of an instructor's own to begin a lesson with, with places for what differs."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db.models import QuerySet

from tropometer.server.access import owned
from tropometer.server.lessons.models import Lesson, Template

if TYPE_CHECKING:
    from tropometer.server.people.models import User

SHIPPED = "{name}, thank you for your {club}. Here is what already works, and the one thing to work on."


def templates_of(instructor: User) -> QuerySet[Template]:
    """An instructor's own, the one that is used first at the head."""
    return Template.objects.filter(instructor=instructor)


def opening_for(lesson: Lesson, template: Template | None = None) -> str:
    """Opening words out of a template, the instructor's first one, or the shipped one."""
    used = template or templates_of(lesson.instructor).first()
    swing = lesson.swing
    name = swing.student.name.split()[0] if swing.student else ""
    text = used.text if used else SHIPPED
    return text.replace("{name}", name).replace("{club}", swing.club or "swing")[:4000]


def keep(instructor: User, id: UUID, fields: dict[str, Any]) -> Template:
    """Keep a template under the sender's id; Http404 where it is another's."""
    if fields["used_first"]:
        templates_of(instructor).update(used_first=False)
    if Template.objects.filter(pk=id).exists():
        found = owned(templates_of(instructor), id)
        for field, value in fields.items():
            setattr(found, field, value)
        found.save()
        return found
    return Template.objects.create(pk=id, instructor=instructor, **fields)


def forget(instructor: User, id: UUID) -> None:
    """Let a template go."""
    owned(templates_of(instructor), id).delete()
