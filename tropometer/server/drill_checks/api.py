"""The instructor's side of filmed drills."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from tropometer.server.access import asking
from tropometer.server.clips.schemas import Height
from tropometer.server.clips.services import still
from tropometer.server.drill_checks import services
from tropometer.server.drill_checks.schemas import TriesOut, TrySaid
from tropometer.server.people.services import student_of

router = Router(tags=["drill checks"])


@router.get("/students/{uuid:id}/tries", response=TriesOut)
def tries(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """The drills that a student filmed, and what a machine said of them."""
    instructor = asking(request)
    found = services.tries_of(student_of(instructor, id))
    return {"tries": found, **services.rightness(instructor)}


@router.put("/swings/{uuid:id}/try", response={204: None})
def say(request: HttpRequest, id: UUID, data: TrySaid) -> tuple[int, None]:
    """Say of a filmed drill, having looked, whether it was done so."""
    services.say(asking(request), id, data.said or "")
    return 204, None


@router.get("/swings/{uuid:id}/try.jpg", include_in_schema=False)
def picture(request: HttpRequest, id: UUID, height: Height = None) -> HttpResponse:
    clip, frame = services.picture_for(asking(request), id)
    return HttpResponse(still(clip, frame, height), content_type="image/jpeg")
