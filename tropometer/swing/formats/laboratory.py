"""Markers of a movement laboratory taken in: which stands for which mark, and where the target lies."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.names import MARKS, Hand, spoken

Axis = Literal["+x", "-x", "+y", "-y", "+z", "-z"]
AXES: tuple[Axis, ...] = get_args(Axis)
UNIT_M = {"mm": 0.001, "cm": 0.01, "m": 1.0}
MOST_MARKERS, MOST_FRAMES = 500, 30_000
LEAST_HZ, MOST_HZ = 20.0, 2000.0
FEET = ("lead_ankle", "lead_heel", "lead_toe", "trail_ankle", "trail_heel", "trail_toe")
NEEDED = ("lead_ankle", "trail_ankle", "lead_hip", "trail_hip")
# How far a marker may be from the mark that it stands for, metres: the hip's centre is reckoned from the
# pelvis, to about 2 cm (Leardini et al. 1999, J. Biomech. 32:99, from memory); the rest common practice, no
# source.
OFF_M, HIP_OFF_M = 0.01, 0.02
FLOOR_M = (-0.06, 0.20)  # where the lowest marker of a foot lies, if the file's floor is at height 0
SIDES = {"l": "left", "left": "left", "r": "right", "right": "right"}
PARTS = "hip knee ankle heel toe shoulder elbow wrist"
BY_SIDE = re.compile(rf"^(l|left|r|right)?({PARTS.replace(' ', '|')})(l|left|r|right)?$")


@dataclass(frozen=True, kw_only=True, eq=False)
class Recorded:
    """Markers over time: `places` (frames, markers, 3), metres in the file's own right-handed axes.

    NaN where a marker is not seen. Raises RecordError where that is no recording of a movement.
    """

    labels: tuple[str, ...]
    rate_hz: float
    places: Array

    def __post_init__(self) -> None:
        if not 1 <= len(self.labels) <= MOST_MARKERS:
            raise RecordError("markers", f"there are {len(self.labels)}; 1 to {MOST_MARKERS} are read.")
        if not LEAST_HZ <= self.rate_hz <= MOST_HZ:
            raise RecordError(
                "rate", f"{self.rate_hz:g} frames a second; {LEAST_HZ:g} to {MOST_HZ:g} are read."
            )
        if not 2 <= len(self.places) <= MOST_FRAMES:
            raise RecordError("frames", f"there are {len(self.places)}; 2 to {MOST_FRAMES} are read.")
        if self.places.shape[1:] != (len(self.labels), 3):
            raise RecordError("markers", "the places do not fit their names.")


@dataclass(frozen=True, kw_only=True)
class Meaning:
    """What a file's markers stand for: `marks` by label, the axis that is up, and the one to the target.

    Several labels of one mark are its two sides: the mark lies midway.
    """

    marks: Mapping[str, str]
    up: Axis
    toward: Axis


def metres(unit: str) -> float:
    """Metres of a unit of length as files name it; RecordError where it is none."""
    if unit.strip().lower() not in UNIT_M:
        raise RecordError("units", f"“{unit.strip()[:20]}” is none of {', '.join(UNIT_M)}.")
    return UNIT_M[unit.strip().lower()]


def guessed(recorded: Recorded, hand: Hand) -> Meaning:
    """What labels say of themselves, and how hips lie above ankles and the lead foot beside the other."""
    marks = {label: mark for label in recorded.labels if (mark := _named(label, hand))}
    places = _by_mark(recorded, marks)
    up: Axis = "+z"
    toward: Axis = "+x"
    if all(name in places for name in NEEDED):
        lead, trail, *hips = (np.nanmedian(places[name], axis=0) for name in NEEDED)
        up = _nearest(np.mean(hips, axis=0) - (lead + trail) / 2)
        first = np.isfinite(places["lead_ankle"] + places["trail_ankle"]).all(axis=1)
        if first.any():
            apart = (places["lead_ankle"] - places["trail_ankle"])[int(first.argmax())]
            toward = _nearest(np.where(_direction(up) == 0, apart, 0.0))
    if up[1] == toward[1]:
        toward = next(axis for axis in AXES if axis[1] != up[1])
    return Meaning(marks=marks, up=up, toward=toward)


def placed_marks(recorded: Recorded, meaning: Meaning, hand: Hand) -> dict[str, Array]:
    """Marks (frames, 3) along T, B, U about the middle of the feet at the first frame, metres.

    B is toward the ball: the player's front, in right-handed axes the vector product of T and U for a
    right-hander, and opposite for a left-hander. Raises RecordError where axes, markers or the floor make no
    sense.
    """
    if meaning.up[1] == meaning.toward[1]:
        raise RecordError("toward", "what is up cannot also be toward the target.")
    if unknown := sorted(set(meaning.marks.values()) - MARKS):
        raise RecordError("marks", f"“{unknown[0]}” is no mark.")
    places = _by_mark(recorded, meaning.marks)
    missing = [spoken(name) for name in NEEDED if name not in places or np.isnan(places[name]).all()]
    if missing:
        raise RecordError("marks", f"nothing stands for the {', the '.join(missing)}.")
    toward, up = _direction(meaning.toward), _direction(meaning.up)
    front = np.cross(toward, up) * (1.0 if hand == "right" else -1.0)
    turned = {name: place @ np.stack([toward, front, up]).T for name, place in places.items()}
    if np.nanmedian(turned["lead_hip"][:, 2]) < np.nanmedian(turned["lead_ankle"][:, 2]):
        raise RecordError("up", "the hips lie below the ankles.")
    feet = np.stack([turned[name] for name in FEET if name in turned])
    lowest = float(np.nanmin(feet[..., 2]))
    if not FLOOR_M[0] <= lowest <= FLOOR_M[1]:
        where = f"{abs(lowest) * 100:.0f} cm {'above' if lowest > 0 else 'below'} the file's floor"
        raise RecordError("up", f"the lowest marker of a foot is {where}; it should lie on it.")
    both = np.isfinite(turned["lead_ankle"] + turned["trail_ankle"]).all(axis=1)
    if not both.any():
        raise RecordError("marks", "the ankles are never seen together.")
    at = int(both.argmax())
    if turned["lead_ankle"][at, 0] <= turned["trail_ankle"][at, 0]:
        raise RecordError("toward", "the lead foot is farther from the target than the trail foot.")
    middle = (turned["lead_ankle"][at] + turned["trail_ankle"][at]) / 2 * [1.0, 1.0, 0.0]
    return {name: place - middle for name, place in turned.items()}


def off_m(name: str) -> float:
    """How far a marker may lie from the mark it stands for, one standard deviation, metres."""
    return HIP_OFF_M if name in ("lead_hip", "trail_hip") else OFF_M


def for_hand(marks: Mapping[str, str], made: Hand, hand: Hand) -> dict[str, str]:
    """What labels of one's left and right stand for with the other hand; lead and trail stay themselves."""
    if made == hand:
        return dict(marks)
    other = {"lead_": "trail_", "trail_": "lead_"}
    swapped = dict(marks)
    for label, mark in marks.items():
        side = next((each for each in other if mark.startswith(each)), None)
        if side and _plain(label) != _plain(mark):
            swapped[label] = other[side] + mark.removeprefix(side)
    return swapped


