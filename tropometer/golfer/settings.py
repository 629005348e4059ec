"""What makes one swing: the settings of the golfer, in the trade's words, each with a unit and a range.

Keyed settings have one value for each event. Signs follow the readings: along the target line positive
toward the target, turns positive away from the target, lead and trail for either hand.
"""

from __future__ import annotations

from dataclasses import dataclass, field, fields, replace
from typing import Any, Literal

import numpy as np
import numpy.typing as npt

from tropometer.swing.names import Checkpoint

Floats = npt.NDArray[np.float64]
Club = Literal["wedge", "mid_iron", "driver"]
Event = Checkpoint | Literal["arm_through"]
EVENTS: tuple[Event, ...] = (
    "address",
    "shaft_back",
    "arm_back",
    "top",
    "arm_down",
    "shaft_down",
    "impact",
    "shaft_through",
    "arm_through",
    "finish",
)
Keys = tuple[float, float, float, float, float, float, float, float, float, float]


class SettingError(ValueError):
    """A setting outside its range, or settings that no body can take; names the setting."""


def keyed(about: str, unit: str, low: float, high: float, *values: float) -> Any:
    """A setting with a value at each event."""
    return field(default=values, metadata={"about": about, "unit": unit, "low": low, "high": high})


def single(about: str, unit: str, low: float, high: float, value: float) -> Any:
    """A setting with one value."""
    return field(default=value, metadata={"about": about, "unit": unit, "low": low, "high": high})


