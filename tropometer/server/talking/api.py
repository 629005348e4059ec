"""The instructor's side of threads, and the students' pages."""

from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest
from django.http.response import HttpResponseBase
from django.utils import timezone
from ninja import Router

from tropometer.server.access import asking
from tropometer.server.people import student_page
from tropometer.server.people.services import student_of
from tropometer.server.people.student_page import link_to, page_of
from tropometer.server.ranged import private_file
from tropometer.server.talking import practice, services
from tropometer.server.talking.models import Message, Side
from tropometer.server.talking.news import tell_soon
from tropometer.server.talking.schemas import (
    AnswerIn,
    MessageOut,
    PageState,
    SeenUntil,
    Settled,
    ThreadOut,
    Waiting,
)

router = Router(tags=["talking"])


@router.get("/waiting", response=list[Waiting])
def waiting(request: HttpRequest) -> list[dict[str, Any]]:
    """Who has asked, or felt something that must not be felt, and waits longest."""
    return services.waiting(asking(request))


@router.get("/students/{uuid:id}/thread", response=ThreadOut)
def thread(request: HttpRequest, id: UUID) -> dict[str, Any]:
    student = student_of(asking(request), id)
    return {
        "student": student,
        "messages": services.thread_of(student),
        "practised": practice.practised_by(student),
        "page": _state(page_of(student)),
    }


@router.post("/students/{uuid:id}/messages", response={201: MessageOut})
def answer(request: HttpRequest, id: UUID, data: AnswerIn) -> tuple[int, Message]:
    """Say something to a student; all that waited is answered by it."""
    student = student_of(asking(request), id)
    said = services.say(student, Side.INSTRUCTOR, data.id, data.words)
    tell_soon(student, Side.STUDENT)
    return 201, said


@router.get("/students/{uuid:id}/messages/{uuid:message_id}/voice.m4a", include_in_schema=False)
def voice(request: HttpRequest, id: UUID, message_id: UUID) -> HttpResponseBase:
    found = services.message_of(student_of(asking(request), id), message_id)
    if not found.voice:
        raise Http404("Nothing was spoken here.")
    return private_file(request, found.voice, "audio/mp4")


@router.put("/students/{uuid:id}/thread/seen", response={204: None})
def seen(request: HttpRequest, id: UUID, data: SeenUntil) -> tuple[int, None]:
    services.seen_by(student_of(asking(request), id), Side.INSTRUCTOR, data.until)
    return 204, None


@router.post("/students/{uuid:id}/thread/settled", response=Settled)
def settle(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """What waits needs no answer."""
    student = student_of(asking(request), id)
    now = timezone.now()
    services.settle(student, now)
    return {"at": now}


@router.post("/students/{uuid:id}/thread/unsettled", response={204: None})
def unsettle(request: HttpRequest, id: UUID, data: Settled) -> tuple[int, None]:
    """What was settled at that time waits again."""
    services.unsettle(student_of(asking(request), id), data.at)
    return 204, None


@router.post("/students/{uuid:id}/page", response=PageState)
def renew(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """New links to all that is this student's, also after they were closed; the old ones lead nowhere."""
    page = page_of(student_of(asking(request), id))
    services.renew(page)
    return _state(page)


@router.delete("/students/{uuid:id}/page", response=PageState)
def close(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """Close all links to what is this student's."""
    student = student_of(asking(request), id)
    student_page.close(page_of(student))
    return _state(page_of(student))


def _state(page: Any) -> dict[str, Any]:
    return {
        "link": None if page.closed_at else link_to(page),
        "opened_at": page.opened_at,
        "mail_wish": page.mail_wish,
        "mail_trouble": page.mail_trouble,
    }
