"""A walk's files go with its rows, however those were deleted."""

from typing import Any

from django.db import transaction
from django.db.models.fields.files import FieldFile
from django.db.models.signals import post_delete
from django.dispatch import receiver

from tropometer.server.walks.models import KeptClip, Take, Walk


@receiver(post_delete, sender=Walk)
@receiver(post_delete, sender=Take)
def forget_voice(instance: Walk | Take, **_: Any) -> None:
    """What was said, and the film of it."""
    _forget(instance.voice)
    if isinstance(instance, Walk):
        _forget(instance.film)


@receiver(post_delete, sender=KeptClip)
def forget_clip(instance: KeptClip, **_: Any) -> None:
    """The clip as the walk shows it, and the film in which it is seen."""
    _forget(instance.file)
    for walk in Walk.objects.filter(pk=instance.walk_id).exclude(film=""):
        _forget(walk.film)
        Walk.objects.filter(pk=walk.pk).update(film="", film_made=None)


def _forget(stored: FieldFile) -> None:
    if stored:
        transaction.on_commit(lambda: stored.storage.delete(stored.name or ""))
