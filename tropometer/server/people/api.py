"""Who I am, and my students."""

from typing import Any, Literal
from uuid import UUID

from django.db.models import QuerySet
from django.http import HttpRequest
from django.http.response import HttpResponseBase
from ninja import Field, File, Query, Router
from ninja.errors import HttpError
from ninja.files import UploadedFile
from ninja.pagination import paginate

from tropometer.server.access import asking
from tropometer.server.lists import Pages, Search, matching
from tropometer.server.people import look, notes
from tropometer.server.people.body import body_of, say_body
from tropometer.server.people.merging import merge
from tropometer.server.people.models import Student, StudentNote, User
from tropometer.server.people.schemas import (
    Archive,
    Body,
    Hand,
    HandOut,
    HandTest,
    Me,
    MeChange,
    Merge,
    NoteIn,
    NoteOut,
    StudentIn,
    StudentNew,
    StudentOut,
)
from tropometer.server.people.services import add, archive, change, has_swing, remove, student_of, students_of
from tropometer.swing.error.steadiness import TooFew, steadiness
from tropometer.swing.names import ClubClass

LEAST_SD_PX = 0.2  # nobody sees finer than that

router = Router(tags=["people"])


@router.get("/me", response=Me)
def me(request: HttpRequest) -> User:
    return asking(request)


@router.patch("/me", response=Me)
def change_me(request: HttpRequest, change: MeChange) -> User:
    user = asking(request)
    said = change.dict(exclude_none=True)
    for field, value in said.items():
        setattr(user, field, value)
    user.save(update_fields=list(said))
    return user


@router.post("/me/portrait", response=Me)
def show_portrait(request: HttpRequest, file: File[UploadedFile]) -> User:
    """A picture of oneself for the heading of what students read, in place of the one before."""
    user = asking(request)
    look.put_portrait(user, file)
    return user


@router.delete("/me/portrait", response={204: None})
def drop_portrait(request: HttpRequest) -> tuple[int, None]:
    """Show no picture any more, not on what was sent either."""
    look.drop_portrait(asking(request))
    return 204, None


@router.get("/me/portrait.webp", include_in_schema=False)
def portrait(request: HttpRequest) -> HttpResponseBase:
    return look.portrait_file(request, asking(request))


@router.put("/me/hand", response=HandOut)
def test_hand(request: HttpRequest, test: HandTest) -> Any:
    """Keep how steadily this hand marks, from marks that were placed twice."""
    user = asking(request)
    try:
        found = steadiness([(mark.dx, mark.dy) for mark in test.marks])
    except TooFew as trouble:
        raise HttpError(422, str(trouble)) from None
    user.hand_sd_px = min(max(found.sd, LEAST_SD_PX), 50.0)
    user.save(update_fields=["hand_sd_px"])
    return found


@router.delete("/me/hand", response={204: None})
def forget_hand(request: HttpRequest) -> tuple[int, None]:
    """Take a usual hand for granted again."""
    user = asking(request)
    user.hand_sd_px = None
    user.save(update_fields=["hand_sd_px"])
    return 204, None


class StudentSearch(Search):
    show: Literal["taught", "archived", "waiting", "all"] = "taught"
    hand: Hand | None = None
    club_class: ClubClass | None = Field(None, description="who sent a swing with such a club")
    order: Literal["name", "newest"] = "name"


@router.get("/students", response=list[StudentOut])
@paginate(Pages)
def students(request: HttpRequest, wanted: Query[StudentSearch]) -> QuerySet[Student]:
    """The students that are taught, those of them whose swings wait, those who are not any more, or all."""
    found = students_of(asking(request))
    if wanted.show != "all":
        found = found.filter(archived_at__isnull=wanted.show != "archived")
    if wanted.show == "waiting":
        found = found.filter(has_swing(answered_at__isnull=True, clips__isnull=False, drill=""))
    if wanted.club_class:
        found = found.filter(has_swing(club_class=wanted.club_class, drill=""))
    if wanted.hand:
        found = found.filter(hand=wanted.hand)
    found = matching(found, wanted.q, "name", "email", "history", "hand")
    return found.order_by(*(("name", "id") if wanted.order == "name" else ("-added_at", "id")))


@router.post("/students", response={201: StudentOut})
def add_student(request: HttpRequest, data: StudentNew) -> tuple[int, Student]:
    return 201, add(asking(request), data)


@router.get("/students/{uuid:id}", response=StudentOut)
def student(request: HttpRequest, id: UUID) -> Student:
    return student_of(asking(request), id)


@router.put("/students/{uuid:id}", response=StudentOut)
def change_student(request: HttpRequest, id: UUID, data: StudentIn) -> Student:
    found = student_of(asking(request), id)
    change(found, data.dict())
    return found


@router.put("/students/{uuid:id}/archived", response=StudentOut)
def archive_student(request: HttpRequest, id: UUID, data: Archive) -> Student:
    """Take a student off the list of those who are taught, or bring them back."""
    archive(student_of(asking(request), id), data.archived)
    return student_of(asking(request), id)


@router.post("/students/{uuid:id}/merge", response=StudentOut)
def merge_students(request: HttpRequest, id: UUID, data: Merge) -> Student:
    """Put all that is on another card of the same person on this one; the other is gone afterwards."""
    instructor = asking(request)
    return merge(student_of(instructor, id), student_of(instructor, data.other))


@router.get("/students/{uuid:id}/notes", response=list[NoteOut])
def student_notes(request: HttpRequest, id: UUID) -> QuerySet[StudentNote]:
    """What was noted of a student, the latest day first."""
    return notes.notes_of(student_of(asking(request), id))


@router.put("/students/{uuid:id}/notes/{uuid:note_id}", response=NoteOut)
def note_student(request: HttpRequest, id: UUID, note_id: UUID, data: NoteIn) -> StudentNote:
    """Keep a note, or put it otherwise; the sender names it."""
    return notes.note(student_of(asking(request), id), note_id, data)


@router.delete("/students/{uuid:id}/notes/{uuid:note_id}", response={204: None})
def forget_note(request: HttpRequest, id: UUID, note_id: UUID) -> tuple[int, None]:
    notes.forget(student_of(asking(request), id), note_id)
    return 204, None


@router.delete("/students/{uuid:id}", response={204: None})
def remove_student(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Put a student into the bin, with all that is theirs."""
    remove(student_of(asking(request), id))
    return 204, None


@router.get("/students/{uuid:id}/body", response=Body)
def body(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """What hurts, how far it moves, what usually goes wrong."""
    return body_of(student_of(asking(request), id))


@router.put("/students/{uuid:id}/body", response=Body)
def change_body(request: HttpRequest, id: UUID, data: Body) -> dict[str, Any]:
    """Say anew what hurts, how far it moves, and what usually goes wrong."""
    found = student_of(asking(request), id)
    say_body(found, data)
    return body_of(student_of(asking(request), id))
