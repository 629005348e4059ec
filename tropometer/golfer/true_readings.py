"""The true value of every reading of the contract, from where things really are in a swing."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from tropometer.golfer.arms import arm_shaft_angle
from tropometer.golfer.events import POST_M, Timing, azimuth, knee_flexion
from tropometer.golfer.forces import Pressure
from tropometer.golfer.motion import Motion
from tropometer.golfer.rotations import Floats
from tropometer.golfer.truth_marks import Marks, mark_places
from tropometer.swing.names import CHECKPOINTS, Checkpoint

T, U, B = 0, 1, 2  # places in the range's vectors
POST_SCAN_HZ = 250
ADDRESS_AND_IMPACT: tuple[Checkpoint, ...] = ("address", "impact")
ELBOW_AT: tuple[Checkpoint, ...] = ("top", "shaft_down", "shaft_through")
SLANT_AT: tuple[Checkpoint, ...] = ("address", "arm_back", "top")
INSIDE_AT: tuple[Checkpoint, ...] = ("address", "top")
# Limits between the ways of going back.
ASIDE_M, DEEP_M, TURNED_DEG = 0.02, 0.06, 35.0


@dataclass(frozen=True)
class TrueReading:
    """A reading's true value; `at` is a checkpoint, or what a reading without one is of."""

    reading: str
    at: str
    value: float | str
    unit: str


class _At:
    """Marks at the checkpoints, by name."""

    def __init__(self, marks: Marks) -> None:
        self.marks = marks

    def place(self, name: str, at: Checkpoint) -> Floats:
        place: Floats = self.marks[name][CHECKPOINTS.index(at)]
        return place

    def moved(self, name: str, at: Checkpoint) -> Floats:
        return self.place(name, at) - self.place(name, "address")

    def middle(self, name: str, at: Checkpoint) -> Floats:
        middle: Floats = (self.place(f"lead_{name}", at) + self.place(f"trail_{name}", at)) / 2
        return middle

    def middle_moved(self, name: str, at: Checkpoint) -> Floats:
        return self.middle(name, at) - self.middle(name, "address")

    def line(self, name: str, at: Checkpoint) -> Floats:
        return self.place(f"lead_{name}", at) - self.place(f"trail_{name}", at)


def _degrees(y: float, x: float) -> float:
    return float(np.degrees(np.arctan2(y, x)))


def flare(place: _At, side: str, at: Checkpoint) -> float:
    """Angle of heel to toe from the ball's direction, outward positive."""
    foot = place.place(f"{side}_toe", at) - place.place(f"{side}_heel", at)
    return _degrees(foot[T] if side == "lead" else -foot[T], foot[B])


def knee_flexion_of(place: _At, side: str, at: Checkpoint) -> float:
    """180 minus the angle hip, knee, ankle."""
    hip, knee, ankle = (place.place(f"{side}_{name}", at) for name in ("hip", "knee", "ankle"))
    thigh, shank = hip - knee, ankle - knee
    return 180 - float(np.degrees(np.arccos(thigh @ shank / np.linalg.norm(thigh) / np.linalg.norm(shank))))


def facing(place: _At, side: str, at: Checkpoint) -> Floats:
    """What is square to the leg from ankle to hip and lies in the plane of its bend, carried to the level."""
    hip, knee, ankle = (place.place(f"{side}_{name}", at) for name in ("hip", "knee", "ankle"))
    leg = (hip - ankle) / np.linalg.norm(hip - ankle)
    aside = (knee - ankle) - (knee - ankle) @ leg * leg
    level: Floats = aside - leg * aside[U] / leg[U]
    return level


