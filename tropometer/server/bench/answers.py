"""What the bench is told: a swing as it is opened, and after a change only what differs."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any
from uuid import UUID

from django.contrib.postgres.aggregates import ArrayAgg

from tropometer.server.bench.columns import ended, figure
from tropometer.server.bench.measure import Told, measured, told_as
from tropometer.server.bench.models import HiddenMark, Mark, Swing
from tropometer.swing.readings.register import KINDS

PLACE_DIGITS = 3  # of a pixel: finer than any hand

MARK_FIELDS = ("frame", "x", "y", "sd_px", "source", "shared_px")

Columns = dict[str, Any]


def kinds_told() -> list[dict[str, Any]]:
    """What is always true of each reading, shaped as `ReadingKind`."""
    return [
        {"reading": id, "method": kind.method, "unit": kind.unit, "group": kind.group, "sign": kind.sign}
        for id, kind in KINDS.items()
    ]


def opened(swing: Swing) -> dict[str, Any]:
    """All that is on a swing, shaped as `Measured`."""
    found = measured(swing)
    told: Told = found.pop("told")
    marks, hidden = _marks(swing), _hidden(swing)
    clips = [
        {
            **clip,
            "gauges": drawn,
            "marks": marks.get(clip["clip_id"], []),
            "hidden": hidden.get(clip["clip_id"], []),
        }
        for clip, drawn in zip(found["clips"], told.gauge_columns, strict=True)
    ]
    columns = {"readings": told.reading_columns, "floor": told.floor_columns, "next": told.next}
    return {**found, **columns, "clips": clips, "state": told.state}


def answered(swing: Swing, since: str | None = None, met: Iterable[str] = ()) -> dict[str, Any]:
    """What follows on a swing, shaped as `EditAnswer`: beside the state `since`, else all of it."""
    found = measured(swing)
    told: Told = found.pop("told")
    before = told_as(since)
    # What has come or gone has no place among what is held: then all is told.
    if before and not _alike(before, told):
        before = None
    nothing: list[list[Columns]] = [[] for _ in told.gauge_columns]
    then = before.gauge_columns if before else nothing
    clips = [
        {**clip, "gauges": _changed(drawn, was)}
        for clip, drawn, was in zip(found["clips"], told.gauge_columns, then, strict=True)
    ]
    same_floor = before is not None and before.floor_columns == told.floor_columns
    return {
        **found,
        "state": told.state,
        "since": before.state if before else None,
        "clips": clips,
        "readings": _changed(told.reading_columns, before.reading_columns if before else []),
        "floor": None if same_floor else told.floor_columns,
        "next": told.next,
        "met": list(met),
    }


def _alike(before: Told, now: Told) -> bool:
    """Whether both tell of the same clips, readings and gauges."""

    def names(told: Told) -> Any:
        gauges = [[each["id"] for each in drawn] for drawn in told.gauge_columns]
        return told.clips, [each["reading"] for each in told.reading_columns], gauges

    return bool(names(before) == names(now))


def _changed(now: list[Columns], before: list[Columns]) -> list[Columns]:
    return [each for each in now if each not in before] if before else now


def _marks(swing: Swing) -> dict[UUID, list[dict[str, Any]]]:
    """Each clip's marks, shaped as `MarkColumns`."""
    columns = {f"{field}s": ArrayAgg(field, order_by="frame") for field in MARK_FIELDS}
    marks: dict[UUID, list[dict[str, Any]]] = {}
    for row in Mark.objects.filter(clip__swing=swing).values("clip_id", "name").annotate(**columns):
        own: dict[str, Any] = {field.removesuffix("s"): values for field, values in row.items()}
        for field in ("x", "y"):
            own[field] = [round(value, PLACE_DIGITS) for value in own[field]]
        own["sd_px"] = [figure(value) for value in own["sd_px"]]  # never 0, however sure a mark is said to be
        own["shared_px"] = [min(pair) for pair in zip(own["shared_px"], own["sd_px"], strict=True)]
        own |= {field: ended(own[field]) for field in ("sd_px", "source", "shared_px")}
        marks.setdefault(row["clip_id"], []).append(own)
    return marks


def _hidden(swing: Swing) -> dict[UUID, list[dict[str, Any]]]:
    hidden: dict[UUID, list[dict[str, Any]]] = {}
    looked_for = HiddenMark.objects.filter(clip__swing=swing).values_list("clip_id", "name", "frame")
    for clip_id, name, frame in looked_for:
        hidden.setdefault(clip_id, []).append({"name": name, "frame": frame})
    return hidden
