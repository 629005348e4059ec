"""Then and now: what a student's goals measured when they were first read, and in the latest lesson."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING, Any

from tropometer.server.judging.over_time import History, as_told, told_change
from tropometer.server.lessons.versions import as_shown, version_of
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.over_time.change import change_between
from tropometer.teaching.over_time.series import Series
from tropometer.teaching.over_time.typical import typical_scatter

if TYPE_CHECKING:
    from tropometer.server.lessons.models import Lesson
    from tropometer.server.people.models import Student

MOST_SHOWN = 3


@dataclass(frozen=True)
class Read:
    """A reading as a lesson told it."""

    value: float
    u95: float
    on: datetime
    lesson: Lesson


def then_and_now(student: Student, lessons: list[Lesson]) -> list[dict[str, Any]]:
    """The goals of sent lessons that were read more than once, the latest goal first; as `ThenAndNow`.

    What a lesson told of its swing stands; the swings between, once looked at, say how far the student's
    swings scatter. A link still leads to each of the lessons.
    """
    history = History(student)
    in_order = sorted(lessons, key=lambda lesson: lesson.swing.received_at)
    goals: dict[Key, dict[str, Any]] = {}
    reads: dict[Key, list[Read]] = {}
    for lesson in reversed(in_order):
        for focus in (version_of(lesson).document["plan"] or {"focus": []})["focus"]:
            if focus["goal"]:
                goals.setdefault((focus["goal"]["reading"], focus["goal"]["at"]), focus)
    for lesson in in_order:
        for key, read in _read_in(lesson):
            reads.setdefault(key, []).append(read)
    told = [_changed(history, focus, reads.get(key, [])) for key, focus in goals.items()]
    return [each for each in told if each][:MOST_SHOWN]


def _read_in(lesson: Lesson) -> Iterator[tuple[Key, Read]]:
    plan = version_of(lesson).document["plan"] or {"focus": []}
    found: dict[Key, tuple[float, float]] = {}
    for focus in plan["focus"]:
        goal = focus["goal"]
        if goal and goal["then"]:
            found[goal["reading"], goal["at"]] = (goal["then"]["value"], goal["then"]["u95"])
    found |= {(row["reading"], row["at"]): (row["value"], row["u95"]) for row in plan.get("measured", [])}
    for key, (value, u95) in found.items():
        yield key, Read(value, u95, lesson.swing.received_at, lesson)


def _changed(history: History, focus: dict[str, Any], reads: list[Read]) -> dict[str, Any] | None:
    """None where it was told once, or no lesson lies between."""
    goal = focus["goal"]
    key: Key = (goal["reading"], goal["at"])
    swings = [history.swings[read.lesson.swing_id] for read in reads]
    like = [pair for pair in zip(reads, swings, strict=True) if pair[1].kind == swings[-1].kind]
    if len(like) < 2 or like[0][1].stretch == like[-1][1].stretch or key[0] not in KINDS:
        return None
    (then, _), (now, last) = like[0], like[-1]
    points = history.points(
        key, last.kind, {swing.id: as_told(swing, read.value, read.u95) for read, swing in like}
    )
    known = Series([each for each in points if each.stretch <= last.stretch])
    band = Band(reading=key[0], at=key[1], low=goal["low"], high=goal["high"])
    change = change_between(known, like[0][1].stretch, last.stretch, band, typical_scatter(key[0]))
    return {
        "name": focus["name"],
        "goal": goal,
        "then_on": then.on,
        "now_on": now.on,
        "change": told_change(change),
        "pictures": _pictures(key, then.lesson, now.lesson),
    }


def _pictures(key: Key, *lessons: Lesson) -> list[dict[str, Any]]:
    """The student at that moment in each of two lessons, from the same side; none where one lacks it."""
    found = [next(_frames(key, lesson), None) for lesson in lessons]
    return [each for each in found if each is not None] if None not in found else []


def _frames(key: Key, lesson: Lesson) -> Iterator[dict[str, Any]]:
    """Those that show the gauge of a reading, which is drawn from one side only."""
    for frame in version_of(lesson).document["frames"]:
        drawn = frame["drawn"]
        shapes = [shape for gauge in drawn.get("gauges", []) for shape in gauge["shapes"]]
        if drawn["whose"] != "student" or drawn["checkpoint"] != key[1]:
            continue
        if any(shape["reading"] == key[0] for shape in shapes):
            yield {"frame": as_shown(frame), "src": f"/api/sheets/{lesson.token}/{frame['id']}.jpg"}
