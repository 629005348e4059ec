"""Errors in one shape, whoever finds them: problem details for HTTP APIs (RFC 9457)."""

from collections.abc import Iterable
from http import HTTPStatus
from typing import Any

import orjson
from django.http import HttpRequest, HttpResponse

TYPE = "application/problem+json"
# Addresses that answer programs, not people.
SPOKEN_TO_BY_PROGRAMS = ("/api/", "/_allauth/")

SCHEMA: dict[str, Any] = {
    "title": "Problem",
    "type": "object",
    "description": "What went wrong; `detail` is fit to be shown, `fields` names what is wrong in the body.",
    "properties": {
        "title": {"title": "Title", "type": "string"},
        "status": {"title": "Status", "type": "integer"},
        "detail": {"title": "Detail", "type": "string"},
        "fields": {
            "title": "Fields",
            "type": "array",
            "items": {
                "type": "object",
                "properties": {"field": {"type": "string"}, "message": {"type": "string"}},
                "required": ["field", "message"],
            },
        },
    },
    "required": ["title", "status", "detail", "fields"],
}


def problem(status: int, detail: str, fields: Iterable[dict[str, str]] = ()) -> HttpResponse:
    """A problem as an answer."""
    said = {"title": HTTPStatus(status).phrase, "status": status, "detail": detail, "fields": list(fields)}
    return HttpResponse(orjson.dumps(said), status=status, content_type=TYPE)


def unknown(request: HttpRequest, *_: Any, **__: Any) -> HttpResponse:
    """An address of the API that leads nowhere."""
    return problem(404, "There is no such address.")


def forged(request: HttpRequest, reason: str = "") -> HttpResponse:
    """A change without the token that shows it comes from our own page."""
    return problem(403, "This change did not come from the page you opened. Reload it and try again.")


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    """Something that Django itself will not take in."""
    return problem(400, "The server cannot read this request.")


def broken(request: HttpRequest) -> HttpResponse:
    """Our own mistake."""
    return problem(500, "Something broke on the server. Your work is kept; try again in a moment.")
