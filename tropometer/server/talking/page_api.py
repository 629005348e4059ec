"""A student's own page: open to whoever holds its link, and to nobody else."""

import binascii
from base64 import b64decode
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Router
from ninja.errors import HttpError

from tropometer.server.bench import requests
from tropometer.server.bench.services import swings_sent
from tropometer.server.clips.schemas import Height
from tropometer.server.clips.services import is_filmed, still
from tropometer.server.drill_checks import services as drill_checks
from tropometer.server.drill_checks.schemas import TryOut
from tropometer.server.judging.trends import goals_of
from tropometer.server.lessons.sending import links_of
from tropometer.server.lessons.versions import plan_sent
from tropometer.server.people import student_page
from tropometer.server.people.look import look_of, portrait_file
from tropometer.server.people.student_page import page_by_token, page_of
from tropometer.server.ranged import private_file
from tropometer.server.talking import codes, practice, services
from tropometer.server.talking.models import Message, Side
from tropometer.server.talking.news import tell_soon
from tropometer.server.talking.schemas import (
    CodeIn,
    CodeWanted,
    MailWishIn,
    MessageIn,
    MessageOut,
    OpenedPage,
    OwnPageOut,
    SeenUntil,
    SendingLink,
    Tick,
    Ticked,
)
from tropometer.server.talking.services import NotSaid
from tropometer.server.talking.then_and_now import then_and_now
from tropometer.server.teaching.showing import shown_in_plan

if TYPE_CHECKING:
    from tropometer.server.people.models import Student

router = Router(tags=["page"])
SHOWN_SWINGS = 60
TOO_OFTEN = "That was asked too often from here. Wait an hour."


@router.post("/pages/code", response={204: None})
def ask_for_code(request: HttpRequest, data: CodeWanted) -> tuple[int, None]:
    """Have a code mailed, if a page belongs to the address; the answer is the same if none does."""
    try:
        codes.ask(request, data.email)
    except codes.TooOften:
        raise HttpError(429, TOO_OFTEN) from None
    return 204, None


@router.post("/pages/enter", response=list[OpenedPage])
def enter(request: HttpRequest, data: CodeIn) -> list[dict[str, str]]:
    """The pages that a code opens."""
    try:
        found = codes.enter(request, data.email, data.code)
    except codes.TooOften:
        raise HttpError(429, TOO_OFTEN) from None
    if not found:
        raise HttpError(422, "code: it is not the one that was mailed, or it has run out. Ask for a new one.")
    return [
        {"token": page.token, "student": page.student.name, "instructor": page.student.instructor.name}
        for page in found
    ]


@router.get("/pages/{token}", response=OwnPageOut)
def page(request: HttpRequest, token: str) -> dict[str, Any]:
    """All of it: lessons, plan, practice, swings, thread."""
    found = page_by_token(token)
    student = found.student
    if request.user != student.instructor:  # who looks at what the student sees
        student_page.opened(found)
    lessons = links_of(student)
    planned = [(lesson, plan) for lesson in lessons if (plan := plan_sent(lesson))]
    current, plan = planned[0] if planned else (None, None)
    focus = plan["focus"] if plan else []
    return {
        "student": student.name,
        "instructor": student.instructor.name,
        "hand": student.hand,
        "look": look_of(student.instructor, f"/api/pages/{token}/portrait.webp"),
        "units": student.units or student.instructor.units,
        "minor": student.minor,
        "mail_wish": found.mail_wish,
        "focus": [_with_shown(each, current.token if current else "") for each in focus],
        "lesson_id": current and current.pk,
        "goals": [
            goal for goal in goals_of(student) if goal["swing_id"] in {lesson.swing_id for lesson in lessons}
        ],
        "then_and_now": then_and_now(student, lessons),
        "checkable": drill_checks.checkable(
            student, [drill["id"] for each in focus for drill in each["drills"]]
        ),
        "tries": drill_checks.tries_of(student),
        "lessons": lessons,
        "swings": [
            {
                "id": swing.pk,
                "club": swing.club,
                "words": swing.words,
                "received_at": swing.received_at,
                "answered_at": swing.answered_at,
                "clips": [clip.pk for clip in swing.clips.all() if clip.state == "ready"],
            }
            for swing in swings_sent(student).filter(is_filmed())[:SHOWN_SWINGS]
        ],
        "practised": practice.practised_by(student),
        "messages": services.thread_of(student),
    }


