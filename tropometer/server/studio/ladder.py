"""An hour's ladder: what was read of each try, and what each change did against the tries before it."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import TYPE_CHECKING, Any, cast

from tropometer.server.bench.first_look import is_unread
from tropometer.server.bench.record import shot_of
from tropometer.server.logbook.services import in_order, logged_of
from tropometer.server.studio.services import tries_of
from tropometer.swing.formats.launch import launch_from
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.over_time.typical import typical_scatter
from tropometer.teaching.trials.against import Tried
from tropometer.teaching.trials.ladder import Column, Rung, steps
from tropometer.teaching.trials.outcomes import outcomes, tried_shot
from tropometer.teaching.trials.strikes import Struck

if TYPE_CHECKING:
    from collections.abc import Iterable

    from tropometer.server.studio.models import StudioHour, Try
    from tropometer.swing.record.launch import Launch

SHOT = "shot"  # the moment of what became of the ball
WORTH_OF_SCATTER = 1.0  # of the typical scatter: a smaller difference matters to nobody; common practice


def ladder_of(hour: StudioHour) -> dict[str, Any]:
    """An hour's tries with what is watched of them, shaped as `LadderOut`.

    What nobody has looked at is shown, but never held against anything.
    """
    tries = list(tries_of(hour))
    logged = logged_of([each.swing_id for each in tries])
    shots = {
        each.swing_id: tried_shot(launch_from(shot.said)) for each in tries if (shot := shot_of(each.swing))
    }
    first = {each.swing_id: _first_read(each) for each in tries}
    seen = {key for looked in first.values() for key in looked}
    watched = [key for column in hour.columns if (key := _key(column)) is not None]
    read: dict[Any, dict[str, _Value]] = {each.swing_id: {} for each in tries}
    for key in watched:
        for row in logged.get(key, []):
            tried = Tried(value=row.value, u95=row.u95, set_up_share=row.set_up_share)
            read[row.swing][_id(key)] = _Value(tried, row.provisional)
        for swing, looked in first.items():
            if key in looked:
                read[swing].setdefault(_id(key), _Value(looked[key], provisional=True))
        for swing, found in shots.items():
            if key[1] == SHOT and key[0] in found:
                read[swing][_id(key)] = _Value(found[key[0]], provisional=False)
    films = _films(tries)
    hit = [(id, SHOT) for id in outcomes() if any(id in found for found in shots.values())]
    rungs = [_rung(each, read[each.swing_id]) for each in tries]
    return {
        "id": hour.pk,
        "student_id": hour.student_id,
        "day": hour.day,
        "about": hour.about,
        "columns": [_told(key) for key in watched],
        "offered": [_told(key) for key in [*sorted({*logged, *seen}, key=in_order), *hit]],
        "tries": [
            _tried(each, read[each.swing_id], each.swing_id in shots)
            | {"films": films.get(each.swing_id, [])}
            for each in tries
        ],
        "steps": [
            {
                "changed": step.changed,
                "went_back": step.went_back,
                "drifted": list(step.drifted),
                "strikes": [
                    {"real": each.real, **{k: v for k, v in asdict(each).items() if k != "p"}}
                    for each in step.strikes
                ],
                "columns": [
                    {"column": column, "by": each.by, **asdict(each)}
                    for column, each in step.by_column.items()
                ],
            }
            for step in steps(rungs, [_column(key) for key in watched])
        ],
    }


def told_in_lesson(hour: StudioHour) -> dict[str, Any]:
    """An hour as it goes into a lesson, as JSON shaped as `HourInLesson`: no try that does not count, and
    nothing that nobody looked at.
    """
    ladder = ladder_of(hour)
    tries = [
        {
            "changed": each["changed"],
            "values": [
                {name: value[name] for name in ("column", "value", "u95")}
                for value in each["values"]
                if not value["provisional"]
            ],
        }
        for each in ladder["tries"]
        if not each["left_out"]
    ]
    said = {value["column"] for each in tries for value in each["values"]}
    return {
        "hour_id": str(hour.pk),
        "day": hour.day.isoformat(),
        "columns": [column for column in ladder["columns"] if column["column"] in said],
        "tries": tries,
        "steps": ladder["steps"],
    }


def shot_columns(launches: Iterable[Launch]) -> list[dict[str, str]]:
    """The columns that any of some shots has, in order, shaped as `ColumnOut`."""
    held = {outcome for launch in launches for outcome in tried_shot(launch)}
    return [_told((outcome, SHOT)) for outcome in outcomes() if outcome in held]


def shot_values(launch: Launch) -> list[dict[str, Any]]:
    """What is known of a shot, shaped as `ColumnValue`."""
    return [
        {"column": _id((outcome, SHOT)), "value": tried.value, "u95": tried.u95}
        for outcome, tried in tried_shot(launch).items()
    ]


@dataclass(frozen=True)
class _Value:
    tried: Tried
    provisional: bool


def _first_read(tried: Try) -> dict[Key, Tried]:
    """What a machine read of a try before anybody has looked at it."""
    looked = getattr(tried.swing, "first_look", None)
    return {
        (each["reading"], each["at"]): Tried(value=each["value"], u95=each["u95"])
        for each in (looked.latest if looked else [])
        if each["reading"] in KINDS
    }


def _films(tries: Iterable[Try]) -> dict[Any, list[dict[str, Any]]]:
    """The clips of tries, shaped as `FilmOut`, by swing."""
    laid: set[str] = set()  # the sides from which a mat was laid before
    films: dict[Any, list[dict[str, Any]]] = {}
    for tried in tries:
        looked = getattr(tried.swing, "first_look", None)
        glanced, mats = (looked.glanced or {}, looked.mats) if looked else ({}, {})
        has_looked = looked is not None and looked.read is not None
        for clip in tried.swing.clips.all():
            mat = "laid" if hasattr(clip, "mat") else "found" if str(clip.pk) in mats else None
            if mat is None and has_looked and clip.view in laid:
                mat = "moved"
            films.setdefault(tried.swing_id, []).append(
                {
                    "view": clip.view,
                    "name": clip.original_name,
                    "gates": glanced.get(str(clip.pk), {}).get("gates", []),
                    "mat": mat,
                }
            )
            if mat == "laid":
                laid.add(clip.view)
    return films


def _column(key: Key) -> Column:
    if key[1] == SHOT:
        outcome = outcomes()[key[0]]
        return Column(id=_id(key), typical=outcome.typical, worth=outcome.worth)
    typical = typical_scatter(key[0])
    return Column(id=_id(key), typical=typical, worth=WORTH_OF_SCATTER * typical.within)


def _rung(tried: Try, read: dict[str, _Value]) -> Rung:
    values = {column: each.tried for column, each in read.items() if not each.provisional}
    struck = cast(Struck | None, tried.struck or None)
    return Rung(changed=tried.changed, values=values, struck=struck, counts=not tried.left_out)


def _tried(tried: Try, read: dict[str, _Value], has_shot: bool) -> dict[str, Any]:
    return {
        "id": tried.pk,
        "swing_id": tried.swing_id,
        "received_at": tried.swing.received_at,
        "club": tried.swing.club,
        "changed": tried.changed,
        "felt": tried.felt,
        "struck": tried.struck,
        "left_out": tried.left_out,
        "struck_at": tried.struck_at,
        "has_shot": has_shot,
        "looking": is_unread(tried.swing),
        "values": [
            {
                "column": column,
                "value": each.tried.value,
                "u95": each.tried.u95,
                "provisional": each.provisional,
            }
            for column, each in read.items()
        ],
    }


def _told(key: Key) -> dict[str, str]:
    unit = outcomes()[key[0]].unit if key[1] == SHOT else KINDS[key[0]].unit
    return {"column": _id(key), "reading": key[0], "at": key[1], "unit": unit}


def _id(key: Key) -> str:
    return f"{key[0]}.{key[1]}"


def _key(column: str) -> Key | None:
    """None for what is known no more: a reading of the register, or an outcome."""
    reading, _, at = column.partition(".")
    return (reading, at) if reading in (outcomes() if at == SHOT else KINDS) else None
