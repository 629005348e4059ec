"""Request links: the instructor makes and closes them; whoever holds one sends swings by it."""

from datetime import datetime
from typing import Any
from uuid import UUID

from django.conf import settings
from django.db.models import QuerySet
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from tropometer.server.access import asking, owned
from tropometer.server.bench import requests, services
from tropometer.server.bench.models import SwingRequest
from tropometer.server.bench.schemas import SwingSent
from tropometer.server.people.schemas import Hand
from tropometer.server.people.services import student_of

router = Router(tags=["requests"])
open_router = Router(tags=["requests"])


class RequestIn(Schema):
    student_id: UUID
    note: str = Field("", max_length=1000)


class RequestOut(Schema):
    id: UUID
    student_id: UUID
    note: str
    made_at: datetime
    expires_at: datetime
    link: str

    @staticmethod
    def resolve_link(request: SwingRequest) -> str:
        return requests.link_to(request)


class Asked(Schema):
    """What a student sees of a request: nothing but what concerns them."""

    student: str = Field(alias="student.name")
    instructor: str = Field(alias="instructor.name")
    hand: Hand = Field(alias="student.hand")
    note: str
    most_bytes: int
    may_be_filmed: bool = Field(alias="student.may_be_filmed")

    @staticmethod
    def resolve_most_bytes(request: SwingRequest) -> int:
        return int(settings.MAX_CLIP_BYTES)


class Sent(Schema):
    """What came of it, without a way into the practice."""

    refused: list[str]


@router.get("/requests", response=list[RequestOut])
def swing_requests(request: HttpRequest) -> QuerySet[SwingRequest]:
    """The open links."""
    return requests.requests_of(asking(request))


@router.post("/requests", response={201: RequestOut})
def make_request(request: HttpRequest, data: RequestIn) -> tuple[int, SwingRequest]:
    """A new link for a student; it replaces an older one."""
    instructor = asking(request)
    return 201, requests.make(instructor, student_of(instructor, data.student_id), data.note)


@router.delete("/requests/{uuid:id}", response={204: None})
def close_request(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Take a link back."""
    requests.close(owned(requests.requests_of(asking(request)), id))
    return 204, None


@open_router.get("/sent/{token}", response=Asked)
def asked(request: HttpRequest, token: str) -> SwingRequest:
    """What the link asks for."""
    return requests.by_token(token)


@open_router.post("/sent/{token}", response={201: Sent})
def send(request: HttpRequest, token: str, data: SwingSent) -> tuple[int, dict[str, Any]]:
    """Send a swing by the link, from finished uploads."""
    found = requests.by_token(token)
    _, refused = services.receive(requests.sender(found), found.student, data, drill=data.drill)
    return 201, {"refused": refused}