@dataclass(frozen=True)
class SwingSettings:
    """One swing. The defaults are a sound full swing with a mid iron."""

    club: Club = "mid_iron"

    # Set-up
    stance_ratio: float = single("heel to heel over shoulder width", "", 0.6, 1.9, 1.05)
    lead_flare: float = single("lead foot turned out", "°", -5, 45, 20)
    trail_flare: float = single("trail foot turned out", "°", -5, 45, 10)
    toe_line: float = single("line through the toes, closed positive", "°", -15, 15, 0)
    ball_position: float = single("ball between the heels, 1 at the lead heel", "", 0.2, 1.1, 0.62)
    pelvis_bump: float = single("pelvis from mid-stance at address", "m", -0.05, 0.06, 0.015)
    pelvis_back: float = single("hip joints behind the heels' line, negative behind", "m", -0.25, 0.0, -0.10)
    arm_hang: float = single("arms forward of the vertical at address", "°", 0, 25, 9)
    hands_ahead_address: float = single("grip ahead of the ball at address", "m", -0.05, 0.12, 0.01)
    hands_ahead_impact: float = single("grip ahead of the ball at impact", "m", -0.05, 0.16, 0.09)
    impact_arm_shaft: float = single("lead shoulder, grip, club head at impact", "°", 140, 170, 156)

    # Time
    backswing: float = single("address to top", "s", 0.5, 1.4, 0.84)
    downswing: float = single("top to impact", "s", 0.20, 0.40, 0.27)
    lead_knee_start: float = single("lead knee starts forward, from the top", "s", -0.15, 0.12, -0.06)
    pelvis_shift_start: float = single("pelvis starts toward the target", "s", -0.15, 0.12, -0.06)
    pelvis_turn_start: float = single("pelvis starts to open", "s", -0.12, 0.12, -0.035)
    chest_start: float = single("chest starts to open", "s", -0.10, 0.10, -0.01)
    arm_start: float = single("lead arm starts down", "s", -0.08, 0.08, -0.005)

    # Pelvis
    pelvis_sway: Keys = keyed(
        "pelvis along the target line from address", "m", -0.20, 0.28,
        0, -0.005, -0.011, -0.014, 0.035, 0.058, 0.078, 0.092, 0.115, 0.150,
    )  # fmt: skip
    pelvis_push: Keys = keyed(
        "pelvis toward the ball from address, negative back", "m", -0.12, 0.16,
        0, -0.004, -0.010, -0.014, -0.012, -0.006, 0.004, 0.018, 0.050, 0.105,
    )  # fmt: skip
    pelvis_turn: Keys = keyed(
        "pelvis turn, away from the target positive", "°", -125, 65,
        0, 13, 31, 45, 12, -14, -38, -52, -72, -95,
    )  # fmt: skip
    pelvis_tilt: Keys = keyed(
        "pelvis tipped forward", "°", -15, 40,
        22, 22, 22, 21, 21, 19, 16, 13, 8, -4,
    )  # fmt: skip
    lead_knee_flex: Keys = keyed(
        "lead knee flexion", "°", 4, 75,
        23, 26, 33, 38, 37, 29, 17, 10, 8, 8,
    )  # fmt: skip
    trail_knee_flex: Keys = keyed(
        "trail knee flexion", "°", 4, 80,
        23, 21, 18, 17, 28, 33, 35, 36, 33, 28,
    )  # fmt: skip
    pelvis_rise: Keys | None = None  # metres from address; with pelvis_slant it takes the knees' place
    pelvis_slant: Keys | None = None  # degrees, trail side lower positive

    # Feet
    lead_heel_lift: Keys = keyed(
        "lead heel lifted about the ball of the foot", "°", 0, 45,
        0, 0, 0, 1, 0, 0, 0, 0, 0, 0,
    )  # fmt: skip
    lead_foot_roll: Keys = keyed(
        "lead foot rolled outward", "°", -15, 30,
        0, -2, -5, -6, 0, 0, 2, 5, 8, 12,
    )  # fmt: skip
    lead_foot_twist: Keys = keyed(
        "lead foot twisted outward from its flare", "°", -10, 45,
        0, 0, 0, 0, 0, 0, 0, 0, 3, 8,
    )  # fmt: skip
    lead_toe_lift: Keys = keyed(
        "lead toe lifted about the heel", "°", 0, 25,
        0, 0, 0, 0, 0, 0, 0, 0, 0, 0,
    )  # fmt: skip
    trail_heel_lift: Keys = keyed(
        "trail heel lifted about the ball of the foot", "°", 0, 80,
        0, 0, 0, 0, 1, 6, 15, 27, 46, 68,
    )  # fmt: skip
    trail_foot_roll: Keys = keyed(
        "trail foot rolled inward", "°", -15, 30,
        0, 0, 0, 0, 5, 9, 11, 9, 4, 0,
    )  # fmt: skip
    trail_foot_spin: Keys = keyed(
        "trail toes swung toward the target about the ball of the foot", "°", -10, 80,
        0, 0, 0, 0, 0, 2, 7, 15, 29, 46,
    )  # fmt: skip
    trail_foot_drag: Keys = keyed(
        "trail foot dragged toward the target", "m", 0, 0.25,
        0, 0, 0, 0, 0, 0, 0, 0, 0, 0,
    )  # fmt: skip
    lead_knee_out: Keys = keyed(
        "lead knee turned out from over the foot", "°", -30, 30,
        0, -2, -5, -7, 0, 0, 0, 0, 0, 0,
    )  # fmt: skip
    trail_knee_out: Keys = keyed(
        "trail knee turned out from over the foot", "°", -30, 30,
        0, 0, 0, 0, 0, -2, -5, -8, -10, -10,
    )  # fmt: skip

    # Trunk and head
    spine_incline: Keys = keyed(
        "chest tipped forward", "°", -25, 50,
        29, 29, 30, 31, 31, 30, 28, 26, 21, -3,
    )  # fmt: skip
    chest_turn: Keys = keyed(
        "chest turn, away from the target positive", "°", -140, 115,
        -2, 27, 62, 89, 52, 18, -18, -42, -72, -110,
    )  # fmt: skip
    side_tilt: Keys = keyed(
        "chest tipped to the side, away from the target positive at address", "°", -25, 40,
        8, 6, 3, 0, 6, 12, 17, 18, 14, 4,
    )  # fmt: skip
    head_turn: Keys = keyed(
        "head turn, away from the target positive", "°", -110, 40,
        0, 5, 10, 14, 11, 8, 5, -6, -35, -85,
    )  # fmt: skip
    head_tilt: Keys = keyed(
        "head tipped forward", "°", -20, 65,
        46, 46, 45, 44, 45, 46, 46, 42, 26, 2,
    )  # fmt: skip
    head_side: Keys = keyed(
        "head tipped away from the target", "°", -25, 30,
        3, 2, 2, 2, 4, 8, 12, 14, 10, 2,
    )  # fmt: skip

    # Arms and club, about the swing plane: 0 is down the plane, positive toward the target.
    arm_arc: Keys = keyed(
        "lead arm round the plane; address and impact follow from the ball", "°", -190, 220,
        0, -38, -86, -146, -86, -36, 0, 22, 58, 150,
    )  # fmt: skip
    arm_off_plane: Keys = keyed(
        "lead arm off the plane, upward positive", "°", -60, 80,
        -30, -22, -15, -8, -20, -26, -30, -16, 0, 42,
    )  # fmt: skip
    shaft_arc: Keys = keyed(
        "shaft round the plane; address and impact follow from the ball", "°", -300, 340,
        0, -88, -177, -262, -166, -94, 0, 84, 165, 305,
    )  # fmt: skip
    shaft_off_plane: Keys = keyed(
        "shaft off the plane, upward positive", "°", -60, 60,
        -5, 4, 12, 9, 5, -2, -4, 9, 22, 7,
    )  # fmt: skip
    lead_elbow_flex: Keys = keyed(
        "lead elbow flexion", "°", 2, 140,
        9, 6, 5, 9, 7, 5, 4, 6, 52, 118,
    )  # fmt: skip
    face_roll: Keys = keyed(
        "face open to the arc", "°", -130, 130,
        0, 68, 80, 88, 84, 62, 2, -58, -75, -80,
    )  # fmt: skip

    # Pressure
    lead_share: Keys = keyed(
        "vertical force under the lead foot over the total", "", 0.02, 0.98,
        0.50, 0.38, 0.26, 0.32, 0.62, 0.74, 0.80, 0.86, 0.91, 0.94,
    )  # fmt: skip
    lead_cop_toe: Keys = keyed(
        "pressure in the lead foot, heel 0 to toe 1", "", 0.05, 0.95,
        0.5, 0.52, 0.55, 0.57, 0.60, 0.56, 0.48, 0.40, 0.32, 0.30,
    )  # fmt: skip
    lead_cop_outer: Keys = keyed(
        "pressure in the lead foot, inner 0 to outer 1", "", 0.05, 0.95,
        0.45, 0.42, 0.38, 0.38, 0.45, 0.52, 0.60, 0.68, 0.76, 0.80,
    )  # fmt: skip
    trail_cop_toe: Keys = keyed(
        "pressure in the trail foot, heel 0 to toe 1", "", 0.05, 0.95,
        0.5, 0.47, 0.45, 0.47, 0.60, 0.70, 0.78, 0.84, 0.88, 0.90,
    )  # fmt: skip
    trail_cop_outer: Keys = keyed(
        "pressure in the trail foot, inner 0 to outer 1", "", 0.05, 0.95,
        0.45, 0.46, 0.46, 0.44, 0.34, 0.28, 0.25, 0.26, 0.34, 0.42,
    )  # fmt: skip

    def __post_init__(self) -> None:
        for each in fields(self):
            limits = each.metadata
            if not limits:
                continue
            values = np.atleast_1d(getattr(self, each.name))
            if len(values) not in (1, len(EVENTS)):
                raise SettingError(f"{each.name}: {len(values)} values instead of one an event")
            if not ((values >= limits["low"] - 1e-9) & (values <= limits["high"] + 1e-9)).all():
                found = ", ".join(f"{value:g}" for value in values)
                raise SettingError(f"{each.name}: {found} leaves {limits['low']:g} to {limits['high']:g}")
        if (self.pelvis_rise is None) != (self.pelvis_slant is None):
            raise SettingError("pelvis_rise and pelvis_slant: give both or neither")

    def but(self, **changes: Any) -> SwingSettings:
        """The same swing with some settings replaced."""
        return replace(self, **changes)

    def plus(self, **added: dict[Event, float]) -> SwingSettings:
        """The same swing with amounts added to keyed settings at named events."""
        changes: dict[str, Any] = {}
        for name, at in added.items():
            keys = list(getattr(self, name))
            for event, amount in at.items():
                keys[EVENTS.index(event)] += amount
            changes[name] = tuple(keys)
        return replace(self, **changes)

    def event_times_s(self) -> Floats:
        """Time of each event's keys, seconds from the start of the footage; those after impact as a first guess."""
        back = START_S + self.backswing * np.array([0, 0.46, 0.72, 1.0])
        down = back[-1] + self.downswing * np.array([0.60, 0.818, 1.0])
        through = down[-1] + np.array([0.060, 0.145, 0.62])
        return np.concatenate([back, down, through])


START_S = 0.30  # the golfer stands still before the club moves
TOP = EVENTS.index("top")
IMPACT = EVENTS.index("impact")
KEYED = tuple(f.name for f in fields(SwingSettings) if isinstance(f.default, tuple))
SINGLE = tuple(f.name for f in fields(SwingSettings) if isinstance(f.default, float | int))
