"""Studio hours, their tries, and the ladder."""

from datetime import date, datetime
from typing import Annotated, Any
from uuid import UUID

from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema
from ninja.pagination import paginate
from pydantic import Field

from tropometer.server.access import asking, owned
from tropometer.server.lists import Pages
from tropometer.server.studio import services
from tropometer.server.studio.ladder import ladder_of
from tropometer.server.studio.models import MOST_TRIES, StudioHour
from tropometer.server.text import Line
from tropometer.swing.readings.reading import Unit
from tropometer.teaching.trials.against import Verdict
from tropometer.teaching.trials.outcomes import ShotUnit

router = Router(tags=["studio"])

ColumnId = Annotated[str, Field(max_length=66, pattern=r"^[a-z0-9_]+\.[a-z0-9_]+$")]


class HourIn(Schema):
    day: date | None = None  # null: today
    about: Line = Field("", max_length=200)


class HourOut(Schema):
    id: UUID
    day: date
    about: str
    tries: int = Field(alias="count")


class HourChange(Schema):
    """What is left out stays; `order` names all tries, as they are to stand."""

    about: Line | None = Field(None, max_length=200)
    columns: list[ColumnId] | None = Field(None, max_length=12)
    order: list[UUID] | None = Field(None, max_length=MOST_TRIES)


class RungIn(Schema):
    swing_id: UUID
    changed: Line = Field("", max_length=80)
    felt: Line = Field("", max_length=200)


class RungChange(Schema):
    """What is left out stays. `left_out` is why a try does not count; empty: it counts."""

    changed: Line | None = Field(None, max_length=80)
    felt: Line | None = Field(None, max_length=200)
    left_out: Line | None = Field(None, max_length=120)


class ColumnOut(Schema):
    """A reading at a moment, or at "shot" what became of the ball."""

    column: str
    reading: str
    at: str
    unit: Unit | ShotUnit


class ColumnValue(Schema):
    column: str
    value: float
    u95: float


class TriedValue(ColumnValue):
    provisional: bool


class RungOut(Schema):
    id: UUID
    swing_id: UUID
    received_at: datetime
    club: str
    changed: str
    felt: str
    left_out: str
    has_shot: bool
    values: list[TriedValue]


class AgainstOut(Schema):
    """A column of changed tries against the base: shaped as `teaching.trials.against.Against`."""

    column: str
    base: float
    changed: float
    by: float
    low: float
    high: float
    sure: float
    p: float | None
    rarest: float
    verdict: Verdict
    more: int


class StepOut(Schema):
    """What one change did; `drifted` are columns in which the base line moved by itself."""

    changed: str
    went_back: bool
    drifted: list[str]
    columns: list[AgainstOut]


class LadderOut(Schema):
    """An hour with its tries, what is watched of them, and what each change did."""

    id: UUID
    student_id: UUID
    day: date
    about: str
    columns: list[ColumnOut]
    offered: list[ColumnOut]
    tries: list[RungOut]
    steps: list[StepOut]


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
    if change.about is not None:
        found.about = change.about
        found.save(update_fields=["about"])
    if change.columns is not None:
        services.watch(found, change.columns)
    if change.order is not None:
        services.put_in_order(found, change.order)
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
    services.add(found, data.swing_id, data.changed, data.felt)
    return ladder_of(found)


@router.patch("/hours/{uuid:id}/tries/{uuid:try_id}", response=LadderOut)
def change_try(request: HttpRequest, id: UUID, try_id: UUID, change: RungChange) -> dict[str, Any]:
    found = services.hour_of(asking(request), id)
    tried = owned(services.tries_of(found), try_id)
    said = change.dict(exclude_none=True)
    for name, value in said.items():
        setattr(tried, name, value)
    tried.save(update_fields=list(said))
    return ladder_of(found)


@router.delete("/hours/{uuid:id}/tries/{uuid:try_id}", response=LadderOut)
def take_out_try(request: HttpRequest, id: UUID, try_id: UUID) -> dict[str, Any]:
    """Take a try out of the hour; its swing stays."""
    found = services.hour_of(asking(request), id)
    services.take_out(found, try_id)
    return ladder_of(found)
