"""Readings, gauges and floor plans in columns: what is alike is said once, in figures as fine as they mean.

A column in which no row says anything is sent empty, and one whose last rows are alike ends with the first of
them: what lies beyond a column's end is its last.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from tropometer.swing.gauges.floor_plan import FloorMark, FloorPlan
from tropometer.swing.gauges.gauge import Gauge, GaugeLine, Point
from tropometer.swing.readings.reading import Reading
from tropometer.teaching.judging.asked import Asked

SIGNIFICANT = 6
PIXEL_DIGITS, METRE_DIGITS = 2, 4


def figure(value: float | None) -> float | None:
    """A value as fine as anybody can use it."""
    return None if value is None else float(f"{value:.{SIGNIFICANT}g}")


def reading_columns(
    readings: Iterable[Reading], asked: Asked | None, clips: Sequence[str]
) -> list[dict[str, Any]]:
    """Readings by their id, shaped as `ReadingColumns`; clips as places in `clips`."""
    by_id: dict[str, list[Reading]] = {}
    for each in readings:
        by_id.setdefault(each.reading, []).append(each)
    return [
        {
            "reading": id,
            "at": [each.at for each in rows],
            "value": [figure(each.value) for each in rows],
            "u95": [figure(each.u95) for each in rows],
            "clips": ended([[clips.index(clip) for clip in each.clips] for each in rows]),
            "frames": [each.frames for each in rows],
            "said": _spoken(each.said for each in rows),
            "reason": _spoken(each.reason for each in rows),
            "needs": _spoken(each.needs for each in rows),
            "provisional": _spoken(each.provisional for each in rows),
            **_judged(rows, asked),
        }
        for id, rows in by_id.items()
    ]


def _judged(rows: list[Reading], asked: Asked | None) -> dict[str, Any]:
    """The model's bands and where the readings stand in them."""
    bands = [asked.bands.get((each.reading, each.at)) if asked else None for each in rows]
    standings = [
        band.standing(each.value, each.u95)
        if band and each.value is not None and each.u95 is not None
        else None
        for band, each in zip(bands, rows, strict=True)
    ]
    return {
        "band": _spoken({"low": band.low, "high": band.high} if band else None for band in bands),
        "standing": _spoken(standings),
    }


def gauge_columns(gauges: Iterable[Gauge]) -> list[dict[str, Any]]:
    """Gauges shaped as `GaugeColumns`: all shapes of one are alike and show one reading."""
    return [
        {
            "id": gauge.id,
            "label": gauge.label,
            "lines": [_line(each) for each in gauge.lines],
            "style": gauge.shapes[0].style if gauge.shapes else None,
            "reading": gauge.shapes[0].reading if gauge.shapes else "",
            "unit": gauge.shapes[0].unit if gauge.shapes else None,
            "frame": [each.frame for each in gauge.shapes],
            "points": [
                [round(along, PIXEL_DIGITS) for point in each.points for along in (point.x, point.y)]
                for each in gauge.shapes
            ],
            "target": _spoken(
                [round(along, PIXEL_DIGITS) for point in each.target for along in (point.x, point.y)]
                for each in gauge.shapes
            ),
            "value": [figure(each.value) for each in gauge.shapes],
            "u95": [figure(each.u95) for each in gauge.shapes],
        }
        for gauge in gauges
    ]


def _line(line: GaugeLine) -> dict[str, Any]:
    return {"a": _point(line.a), "b": _point(line.b), "style": line.style}


def _point(point: Point) -> dict[str, float]:
    return {"x": round(point.x, PIXEL_DIGITS), "y": round(point.y, PIXEL_DIGITS)}


def floor_columns(plan: FloorPlan) -> dict[str, Any]:
    """The swing from above, shaped as `FloorOut`."""
    by_name: dict[str, list[FloorMark]] = {}
    for each in plan.marks:
        by_name.setdefault(each.name, []).append(each)
    figures = ("t", "b", "u95_t", "u95_b")
    return {
        "marks": [
            {
                "name": name,
                "at": [each.at for each in rows],
                **{key: [round(getattr(each, key), METRE_DIGITS) for each in rows] for key in figures},
            }
            for name, rows in by_name.items()
        ],
        "cameras": plan.cameras,
    }


def _spoken(values: Iterable[Any]) -> list[Any]:
    """A column, or nothing where none of its rows says anything."""
    column = list(values)
    return ended(column) if any(column) else []


def ended(column: list[Any]) -> list[Any]:
    """A column without what repeats at its end."""
    while len(column) > 1 and column[-1] == column[-2]:
        column = column[:-1]
    return column
