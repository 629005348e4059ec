"""What the last lesson was about: then, now, and whether its goals were reached."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING, Any
from uuid import UUID

from tropometer.server.judging.models import Plan
from tropometer.swing.read import SwingRead
from tropometer.swing.readings.reading import Unit
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.change import Change, change_of
from tropometer.teaching.judging.goals import Goal
from tropometer.teaching.judging.population import Population
from tropometer.teaching.knowledge.band import Band

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing


@dataclass(frozen=True, kw_only=True)
class Earlier:
    """A focus of the last lesson with its goal, what was read of it then, and how that changed."""

    swing_id: UUID
    on: datetime
    fault: str
    name: str
    goal: Goal | None
    unit: Unit | None
    now_provisional: bool
    is_reached: bool
    change: Change | None  # None where one of the two cannot be told


def focused_before(swing: Swing, found: SwingRead, population: Population) -> list[Earlier]:
    """The focus of the student's last lesson that was sent on an earlier swing."""
    if swing.student_id is None:
        return []
    sent = Plan.objects.filter(swing__student_id=swing.student_id, as_sent__isnull=False)
    before = sent.filter(swing__received_at__lt=swing.received_at, swing__removed_at__isnull=True)
    plan = before.select_related("swing").order_by("-swing__received_at").first()
    if plan is None or plan.as_sent is None:
        return []
    return [_beside(plan, focus, found, population) for focus in plan.as_sent["focus"]]


def _beside(plan: Plan, focus: dict[str, Any], found: SwingRead, population: Population) -> Earlier:
    known, goal, change, reached, provisional = focus["goal"], None, None, False, False
    if known is not None and known["reading"] in KINDS:
        goal = Goal(**{field: known[field] for field in ("reading", "at", "low", "high")})
        now, then = found.given(goal.reading, goal.at), known["then"]
        if now is not None and now.value is not None and now.u95 is not None:
            reached, provisional = goal.is_reached(now.value), now.provisional
            if then is not None:
                ends = (then["value"], then["u95"]), (now.value, now.u95)
                band = Band(reading=goal.reading, at=goal.at, low=goal.low, high=goal.high)
                change = change_of((goal.reading, goal.at), *ends, band, population)
    return Earlier(
        swing_id=plan.swing_id,
        on=plan.swing.received_at,
        fault=focus["fault"],
        name=focus["name"],
        goal=goal,
        unit=KINDS[goal.reading].unit if goal else None,
        now_provisional=provisional,
        is_reached=reached,
        change=change,
    )
