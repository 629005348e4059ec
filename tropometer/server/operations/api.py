"""The bin, and how much room is taken."""

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from django.conf import settings
from django.http import FileResponse, HttpRequest
from ninja import Router, Schema

from tropometer.server.access import asking
from tropometer.server.clips.uploads import kept_bytes
from tropometer.server.operations import bin
from tropometer.server.operations.record.packing import file_name, pack
from tropometer.server.people.services import student_of
from tropometer.server.ranged import ANYTHING
from tropometer.server.rooms import room_on_disk, scratch

router = Router(tags=["operations"])


class BinnedOut(Schema):
    kind: Literal["student", "swing", "file"]
    id: UUID
    title: str
    about: str
    removed_at: datetime
    goes_at: datetime


class RoomOut(Schema):
    """What an instructor's clips take up, and what they may."""

    bytes: int
    most_bytes: int


@router.get("/bin", response=list[BinnedOut])
def in_the_bin(request: HttpRequest) -> list[Any]:
    """What was removed and can still be taken back, the latest first."""
    return list(bin.binned(asking(request)))


@router.post("/bin/{kind}/{uuid:id}/take-back", response={204: None})
def take_back(request: HttpRequest, kind: Literal["student", "swing"], id: UUID) -> tuple[int, None]:
    """Out of the bin again, with all that hangs on it."""
    bin.take_back(asking(request), kind, id)
    return 204, None


@router.get("/bin/file/{uuid:id}/content", include_in_schema=False)
def refused_file(request: HttpRequest, id: UUID) -> FileResponse:
    """A refused file as it came, to be saved."""
    found = bin.refused_file(asking(request), id)
    headers = {"Cache-Control": "private, no-store", "X-Content-Type-Options": "nosniff"}
    return FileResponse(
        found.path.open("rb"), as_attachment=True, filename=found.name, content_type=ANYTHING, headers=headers
    )


@router.delete("/bin/{kind}/{uuid:id}", response={204: None})
def erase(request: HttpRequest, kind: Literal["student", "swing", "file"], id: UUID) -> tuple[int, None]:
    """Erase at once and for good."""
    bin.erase_now(asking(request), kind, id)
    return 204, None


@router.get("/students/{uuid:id}/record.zip", include_in_schema=False)
def record(request: HttpRequest, id: UUID) -> FileResponse:
    """All that is kept of a student, as one zip."""
    student = student_of(asking(request), id)
    with scratch() as folder, room_on_disk():
        pack(student, folder / "record.zip")
        packed = (folder / "record.zip").open("rb")  # still to be read when its name is gone
    headers = {"Cache-Control": "private, no-store", "X-Content-Type-Options": "nosniff"}
    return FileResponse(packed, as_attachment=True, filename=file_name(student), headers=headers)


@router.get("/room", response=RoomOut)
def room(request: HttpRequest) -> dict[str, int]:
    """How much is kept, and how much may be."""
    return {"bytes": kept_bytes(asking(request)), "most_bytes": settings.INSTRUCTOR_BYTES}