def _by_mark(recorded: Recorded, marks: Mapping[str, str]) -> dict[str, Array]:
    columns: dict[str, list[int]] = {}
    for row, label in enumerate(recorded.labels):
        if label in marks:
            columns.setdefault(marks[label], []).append(row)
    return {name: recorded.places[:, rows].mean(axis=1) for name, rows in columns.items()}


def _named(label: str, hand: Hand) -> str | None:
    """The mark that a label names: ours, or a part of the player's left or right."""
    plain = _plain(label)
    ours = {name.replace("_", ""): name for name in MARKS}
    if plain in ours:
        return ours[plain]
    found = BY_SIDE.match(plain)
    if found is None or (found[1] is None) == (found[3] is None):
        return None
    lead = "left" if hand == "right" else "right"
    return f"{'lead' if SIDES[found[1] or found[3]] == lead else 'trail'}_{found[2]}"


def _plain(label: str) -> str:
    return re.sub(r"[^a-z]", "", label.rpartition(":")[2].lower())


def _direction(axis: Axis) -> Array:
    direction = np.zeros(3)
    direction["xyz".index(axis[1])] = 1.0 if axis[0] == "+" else -1.0
    return direction


def _nearest(direction: Array) -> Axis:
    """The axis that points most nearly that way."""
    best = int(np.nanargmax(np.abs(direction)))
    found: Axis = AXES[2 * best + (0 if direction[best] >= 0 else 1)]
    return found
