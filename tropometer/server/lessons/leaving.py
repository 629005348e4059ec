"""A lesson's pictures go with its frames and versions, and with whoever is seen in them."""

from typing import Any

from django.db.models.signals import post_delete
from django.dispatch import receiver

from tropometer.server.lessons.models import LessonFrame, SentSheet
from tropometer.server.lessons.versions import forget_stills, forget_student


@receiver(post_delete, sender=LessonFrame)
def forget_still(instance: LessonFrame, **_: Any) -> None:
    """The frame's picture, unless what was sent shows it."""
    if instance.still.name:
        forget_stills(instance.lesson_id, [instance.still.name])


@receiver(post_delete, sender=SentSheet)
def forget_sheet(instance: SentSheet, **_: Any) -> None:
    """The pictures of a version that nothing else of its lesson shows."""
    forget_stills(instance.lesson_id, [frame["still"] for frame in instance.document["frames"]])


def _student_erased(instance: Any, **_: Any) -> None:
    forget_student(instance.pk)


post_delete.connect(_student_erased, sender="people.Student", dispatch_uid="who is erased is seen nowhere")
