"""Who I am, and my students."""

from typing import Any
from uuid import UUID

from django.db.models import QuerySet
from django.http import HttpRequest
from django.http.response import HttpResponseBase
from ninja import File, Query, Router
from ninja.errors import HttpError
from ninja.files import UploadedFile
from ninja.pagination import paginate

from tropometer.server.access import asking
from tropometer.server.lists import Pages, Search, matching
from tropometer.server.people import look
from tropometer.server.people.body import body_of, say_body
from tropometer.server.people.models import Student, User
from tropometer.server.people.schemas import (
    Body,
    HandOut,
    HandTest,
    Me,
    MeChange,
    StudentIn,
    StudentNew,
    StudentOut,
)
from tropometer.server.people.services import add, change, remove, student_of, students_of
from tropometer.swing.error.steadiness import TooFew, steadiness

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


@router.get("/students", response=list[StudentOut])
@paginate(Pages)
def students(request: HttpRequest, wanted: Query[Search]) -> QuerySet[Student]:
    return matching(students_of(asking(request)), wanted.q, "name", "email", "history", "hand")


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
