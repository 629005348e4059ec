"""Every named fault shows in the readings it is known by (common practice, no source)."""

from unittest import TestCase

from tests.golfer import bodies
from tropometer.golfer.events import timing
from tropometer.golfer.faults import FAULTS, with_faults
from tropometer.golfer.forces import pressure
from tropometer.golfer.motion import Motion
from tropometer.golfer.settings import SwingSettings
from tropometer.golfer.true_readings import true_readings

# Fault: reading, checkpoint, least change from the sound swing, signed.
SHOWS: dict[str, list[tuple[str, str, float]]] = {
    "wide_stance": [
        ("stance_ratio", "address", 0.4), ("pelvis_turn", "top", -12), ("spine_side_tilt", "top", -2),
    ],
    "square_feet": [("foot_flare_lead", "address", -15), ("pelvis_turn", "top", -10)],
    "trail_knee_held": [("knee_flex_change_trail", "top", 4), ("pelvis_turn", "top", -7)],
    "trail_knee_locked": [("knee_flex_trail", "top", -8)],
    "passive_lead_knee": [("knee_flex_lead", "top", -8), ("pelvis_turn", "top", -10)],
    "lead_heel_high": [("heel_lift_lead", "top", 0.04)],
    "sway": [("pelvis_sway", "top", -0.09), ("trail_hip_gap", "top", -0.09), ("pelvis_turn", "top", -14)],
    "closed_toes": [("toe_line", "address", 8)],
    "upper_body_first": [("start_times", "pelvis_shift", 0.06), ("heel_lift_trail", "arm_down", 0.02)],
    "slide": [("pelvis_sway", "impact", 0.06), ("pelvis_turn", "impact", 15)],
    "early_extension": [("pelvis_depth", "impact", 0.04)],
    "hang_back": [("pelvis_sway", "impact", -0.04), ("pressure_lead_share", "impact", -0.2)],
    "lead_knee_snaps": [("knee_flex_lead", "shaft_through", -4), ("pelvis_sway", "shaft_through", -0.02)],
    "trail_heel_spins": [("heel_lift_trail", "shaft_down", 0.03), ("foot_roll_trail", "shaft_down", -7)],
}  # fmt: skip


def readings(settings: SwingSettings) -> dict[tuple[str, str], float]:
    motion = Motion(bodies.body(), settings)
    found = true_readings(motion, timing(motion), lambda t: pressure(motion, t, 1.0, 78))
    return {(r.reading, r.at): r.value for r in found if not isinstance(r.value, str)}


class FaultTests(TestCase):
    def test_each_fault_moves_its_readings(self) -> None:
        self.assertEqual(set(SHOWS), set(FAULTS))
        sound = readings(SwingSettings())
        for name, expected in SHOWS.items():
            found = readings(with_faults(SwingSettings(), **{name: 1.0}))
            for reading, at, least in expected:
                with self.subTest(fault=name, reading=reading, at=at):
                    change = found[reading, at] - sound[reading, at]
                    self.assertGreaterEqual(change * (1 if least > 0 else -1), abs(least))

    def test_a_sway_takes_the_hip_outside_the_foot_and_a_sound_swing_does_not(self) -> None:
        self.assertGreater(readings(SwingSettings())["trail_hip_gap", "top"], 0.05)
        self.assertLess(readings(with_faults(SwingSettings(), sway=1.0))["trail_hip_gap", "top"], 0)
