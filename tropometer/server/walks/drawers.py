"""What of a swing over time goes with a walk: the curves, and the relay, that lay open in it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING, Any

from tropometer.server.bench.course import course
from tropometer.server.bench.record import times_from_impact_s
from tropometer.server.clips.services import clip_of

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.swing.readings.reading import Reading

Opened = frozenset[tuple[str, str]]  # part of the drawer, and the reading


def opened_in(scores: Iterable[dict[str, Any]]) -> Opened:
    """What lay open in scores."""
    events = (event for each in scores for event in each["score"] if event["kind"] == "drawer")
    drawers = (event["drawer"] for event in events if event["drawer"])
    return frozenset((drawer["part"], drawer["reading"]) for drawer in drawers)


def laid_open(swing: Swing, readings: Iterable[Reading], opened: Opened) -> dict[str, Any]:
    """The curves and starts of a swing that lay open, as in `WalkClip`; they hang on looked-at marks only."""
    wanted = sorted({reading for part, reading in opened if part == "curves"})
    starts = [
        {"part": each.at, "value": each.value, "u95": each.u95}
        for each in readings
        if each.reading == "start_times" and each.value is not None and not each.provisional
    ]
    return {
        "curves": [curve for reading in wanted if (curve := _curve(swing, reading))],
        "starts": starts if any(part == "relay" for part, _ in opened) else [],
    }


def _curve(swing: Swing, reading: str) -> dict[str, Any] | None:
    """A reading over time from impact; None where it has no curve, or impact is not pegged."""
    told = course(swing, reading)
    if told["curve"] is None:
        return None
    times = times_from_impact_s(swing, clip_of(swing.instructor, told["clip_id"]))
    if times is None:
        return None
    curve: dict[str, Any] = told["curve"]
    return curve | {"at_s": [round(times[frame], 4) for frame in told["frames"]]}
