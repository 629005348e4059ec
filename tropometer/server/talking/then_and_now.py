"""Then and now: what a student's goals measured when they were first read, and in the latest lesson."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import asdict, dataclass
from datetime import datetime
from typing import TYPE_CHECKING, Any

from tropometer.server.lessons.versions import as_shown, version_of
from tropometer.teaching.judging.change import change_of
from tropometer.teaching.judging.population import shipped_population
from tropometer.teaching.knowledge.band import Band, Key

if TYPE_CHECKING:
    from tropometer.server.lessons.models import Lesson

MOST_SHOWN = 3


@dataclass(frozen=True)
class Read:
    """A reading as a lesson told it."""

    value: float
    u95: float
    on: datetime
    lesson: Lesson


def then_and_now(lessons: list[Lesson]) -> list[dict[str, Any]]:
    """The goals of sent lessons that were read more than once, the latest goal first; as `ThenAndNow`.

    Only what was sent is told: every number was looked at, and a link still leads to its lesson.
    """
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
    told = [_changed(key, focus, reads[key]) for key, focus in goals.items() if len(reads.get(key, [])) > 1]
    return told[:MOST_SHOWN]


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


def _changed(key: Key, focus: dict[str, Any], reads: list[Read]) -> dict[str, Any]:
    goal, then, now = focus["goal"], reads[0], reads[-1]
    band = Band(reading=key[0], at=key[1], low=goal["low"], high=goal["high"])
    ends = (then.value, then.u95), (now.value, now.u95)
    change = change_of(key, *ends, band, shipped_population())
    return {
        "name": focus["name"],
        "goal": goal,
        "then_on": then.on,
        "now_on": now.on,
        "now_u95": now.u95,
        "change": asdict(change) | {"by": change.by},
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
