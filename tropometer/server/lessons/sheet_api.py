"""The student's page: open to whoever holds the link, and to nobody else."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.utils import timezone
from ninja import Router

from tropometer.server.access import owned
from tropometer.server.lessons import sending, services
from tropometer.server.lessons.schemas import LessonSheet
from tropometer.server.ranged import private_file

router = Router(tags=["sheet"])


@router.get("/sheets/{token}", response=LessonSheet)
def sheet(request: HttpRequest, token: str) -> dict[str, Any]:
    lesson = sending.by_token(token)
    if lesson.first_read_at is None:
        lesson.first_read_at = timezone.now()
        lesson.save(update_fields=["first_read_at"])
    return services.sheet(lesson)


@router.get("/sheets/{token}/{uuid:frame_id}.jpg", include_in_schema=False)
def sheet_still(request: HttpRequest, token: str, frame_id: UUID) -> HttpResponseBase:
    lesson = sending.by_token(token)
    return private_file(request, owned(lesson.frames.all(), frame_id).still, "image/jpeg")
