"""A swing judged: findings, what leads to what, what was decided on them, and what the lesson is about."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from tropometer.server.access import asking
from tropometer.server.bench.services import swing_of
from tropometer.server.judging import decisions, plans, services
from tropometer.server.judging.schemas import DecisionIn, JudgementOut, PlanChange, SentPlan

router = Router(tags=["judging"])


@router.get("/swings/{uuid:id}/judgement", response=JudgementOut)
def judgement(request: HttpRequest, id: UUID, model: str = "") -> dict[str, Any]:
    """What the swing means to its student's teaching model, or to another one.

    Decisions and the plan belong to the student's model; another one judges what was read.
    """
    instructor = asking(request)
    return services.judgement_of(swing_of(instructor, id), model, instructor.units)


@router.put("/swings/{uuid:id}/decisions/{fault}", response={204: None})
def decide(request: HttpRequest, id: UUID, fault: str, data: DecisionIn) -> tuple[int, None]:
    """Accept a finding, reject it, add a fault that nothing read shows, or take any of it back."""
    decisions.decide(swing_of(asking(request), id), fault, data)
    return 204, None


@router.get("/swings/{uuid:id}/plan", response=SentPlan | None)
def plan(request: HttpRequest, id: UUID) -> dict[str, Any] | None:
    """What was chosen for the lesson, as its student reads it; null while nothing is."""
    return plans.said_plan(swing_of(asking(request), id))


@router.put("/swings/{uuid:id}/plan", response={204: None})
def choose_plan(request: HttpRequest, id: UUID, data: PlanChange) -> tuple[int, None]:
    """Choose what the lesson is about, or nothing again."""
    plans.choose(swing_of(asking(request), id), data.plan, data.id)
    return 204, None
