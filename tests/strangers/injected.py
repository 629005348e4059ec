"""Faults put into a stranger's swing, by the strangers' own keys: share 0 leaves it, 1 is a plain case.

A fault names what the golfer does at some checkpoints instead of their own way; a share between blends both.
What a plain case looks like is common practice, no source.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace

import numpy as np
from scipy.interpolate import PchipInterpolator

from tests.strangers.swing import Floats, Swing, _too_high
from tropometer.swing.names import CHECKPOINTS

Keys = Mapping[str, Mapping[str, float]]


@dataclass(frozen=True, kw_only=True)
class Injected:
    """What a golfer with a fault does: keyed parts at checkpoints, and how they stand.

    `stance` blends to values of the strangers' own stance; `stands` changes it otherwise.
    """

    keys: Keys = field(default_factory=dict)
    stance: Mapping[str, float] = field(default_factory=dict)
    stands: Callable[[Swing], Mapping[str, float]] | None = None


def heels(ratio: Mapping[str, float]) -> Callable[[Swing], Mapping[str, float]]:
    """Heels so many breadths of the shoulders apart, by club."""

    def apart(swing: Swing) -> Mapping[str, float]:
        half = ratio[swing.club] * swing.body["shoulders"] / 2
        return {"lead_heel_t": half, "trail_heel_t": -half}

    return apart


def closed(swing: Swing) -> Mapping[str, float]:
    """The trail foot back from the ball."""
    back = swing.stance["lead_heel_t"] * np.tan(np.radians(9.0))
    square = {"lead_flare": 8.0, "trail_flare": 8.0}
    return {"lead_heel_b": float(back), "trail_heel_b": float(-back), **square}


def hands(share: float) -> Callable[[Swing], Mapping[str, float]]:
    """Hands, and with them the ball, so far along from trail heel (-1) to lead heel (1)."""
    return lambda swing: {"hands_t": share * swing.stance["lead_heel_t"]}


BACK = ("shaft_back", "arm_back", "top")
INJECTED: dict[str, Injected] = {
    "stance_too_wide": Injected(stands=heels({"wedge": 1.3, "mid_iron": 1.65, "driver": 1.85})),
    "stance_too_narrow": Injected(stands=heels({"wedge": 0.6, "mid_iron": 0.75, "driver": 0.95})),
    "square_feet": Injected(
        keys={"turn": {"shaft_back": 8, "arm_back": 18, "top": 24}},
        stance={"lead_flare": 0.0, "trail_flare": 0.0},
    ),
    "closed_toe_line": Injected(stands=closed),
    "pelvis_behind_its_place": Injected(stance={"pelvis_t": -0.03}),
    "neck_dropped": Injected(stance={"neck_bows": np.radians(68.0)}),
    "knees_pushed_in": Injected(keys={"trail_knee_out": {"address": -60, "shaft_back": -30}}),
    "no_bump_with_the_driver": Injected(stance={"pelvis_t": -0.03}),
    "ball_too_far_back": Injected(stands=hands(-0.5)),
    "ball_too_far_forward": Injected(stands=hands(1.5)),
    "sways": Injected(
        keys={
            "sway": {"shaft_back": -0.06, "arm_back": -0.12, "top": -0.16, "arm_down": -0.09},
            "turn": {"shaft_back": 5, "arm_back": 14, "top": 20},
            "push": {"shaft_back": 0.005, "arm_back": 0.012, "top": 0.02},
        }
    ),
    "empty_turn": Injected(
        keys={
            "sway": dict.fromkeys(BACK, 0.02),
            "push": dict.fromkeys(BACK, 0.025),
            "turn": {"shaft_back": 15, "arm_back": 36, "top": 52},
        }
    ),
    "restricted_turn": Injected(keys={"turn": {"shaft_back": 7, "arm_back": 16, "top": 22}}),
    "trail_knee_held": Injected(
        keys={"slant": {"arm_back": 6, "top": 10}, "rise": {"arm_back": -0.015, "top": -0.03}}
    ),
    "trail_knee_locked": Injected(
        keys={
            "slant": {"arm_back": -16, "top": -28},
            # A stranger's knee is never straighter than by 8 degrees: it locks from a deeper stand.
            "rise": {"address": -0.05, "arm_back": 0.01, "top": 0.02},
            "sway": {"arm_back": -0.01, "top": 0.0},
        }
    ),
    "passive_lead_knee": Injected(
        keys={
            "lead_knee_out": {"arm_back": 20, "top": 30},
            "slant": {"arm_back": 5, "top": 8},
            "rise": {"arm_back": 0.02, "top": 0.03},
            "sway": {"arm_back": 0.0, "top": 0.01},
            "turn": {"arm_back": 22, "top": 28},
        }
    ),
    "lead_heel_high": Injected(keys={"lead_heel": {"shaft_back": 0.02, "arm_back": 0.07, "top": 0.11}}),
    "lead_side_lean": Injected(keys={"side": {"arm_back": -8, "top": -20}}),
    "arms_lifted": Injected(
        keys={
            "chest": {"arm_back": 26, "top": 30},
            "push": {"arm_back": 0.03, "top": 0.06},
            "incline": {"arm_back": 6, "top": 12},
        },
        stance={"plane": 89.0},
    ),
    "lead_shoulder_high": Injected(keys={
            "side": {"shaft_back": 14, "arm_back": 26, "top": 18},
            "incline": {"shaft_back": -8, "arm_back": -20, "top": -12},
        }),
    "short_shoulders": Injected(keys={"chest": {"shaft_back": 12, "arm_back": 36, "top": 56}}),
    "club_inside": Injected(keys={"shaft": {"shaft_back": -115}}),
    "across_the_line": Injected(keys={"shaft": {"top": -318}}),
    "both_heels_up": Injected(
        keys={
            "lead_heel": {"top": 0.03, "arm_down": 0.05, "shaft_down": 0.02},
            "trail_heel": {"arm_down": 0.05, "shaft_down": 0.06},
        }
    ),
    "seat_leaves_the_wall": Injected(
        keys={
            "push": {"arm_down": 0.04, "shaft_down": 0.09, "impact": 0.11, "shaft_through": 0.10},
            "turn": {"shaft_down": -5, "impact": -28},
        }
    ),
    "slides": Injected(
        keys={
            "sway": {"arm_down": 0.08, "shaft_down": 0.14, "impact": 0.19, "shaft_through": 0.19},
            "turn": {"arm_down": 24, "shaft_down": 8, "impact": -8, "shaft_through": -26},
        }
    ),
    "over_the_toes": Injected(
        keys={
            "push": {"arm_down": 0.05, "shaft_down": 0.12, "impact": 0.17, "shaft_through": 0.15},
            "turn": {"arm_down": 22, "shaft_down": 6, "impact": -6, "shaft_through": -26},
        }
    ),
    "trail_foot_spins": Injected(
        keys={
            "trail_heel": {"arm_down": 0.03, "shaft_down": 0.07, "impact": 0.12, "shaft_through": 0.14},
            "trail_roll": {"arm_down": 0, "shaft_down": -2, "impact": -6, "shaft_through": -4},
        }
    ),
    "trail_knee_breaks": Injected(
        keys={
            "trail_heel": {"arm_down": 0.05, "shaft_down": 0.06},
            "rise": {"arm_down": -0.07, "shaft_down": -0.04},
        }
    ),
    "not_stacked": Injected(keys={"sway": {"top": -0.09, "arm_down": -0.10, "shaft_down": -0.04}}),
    "post_late": Injected(
        keys={
            "sway": {"arm_down": -0.05, "shaft_down": -0.03, "impact": -0.01, "shaft_through": 0.02},
            "turn": {"arm_down": 26, "shaft_down": 8, "impact": -14},
        }
    ),
    "hips_square_at_impact": Injected(keys={"turn": {"arm_down": 30, "shaft_down": 14, "impact": -4}}),
    "lead_thigh_faces_the_ball": Injected(
        keys={"lead_knee_out": {"shaft_down": -25, "impact": -50, "shaft_through": -55}}
    ),
    "knees_far_apart": Injected(
        keys={
            "trail_knee_out": {"shaft_down": 20, "impact": 70, "shaft_through": 30},
            "rise": {"shaft_down": -0.04, "impact": -0.06},
        },
        stands=heels({"wedge": 1.7, "mid_iron": 1.75, "driver": 1.85}),
    ),
    "stands_up": Injected(
        keys={"incline": {"arm_down": -8, "shaft_down": -14, "impact": -20, "shaft_through": -24}}
    ),
    "angle_spent_early": Injected(keys={"shaft": {"arm_down": -120, "shaft_down": -48}}),
    "lead_foot_pinned": Injected(
        keys={"lead_spin": {"shaft_through": -4, "finish": -8}, "turn": {"finish": -95}}
    ),
    "hangs_back": Injected(
        keys={"sway": {"arm_down": -0.06, "shaft_down": -0.06, "impact": -0.05, "shaft_through": -0.04}}
    ),
}  # fmt: skip


def with_fault(swing: Swing, fault: str, share: float = 1.0) -> Swing:
    """The swing of somebody with a fault. Legs that would not reach bring the pelvis down, as everywhere."""
    injected = INJECTED[fault]
    at = _checkpoints(swing)
    stood = dict(swing.stance)
    wanted = {**injected.stance, **(injected.stands(swing) if injected.stands else {})}
    for name, value in wanted.items():
        stood[name] += share * (value - stood[name])
    paths = dict(swing.paths)
    for part, moments in injected.keys.items():
        own = np.asarray(paths[part](at), float)
        aside = np.zeros(len(at))
        for moment, value in moments.items():
            i = CHECKPOINTS.index(moment)
            aside[i] = share * (value - own[i])
        paths[part] = _plus(paths[part], at, aside, swing.timing.last_s)
    changed = replace(swing, stance=stood, paths=paths)
    if "hands_t" in wanted:
        changed = over_the_ball(changed)
    low = _too_high(changed, at)
    lowered = _plus(changed.paths["rise"], at, -low, swing.timing.last_s)
    return replace(changed, paths={**changed.paths, "rise": lowered})


def _plus(
    path: Callable[[Floats], Floats], at: Floats, aside: Floats, last_s: float
) -> Callable[[Floats], Floats]:
    """A path with amounts added at the checkpoints, smoothly between them."""
    times = np.concatenate([[0.0], at, [last_s]])
    more = PchipInterpolator(times, np.concatenate([aside[:1], aside, aside[-1:]]))
    return lambda times_s: np.asarray(path(times_s) + more(times_s))


def over_the_ball(swing: Swing) -> Swing:
    """Arms that hang over where the hands are to be at address."""
    at = _checkpoints(swing)
    places = swing.places(at[:1])
    reach = float(np.linalg.norm(places["grip"] - places["lead_shoulder"]))
    aside = swing.stance["hands_t"] - float(places["lead_shoulder"][0, 0])
    wanted = np.degrees(np.arcsin(np.clip(aside / reach, -0.6, 0.6)))
    more = np.zeros(len(at))
    more[0] = wanted - float(swing.paths["arm"](at[:1])[0])
    arm = _plus(swing.paths["arm"], at, more, swing.timing.last_s)
    return replace(swing, paths={**swing.paths, "arm": arm})


def _checkpoints(swing: Swing) -> Floats:
    return np.array([swing.timing.checkpoints_s[name] for name in CHECKPOINTS])