def _set_up(place: _At) -> Iterator[tuple[str, float, str]]:
    heels = place.line("heel", "address")
    yield "stance_width", heels[T], "m"
    yield "stance_ratio", heels[T] / float(np.linalg.norm(place.line("shoulder", "address"))), "ratio"
    for side in ("lead", "trail"):
        yield f"foot_flare_{side}", flare(place, side, "address"), "deg"
    toes = place.line("toe", "address")
    yield "toe_line", _degrees(toes[B], toes[T]), "deg"
    trail_heel = place.place("trail_heel", "address")
    yield "ball_position", (place.place("ball", "address")[T] - trail_heel[T]) / heels[T], "ratio"
    heels_middle = place.middle("heel", "address")[T]
    yield "pelvis_offset", place.middle("hip", "address")[T] - heels_middle, "m"
    neck = place.place("head", "address") - place.place("neck", "address")
    spine = place.place("neck", "address") - place.middle("hip", "address")
    yield "neck_incline", _degrees(neck[B], neck[U]) - _degrees(spine[B], spine[U]), "deg"
    yield "sternum_offset", place.place("sternum", "address")[T] - heels_middle, "m"


def _everywhere(place: _At, at: Checkpoint) -> Iterator[tuple[str, float, str]]:
    plumb = place.place("trail_foot_outer", "address")[T]
    gap = place.place("trail_hip_edge", at)[T] - plumb
    moved = place.middle_moved("hip", at)
    yield "pelvis_sway", moved[T], "m"
    yield "pelvis_rise", moved[U], "m"
    yield "trail_hip_gap", gap, "m"
    yield "trail_hip_gap_share", gap / (place.place("trail_hip_edge", "address")[T] - plumb), "ratio"
    yield "post_gap", POST_M - place.moved("lead_hip_edge", at)[T], "m"
    yield "pelvis_depth", place.moved("seat", at)[B], "m"
    yield "pelvis_push", moved[B], "m"
    hips, shoulders = place.line("hip", at), place.line("shoulder", at)
    yield "pelvis_turn", float(azimuth(hips[None])[0]), "deg"
    yield "shoulder_turn", float(azimuth(shoulders[None])[0]), "deg"
    yield "pelvis_slant", _degrees(hips[U], float(np.hypot(hips[T], hips[B]))), "deg"
    for side in ("lead", "trail"):
        yield f"knee_flex_{side}", knee_flexion_of(place, side, at), "deg"
        yield f"heel_lift_{side}", place.moved(f"{side}_heel", at)[U], "m"
        faces = facing(place, side, at)
        yield f"knee_points_{side}", _degrees(faces[T], faces[B]), "deg"
        sole = place.place(f"{side}_foot_outer", at) - place.place(f"{side}_foot_inner", at)
        tipped = _degrees(sole[U], float(np.hypot(sole[T], sole[B])))
        yield f"foot_roll_{side}", -tipped if side == "lead" else tipped, "deg"
    yield "toe_lift_lead", place.moved("lead_toe", at)[U], "m"
    spine = place.place("neck", at) - place.middle("hip", at)
    yield "spine_incline", _degrees(spine[B], spine[U]), "deg"
    yield "spine_side_tilt", _degrees(-spine[T], spine[U]), "deg"
    arm = place.place("grip", at) - place.place("lead_shoulder", at)
    yield "lead_arm_raise", _degrees(float(np.hypot(arm[T], arm[B])), -arm[U]), "deg"
    yield "head_travel_t", place.moved("head", at)[T], "m"
    yield "head_travel_u", place.moved("head", at)[U], "m"


