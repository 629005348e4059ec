"""The page behind a lesson's link, with its heading in it already."""

from django.http import Http404, HttpRequest, HttpResponse
from django.template.loader import render_to_string
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from tropometer.server.lessons import sending, versions
from tropometer.server.pages import behind_link
from tropometer.server.people.look import look_of

SCREEN = "src/lesson/StudentPage.tsx"


@require_safe
@never_cache
@ensure_csrf_cookie
def sheet_page(request: HttpRequest, token: str) -> HttpResponse:
    """On a slow line whose lesson it is, and its title, are read while the scripts still come."""
    try:
        lesson = sending.by_token(token)
        sheet = versions.version_of(lesson).document
    except Http404:
        return behind_link(SCREEN)
    look = look_of(lesson.instructor, f"/api/sheets/{token}/portrait.webp")
    heading = render_to_string("lessons/heading.html", {"sheet": sheet, "look": look})
    return behind_link(SCREEN, [f"/api/sheets/{token}"], heading)
