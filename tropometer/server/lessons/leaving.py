"""A lesson's pictures go with its frames and versions, however those were deleted."""

from typing import Any
from uuid import UUID

from django.core.files.storage import default_storage
from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from tropometer.server.lessons.models import LessonFrame, SentSheet


@receiver(post_delete, sender=LessonFrame)
def forget_still(instance: LessonFrame, **_: Any) -> None:
    """The frame's picture, unless what was sent shows it."""
    if instance.still.name:
        _forget(instance.lesson_id, [instance.still.name])


@receiver(post_delete, sender=SentSheet)
def forget_stills(instance: SentSheet, **_: Any) -> None:
    """The pictures of a version that nothing else of its lesson shows."""
    _forget(instance.lesson_id, [frame["still"] for frame in instance.document["frames"]])


def _forget(lesson_id: UUID, names: list[str]) -> None:
    def forget() -> None:
        for name in names:
            shown = SentSheet.objects.filter(
                lesson_id=lesson_id, document__frames__contains=[{"still": name}]
            ).exists()
            if not shown and not LessonFrame.objects.filter(still=name).exists():
                default_storage.delete(name)

    transaction.on_commit(forget)