def _at_some(place: _At) -> Iterator[tuple[str, Checkpoint, float, str]]:
    twisted: tuple[Checkpoint, ...] = ("top", "impact", "finish")
    bent: tuple[Checkpoint, ...] = ("top", "arm_down", "impact")
    stacked: tuple[Checkpoint, ...] = ("arm_down", "impact")
    for at in twisted:
        yield "foot_twist_lead", at, flare(place, "lead", at) - flare(place, "lead", "address"), "deg"
    for at in bent:
        change = knee_flexion_of(place, "trail", at) - knee_flexion_of(place, "trail", "address")
        yield "knee_flex_change_trail", at, change, "deg"
    yield "trail_hip_push", "top", place.moved("trail_hip", "top")[B], "m"
    yield "knee_height_difference", "top", -place.line("knee", "top")[U], "m"
    yield "lead_knee_travel_t", "top", place.moved("lead_knee", "top")[T], "m"
    yield "lead_knee_travel_b", "top", place.moved("lead_knee", "top")[B], "m"
    yield (
        "lead_knee_behind_ball",
        "top",
        place.place("lead_knee", "top")[T] - place.place("ball", "address")[T],
        "m",
    )
    for at in stacked:
        leg = place.place("lead_hip", at) - place.place("lead_ankle", at)
        yield "lead_leg_lean", at, _degrees(leg[T], leg[U]), "deg"
        knee = place.place("lead_knee", at) - place.place("lead_ankle", at)
        yield "lead_leg_knee_offset", at, knee[T] - leg[T] * knee[U] / leg[U], "m"
    for at in INSIDE_AT:
        line = place.place("trail_hip", at) - place.place("trail_ankle", at)
        knee = place.place("trail_knee", at) - place.place("trail_ankle", at)
        yield "trail_knee_inside", at, float(knee[T] - np.interp(knee[U], (0, line[U]), (0, line[T]))), "m"
    yield "knee_gap", "impact", place.line("knee", "impact")[T], "m"
    for at in SLANT_AT:
        across = place.line("shoulder", at)
        yield "shoulder_slant", at, float(np.degrees(np.arcsin(across[U] / np.linalg.norm(across)))), "deg"
    yield from _of_the_club(place)
    heel, toe = place.place("trail_heel", "top"), place.place("trail_toe", "top")
    butt = place.place("grip_butt", "top")
    yield "grip_plumb", "top", (butt[B] - heel[B]) / (toe[B] - heel[B]), "ratio"
    travel = place.place("lead_hip", "impact") - place.place("lead_hip", "top")
    yield "hip_travel", "impact", _degrees(-travel[B], travel[T]), "deg"
    clock = 9 + np.degrees(np.arctan2(travel[B], travel[T])) / 30  # 9 is the target, 12 the ball
    yield "hip_travel_clock", "impact", float(clock if clock <= 12 else clock - 12), "hours"


def _of_the_club(place: _At) -> Iterator[tuple[str, Checkpoint, float, str]]:
    def shaft(at: Checkpoint) -> Floats:
        return place.place("club_head", at) - place.place("grip", at)

    yield "club_inside", "shaft_back", shaft("shaft_back")[B], "m"
    yield "shaft_across", "top", _degrees(shaft("top")[B], shaft("top")[T]), "deg"
    down = shaft("arm_down")
    yield "shaft_pitch", "arm_down", float(np.degrees(np.arcsin(down[U] / np.linalg.norm(down)))), "deg"
    for at in ADDRESS_AND_IMPACT:
        yield "shaft_lean", at, _degrees(-shaft(at)[T], -shaft(at)[U]), "deg"
    for at in ELBOW_AT:
        upper = place.place("trail_shoulder", at) - place.place("trail_elbow", at)
        fore = place.place("trail_wrist", at) - place.place("trail_elbow", at)
        cosine = upper @ fore / np.linalg.norm(upper) / np.linalg.norm(fore)
        yield "trail_elbow_flex", at, 180 - float(np.degrees(np.arccos(cosine))), "deg"


def going_back(sway_m: float, push_m: float, turn_deg: float) -> str:
    """Which way a pelvis went back, from sway, push of the trail hip and turn at the top.

    Common practice, no source; the limits are ours.
    """
    aside, deep, turned = sway_m <= -ASIDE_M, push_m <= -DEEP_M, turn_deg >= TURNED_DEG
    if aside:
        return "loaded" if deep and turned else "pure_sway"
    return "centred" if deep else "empty_turn"


def true_readings(
    motion: Motion, timing: Timing, mat: Callable[[Floats], Pressure], *, posted: bool = True
) -> list[TrueReading]:
    """All true readings of a swing. `mat` gives the pressure at instants.

    When it is `posted` takes longest to find: the body's outline is looked for at every instant.
    """
    times = np.array([timing.checkpoints[at] for at in CHECKPOINTS])
    poses = motion.poses(times)
    place = _At(mark_places(motion, poses))
    found = [TrueReading(name, "address", float(value), unit) for name, value, unit in _set_up(place)]
    for at in CHECKPOINTS:
        found += [TrueReading(name, at, float(value), unit) for name, value, unit in _everywhere(place, at)]
    found += [TrueReading(name, at, float(value), unit) for name, at, value, unit in _at_some(place)]
    top = {reading.reading: reading.value for reading in found if reading.at == "top"}
    way = going_back(*(float(top[name]) for name in ("pelvis_sway", "trail_hip_push", "pelvis_turn")))
    found.append(TrueReading("going_back", "top", way, ""))
    angles = arm_shaft_angle(poses.arms["lead"].shoulder, poses.club)
    for at in ("arm_down", "shaft_down", "impact"):
        found.append(TrueReading("arm_shaft_angle", at, float(angles[CHECKPOINTS.index(at)]), "deg"))
    return found + list(_timed(motion, timing, posted)) + list(_mat(timing, mat, motion))


