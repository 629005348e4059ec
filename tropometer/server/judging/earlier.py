"""What the last lesson was about: then, now, and whether its goals were reached."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING, Any
from uuid import UUID

from tropometer.server.judging.models import Plan
from tropometer.server.judging.over_time import GoalCheck, History, SetGoal, checked
from tropometer.server.logbook.services import as_logged
from tropometer.swing.read import SwingRead
from tropometer.swing.readings.reading import Unit
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.goals import Goal

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
    check: GoalCheck | None  # None where there is no goal, or this swing tells nothing of it


def focused_before(swing: Swing, found: SwingRead) -> list[Earlier]:
    """The focus of the student's last lesson that was sent on an earlier swing."""
    if swing.student is None:
        return []
    sent = Plan.objects.filter(swing__student=swing.student, as_sent__isnull=False)
    before = sent.filter(swing__received_at__lt=swing.received_at, swing__removed_at__isnull=True)
    plan = before.select_related("swing").order_by("-swing__received_at").first()
    if plan is None or plan.as_sent is None:
        return []
    history = History(swing.student, until=swing.received_at)
    return [_beside(plan, focus, swing, found, history) for focus in plan.as_sent["focus"]]


def _beside(plan: Plan, focus: dict[str, Any], swing: Swing, found: SwingRead, history: History) -> Earlier:
    known, goal, check, provisional = focus["goal"], None, None, False
    if known is not None and known["reading"] in KINDS:
        there = SetGoal(focus=focus, swing=history.swings[plan.swing_id])
        goal, here = there.goal, history.swings[swing.pk]
        now = found.given(*there.key)
        if (
            now is not None
            and now.value is not None
            and now.u95 is not None
            and here.kind == there.swing.kind
        ):
            provisional = now.provisional
            check = checked(history, there, {swing.pk: as_logged(swing.pk, now).point(here)})
    return Earlier(
        swing_id=plan.swing_id,
        on=plan.swing.received_at,
        fault=focus["fault"],
        name=focus["name"],
        goal=goal,
        unit=KINDS[goal.reading].unit if goal else None,
        now_provisional=provisional,
        check=check,
    )
