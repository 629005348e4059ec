"""For a practice that brings its past along: lessons that were sent before it began here."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING

from django.db import transaction

if TYPE_CHECKING:
    from tropometer.server.lessons.models import Lesson


@contextmanager
def as_draft(lesson: Lesson) -> Iterator[Lesson]:
    """A sent lesson to be written in; afterwards it is as sent, and as read, as it was."""
    with transaction.atomic():
        sent_at, token = lesson.sent_at, lesson.token
        lesson.sent_at = lesson.token = None
        lesson.save(update_fields=["sent_at", "token"])
        lesson.sheets.all().delete()  # what is written now is what was sent
        yield lesson
        lesson.sent_at, lesson.token = sent_at, token
        lesson.save(update_fields=["sent_at", "token"])
