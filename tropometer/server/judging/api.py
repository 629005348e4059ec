"""A swing judged: findings, what leads to what, and what to work on."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from tropometer.server.access import asking
from tropometer.server.bench.services import swing_of
from tropometer.server.judging import services
from tropometer.server.judging.schemas import JudgementOut

router = Router(tags=["judging"])


@router.get("/swings/{uuid:id}/judgement", response=JudgementOut)
def judgement(request: HttpRequest, id: UUID, model: str = "") -> dict[str, Any]:
    """What the swing means to its student's teaching model, or to another one."""
    instructor = asking(request)
    return services.judged(swing_of(instructor, id), model, instructor.units)
