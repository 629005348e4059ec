"""A look of an instructor's own for what students read: a practice's name, a picture, a colour."""

from __future__ import annotations

from pathlib import PurePosixPath
from typing import TYPE_CHECKING, Any

from django.core.files import File
from django.db import transaction

from tropometer.server.people.models import User
from tropometer.server.ranged import private_file
from tropometer.server.rooms import RefusedClip, drawn_anew, room_on_disk

if TYPE_CHECKING:
    from django.core.files.uploadedfile import UploadedFile
    from django.http import HttpRequest
    from django.http.response import HttpResponseBase

MOST_BYTES = 15 * 1024 * 1024
OWN_PORTRAIT = "/api/me/portrait.webp"  # for whom it shows


def look_of(instructor: User, portrait: str) -> dict[str, Any]:
    """Shaped as `LookOut`; `portrait` is where its reader finds the picture, if there is one.

    It is the look of today, on whatever was sent before too: who takes their picture away takes it away
    everywhere.
    """
    return {
        "practice": instructor.practice,
        "heading": instructor.heading,
        "portrait": f"{portrait}?{PurePosixPath(name).name}" if (name := instructor.portrait.name) else None,
    }


def portrait_file(request: HttpRequest, instructor: User) -> HttpResponseBase:
    """The picture, for whom may see it; Http404 where there is none."""
    return private_file(request, instructor.portrait, "image/webp", version=instructor.portrait.name or "")


def put_portrait(instructor: User, file: UploadedFile[bytes]) -> None:
    """Show a picture in place of the one before.

    RefusedClip when the file is none, RoomFailed when the machine could not look or keep it.
    """
    with drawn_anew(file, MOST_BYTES) as (kind, made):
        if kind != "picture":
            raise RefusedClip(f"{file.name}: a film; a picture is wanted here.")
        with room_on_disk(), made.open("rb") as content, transaction.atomic():
            _leave_portrait(instructor)
            instructor.portrait.save("portrait", File(content), save=False)
            instructor.save(update_fields=["portrait"])


@transaction.atomic
def drop_portrait(instructor: User) -> None:
    """Show none any more, anywhere."""
    _leave_portrait(instructor)
    instructor.save(update_fields=["portrait"])


def _leave_portrait(instructor: User) -> None:
    instructor.refresh_from_db(fields=["portrait"], from_queryset=User.objects.select_for_update())
    before, storage = instructor.portrait.name, instructor.portrait.storage
    instructor.portrait = ""
    if before:
        transaction.on_commit(lambda: storage.delete(before))