def _timed(motion: Motion, timing: Timing, asked: bool) -> Iterator[TrueReading]:
    top, impact = timing.checkpoints["top"], timing.checkpoints["impact"]
    for part, start in timing.starts.items():
        yield TrueReading("start_times", part, start - top, "s")
    order = ", ".join(sorted(timing.starts, key=lambda part: timing.starts[part]))
    yield TrueReading("start_order", "transition", order, "")
    yield TrueReading("tempo", "swing", (top - timing.start_of_swing) / (impact - top), "ratio")
    for name, at, since in (
        ("lead_knee_straight_time", timing.lead_knee_straight, impact),
        ("heel_off_trail", timing.heel_off_trail, impact),
        ("heel_return_lead", timing.heel_return_lead, top),
    ):
        if at is not None:
            yield TrueReading(name, "impact" if since == impact else "top", at - since, "s")
    swept = np.linspace(timing.start_of_swing, top + 0.05, 200)
    sway = motion.poses(swept).pelvis.middle[:, T]
    yield TrueReading("pelvis_sway", "extreme_back", float(sway.min() - sway[0]), "m")
    posted = _posted(motion, timing.start_of_swing, top) if asked else None
    if posted is not None:
        yield TrueReading("post_time", "impact", posted - impact, "s")
    straightest = np.linspace(top, motion.end_s, 400)
    yield TrueReading(
        "lead_knee_straightest",
        "through",
        float(knee_flexion(motion.poses(straightest), "lead").min()),
        "deg",
    )


def _posted(motion: Motion, start: float, top: float) -> float | None:
    """When the lead hip's outer edge has gone the post's distance from address; linear between scans."""
    scan = np.concatenate([[start], np.arange(top, motion.end_s, 1 / POST_SCAN_HZ)])
    edge = mark_places(motion, motion.poses(scan))["lead_hip_edge"][:, T]
    left = edge[0] + POST_M - edge[1:]
    met = np.nonzero((left[:-1] > 0) & (left[1:] <= 0))[0]
    if not len(met):
        return None
    i = int(met[0])
    return float(scan[i + 1] + left[i] / (left[i] - left[i + 1]) / POST_SCAN_HZ)


def _mat(timing: Timing, mat: Callable[[Floats], Pressure], motion: Motion) -> Iterator[TrueReading]:
    times = np.array([timing.checkpoints[at] for at in CHECKPOINTS])
    at_them = mat(times)
    share = at_them.lead_force_n / (at_them.lead_force_n + at_them.trail_force_n)
    for i, at in enumerate(CHECKPOINTS):
        yield TrueReading("pressure_lead_share", at, float(share[i]), "ratio")
        for side, places in (("lead", at_them.lead_place), ("trail", at_them.trail_place)):
            yield TrueReading(f"cop_{side}_toe", at, float(places[i, 0]), "ratio")
            yield TrueReading(f"cop_{side}_outer", at, float(places[i, 1]), "ratio")
    sweep = np.arange(timing.start_of_swing, timing.checkpoints["impact"], 1e-3)
    lead_share = motion.values(sweep)["lead_share"]
    top, impact = timing.checkpoints["top"], timing.checkpoints["impact"]
    least = int(np.argmin(lead_share))
    yield TrueReading("pressure_peak_trail", "swing", float(1 - lead_share[least]), "ratio")
    yield TrueReading("pressure_peak_trail_time", "top", float(sweep[least] - top), "s")
    crosses = np.nonzero(lead_share[least:] >= 0.5)[0]
    if len(crosses):
        yield TrueReading("pressure_cross_time", "impact", float(sweep[least + crosses[0]] - impact), "s")
