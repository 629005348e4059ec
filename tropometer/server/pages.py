"""Hands out the one HTML page that holds all screens."""

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
    """The built page; what it shows is decided by its address in the browser."""
    page = Path(settings.WEB_BUILD) / "index.html"
    if not page.exists():
        return HttpResponse("The screens are not built yet: run ./tropo build.", status=503)
    return HttpResponse(page.read_bytes())
