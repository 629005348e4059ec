"""A phone as a camera of an hour: who holds the code of its line films for it, and sees nothing of it."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.http import Http404, HttpRequest
from ninja import Router, Schema

from tropometer.server.clips.uploads import Sender
from tropometer.server.studio import services
from tropometer.server.studio.live import strikes
from tropometer.server.studio.models import StudioHour
from tropometer.server.studio.schemas import FilmedIn
from tropometer.swing.names import View

open_router = Router(tags=["studio"])


class FilmFor(Schema):
    """Whose hour a phone films for; `views` are the sides from which its latest try was seen."""

    instructor: str
    views: list[View]


class Filmed(Schema):
    tries: int


def film_link(hour: StudioHour) -> str:
    """The address behind the code."""
    return f"{settings.SITE_URL}/f/{hour.line_token}"


def phone_films(request: HttpRequest, token: str) -> Sender:
    """A phone that films for an hour; Http404 once its line is closed."""
    student = _hour(token).student
    return Sender(student.instructor, student=student)


@open_router.get("/film/{token}", response=FilmFor)
def film_for(request: HttpRequest, token: str) -> dict[str, Any]:
    """Whose hour it is; nothing of its student."""
    hour = _hour(token)
    latest = services.tries_of(hour).last()
    views = [clip.view for clip in latest.swing.clips.all()] if latest else []
    return {"instructor": hour.student.instructor.name, "views": views}


@open_router.post("/film/{token}", response=Filmed)
def film(request: HttpRequest, token: str, data: FilmedIn) -> dict[str, Any]:
    """A ball that the phone saw struck: another view of the try that it is of, or the next try."""
    hour = _hour(token)
    strikes.put_strike_to(services.filmed(hour, phone_films(request, token), data))
    return {"tries": services.tries_of(hour).count()}


def _hour(token: str) -> StudioHour:
    hour = strikes.hour_of_line(token)
    if hour is None:
        raise Http404("This code is closed, or has run out. Ask for a new one.")
    return hour
