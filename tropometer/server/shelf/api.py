"""Reference swings: the list, adding one, taking one off."""

from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from tropometer.server.access import asking, owned
from tropometer.server.bench.schemas import Received
from tropometer.server.bench.services import receive_reference, remove
from tropometer.server.clips.schemas import ClipIn, ClipOut
from tropometer.server.people.schemas import Hand
from tropometer.server.shelf.models import ReferenceSwing

router = Router(tags=["shelf"])


class ReferenceIn(Schema):
    name: str = Field(min_length=1, max_length=120)
    about: str = Field("", max_length=400)
    hand: Hand
    club: str = Field("", max_length=60)
    clips: list[ClipIn] = Field(min_length=1, max_length=8)


class ReferenceOut(Schema):
    id: UUID
    name: str
    about: str
    swing_id: UUID
    hand: Hand = Field(alias="swing.hand")
    club: str = Field(alias="swing.club")
    clips: list[ClipOut] = Field(alias="swing.clips")


@router.get("/shelf", response=list[ReferenceOut])
def shelf(request: HttpRequest) -> QuerySet[ReferenceSwing]:
    return _shelf(request)


@router.post("/shelf", response={201: Received})
def add_reference(request: HttpRequest, data: ReferenceIn) -> tuple[int, dict[str, Any]]:
    instructor = asking(request)
    with transaction.atomic():
        swing, refused = receive_reference(instructor, data.hand, data.club, data.clips)
        ReferenceSwing.objects.create(instructor=instructor, swing=swing, name=data.name, about=data.about)
    return 201, {"swing_id": swing.pk, "refused": refused}


@router.delete("/shelf/{uuid:id}", response={204: None})
def remove_reference(request: HttpRequest, id: UUID) -> tuple[int, None]:
    remove(owned(_shelf(request), id).swing)
    return 204, None


def _shelf(request: HttpRequest) -> QuerySet[ReferenceSwing]:
    found = ReferenceSwing.objects.filter(instructor=asking(request))
    return found.select_related("swing__student").prefetch_related("swing__clips")
