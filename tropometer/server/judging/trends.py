"""A student's readings over the months, shaped as `time_schemas` say."""

from __future__ import annotations

from collections import Counter
from dataclasses import asdict
from datetime import date
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.utils import timezone

from tropometer.server.bench.asking import asked_of_kind
from tropometer.server.judging.models import Plan
from tropometer.server.judging.over_time import History, SetGoal, checked, told_change
from tropometer.server.logbook.services import Logged, in_order, logged_of, repeated
from tropometer.server.tables import as_csv
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.asked import Swung
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.over_time.change import change_between
from tropometer.teaching.over_time.repeatability import repeatability
from tropometer.teaching.over_time.series import Point, Series
from tropometer.teaching.over_time.together import LEAST_SWINGS, together
from tropometer.teaching.over_time.typical import typical_scatter

if TYPE_CHECKING:
    from tropometer.server.people.models import Student

FINE = 7  # significant digits that are told


def trends_of(student: Student, kind: Swung | None) -> dict[str, Any]:
    """All that was read of swings of one kind, or of the kind there are most of; as `TrendsOut`."""
    history = History(student)
    counts = Counter(swing.kind for swing in history.swings.values())
    kind = kind or (counts.most_common(1)[0][0] if counts else Swung())
    swings = [swing for swing in history.swings.values() if swing.kind == kind]
    places = {swing.id: place for place, swing in enumerate(swings)}
    bands = asked_of_kind(student, kind).bands
    logged = logged_of(places)
    return {
        "kinds": [{**_told(each), "swings": count} for each, count in counts.most_common()],
        **_told(kind),
        "swings": [
            {part: getattr(swing, part) for part in ("id", "received_at", "club", "stretch", "filmed")}
            for swing in swings
        ],
        "trends": [_trend(key, logged[key], places, bands.get(key)) for key in sorted(logged, key=in_order)],
        "lessons": _lessons(history),
    }


def _told(kind: Swung) -> dict[str, str]:
    return {"club_class": kind.club, "swing_length": kind.length}


def _trend(key: Key, rows: list[Logged], places: dict[UUID, int], band: Band | None) -> dict[str, Any]:
    rows = sorted(rows, key=lambda row: places[row.swing])
    return {
        "reading": key[0],
        "at": key[1],
        "unit": KINDS[key[0]].unit,
        "group": KINDS[key[0]].group,
        "low": band.low if band else None,
        "high": band.high if band else None,
        "swing": [places[row.swing] for row in rows],
        "value": [float(f"{row.value:.{FINE}g}") for row in rows],
        "u95": [float(f"{row.u95:.{FINE}g}") for row in rows],
        "provisional": [row.provisional for row in rows],
    }


def _lessons(history: History) -> list[dict[str, Any]]:
    answered = {id: swing for id, swing in history.swings.items() if swing.answered_at}
    plans = {plan.swing_id: plan.as_sent for plan in Plan.objects.filter(swing__in=answered)}
    found = []
    for id, swing in answered.items():
        focus = (plans.get(id) or {"focus": []})["focus"]
        found.append(
            {
                "swing_id": id,
                "on": swing.answered_at,
                "about": [each["name"] for each in focus],
                "drills": [drill["name"] for each in focus for drill in each["drills"]],
            }
        )
    return found


def goals_of(student: Student) -> list[dict[str, Any]]:
    """The goals of sent lessons and what has become of them, the latest first; as `GoalChecked`."""
    history = History(student)
    return [_checked(history, goal) for goal in history.goals]


def _checked(history: History, goal: SetGoal) -> dict[str, Any]:
    found = checked(history, goal)
    by = goal.focus["goal"].get("by")
    late = by is not None and date.fromisoformat(str(by)) < timezone.localdate()
    return {
        "fault": goal.focus["fault"],
        "name": goal.focus["name"],
        "goal": goal.focus["goal"],
        **_told(goal.swing.kind),
        "swing_id": goal.swing.id,
        "filmed": goal.swing.filmed,
        "set_on": goal.swing.answered_at or goal.swing.received_at,
        "overdue": late and found.state != "reached",
        "state": found.state,
        "inside": found.inside,
        "change": found.change and told_change(found.change),
    }


def change_of(student: Student, key: Key, kind: Swung, since_first: bool) -> dict[str, Any]:
    """How a reading changed since the last lesson, or since the first swings; as `ChangeSince`."""
    history = History(student)
    by_swing = history.points_by_swing(key, kind)
    points = list(by_swing.values())
    stretches = sorted({each.stretch for each in points})
    told: dict[str, Any] = {"reading": key[0], "at": key[1], "unit": KINDS[key[0]].unit}
    told |= {"since": None, "change": None, "worst": None, "together": _latest_day(key, by_swing)}
    told["repeats"] = _repeats(student, key, kind)
    if len(stretches) < 2:
        return told
    then = stretches[0] if since_first else stretches[-2]
    band = asked_of_kind(student, kind).bands.get(key)
    change = change_between(Series(points), then, stretches[-1], band, typical_scatter(key[0]))
    like = [swing for swing in history.swings.values() if swing.kind == kind]
    since = max(swing.received_at for swing in like if swing.stretch == then)
    last = {row.swing: row for row in logged_of([swing.id for swing in like], {key}).get(key, [])}
    worst = next((last[swing.id].worst for swing in reversed(like) if swing.id in last), "")
    return told | {
        "since": timezone.localtime(since).date(),
        "change": told_change(change),
        "worst": worst or None,
    }


def _latest_day(key: Key, by_swing: dict[UUID, Point]) -> dict[str, Any] | None:
    """The latest day with enough swings to be read together, shaped as `DayTogether`."""
    days: dict[int, list[UUID]] = {}
    for id, point in by_swing.items():
        days.setdefault(point.day, []).append(id)
    enough = [day for day, swings in days.items() if len(swings) >= LEAST_SWINGS]
    if not enough:
        return None
    swings = days[max(enough)]
    found = together([by_swing[id] for id in swings], typical_scatter(key[0]))
    assert found is not None
    unlike = None if found.unlike is None else swings[found.unlike]
    return {
        **asdict(found),
        "day": date.fromordinal(max(enough)),
        "swings": len(swings),
        "unlike": unlike,
        "value": by_swing[unlike].value if unlike else None,
    }


def _repeats(student: Student, key: Key, kind: Swung) -> dict[str, Any] | None:
    """How far a reading repeats over all of an instructor's students, shaped as `RepeatsOut`."""
    found = repeatability(repeated(student.instructor, key, kind))
    return {**asdict(found), "least_change": found.least_change} if found else None


LOG = ("received_at", "swing", "club", "club_class", "swing_length", "reading", "at", "value", "u95", "unit")


def log_csv(student: Student) -> str:
    """All that is in a student's log, one reading a line, the first swing first."""
    swings = History(student).swings
    logged = logged_of(swings)
    rows = [(key, row) for key in sorted(logged, key=in_order) for row in logged[key]]
    order = {id: place for place, id in enumerate(swings)}
    rows.sort(key=lambda pair: order[pair[1].swing])
    return as_csv(
        (*LOG, "provisional"),
        (
            (
                swings[row.swing].received_at.isoformat(),
                row.swing,
                swings[row.swing].club,
                *_told(swings[row.swing].kind).values(),
                *key,
                row.value,
                row.u95,
                KINDS[key[0]].unit,
                row.provisional,
            )
            for key, row in rows
        ),
    )
