"""An hour's ladder: what was read of each try, and what each change did against the tries before it."""

from __future__ import annotations

from dataclasses import asdict
from typing import TYPE_CHECKING, Any

from tropometer.server.logbook.services import Logged, in_order, logged_of
from tropometer.server.studio.services import tries_of
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.over_time.typical import typical_scatter
from tropometer.teaching.trials.against import Tried
from tropometer.teaching.trials.ladder import Column, Rung, steps

if TYPE_CHECKING:
    from tropometer.server.studio.models import StudioHour, Try

WORTH_OF_SCATTER = 1.0  # of the typical scatter: a smaller difference matters to nobody; common practice


def ladder_of(hour: StudioHour) -> dict[str, Any]:
    """An hour's tries with what is watched of them, shaped as `LadderOut`.

    What nobody has looked at is shown, but never held against anything.
    """
    tries = list(tries_of(hour))
    logged = logged_of([each.swing_id for each in tries])
    watched = [key for column in hour.columns if (key := _key(column)) is not None]
    by_swing: dict[Any, dict[str, Logged]] = {}
    for key in watched:
        for row in logged.get(key, []):
            by_swing.setdefault(row.swing, {})[_id(key)] = row
    columns = [
        Column(
            id=_id(key),
            typical=typical_scatter(key[0]),
            worth=WORTH_OF_SCATTER * typical_scatter(key[0]).within,
        )
        for key in watched
    ]
    rungs = [_rung(each, by_swing.get(each.swing_id, {})) for each in tries]
    return {
        "id": hour.pk,
        "student_id": hour.student_id,
        "day": hour.day,
        "about": hour.about,
        "columns": [_told(key) for key in watched],
        "offered": [_told(key) for key in sorted(logged, key=in_order)],
        "tries": [_tried(each, by_swing.get(each.swing_id, {})) for each in tries],
        "steps": [
            {
                "changed": step.changed,
                "went_back": step.went_back,
                "drifted": list(step.drifted),
                "columns": [
                    {"column": column, "by": each.by, **asdict(each)}
                    for column, each in step.by_column.items()
                ],
            }
            for step in steps(rungs, columns)
        ],
    }


def _rung(tried: Try, rows: dict[str, Logged]) -> Rung:
    values = {
        column: Tried(value=row.value, u95=row.u95, set_up_share=row.set_up_share)
        for column, row in rows.items()
        if not row.provisional
    }
    return Rung(changed=tried.changed, values=values, counts=not tried.left_out)


def _tried(tried: Try, rows: dict[str, Logged]) -> dict[str, Any]:
    return {
        "id": tried.pk,
        "swing_id": tried.swing_id,
        "received_at": tried.swing.received_at,
        "club": tried.swing.club,
        "changed": tried.changed,
        "felt": tried.felt,
        "left_out": tried.left_out,
        "values": [
            {"column": column, "value": row.value, "u95": row.u95, "provisional": row.provisional}
            for column, row in rows.items()
        ],
    }


def _told(key: Key) -> dict[str, str]:
    return {"column": _id(key), "reading": key[0], "at": key[1], "unit": KINDS[key[0]].unit}


def _id(key: Key) -> str:
    return f"{key[0]}.{key[1]}"


def _key(column: str) -> Key | None:
    """None for a reading that the register has no more."""
    reading, _, at = column.partition(".")
    return (reading, at) if reading in KINDS else None
