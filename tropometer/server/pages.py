"""Hands out the HTML pages: one that holds all of the instructor's screens, and a small one for students."""

from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe


@require_safe
@never_cache
@ensure_csrf_cookie
def screens(request: HttpRequest) -> HttpResponse:
    """The instructor's page; what it shows is decided by its address in the browser."""
    return _built("index.html")


@require_safe
@never_cache
@ensure_csrf_cookie
def behind_link(request: HttpRequest, token: str = "") -> HttpResponse:
    """The page behind a student's link: a lesson, their own page, or the form by which a swing is sent."""
    return _built("student.html")


@require_safe
@never_cache
def student_worker(request: HttpRequest) -> HttpResponse:
    """The script that keeps a student's pages readable without a connection."""
    answer = _built("worker/student-worker.js")
    answer["Content-Type"] = "text/javascript; charset=utf-8"
    return answer


def _built(name: str) -> HttpResponse:
    page = Path(settings.WEB_BUILD) / name
    if not page.exists():
        return HttpResponse("The screens are not built yet: run ./tropo build.", status=503)
    return HttpResponse(page.read_bytes())
