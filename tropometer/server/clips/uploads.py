"""Files on their way in: who may send them, how much of them, and what becomes of them."""

from __future__ import annotations

import fcntl
import hashlib
import os
import shutil
from dataclasses import dataclass
from datetime import timedelta
from pathlib import Path
from typing import TYPE_CHECKING
from uuid import UUID

from django.conf import settings
from django.db.models import Max, Sum
from django.utils import timezone

from tropometer.server.clips.models import Clip, Upload, UploadQuerySet
from tropometer.server.storage import sync_file

if TYPE_CHECKING:
    from tropometer.server.people.models import Student, User

GB = 1024**3


class NotTaken(Exception):
    """A file that is not let in now; the text is for the sender."""

    def __init__(self, status: int, text: str) -> None:
        self.status = status
        super().__init__(text)


@dataclass(frozen=True)
class Sender:
    """An instructor, a student by an instructor's request link, or a phone that films one student."""

    instructor: User
    request_id: UUID | None = None
    student: Student | None = None


def begin(sender: Sender, name: str, size: int, student: Student | None = None) -> Upload:
    """Make room for a file that is about to come; NotTaken says why there is none, before its first byte."""
    shown = student or sender.student
    if shown is not None and not shown.may_be_filmed:
        raise NotTaken(403, f"{shown.name} is under age: a guardian's consent is to be noted first.")
    _check_quotas(sender, name, size)
    _check_room(name, size)
    upload = Upload.objects.create(
        instructor=sender.instructor,
        asked_by_id=sender.request_id,
        student=shown,
        name=name[:200] or "clip",
        size=size,
    )
    upload.path.touch(mode=0o600)
    return upload


def _check_quotas(sender: Sender, name: str, size: int) -> None:
    if sender.request_id is not None:
        waiting = of(sender)
        if waiting.count() >= settings.LINK_UPLOADS:
            raise NotTaken(429, f"{name}: {settings.LINK_UPLOADS} files wait here already; send those first.")
        begun = waiting.aggregate(bytes=Sum("size"))["bytes"] or 0
        if begun + size > settings.LINK_BYTES:
            raise NotTaken(413, f"{name}: with it more than {settings.LINK_BYTES // GB} GB would wait here.")
    if kept_bytes(sender.instructor) + size > settings.INSTRUCTOR_BYTES:
        whose = "Your instructor's" if sender.request_id is not None else "Your"
        raise NotTaken(
            507,
            f"{name}: {whose} {settings.INSTRUCTOR_BYTES // GB} GB are full. Erased clips make room.",
        )


def kept_bytes(instructor: User) -> int:
    """What an instructor's originals and uploads take up; a file that several swings share counts once."""
    files = Clip.objects.filter(instructor=instructor).exclude(original="").order_by().values("original")
    kept = files.annotate(bytes=Max("original_bytes")).aggregate(all=Sum("bytes"))["all"] or 0
    coming = Upload.objects.filter(instructor=instructor).aggregate(all=Sum("size"))["all"] or 0
    return int(kept + coming)


def _check_room(name: str, size: int) -> None:
    folder = Path(settings.UPLOAD_ROOT)
    folder.mkdir(parents=True, exist_ok=True)
    if shutil.disk_usage(folder).free - size < settings.LEAST_FREE_BYTES:
        raise NotTaken(
            507, f"{name}: there is no room left on the server's disk. Nothing is lost; try later."
        )


def append(upload: Upload, offset: int, piece: bytes) -> bool:
    """Add a piece at `offset`; False when another sender of the same file has gone on from there.

    Nothing is held between pieces, so a sender that has vanished is in nobody's way.
    """
    with upload.path.open("r+b") as file:
        fcntl.flock(file, fcntl.LOCK_EX)
        if file.seek(0, os.SEEK_END) != offset:
            return False
        try:
            file.write(piece)
            file.flush()
        except OSError as trouble:
            os.ftruncate(file.fileno(), offset)
            raise NotTaken(507, f"{upload.name}: the server's disk is full.") from trouble
    return True


def keep(upload: Upload) -> None:
    """Have the disk write down what has arrived; only then is it acknowledged."""
    sync_file(upload.path)


def of(sender: Sender) -> UploadQuerySet:
    """What this sender has under way, and nobody else's."""
    mine = Upload.objects.under_way()
    found = mine.filter(instructor=sender.instructor, asked_by_id=sender.request_id)
    by_phone = sender.request_id is None and sender.student is not None
    return found.filter(student=sender.student) if by_phone else found


def quarantined(instructor: User) -> UploadQuerySet:
    """Files that were refused and wait before they are forgotten."""
    return quarantined_by_all().filter(instructor=instructor)


def quarantined_by_all() -> UploadQuerySet:
    """All files in quarantine, whoever sent them."""
    return Upload.objects.filter(refused_at__isnull=False)


def kept_names() -> set[str]:
    """The names of the files that uploads are kept in."""
    return {f"{id}.part" for id in Upload.objects.values_list("pk", flat=True)}


def forget_old() -> int:
    """Delete uploads that nobody has finished in time, and refused ones that waited; returns how many."""
    now = timezone.now()
    unfinished = Upload.objects.under_way().filter(
        begun_at__lt=now - timedelta(hours=settings.UPLOAD_KEPT_HOURS)
    )
    refused = Upload.objects.filter(refused_at__lt=now - timedelta(days=settings.QUARANTINE_DAYS))
    old = [*unfinished, *refused]
    for upload in old:
        upload.delete()
    return len(old)


def sha256_of(path: Path) -> str:
    """Hash of a file's content, hexadecimal."""
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()
