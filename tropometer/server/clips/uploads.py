"""Files on their way in: who may send them, and what becomes of them."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from datetime import timedelta
from pathlib import Path
from uuid import UUID

from django.conf import settings
from django.db.models import QuerySet
from django.utils import timezone

from tropometer.server.clips.models import Upload
from tropometer.server.people.models import User


@dataclass(frozen=True)
class Sender:
    """An instructor, or a student by an instructor's request link."""

    instructor: User
    request_id: UUID | None = None


def begin(sender: Sender, name: str, size: int) -> Upload:
    """Make room for a file that is about to come."""
    Path(settings.UPLOAD_ROOT).mkdir(parents=True, exist_ok=True)
    upload = Upload.objects.create(
        instructor=sender.instructor, asked_by_id=sender.request_id, name=name[:200] or "clip", size=size
    )
    upload.path.touch(mode=0o600)
    return upload


def of(sender: Sender) -> QuerySet[Upload]:
    """What this sender has under way, and nobody else's."""
    return Upload.objects.filter(instructor=sender.instructor, asked_by_id=sender.request_id)


def forget_old() -> int:
    """Delete uploads that nobody has finished in time; returns how many."""
    before = timezone.now() - timedelta(hours=settings.UPLOAD_KEPT_HOURS)
    old = list(Upload.objects.filter(begun_at__lt=before))
    for upload in old:
        upload.forget()
    return len(old)


def sha256_of(path: Path) -> str:
    """Hash of a file's content, hexadecimal."""
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()
