"""What was erased for good, by kind and id alone.

It is kept beside the media, not in the database, so that a database restored from an older backup can be told
what must not come back with it.
"""

from collections.abc import Iterator
from uuid import UUID

from django.core.files.base import ContentFile
from django.core.files.storage import default_storage

FOLDER = "erased"


def note(kind: str, id: UUID) -> None:
    """Write down that a thing is being erased, before it is."""
    name = f"{FOLDER}/{kind}.{id}"
    if not default_storage.exists(name):
        default_storage.save(name, ContentFile(b"."))


def noted() -> Iterator[tuple[str, UUID]]:
    """All that was ever erased."""
    try:
        _, names = default_storage.listdir(FOLDER)
    except FileNotFoundError:
        return
    for name in names:
        kind, _, id = name.partition(".")
        yield kind, UUID(id)
