"""Pitches, half swings and other ways that the made-up golfer draws."""

from unittest import TestCase

import numpy as np

from tests.golfer import bodies
from tropometer.golfer import schools
from tropometer.golfer.events import Timing, timing
from tropometer.golfer.forces import pressure
from tropometer.golfer.lengths import of_length
from tropometer.golfer.motion import Motion
from tropometer.golfer.settings import SwingSettings
from tropometer.golfer.true_readings import true_readings
from tropometer.golfer.truth_marks import mark_places
from tropometer.swing.names import SWING_LENGTHS, SwingLength
from tropometer.swing.proposals.landmarks import ANKLES, HANDS, HIPS, Landmarks
from tropometer.swing.proposals.swing_length import propose_swing_length

BODY = bodies.body()
ARM_AT_TOP: dict[SwingLength, tuple[float, float]] = {
    "pitch": (45, 75),
    "lead_arm_level": (85, 103),
    "shoulder_high": (104, 116),
    "full": (116, 140),
}


def swung(settings: SwingSettings) -> tuple[Timing, dict[tuple[str, str], float]]:
    motion = Motion(BODY, settings)
    when = timing(motion)
    found = true_readings(motion, when, lambda instants: pressure(motion, instants, 0.5, 70.0))
    return when, {(each.reading, each.at): each.value for each in found if not isinstance(each.value, str)}


class LengthTests(TestCase):
    def test_each_length_goes_as_far_back_as_its_name_says(self) -> None:
        for school in (schools.loaded_shift, schools.lead_biased):
            for length in SWING_LENGTHS:
                with self.subTest(school=school.__name__, length=length):
                    when, true = swung(of_length(schools.wedge(school()), length))
                    low, high = ARM_AT_TOP[length]
                    self.assertTrue(low < true["lead_arm_raise", "top"] < high)
                    if length != "lead_arm_level":  # which may just touch it
                        self.assertEqual("arm_back" in when.never, length == "pitch")
                    times = [seconds for at, seconds in when.checkpoints.items() if at not in when.never]
                    self.assertEqual(times, sorted(times))
                    down = when.checkpoints["impact"] - when.checkpoints["top"]
                    tempo = (when.checkpoints["top"] - when.start_of_swing) / down
                    self.assertTrue(2.0 < tempo < 3.7, tempo)

    def test_a_length_is_proposed_from_every_side_and_is_right_where_it_is_sure(self) -> None:
        for length in SWING_LENGTHS:
            motion = Motion(BODY, of_length(schools.loaded_shift(), length))
            top = timing(motion).checkpoints["top"]
            times = np.linspace(0.3, top + 0.2, 60)
            marks = mark_places(motion, motion.poses(times))
            for across in (0, 2):  # what a camera sees of the range across its picture, and up
                points = np.ones((len(times), 33, 3))
                for (left, _), name in ((HIPS, "hip"), (ANKLES, "ankle")):
                    for row, side in ((left, "lead"), (left + 1, "trail")):
                        points[:, row, :2] = marks[f"{side}_{name}"][:, [across, 1]] * [100, -100]
                points[:, list(HANDS), :2] = marks["grip"][:, None, [across, 1]] * [100, -100]
                seen = propose_swing_length(Landmarks(times, points), 0, int(np.abs(times - top).argmin()))
                if seen.confidence >= 0.5 or length in ("pitch", "full"):
                    self.assertEqual(seen.value, length)


class WayTests(TestCase):
    def test_hips_on_an_inclined_turn_slant_and_part_the_kneecaps(self) -> None:
        for school in schools.SCHOOLS.values():
            _, true = swung(schools.inclined_turn(school()))
            self.assertTrue(-15 <= true["pelvis_slant", "top"] <= -2)
            self.assertTrue(0.005 <= true["knee_height_difference", "top"] <= 0.06)

    def test_the_outer_heel_carries_the_finish_and_the_toe_rises(self) -> None:
        _, true = swung(schools.outer_heel(schools.loaded_shift()))
        self.assertTrue(0.02 < true["toe_lift_lead", "finish"] < 0.08)
        self.assertGreater(true["foot_roll_lead", "finish"], 15)
        self.assertGreater(true["foot_twist_lead", "finish"], 15)

    def test_a_wedge_stands_three_quarters_on_the_lead_side(self) -> None:
        motion = Motion(BODY, schools.wedge(schools.loaded_shift()))
        felt = pressure(motion, np.array([0.1]), 0.5, 70.0)
        share = felt.lead_force_n / (felt.lead_force_n + felt.trail_force_n)
        self.assertTrue(0.70 < float(share[0]) < 0.80)
