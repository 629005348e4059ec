"""An instructor's picture goes with the account, however that was deleted."""

from typing import Any

from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from tropometer.server.people.models import User


@receiver(post_delete, sender=User)
def forget_portrait(instance: User, **_: Any) -> None:
    """The picture over what their students read."""
    if instance.portrait:
        transaction.on_commit(lambda: instance.portrait.storage.delete(instance.portrait.name or ""))
