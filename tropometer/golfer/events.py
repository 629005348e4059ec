"""When things happen in a swing: checkpoints and the events that have a time of their own."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from scipy.optimize import brentq

from tropometer.golfer.legs import flexion
from tropometer.golfer.motion import Motion, Poses
from tropometer.golfer.rotations import Floats, unit
from tropometer.golfer.settings import EVENTS, IMPACT, START_S, TOP
from tropometer.swing.names import Checkpoint

SCAN_HZ = 1000
EXACT_S = 1e-7
STEP_S = 1e-4  # of the central differences that give speeds
HEEL_OFF_M = 0.010
KNEE_STRAIGHT_DEG = 10.0
POST_M = 0.18

Quantity = Callable[[Poses], Floats]


@dataclass(frozen=True)
class Timing:
    """Seconds from the start of the footage; an event that does not happen is None."""

    checkpoints: dict[Checkpoint, float]  # of one that never comes, the time of its keys
    never: frozenset[Checkpoint]  # a short swing's arm does not come level
    starts: dict[str, float]  # first forward motion of each part
    start_of_swing: float
    lead_knee_straight: float | None
    heel_off_trail: float | None
    heel_return_lead: float | None


def azimuth(line: Floats) -> Floats:
    """Turn of a line (n, 3) from trail to lead about the vertical, away from the target positive, degrees."""
    turn: Floats = np.degrees(np.unwrap(np.arctan2(line[:, 2], line[:, 0])))
    return turn


def shoulder_line(poses: Poses) -> Floats:
    """From the trail to the lead shoulder (n, 3)."""
    return poses.arms["lead"].shoulder - poses.arms["trail"].shoulder


def hip_line(poses: Poses) -> Floats:
    """From the trail to the lead hip joint (n, 3)."""
    return poses.legs["lead"].hip - poses.legs["trail"].hip


def knee_flexion(poses: Poses, side: str) -> Floats:
    """Flexion (n,) of a knee, degrees."""
    leg = poses.legs[side]
    return flexion(leg.hip, leg.knee, leg.ankle)


def _arc(motion: Motion) -> dict[str, Quantity]:
    """What must cross a level or turn round, as functions of poses."""
    plane = motion.plane

    def round_plane(direction: Floats) -> Floats:
        arc: Floats = np.degrees(np.unwrap(np.arctan2(direction @ [1.0, 0, 0], -direction @ plane.up)))
        return arc

    return {
        "lead_knee": lambda p: p.legs["lead"].knee[:, 0],
        "pelvis_shift": lambda p: p.pelvis.middle[:, 0],
        "pelvis_turn": lambda p: -azimuth(hip_line(p)),
        "chest": lambda p: -azimuth(shoulder_line(p)),
        "lead_arm": lambda p: round_plane(unit(p.arms["lead"].wrist - p.arms["lead"].shoulder)),
        "club": lambda p: round_plane(p.club.shaft),
    }


def _root(motion: Motion, quantity: Quantity, low: float, high: float) -> float:
    return float(brentq(lambda t: float(quantity(motion.poses(np.array([t])))[0]), low, high, xtol=EXACT_S))


def crossing(motion: Motion, quantity: Quantity, after: float, before: float) -> float | None:
    """First time in an interval at which a quantity changes sign, or None."""
    times = np.arange(after, before, 1 / SCAN_HZ)
    values = quantity(motion.poses(times))
    changes = np.nonzero(np.diff(np.sign(values)))[0]
    if not len(changes):
        return None
    return _root(motion, quantity, float(times[changes[0]]), float(times[changes[0] + 1]))


def turns_round(motion: Motion, quantity: Quantity, after: float, before: float) -> float:
    """When a quantity is least in an interval: there its speed changes from falling to rising."""
    times = np.arange(after, before, 1 / SCAN_HZ)
    least = int(np.argmin(quantity(motion.poses(times))))
    low, high = times[max(least - 1, 0)], times[min(least + 1, len(times) - 1)]

    def speed(t: float) -> float:
        values = quantity(motion.poses(np.array([t - STEP_S, t + STEP_S])))
        return float(values[1] - values[0])

    if speed(low) * speed(high) > 0:
        return float(times[least])
    return float(brentq(speed, low, high, xtol=EXACT_S))


def timing(motion: Motion) -> Timing:
    """All times of a swing, to well under a microsecond where the event is a crossing."""
    keys = motion.event_times_s
    parts = _arc(motion)
    back, transition = (START_S, keys[TOP]), (keys[TOP - 1], keys[IMPACT])
    top = turns_round(motion, parts["club"], *transition)
    impact = float(keys[IMPACT])

    def level_shaft(p: Poses) -> Floats:
        return p.club.shaft[:, 1]

    def level_arm(p: Poses) -> Floats:
        return p.arms["lead"].wrist[:, 1] - p.arms["lead"].shoulder[:, 1]

    met: dict[Checkpoint, float | None] = {
        "address": START_S,
        "shaft_back": crossing(motion, level_shaft, *back),
        "arm_back": crossing(motion, level_arm, *back),
        "top": top,
        "arm_down": crossing(motion, level_arm, top, impact),
        "shaft_down": _last(motion, level_shaft, top, impact),
        "impact": impact,
        "shaft_through": crossing(motion, level_shaft, impact + 0.005, motion.end_s),
        "finish": float(keys[-1]),
    }
    starts = {name: turns_round(motion, quantity, *transition) for name, quantity in parts.items()}
    return Timing(
        checkpoints={at: float(keys[EVENTS.index(at)]) if time is None else time for at, time in met.items()},
        never=frozenset(at for at, time in met.items() if time is None),
        starts=starts,
        start_of_swing=START_S,
        lead_knee_straight=crossing(
            motion, lambda p: knee_flexion(p, "lead") - KNEE_STRAIGHT_DEG, top, motion.end_s
        ),
        heel_off_trail=_heel(motion, "trail", top, motion.end_s),
        heel_return_lead=_heel(motion, "lead", top - 0.1, impact),
    )


def _last(motion: Motion, quantity: Quantity, after: float, before: float) -> float | None:
    """The last sign change in an interval."""
    times = np.arange(after, before, 1 / SCAN_HZ)
    changes = np.nonzero(np.diff(np.sign(quantity(motion.poses(times)))))[0]
    if not len(changes):
        return None
    return _root(motion, quantity, float(times[changes[-1]]), float(times[changes[-1] + 1]))


def _heel(motion: Motion, side: str, after: float, before: float) -> float | None:
    """When a heel passes one centimetre over its place at address."""
    floor = motion.poses(np.array([START_S])).feet[side].heel[0, 1]
    return crossing(motion, lambda p: p.feet[side].heel[:, 1] - floor - HEEL_OFF_M, after, before)
