"""What of a swing over time goes with a walk: the curves, and the relay, that lay open in it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import asdict
from typing import TYPE_CHECKING, Any

from tropometer.server.bench.asking import asked_of_swing
from tropometer.server.bench.course import course
from tropometer.server.bench.record import times_from_impact_s
from tropometer.server.clips.services import clip_of
from tropometer.swing.readings.register import KINDS

if TYPE_CHECKING:
    from tropometer.server.bench.measure import Told
    from tropometer.server.bench.models import Swing
    from tropometer.swing.readings.reading import Reading
    from tropometer.teaching.knowledge.band import Key

Opened = frozenset[tuple[str, str, str]]  # a part of the drawer, or "tape"; the reading, and at which moment

OFF_THE_FLOOR = ("foot_flare_lead", "foot_flare_trail", "toe_line", "hip_travel")


def opened_in(scores: Iterable[dict[str, Any]]) -> Opened:
    """What lay open in scores."""
    events = [event for each in scores for event in each["score"]]
    drawers = [event["drawer"] for event in events if event["kind"] == "drawer" and event["drawer"]]
    tapes = [event["tape"] for event in events if event["kind"] == "tape" and event["tape"]]
    return frozenset(
        {(drawer["part"], drawer["reading"], "") for drawer in drawers}
        | {("tape", tape["reading"], tape["at"]) for tape in tapes}
    )


def laid_open(swing: Swing, told: Told, opened: Opened) -> dict[str, Any]:
    """What of a swing lay open, as in `WalkClip`; it hangs on looked-at marks only."""
    readings = told.readings
    wanted = sorted({reading for part, reading, _ in opened if part == "curves"})
    starts = [
        {"part": each.at, "value": each.value, "u95": each.u95}
        for each in readings
        if each.reading == "start_times" and each.value is not None and not each.provisional
    ]
    return {
        "curves": [curve for reading in wanted if (curve := _curve(swing, reading))],
        "starts": starts if any(part == "relay" for part, _, _ in opened) else [],
        "floor": _floor(told) if any(part == "floor" for part, _, _ in opened) else [],
        "tapes": list(
            _tapes(swing, readings, {(reading, at) for part, reading, at in opened if part == "tape"})
        ),
    }


def _floor(told: Told) -> list[dict[str, Any]]:
    """The feet and hips from above; nothing where what is read off the floor is provisional."""
    if any(each.provisional for each in told.readings if each.reading in OFF_THE_FLOOR):
        return []
    marks = (asdict(mark) for mark in told.floor.marks)
    return [{key: mark[key] for key in ("name", "at", "t", "b")} for mark in marks]


def _tapes(swing: Swing, readings: Iterable[Reading], wanted: set[Key]) -> Iterator[dict[str, Any]]:
    asked = asked_of_swing(swing) if wanted else None
    for each in readings:
        key = (each.reading, each.at)
        if key not in wanted or each.value is None or each.u95 is None or each.provisional:
            continue
        band = asked.bands.get(key) if asked else None
        yield {
            "reading": each.reading,
            "at": each.at,
            "unit": KINDS[each.reading].unit,
            "value": each.value,
            "u95": each.u95,
            "low": band.low if band else None,
            "high": band.high if band else None,
        }


def _curve(swing: Swing, reading: str) -> dict[str, Any] | None:
    """A reading over time from impact; None where it has no curve, or impact is not pegged."""
    told = course(swing, [reading])
    if not told["curves"]:
        return None
    times = times_from_impact_s(swing, clip_of(swing.instructor, told["clip_id"]))
    if times is None:
        return None
    curve: dict[str, Any] = told["curves"][0]
    return curve | {"at_s": [round(times[frame], 4) for frame in told["frames"]]}
