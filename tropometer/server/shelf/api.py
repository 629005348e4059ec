"""Reference swings: the list, adding one, taking one off."""

from typing import Any, Literal
from uuid import UUID

from django.db.models import QuerySet
from django.http import HttpRequest
from ninja import Query, Router, Schema
from ninja.pagination import paginate
from pydantic import Field

from tropometer.server.access import asking, owned
from tropometer.server.bench.schemas import Received, SwingKind, Views
from tropometer.server.bench.services import remove
from tropometer.server.clips.schemas import ClipIn, ClipOut
from tropometer.server.lists import Pages, Search, matching
from tropometer.server.people.schemas import Hand, TeachingModel
from tropometer.server.shelf.models import ReferenceSwing
from tropometer.server.shelf.services import put_on_shelf
from tropometer.server.text import Line
from tropometer.swing.names import ClubClass, SwingLength

router = Router(tags=["shelf"])


class ReferenceIn(Views, SwingKind):
    name: Line = Field(min_length=1, max_length=120)
    about: str = Field("", max_length=400)
    hand: Hand
    teaching_model: TeachingModel | Literal[""] = ""
    clips: list[ClipIn] = Field(min_length=1, max_length=8)


class ReferenceOut(Schema):
    id: UUID
    name: str
    about: str
    teaching_model: str
    swing_id: UUID
    hand: Hand = Field(alias="swing.hand")
    club: str = Field(alias="swing.club")
    club_class: ClubClass | None = Field(alias="swing.club_class")
    swing_length: SwingLength | None = Field(alias="swing.swing_length")
    clips: list[ClipOut] = Field(alias="swing.clips")


@router.get("/shelf", response=list[ReferenceOut])
@paginate(Pages)
def shelf(request: HttpRequest, wanted: Query[Search]) -> QuerySet[ReferenceSwing]:
    return matching(_shelf(request), wanted.q, "name", "about", "swing__club", "swing__reference_hand")


@router.post("/shelf", response={201: Received})
def add_reference(request: HttpRequest, data: ReferenceIn) -> tuple[int, dict[str, Any]]:
    swing, refused = put_on_shelf(
        asking(request),
        name=data.name,
        about=data.about,
        teaching_model=data.teaching_model,
        hand=data.hand,
        kind=data,
        clips=data.clips,
        one_swing=data.one_swing,
    )
    return 201, {"swing_id": swing.pk, "refused": refused}


@router.delete("/shelf/{uuid:id}", response={204: None})
def remove_reference(request: HttpRequest, id: UUID) -> tuple[int, None]:
    remove(owned(_shelf(request), id).swing)
    return 204, None


def _shelf(request: HttpRequest) -> QuerySet[ReferenceSwing]:
    found = ReferenceSwing.objects.filter(instructor=asking(request), swing__removed_at__isnull=True)
    return found.select_related("swing__student").prefetch_related("swing__clips")
