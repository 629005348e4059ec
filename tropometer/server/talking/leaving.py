"""A voice goes with its message, however that was deleted."""

from typing import Any

from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from tropometer.server.talking.models import Message


@receiver(post_delete, sender=Message)
def forget_voice(instance: Message, **_: Any) -> None:
    """What was said."""
    if instance.voice:
        transaction.on_commit(lambda: instance.voice.storage.delete(instance.voice.name or ""))
