"""The typed API: one router an app, every address behind sign-in unless it says otherwise."""

from typing import Any

import orjson
from django.http import Http404, HttpRequest, HttpResponse
from django.http.request import RawPostDataException
from ninja import NinjaAPI
from ninja.errors import HttpError, ValidationError
from ninja.renderers import BaseRenderer
from ninja.security import django_auth

from tropometer.server.bench.api import router as bench
from tropometer.server.bench.problems import BadEdit
from tropometer.server.bench.readings_api import router as readings
from tropometer.server.bench.request_api import open_router as sending
from tropometer.server.bench.request_api import router as requests
from tropometer.server.clips.api import router as clips
from tropometer.server.demo.api import router as models
from tropometer.server.drill_checks.api import router as drill_checks
from tropometer.server.judging.api import router as judging
from tropometer.server.judging.time_api import router as over_time
from tropometer.server.lessons.api import router as lessons
from tropometer.server.lessons.sheet_api import router as sheets
from tropometer.server.lessons.states import NotNow
from tropometer.server.lessons.walk_api import router as walks
from tropometer.server.operations.api import router as operations
from tropometer.server.people.api import router as people
from tropometer.server.people.merging import CannotMerge
from tropometer.server.problems import SCHEMA, TYPE, problem
from tropometer.server.rooms import RefusedClip, RoomFailed
from tropometer.server.shelf.api import router as shelf
from tropometer.server.shelf.laboratory_api import router as laboratory
from tropometer.server.studio.api import router as studio
from tropometer.server.studio.film_api import open_router as filming
from tropometer.server.studio.launch_api import router as launch
from tropometer.server.studio.live_api import router as live
from tropometer.server.studio.services import BadTry
from tropometer.server.talking.api import router as talking
from tropometer.server.talking.page_api import router as pages
from tropometer.server.talking.practice import BadTick
from tropometer.server.talking.services import NotSaid
from tropometer.server.teaching.api import router as teaching
from tropometer.server.walks.services import BadWalk, NoWalkNow
from tropometer.swing.formats.record_error import RecordError
from tropometer.teaching.knowledge.book_error import BookError


class Renderer(BaseRenderer):
    """Answers may carry thousands of marks."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        return orjson.dumps(data, default=str)


class TypedApi(NinjaAPI):
    """Says in its schema that every address may answer with a problem."""

    def get_openapi_schema(self, *args: Any, **kwargs: Any) -> Any:
        schema = super().get_openapi_schema(*args, **kwargs)
        schema["components"]["schemas"]["Problem"] = SCHEMA
        answer = {
            "description": "A problem (RFC 9457)",
            "content": {TYPE: {"schema": {"$ref": "#/components/schemas/Problem"}}},
        }
        for methods in schema["paths"].values():
            for operation in methods.values():
                operation["responses"]["default"] = answer
        return schema


api = TypedApi(
    title="Tropometer",
    version="1",
    auth=django_auth,
    docs_url=None,
    openapi_url=None,
    renderer=Renderer(),
)
for router in (
    teaching,
    people,
    clips,
    bench,
    readings,
    requests,
    shelf,
    laboratory,
    models,
    judging,
    over_time,
    lessons,
    studio,
    launch,
    live,
    walks,
    drill_checks,
    talking,
    operations,
):
    api.add_router("", router)
api.add_router("", sheets, auth=None)
api.add_router("", sending, auth=None)
api.add_router("", filming, auth=None)
api.add_router("", pages, auth=None)


@api.exception_handler(ValidationError)
def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
    """Say which field is wrong, in one line each."""
    body = _body(request)
    fields = [
        {
            "field": _field(item["loc"], body) or "request",
            "message": item["msg"].removeprefix("Value error, "),
        }
        for item in error.errors
    ]
    line = "; ".join(f"{field['field']}: {field['message']}" for field in fields)
    return problem(422, line, fields)


@api.exception_handler(RefusedClip)
@api.exception_handler(BadEdit)
@api.exception_handler(CannotMerge)
@api.exception_handler(BadTick)
@api.exception_handler(BadTry)
@api.exception_handler(NotSaid)
@api.exception_handler(BadWalk)
@api.exception_handler(RecordError)
@api.exception_handler(BookError)
def refused(request: HttpRequest, error: ValueError) -> HttpResponse:
    """A file or an edit that cannot be taken."""
    return problem(422, str(error))


@api.exception_handler(NotNow)
@api.exception_handler(NoWalkNow)
def not_now(request: HttpRequest, error: Exception) -> HttpResponse:
    """Something that the thing's present state forbids."""
    return problem(409, str(error))


@api.exception_handler(RoomFailed)
def failed(request: HttpRequest, error: RoomFailed) -> HttpResponse:
    """The machine could not look at a file; its sender still has it, or it is kept."""
    return problem(
        503, f"The server could not look at the file just now ({error}). Nothing is lost; try again."
    )


@api.exception_handler(Http404)
def missing(request: HttpRequest, error: Http404) -> HttpResponse:
    """A missing thing and a stranger's look the same."""
    return problem(404, str(error) or "There is no such thing here.")


@api.exception_handler(HttpError)
def refused_by_kind(request: HttpRequest, error: HttpError) -> HttpResponse:
    """What the API's own machinery refuses: no session, no JSON, a wrong method."""
    words = {401: "Sign in first."}
    return problem(error.status_code, words.get(error.status_code, str(error)))


def _body(request: HttpRequest) -> Any:
    try:
        return orjson.loads(request.body or b"null")
    except (orjson.JSONDecodeError, RawPostDataException):  # a file, which was read already
        return None


def _field(location: tuple[str | int, ...], body: Any) -> str:
    """A field's path as the sender knows it: without kind of input, our argument's name and union tags."""
    kind, *parts = location
    if kind != "body":
        return ".".join(map(str, parts))
    found: list[str] = []
    here = body
    for number, part in enumerate(parts[1:], start=2):
        inside = isinstance(here, list) and isinstance(part, int) and part < len(here)
        named = isinstance(here, dict) and part in here
        if inside or named:
            found.append(str(part))
            here = here[part]
        elif number == len(parts):  # the one that is missing
            found.append(str(part))
    return ".".join(found)
