"""The way in which the pelvis went back: from sway, push-back and turn together, as far as they are given."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import product

from tropometer.swing.error.source import Source
from tropometer.swing.error.value import NORMAL_95, Measured
from tropometer.swing.names import spoken
from tropometer.swing.readings.from_readings import from_readings
from tropometer.swing.readings.reading import Given, Need, Reading, Refused

# Limits between the ways; common practice, no source. Past its limit a reading is that low, or that high.
ASIDE_M, DEEP_M, TURNED_DEG = 0.02, 0.06, 35.0
LIMITS = {"pelvis_sway": (-ASIDE_M, -1), "trail_hip_push": (-DEEP_M, -1), "pelvis_turn": (TURNED_DEG, 1)}


def way_of(aside: bool, deep: bool, turned: bool) -> str:
    """What a pelvis that did these went back in."""
    if aside:
        return "loaded" if deep and turned else "pure_sway"
    return "centred" if deep else "empty_turn"


@from_readings("going_back", unit="sd", group="pelvis", at="top",
               sign="how far from the nearest limit, in standard deviations")  # fmt: skip
def going_back(found: Mapping[tuple[str, str], Reading]) -> Given:
    """Aside from 2 cm, deep from 6 cm of push-back, turned from 35°: loaded is all three, pure sway is aside
    without the others, centred is deep without aside, empty turn is neither.

    One side alone may tell it: who is aside and did not turn sways, however deep. Where what is not given
    would decide, that is said.
    """
    readings = {name: found[name, "top"] for name in LIMITS if (name, "top") in found}
    if any(each.u95 == 0 for each in readings.values()):
        raise Refused("The top is pegged on the frame of address.", Need("peg", "top", "top"))
    margins: dict[str, float] = {}  # past a limit in standard deviations; negative short of it
    for name, each in readings.items():
        if each.value is not None and each.u95 is not None:
            limit, way = LIMITS[name]
            margins[name] = way * (each.value - limit) / (each.u95 / NORMAL_95)
    past = {name: margin >= 0 for name, margin in margins.items()}
    ways = _ways(past)
    if len(ways) > 1:
        raise _undecided(readings, past, ways)
    (said,) = ways
    used = [readings[name] for name in margins if _ways({k: v for k, v in past.items() if k != name}) != ways]
    used = used or [readings[name] for name in margins]
    nearest = _nearest_change(margins, past, said)
    return Given(
        value=Measured.of(nearest, 1.0, Source("others", "going_back", "top")),
        clips=tuple(dict.fromkeys(clip for each in used for clip in each.clips)),
        frames=used[0].frames,
        said=said,
        provisional=any(each.provisional for each in used),
    )


def _ways(past: Mapping[str, bool]) -> frozenset[str]:
    """The ways that are possible, whatever the readings that are not given may be."""
    choices = [(past[name],) if name in past else (False, True) for name in LIMITS]
    return frozenset(way_of(*choice) for choice in product(*choices))


def _nearest_change(margins: Mapping[str, float], past: Mapping[str, bool], said: str) -> float:
    """How far readings must be wrong, the most wrong of them, for another way to be possible."""
    costs = []
    for flips in product((False, True), repeat=len(past)):
        flipped = {name for name, flip in zip(past, flips, strict=True) if flip}
        if _ways({name: there != (name in flipped) for name, there in past.items()}) != {said}:
            costs.append(max(abs(margins[name]) for name in flipped))
    return min(costs)


def _undecided(readings: Mapping[str, Reading], past: Mapping[str, bool], ways: frozenset[str]) -> Refused:
    """Says which ways are left, and the readings on which it hangs; why the first of them is not given."""
    lacking = [
        name
        for name in LIMITS
        if name not in past and any(_ways({**past, name: there}) != ways for there in (False, True))
    ]
    first = readings.get(lacking[0])
    why = first.reason if first else f"There is no {spoken(lacking[0])}."
    either = " or ".join(sorted(spoken(way) for way in ways)).capitalize()
    hangs = f"{either}: that hangs on the {' and the '.join(spoken(name) for name in lacking)}. "
    return Refused((hangs if past else "") + why, *(first.needs if first else ()))
