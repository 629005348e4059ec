"""Hands out the HTML pages: one that holds all of the instructor's screens, and a small one for students."""

from __future__ import annotations

import json
from collections.abc import Iterable
from functools import lru_cache
from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.templatetags.static import static
from django.utils.html import format_html, format_html_join
from django.utils.safestring import SafeString
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

EMPTY_ROOT = '<div id="root"></div>'
END_OF_HEAD = "</head>"


@require_safe
@never_cache
@ensure_csrf_cookie
def screens(request: HttpRequest) -> HttpResponse:
    """The instructor's page; what it shows is decided by its address in the browser."""
    return _built("index.html")


@require_safe
@never_cache
@ensure_csrf_cookie
def sending_page(request: HttpRequest, token: str) -> HttpResponse:
    """The form by which a swing is sent."""
    return behind_link("src/send/RequestPage.tsx")


@require_safe
@never_cache
@ensure_csrf_cookie
def film_page(request: HttpRequest, token: str) -> HttpResponse:
    """Where a phone films for a studio hour."""
    return behind_link("src/film/FilmPage.tsx", [f"/api/film/{token}"])


@require_safe
@never_cache
@ensure_csrf_cookie
def own_page(request: HttpRequest, token: str = "") -> HttpResponse:
    """A student's own page, or the way to it by a code."""
    return behind_link("src/page/OwnPage.tsx", [f"/api/pages/{token}"] if token else [])


@require_safe
@never_cache
@ensure_csrf_cookie
def mirror_page(request: HttpRequest, token: str) -> HttpResponse:
    """Where a student sees themselves with lines."""
    return behind_link("src/mirror/Mirror.tsx", [f"/api/pages/{token}"])


@require_safe
@never_cache
@ensure_csrf_cookie
def check_page(request: HttpRequest, token: str, drill: str) -> HttpResponse:
    """Where a student films a drill to have it checked."""
    return behind_link("src/check/CheckPage.tsx", [f"/api/pages/{token}", f"/api/pages/{token}/tries"])


@require_safe
@never_cache
@ensure_csrf_cookie
def walk_page(request: HttpRequest) -> HttpResponse:
    """Where a walk record is opened from a file."""
    return behind_link("src/walk/opened/OpenedWalk.tsx")


def behind_link(screen: str, asked: Iterable[str] = (), heading: str = "") -> HttpResponse:
    """The page behind a student's link.

    Its scripts and what they will ask the API for are fetched at once, not one after the other; `heading` is
    seen before they are there.
    """
    answer = _built("student.html")
    if answer.status_code == 200:
        page = answer.content.decode()
        page = page.replace(END_OF_HEAD, _ahead(screen, asked) + END_OF_HEAD)
        answer.content = page.replace(EMPTY_ROOT, format_html('<div id="root">{}</div>', heading))
    return answer


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


def _ahead(screen: str, asked: Iterable[str]) -> SafeString:
    manifest = Path(settings.WEB_BUILD) / "manifest.json"
    scripts = [(static(file),) for file in _scripts_of(screen, manifest, manifest.stat().st_mtime_ns)]
    return format_html_join(
        "", '<link rel="modulepreload" crossorigin href="{}">', scripts
    ) + format_html_join(
        "", '<link rel="preload" as="fetch" crossorigin href="{}">', [(each,) for each in asked]
    )


@lru_cache
def _scripts_of(screen: str, manifest: Path, built_ns: int) -> list[str]:
    """The files of a screen's script and of all that it imports."""
    built = json.loads(manifest.read_text())
    found, wanted = {}, [screen]
    while wanted:
        name = wanted.pop()
        if name not in found:
            found[name] = built[name]["file"]
            wanted += built[name].get("imports", [])
    return list(found.values())
