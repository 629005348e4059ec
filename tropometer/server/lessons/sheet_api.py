"""The student's page: open to whoever holds the link, and to nobody else."""

from typing import Any
from uuid import UUID

from django.core.cache import cache
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.utils import timezone
from ninja import Router
from ninja.errors import HttpError

from tropometer.server.clips.schemas import Height
from tropometer.server.judging.plans import picture_of_plans
from tropometer.server.lessons import paper, sending, services, versions
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.schemas import LessonSheet
from tropometer.server.people.look import portrait_file
from tropometer.server.people.student_page import page_of
from tropometer.server.ranged import private_file
from tropometer.server.teaching.showing import file_of
from tropometer.server.walks.playing import captions_vtt, clip_file, clip_still, film_file, played, voice_file
from tropometer.server.walks.schemas import PlayedWalk

HOUR_S, PAPERS_AN_HOUR = 3600, 40
router = Router(tags=["sheet"])


@router.get("/sheets/{token}", response=LessonSheet)
def sheet(request: HttpRequest, token: str, version: int | None = None) -> dict[str, Any]:
    """What was sent last, or an earlier version of it."""
    lesson = sending.by_token(token)
    page = page_of(lesson.swing.student) if lesson.swing.student else None
    if lesson.first_read_at is None and request.user != lesson.instructor:  # who looks at what they have sent
        lesson.first_read_at = timezone.now()
        lesson.save(update_fields=["first_read_at"])
    found = versions.version_of(lesson, version)
    portrait = f"/api/sheets/{token}/portrait.webp"
    read = versions.read(lesson, found, lambda id: f"/api/sheets/{token}/shown/{id}", portrait)
    return {**read, "page": page.token if page else None, "lesson_id": lesson.pk}


@router.get("/sheets/{token}/{uuid:frame_id}.jpg", include_in_schema=False)
def sheet_still(request: HttpRequest, token: str, frame_id: UUID) -> HttpResponseBase:
    return private_file(request, versions.still_sent(sending.by_token(token), frame_id), "image/jpeg")


@router.get("/sheets/{token}/portrait.webp", include_in_schema=False)
def sheet_portrait(request: HttpRequest, token: str) -> HttpResponseBase:
    return portrait_file(request, sending.by_token(token).instructor)


@router.get("/sheets/{token}/lesson.pdf", include_in_schema=False)
def sheet_pdf(request: HttpRequest, token: str) -> HttpResponse:
    lesson = _seldom(sending.by_token(token))
    return taken_along(paper.pdf(lesson, versions.version_of(lesson)), "application/pdf", "lesson.pdf")


@router.get("/sheets/{token}/lesson.zip", include_in_schema=False)
def sheet_zip(request: HttpRequest, token: str) -> HttpResponse:
    lesson = _seldom(sending.by_token(token))
    return taken_along(paper.bundle(lesson, versions.version_of(lesson)), "application/zip", "lesson.zip")


@router.get("/sheets/{token}/practice.ics", include_in_schema=False)
def sheet_calendar(request: HttpRequest, token: str) -> HttpResponse:
    lesson = sending.by_token(token)
    return taken_along(paper.calendar(lesson, versions.version_of(lesson)), "text/calendar", "practice.ics")


def _seldom(lesson: Lesson) -> Lesson:
    """Laying out takes seconds of a machine: by one link so often an hour and no more."""
    key = f"paper-{lesson.pk}"
    cache.add(key, 0, HOUR_S)
    if cache.incr(key) > PAPERS_AN_HOUR:
        raise HttpError(429, "That was asked for too often; try again in an hour.")
    return lesson


def taken_along(content: bytes, content_type: str, name: str) -> HttpResponse:
    """A file to be saved, kept by no cache."""
    return HttpResponse(
        content,
        content_type=content_type,
        headers={
            "Content-Disposition": f'attachment; filename="{name}"',
            "Cache-Control": "private, no-store",
            "X-Content-Type-Options": "nosniff",
        },
    )


@router.get("/sheets/{token}/walk/played", response=PlayedWalk)
def sheet_walk(request: HttpRequest, token: str) -> dict[str, Any]:
    """The narrated walk of the lesson, but its voice and pictures."""
    return played(services.walk_in(sending.by_token(token)))


@router.get("/sheets/{token}/walk/voice.m4a", include_in_schema=False)
def sheet_voice(request: HttpRequest, token: str) -> HttpResponseBase:
    return voice_file(request, services.walk_in(sending.by_token(token)))


@router.get("/sheets/{token}/walk/clips/{uuid:clip_id}.mp4", include_in_schema=False)
def sheet_clip(request: HttpRequest, token: str, clip_id: UUID) -> HttpResponseBase:
    return clip_file(request, services.walk_in(sending.by_token(token)), clip_id)


@router.get("/sheets/{token}/walk/clips/{uuid:clip_id}/{int:frame}.jpg", include_in_schema=False)
def sheet_clip_frame(
    request: HttpRequest,
    token: str,
    clip_id: UUID,
    frame: int,
    height: Height = None,
) -> HttpResponse:
    return clip_still(services.walk_in(sending.by_token(token)), clip_id, frame, height)


@router.get("/sheets/{token}/walk/film.mp4", include_in_schema=False)
def sheet_film(request: HttpRequest, token: str) -> HttpResponseBase:
    return film_file(request, services.walk_in(sending.by_token(token)))


@router.get("/sheets/{token}/walk/captions.vtt", include_in_schema=False)
def sheet_captions(request: HttpRequest, token: str) -> HttpResponse:
    return captions_vtt(services.walk_in(sending.by_token(token)))


@router.get("/sheets/{token}/shown/{uuid:id}", include_in_schema=False)
def sheet_drill(request: HttpRequest, token: str, id: UUID) -> HttpResponseBase:
    """A picture or clip of the instructor's own that shows one of the lesson's drills."""
    shown = [each.document["plan"] for each in versions.versions_of(sending.by_token(token))]
    return file_of(request, picture_of_plans(shown, id))
