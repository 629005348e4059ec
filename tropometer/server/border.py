"""The border: what no part of the product can use is refused once, with the name of its field.

Control characters, halves of characters, numbers beyond what is exact, and bodies nested without end come no
farther than here, and private answers are not kept by browsers on the way out.
"""

import re
from collections.abc import Callable, Iterator
from typing import Any
from urllib.parse import unquote

import orjson
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest
from django.http.request import UnreadablePostError
from django.http.response import HttpResponseBase

from tropometer.server.problems import SPOKEN_TO_BY_PROGRAMS, problem
from tropometer.server.text import trouble_in

MOST_DEEP = 32
SAY_MORE = {"Allow", "Content-Range", "Retry-After"}  # headers that belong to a refusal (RFC 9110)
EXACT = 2**53  # beyond it a JSON number is not what was written (RFC 8259, 6)
# What comes there is not JSON: pieces of files, and forms with a file.
_FILES = re.compile(r"/api/((sent|film)/[^/]+/)?uploads(/|$)")
_FORMS = re.compile(r"/api/(book/drills/[^/]+/shown|me/portrait|shelf/laboratory(/look)?)$")
MOST_FORM_BYTES = 20 * 1024 * 1024
_FORGETS = re.compile(r"/api/bin/|/api/me/portrait$|/_allauth/browser/v1/auth/session$")

Answer = Callable[[HttpRequest], HttpResponseBase]


class Border:
    """Stands before every address that programs speak to."""

    def __init__(self, answer: Answer) -> None:
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        if not request.path.startswith(SPOKEN_TO_BY_PROGRAMS):
            return self.answer(request)
        answer = _refused(request) or self.answer(request)
        if answer.status_code >= 400 and answer.get("Content-Type", "").startswith("text/html"):
            html, answer = answer, problem(answer.status_code, f"{request.method} is not possible here.")
            for name in html.headers.keys() & SAY_MORE:
                answer[name] = html[name]
        if request.method == "DELETE" and _FORGETS.match(request.path):
            answer["Clear-Site-Data"] = '"cache"'  # what is gone here is not kept there
        if not answer.has_header("Cache-Control"):
            answer["Cache-Control"] = "no-store"
        return answer


def _refused(request: HttpRequest) -> HttpResponseBase | None:
    for name, said in (("address", request.path), ("query", unquote(request.META.get("QUERY_STRING", "")))):
        trouble = trouble_in(said) or ("a line break is in it" if "\n" in said or "\r" in said else None)
        if trouble:
            return problem(400, f"{name}: {trouble}.")
    if _FORMS.match(request.path):
        length = request.META.get("CONTENT_LENGTH") or ""
        too_long = length.isdigit() and int(length) > MOST_FORM_BYTES  # seen before it is written anywhere
        return problem(413, "The file is too large.") if too_long else None
    if _FILES.match(request.path) or request.method in ("GET", "HEAD", "OPTIONS"):
        return None
    try:
        body = request.body
    except RequestDataTooBig:
        return problem(413, "The request is too large.")
    except UnreadablePostError:
        return problem(400, "The request broke off.")
    if not body:
        return None
    try:
        read = orjson.loads(body)
    except orjson.JSONDecodeError as error:
        return problem(400, f"The body is not JSON: {error.msg}, at character {error.pos}.")
    found = unusable_in(read)
    if found is None:
        return None
    field, trouble = found
    return problem(422, f"{field}: {trouble}", [{"field": field, "message": trouble}])


def unusable_in(read: Any) -> tuple[str, str] | None:
    """The first field of what came as JSON that nobody can use, and why; None where there is none."""
    return next(_unusable(read, ()), None)


def _unusable(value: Any, path: tuple[str, ...]) -> Iterator[tuple[str, str]]:
    """Each place where a body holds what nobody can use, and why."""
    if len(path) > MOST_DEEP:
        yield ".".join(path[:4]) + " …", "it is nested too deeply"
    elif isinstance(value, str):
        trouble = trouble_in(value)
        if trouble:
            yield ".".join(path) or "body", trouble
    elif isinstance(value, int | float) and abs(value) > EXACT:
        yield ".".join(path) or "body", "the number is too large"
    elif isinstance(value, dict):
        for name, each in value.items():
            trouble = trouble_in(name)
            if trouble:
                yield ".".join(path) or "body", f"in the name of a field {trouble}"
            yield from _unusable(each, (*path, name))
    elif isinstance(value, list):
        for number, each in enumerate(value):
            yield from _unusable(each, (*path, str(number)))
