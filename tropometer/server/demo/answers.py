"""Lessons that the demo's instructor sent before: what they were about, and what was read then."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, timedelta

from tropometer.server.judging.schemas import DrillChosen, FocusChosen, GoalChosen, PlanIn

WEEKS = 6  # until a goal should be reached
Then = tuple[float, float]  # a value and its u95


def about(fault: str, words: str, drill: str = "", dose: str = "") -> FocusChosen:
    """A focus: what the student was told, and what they practised, if anything."""
    drills = [DrillChosen(drill=drill, dose=dose)] if drill else []
    return FocusChosen(fault=fault, words=words, drills=drills)


@dataclass(frozen=True)
class Answer:
    """A lesson that was sent: `goals` are a reading, its place and ends by fault, `then` what was read."""

    opening: str
    focus: tuple[FocusChosen, ...]
    goals: Mapping[str, tuple[str, str, float | None, float | None]] = field(default_factory=dict)
    then: Mapping[str, Then] = field(default_factory=dict)

    def plan(self, on: date) -> PlanIn:
        """What the lesson was about, as it was chosen on a day."""
        by = on + timedelta(weeks=WEEKS)
        goals = {each.fault: self._goal(each.fault, by) for each in self.focus}
        return PlanIn(focus=[each.model_copy(update={"goal": goals[each.fault]}) for each in self.focus])

    @property
    def values_then(self) -> dict[str, dict[str, float]]:
        """What was read of each fault's goal when it was set."""
        return {fault: {"value": value, "u95": u95} for fault, (value, u95) in self.then.items()}

    def _goal(self, fault: str, by: date) -> GoalChosen | None:
        if fault not in self.goals:
            return None
        reading, at, low, high = self.goals[fault]
        return GoalChosen(reading=reading, at=at, low=low, high=high, by=by, swings=1)
