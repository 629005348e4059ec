"""A student's readings over the months: their series, and what has become of a goal."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from datetime import datetime
from functools import cached_property
from typing import TYPE_CHECKING, Any, Literal
from uuid import UUID

from tropometer.server.judging.models import Plan
from tropometer.server.logbook.services import SwingInTime, logged_of, swings_in_time
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.asked import Swung
from tropometer.teaching.judging.goals import Goal
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.over_time.change import Change, change_between
from tropometer.teaching.over_time.goal_state import State, inside, state_of
from tropometer.teaching.over_time.series import Point, Series
from tropometer.teaching.over_time.typical import typical_scatter

if TYPE_CHECKING:
    from tropometer.server.people.models import Student

GOAL = ("reading", "at", "low", "high", "swings")
GoalNow = State | Literal["no_swing_since"]


@dataclass(frozen=True, kw_only=True)
class GoalCheck:
    """What has become of a goal: `no_swing_since` while nothing that was looked at came after it was set.

    `inside` is how likely the mean of the latest swings lies where it should.
    """

    state: GoalNow
    inside: float | None
    change: Change | None


@dataclass(frozen=True, kw_only=True)
class SetGoal:
    """A goal of a lesson that was sent: its focus as `FocusSent`, and the swing it was set on."""

    focus: Mapping[str, Any]
    swing: SwingInTime

    @property
    def goal(self) -> Goal:
        known = self.focus["goal"]
        return Goal(**{part: known[part] for part in GOAL if part in known})

    @property
    def key(self) -> Key:
        """The reading it is of, and where."""
        return self.goal.reading, self.goal.at


class History:
    """All that is known of a student's swings in time; each part is asked for once."""

    def __init__(self, student: Student, until: datetime | None = None) -> None:
        """`until`: nothing that came later is known."""
        self.student, self.until = student, until

    @cached_property
    def swings(self) -> dict[UUID, SwingInTime]:
        """The first one first."""
        known = swings_in_time(self.student)
        return {each.id: each for each in known if self.until is None or each.received_at <= self.until}

    @cached_property
    def goals(self) -> list[SetGoal]:
        """The goals of sent lessons, the latest first; of those on one reading only the latest stands."""
        plans = Plan.objects.filter(swing__in=list(self.swings), as_sent__isnull=False)
        found: dict[tuple[Key, Swung], SetGoal] = {}
        for plan in sorted(plans, key=lambda plan: self.swings[plan.swing_id].received_at, reverse=True):
            for focus in (plan.as_sent or {"focus": []})["focus"]:
                if focus["goal"] and focus["goal"]["reading"] in KINDS:
                    goal = SetGoal(focus=focus, swing=self.swings[plan.swing_id])
                    found.setdefault((goal.key, goal.swing.kind), goal)
        return list(found.values())

    def points(self, key: Key, kind: Swung, instead: Mapping[UUID, Point] | None = None) -> list[Point]:
        """What was looked at of a reading in swings of one kind; of some swings what is said `instead`."""
        return list(self.points_by_swing(key, kind, instead).values())

    def points_by_swing(
        self, key: Key, kind: Swung, instead: Mapping[UUID, Point] | None = None
    ) -> dict[UUID, Point]:
        """The same by swing, the first one first."""
        like = {id: swing for id, swing in self.swings.items() if swing.kind == kind}
        rows = logged_of(like, {key}).get(key, [])
        logged = {each.swing: each for each in rows if not each.provisional}
        found = {id: logged[id].point(like[id]) for id in like if id in logged}
        return found | dict(instead or {})


def as_told(swing: SwingInTime, value: float, u95: float) -> Point:
    """What a lesson told of a swing."""
    return Point(value=value, u95=u95, day=swing.day, stretch=swing.stretch)


def checked(history: History, goal: SetGoal, instead: Mapping[UUID, Point] | None = None) -> GoalCheck:
    """A goal against the swings of its kind since it was set; of some swings what is said `instead`."""
    then = goal.focus["goal"]["then"]
    told = {goal.swing.id: as_told(goal.swing, then["value"], then["u95"])} if then else {}
    points = history.points(goal.key, goal.swing.kind, told | dict(instead or {}))
    return check(points, goal.swing.stretch, goal.goal)


def check(points: list[Point], set_in: int, goal: Goal) -> GoalCheck:
    """A goal that was set in a stretch against the latest stretch after it."""
    now = max((each.stretch for each in points), default=set_in)
    if now <= set_in:
        return GoalCheck(state="no_swing_since", inside=None, change=None)
    series, typical = Series(points), typical_scatter(goal.reading)
    change = None
    if any(each.stretch == set_in for each in points):
        change = change_between(series, set_in, now, band_of(goal), typical)
    share = inside(series, now, goal, typical)
    return GoalCheck(state=state_of(share, change), inside=share, change=change)


def band_of(goal: Goal) -> Band:
    """A goal as what is asked of a reading."""
    return Band(reading=goal.reading, at=goal.at, low=goal.low, high=goal.high)


def told_change(change: Change) -> dict[str, Any]:
    """A change as `ChangeOut`."""
    return {**asdict(change), "by": change.by, "u95": change.u95}
