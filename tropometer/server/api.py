"""The typed API: one router an app, every address behind sign-in unless it says otherwise."""

from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import ValidationError
from ninja.renderers import BaseRenderer
from ninja.security import django_auth

from tropometer.server.bench.api import router as bench
from tropometer.server.bench.problems import BadEdit
from tropometer.server.bench.readings_api import router as readings
from tropometer.server.bench.request_api import open_router as sending
from tropometer.server.bench.request_api import router as requests
from tropometer.server.clips.api import router as clips
from tropometer.server.clips.rooms import RefusedClip
from tropometer.server.lessons.api import router as lessons
from tropometer.server.lessons.services import NotNow
from tropometer.server.lessons.sheet_api import router as sheets
from tropometer.server.people.api import router as people
from tropometer.server.shelf.api import router as shelf
from tropometer.swing.record import RecordError


class Renderer(BaseRenderer):
    """Answers may carry thousands of marks."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        return orjson.dumps(data, default=str)


api = NinjaAPI(
    title="Tropometer",
    version="1",
    auth=django_auth,
    docs_url=None,
    openapi_url=None,
    renderer=Renderer(),
)
for router in (people, clips, bench, readings, requests, shelf, lessons):
    api.add_router("", router)
api.add_router("", sheets, auth=None)
api.add_router("", sending, auth=None)


@api.exception_handler(ValidationError)
def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
    """Say which field is wrong, in one line each."""
    fields = [
        {"field": ".".join(_place(item["loc"])) or "request", "message": item["msg"]} for item in error.errors
    ]
    line = "; ".join(f"{field['field']}: {field['message']}" for field in fields)
    return api.create_response(request, {"detail": line, "fields": fields}, status=422)


@api.exception_handler(RefusedClip)
@api.exception_handler(BadEdit)
@api.exception_handler(RecordError)
def refused(request: HttpRequest, error: ValueError) -> HttpResponse:
    """A file or an edit that cannot be taken."""
    return api.create_response(request, {"detail": str(error), "fields": []}, status=422)


@api.exception_handler(NotNow)
def not_now(request: HttpRequest, error: NotNow) -> HttpResponse:
    """Something that the thing's present state forbids."""
    return api.create_response(request, {"detail": str(error), "fields": []}, status=409)


def _place(location: tuple[str | int, ...]) -> list[str]:
    """A field's path as the sender knows it: without the kind of input and our argument's name."""
    parts = [str(part) for part in location[1:]]
    return parts[1:] if parts and parts[0] in ("data", "change") else parts
