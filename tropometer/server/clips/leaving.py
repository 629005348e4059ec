"""Files go when the last row that names them is gone, however that row was deleted."""

from typing import Any

from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from tropometer.server.clips.models import Clip, Upload


@receiver(post_delete, sender=Clip)
def forget_files(instance: Clip, **_: Any) -> None:
    """A clip's original and proxy, unless another swing was found in the same file."""
    transaction.on_commit(lambda: _forget(instance))


def _forget(clip: Clip) -> None:
    for field, stored in (("original", clip.original), ("proxy", clip.proxy)):
        if stored and not Clip.objects.filter(**{field: stored.name}).exists():
            stored.storage.delete(stored.name or "")


@receiver(post_delete, sender=Upload)
def forget_upload(instance: Upload, **_: Any) -> None:
    """What has arrived of an upload."""
    path = instance.path  # named after its id, which is gone afterwards
    transaction.on_commit(lambda: path.unlink(missing_ok=True))
