"""What a lesson's state allows."""

from tropometer.server.lessons.models import Lesson


class NotNow(Exception):
    """The lesson's state forbids what was asked; the text says why."""


def must_be_draft(lesson: Lesson) -> None:
    """NotNow once the lesson is sent: the student must find what was sent."""
    if not lesson.is_draft:
        raise NotNow("This lesson has been sent and can no longer be changed.")
