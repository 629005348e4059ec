"""What shows a drill goes with its row, however that was deleted."""

from typing import Any

from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from tropometer.server.teaching.models import Shown


@receiver(post_delete, sender=Shown)
def forget_file(instance: Shown, **_: Any) -> None:
    """The picture or clip."""
    if instance.file:
        transaction.on_commit(lambda: instance.file.storage.delete(instance.file.name or ""))