def _by_student(request: HttpRequest, token: str) -> "Student":
    """The student who does something on their page; their instructor, who only looks, is told so."""
    student = page_by_token(token).student
    if request.user == student.instructor:
        raise HttpError(409, f"This is {student.name}'s page: you see it as they do, but do nothing on it.")
    return student


def _with_shown(focus: dict[str, Any], token: str | None) -> dict[str, Any]:
    """A focus whose drills' pictures are found by the lesson's own link."""
    drills = [
        {**drill, "shown": shown_in_plan(drill, lambda id: f"/api/sheets/{token}/shown/{id}")}
        for drill in focus["drills"]
    ]
    return {**focus, "drills": drills}


@router.put("/pages/{token}/practised/{uuid:id}", response=Ticked)
def tick(request: HttpRequest, token: str, id: UUID, data: Tick) -> dict[str, Any]:
    """A drill is done, or it is said anew how it felt; the sender names it, so it is there once."""
    student = _by_student(request, token)
    kept, cautions = practice.tick(student, id, data)
    if kept.speaks_up and kept.mailed_at is None:
        tell_soon(student, Side.INSTRUCTOR)
    return {"tick": kept, "cautions": cautions}


@router.delete("/pages/{token}/practised/{uuid:id}", response={204: None})
def untick(request: HttpRequest, token: str, id: UUID) -> tuple[int, None]:
    """It was not done after all."""
    practice.untick(_by_student(request, token), id)
    return 204, None


@router.post("/pages/{token}/messages", response={201: MessageOut})
def ask(request: HttpRequest, token: str, data: MessageIn) -> tuple[int, Message]:
    """A question, in words or spoken."""
    student = _by_student(request, token)
    try:
        voice = b64decode(data.voice, validate=True)
    except binascii.Error:
        raise NotSaid("voice: it is not base64.") from None
    said = services.say(student, Side.STUDENT, data.id, data.words, data.lesson_id, voice)
    tell_soon(student, Side.INSTRUCTOR)
    return 201, said


@router.get("/pages/{token}/messages/{uuid:id}/voice.m4a", include_in_schema=False)
def voice(request: HttpRequest, token: str, id: UUID) -> HttpResponseBase:
    found = services.message_of(page_by_token(token).student, id)
    if not found.voice:
        raise Http404("Nothing was spoken here.")
    return private_file(request, found.voice, "audio/mp4")


@router.put("/pages/{token}/seen", response={204: None})
def seen(request: HttpRequest, token: str, data: SeenUntil) -> tuple[int, None]:
    """The student has the thread before them."""
    found = page_by_token(token)
    if request.user != found.student.instructor:
        services.seen_by(found.student, Side.STUDENT, data.until)
    return 204, None


@router.put("/pages/{token}/mail", response={204: None})
def wish(request: HttpRequest, token: str, data: MailWishIn) -> tuple[int, None]:
    """How often news come by mail, or never."""
    student_page.wish(page_of(_by_student(request, token)), data.mail_wish)
    return 204, None


@router.post("/pages/{token}/sending", response=SendingLink)
def sending(request: HttpRequest, token: str) -> dict[str, str]:
    """The way to send the next swing."""
    return {"token": requests.open_for(_by_student(request, token)).token}


@router.get("/pages/{token}/tries", response=list[TryOut])
def tries(request: HttpRequest, token: str) -> list[dict[str, Any]]:
    """The drills that the student filmed, answered as soon as the machine has looked."""
    return drill_checks.tries_of(page_by_token(token).student)


@router.get("/pages/{token}/tries/{uuid:id}.jpg", include_in_schema=False)
def try_picture(request: HttpRequest, token: str, id: UUID, height: Height = None) -> HttpResponse:
    found, frame = drill_checks.picture_of_own(page_by_token(token).student, id)
    return HttpResponse(still(found, frame, height), content_type="image/jpeg")


@router.get("/pages/{token}/portrait.webp", include_in_schema=False)
def portrait(request: HttpRequest, token: str) -> HttpResponseBase:
    return portrait_file(request, page_by_token(token).student.instructor)


@router.get("/pages/{token}/clips/{uuid:id}.mp4", include_in_schema=False)
def clip(request: HttpRequest, token: str, id: UUID) -> HttpResponseBase:
    return private_file(request, services.clip_for(page_by_token(token).student, id).proxy, "video/mp4")


@router.get("/pages/{token}/clips/{uuid:id}.jpg", include_in_schema=False)
def clip_still(request: HttpRequest, token: str, id: UUID, height: Height = None) -> HttpResponse:
    found = services.clip_for(page_by_token(token).student, id)
    return HttpResponse(still(found, 0, height), content_type="image/jpeg")
