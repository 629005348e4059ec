"""Trials of strangers: records, and the true values of their readings at the checkpoints' own times."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from tests.strangers.filming import Scale, film
from tests.strangers.swing import B, Swing, T
from tropometer.golfer.true_readings import _At, _at_some, _everywhere, _set_up, going_back
from tropometer.swing.names import CHECKPOINTS, VIEWS, View
from tropometer.swing.read import read
from tropometer.swing.record.swing import SwingRecord

SetUp = Literal[
    "both, mat",
    "both, squared mat",
    "both, mat, frames beside",
    "both, stick",
    "two swings, mat",
    "face-on, mat",
    "face-on, stick",
    "line, mat",
    "line, stick",
    "behind and up, mat",
    "behind, mat",
    "up the line, mat",
    "four sides, mat",
]
BOTH: tuple[View, ...] = ("face_on", "down_the_line")
TWO_SWINGS: SetUp = "two swings, mat"
BESIDE: SetUp = "both, mat, frames beside"
SO_MANY_BESIDE = 3
SET_UPS: dict[SetUp, tuple[tuple[View, ...], Scale]] = {
    "both, mat": (BOTH, "mat"),
    "both, squared mat": (BOTH, "squared mat"),
    BESIDE: (BOTH, "mat"),
    "both, stick": (BOTH, "stick"),
    TWO_SWINGS: (BOTH, "mat"),
    "face-on, mat": (("face_on",), "mat"),
    "face-on, stick": (("face_on",), "stick"),
    "line, mat": (("down_the_line",), "mat"),
    "line, stick": (("down_the_line",), "stick"),
    "behind and up, mat": (("from_behind", "up_the_line"), "mat"),
    "behind, mat": (("from_behind",), "mat"),
    "up the line, mat": (("up_the_line",), "mat"),
    "four sides, mat": (VIEWS, "mat"),
}


@dataclass(frozen=True)
class Trial:
    """A record as somebody would mark it, and the true values of its readings by name and checkpoint."""

    record: SwingRecord
    true: dict[tuple[str, str], float | str]
    swing: Swing
    by_view: dict[str, dict[tuple[str, str], float | str]]  # the true values of the swing that a view shows


def trials(set_up: SetUp, count: int, seed: int = 0) -> Iterator[Trial]:
    """So many random trials of a set-up."""
    views, scale = SET_UPS[set_up]
    for number in range(count):
        random, beside = np.random.default_rng([seed, number]), SO_MANY_BESIDE if set_up == BESIDE else 0
        filmed = film(views, scale, random, one_swing=set_up != TWO_SWINGS, beside=beside)
        by_view = {view: true_readings(swing) for view, swing in filmed.swings.items()}
        yield Trial(filmed.record, by_view[views[0]], filmed.swing, dict(by_view))


@dataclass(frozen=True)
class Missed:
    """By how much a reading missed its true value, and by how much it said that it might."""

    reading: str
    at: str
    unit: str
    by: float
    u95: float

    @property
    def held(self) -> bool:
        """Whether the interval holds the true value."""
        return abs(self.by) <= self.u95


def missed_in(trial: Trial) -> list[Missed]:
    """What is given in a trial and is a number whose truth is known; an exact nothing is no interval."""
    found = []
    for each in read(trial.record).readings:
        true = trial.by_view[each.clips[0]].get((each.reading, each.at)) if each.clips else None
        if isinstance(true, float) and each.value is not None and each.u95:
            found.append(Missed(each.reading, each.at, each.unit, each.value - true, each.u95))
    return found


def true_readings(swing: Swing) -> dict[tuple[str, str], float | str]:
    """By the golfer's own formulas, which share nothing with the core's."""
    times = np.array([swing.timing.checkpoints_s[at] for at in CHECKPOINTS])
    places, pelvis = swing.places(times), swing.pelvis(times)
    every = np.ones((len(times), 1))
    for name, way in (("lead_hip_edge", T), ("trail_hip_edge", -T), ("seat", -B)):
        places[name] = pelvis.outline(name, every * way)
    at_them = _At({name: place[:, [0, 2, 1]] for name, place in places.items()})
    found: dict[tuple[str, str], float | str] = {(n, "address"): float(v) for n, v, _ in _set_up(at_them)}
    for at in CHECKPOINTS:
        found |= {(name, at): float(value) for name, value, _ in _everywhere(at_them, at)}
    found |= {(name, at): float(value) for name, at, value, _ in _at_some(at_them)}
    shoulder, grip, head = (at_them.marks[name] for name in ("lead_shoulder", "grip", "club_head"))
    for at in ("arm_down", "shaft_down", "impact"):
        i = CHECKPOINTS.index(at)
        arm, shaft = shoulder[i] - grip[i], head[i] - grip[i]
        cosine = arm @ shaft / np.linalg.norm(arm) / np.linalg.norm(shaft)
        found["arm_shaft_angle", at] = float(np.degrees(np.arccos(cosine)))
    top = [float(found[name, "top"]) for name in ("pelvis_sway", "trail_hip_push", "pelvis_turn")]
    found["going_back", "top"] = going_back(*top)
    return found
