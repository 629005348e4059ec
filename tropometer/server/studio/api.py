"""Studio hours, their tries, and the ladder."""

from typing import Any
from uuid import UUID

from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from ninja.pagination import paginate

from tropometer.server.access import asking, owned
from tropometer.server.clips.uploads import Sender
from tropometer.server.lists import Pages
from tropometer.server.studio import services
from tropometer.server.studio.ladder import ladder_of
from tropometer.server.studio.live import strikes
from tropometer.server.studio.models import StudioHour
from tropometer.server.studio.schemas import (
    FilmedIn,
    HourChange,
    HourIn,
    HourOut,
    LadderOut,
    RungChange,
    RungIn,
)

router = Router(tags=["studio"])


@router.get("/students/{uuid:id}/hours", response=list[HourOut])
@paginate(Pages)
def hours(request: HttpRequest, id: UUID) -> QuerySet[StudioHour]:
    return services.hours_of(asking(request), id)


@router.post("/students/{uuid:id}/hours", response={201: LadderOut})
def begin_hour(request: HttpRequest, id: UUID, data: HourIn) -> tuple[int, dict[str, Any]]:
    """Begin an hour; the student's swings of that day that are of no hour yet are its tries."""
    hour = services.begin(asking(request), id, data.day or timezone.localdate(), data.about)
    return 201, ladder_of(hour)


@router.get("/hours/{uuid:id}", response=LadderOut)
def hour(request: HttpRequest, id: UUID) -> dict[str, Any]:
    return ladder_of(services.hour_of(asking(request), id))


@router.patch("/hours/{uuid:id}", response=LadderOut)
def change_hour(request: HttpRequest, id: UUID, change: HourChange) -> dict[str, Any]:
    found = services.hour_of(asking(request), id)
    services.change(found, change)
    return ladder_of(found)


@router.delete("/hours/{uuid:id}", response={204: None})
def remove_hour(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Forget an hour; its swings stay the student's."""
    services.hour_of(asking(request), id).delete()
    return 204, None


@router.post("/hours/{uuid:id}/tries", response=LadderOut)
def add_try(request: HttpRequest, id: UUID, data: RungIn) -> dict[str, Any]:
    """One of the student's swings as the next try."""
    found = services.hour_of(asking(request), id)
    strikes.put_strike_to(services.add(found, data))
    return ladder_of(found)


@router.post("/hours/{uuid:id}/filmed", response=LadderOut)
def film_try(request: HttpRequest, id: UUID, data: FilmedIn) -> dict[str, Any]:
    """A ball that a camera saw struck, as the next try, or as another view of one; it is read at once."""
    found = services.hour_of(asking(request), id)
    strikes.put_strike_to(services.filmed(found, Sender(asking(request)), data))
    return ladder_of(found)


@router.patch("/hours/{uuid:id}/tries/{uuid:try_id}", response=LadderOut)
def change_try(request: HttpRequest, id: UUID, try_id: UUID, change: RungChange) -> dict[str, Any]:
    found = services.hour_of(asking(request), id)
    said = change.dict(exclude_none=True, exclude={"id"})
    services.say_of(found, owned(services.tries_of(found), try_id), said, change.id)
    return ladder_of(found)


@router.delete("/hours/{uuid:id}/tries/{uuid:try_id}", response=LadderOut)
def take_out_try(request: HttpRequest, id: UUID, try_id: UUID) -> dict[str, Any]:
    """Take a try out of the hour; its swing stays."""
    found = services.hour_of(asking(request), id)
    services.take_out(found, try_id)
    return ladder_of(found)
