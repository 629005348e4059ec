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


class _Scan:
    """Looks for events in a motion; the poses of a stretch are found once, whatever is looked for in it."""

    def __init__(self, motion: Motion) -> None:
        self.motion = motion
        self._stretches: dict[tuple[float, float], tuple[Floats, Poses]] = {}

    def first(self, quantity: Quantity, after: float, before: float) -> float | None:
        """First time in an interval at which a quantity changes sign, or None."""
        return self._crossing(quantity, after, before, 0)

    def last(self, quantity: Quantity, after: float, before: float) -> float | None:
        """The last time, or None."""
        return self._crossing(quantity, after, before, -1)

    def turns_round(self, quantity: Quantity, after: float, before: float) -> float:
        """When a quantity is least in an interval: there its speed changes from falling to rising."""
        times, poses = self._stretch(after, before)
        least = int(np.argmin(quantity(poses)))
        low, high = times[max(least - 1, 0)], times[min(least + 1, len(times) - 1)]

        def speed(t: float) -> float:
            values = quantity(self.motion.poses(np.array([t - STEP_S, t + STEP_S])))
            return float(values[1] - values[0])

        if speed(low) * speed(high) > 0:
            return float(times[least])
        return float(brentq(speed, low, high, xtol=EXACT_S))

    def _stretch(self, after: float, before: float) -> tuple[Floats, Poses]:
        if (after, before) not in self._stretches:
            times = np.arange(after, before, 1 / SCAN_HZ)
            self._stretches[after, before] = times, self.motion.poses(times)
        return self._stretches[after, before]

    def _crossing(self, quantity: Quantity, after: float, before: float, which: int) -> float | None:
        times, poses = self._stretch(after, before)
        changes = np.nonzero(np.diff(np.sign(quantity(poses))))[0]
        if not len(changes):
            return None
        low, high = float(times[changes[which]]), float(times[changes[which] + 1])

        def value(t: float) -> float:
            return float(quantity(self.motion.poses(np.array([t])))[0])

        return float(brentq(value, low, high, xtol=EXACT_S))


def timing(motion: Motion) -> Timing:
    """All times of a swing, to well under a microsecond where the event is a crossing."""
    keys = motion.event_times_s
    parts, scan = _arc(motion), _Scan(motion)
    back, transition = (START_S, keys[TOP]), (keys[TOP - 1], keys[IMPACT])
    top = scan.turns_round(parts["club"], *transition)
    impact = float(keys[IMPACT])

    def level_shaft(p: Poses) -> Floats:
        return p.club.shaft[:, 1]

    def level_arm(p: Poses) -> Floats:
        return p.arms["lead"].wrist[:, 1] - p.arms["lead"].shoulder[:, 1]

    met: dict[Checkpoint, float | None] = {
        "address": START_S,
        "shaft_back": scan.first(level_shaft, *back),
        "arm_back": scan.first(level_arm, *back),
        "top": top,
        "arm_down": scan.first(level_arm, top, impact),
        "shaft_down": scan.last(level_shaft, top, impact),
        "impact": impact,
        "shaft_through": scan.first(level_shaft, impact + 0.005, motion.end_s),
        "finish": float(keys[-1]),
    }
    starts = {name: scan.turns_round(quantity, *transition) for name, quantity in parts.items()}
    return Timing(
        checkpoints={at: float(keys[EVENTS.index(at)]) if time is None else time for at, time in met.items()},
        never=frozenset(at for at, time in met.items() if time is None),
        starts=starts,
        start_of_swing=START_S,
        lead_knee_straight=scan.first(
            lambda p: knee_flexion(p, "lead") - KNEE_STRAIGHT_DEG, top, motion.end_s
        ),
        heel_off_trail=scan.first(_off_the_floor(motion, "trail"), top, motion.end_s),
        heel_return_lead=scan.first(_off_the_floor(motion, "lead"), top - 0.1, impact),
    )


def _off_the_floor(motion: Motion, side: str) -> Quantity:
    """How far a heel is over one centimetre over its place at address."""
    floor = motion.poses(np.array([START_S])).feet[side].heel[0, 1]
    return lambda p: p.feet[side].heel[:, 1] - floor - HEEL_OFF_M
