"""Whether this machine serves, and whether all it leans on does."""

import shutil
from datetime import timedelta
from pathlib import Path

import orjson
from django.conf import settings
from django.db import DatabaseError, connection
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.views.decorators.cache import never_cache
from procrastinate.contrib.django.models import ProcrastinateWorker

WORKER_HEARD_WITHIN = timedelta(seconds=60)


@never_cache
def healthy(request: HttpRequest) -> HttpResponse:
    """The web server answers."""
    return HttpResponse("ok", content_type="text/plain")


@never_cache
def ready(request: HttpRequest) -> HttpResponse:
    """Database, disk and worker are there: 200, else 503; a word for each."""
    found = {"database": _database(), "disk": _disk(), "worker": _worker()}
    status = 200 if all(word == "ok" for word in found.values()) else 503
    return HttpResponse(orjson.dumps(found), status=status, content_type="application/json")


def _database() -> str:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except DatabaseError:
        return "does not answer"
    return "ok"


def _disk() -> str:
    folder = Path(settings.UPLOAD_ROOT)
    try:
        folder.mkdir(parents=True, exist_ok=True)
        free = shutil.disk_usage(folder).free
    except OSError:
        return "cannot be written to"
    return "ok" if free > settings.LEAST_FREE_BYTES else "nearly full"


def _worker() -> str:
    since = timezone.now() - WORKER_HEARD_WITHIN
    try:
        heard = ProcrastinateWorker.objects.filter(last_heartbeat__gte=since).exists()
    except DatabaseError:
        return "unknown"
    return "ok" if heard else "not heard of for a minute"
