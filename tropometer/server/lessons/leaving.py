"""A lesson's pictures go with its frames, however those were deleted."""

from typing import Any

from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from tropometer.server.lessons.models import LessonFrame


@receiver(post_delete, sender=LessonFrame)
def forget_still(instance: LessonFrame, **_: Any) -> None:
    """The frame's picture."""
    if instance.still:
        transaction.on_commit(lambda: instance.still.storage.delete(instance.still.name or ""))
