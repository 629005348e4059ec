"""What a reading that cannot be given says."""

from dataclasses import replace
from itertools import combinations
from unittest import TestCase

import numpy as np

from tests.strangers.trials import trials
from tests.swing.keyed import by_key
from tests.swings import record_of
from tropometer.swing.read import read
from tropometer.swing.readings.reading import Reading
from tropometer.swing.record.swing import SwingRecord


class RefusalTests(TestCase):
    def refused(self, record: SwingRecord, reading: str = "pelvis_sway", at: str = "top") -> Reading:
        found = by_key(read(record).readings)[reading, at]
        self.assertEqual(found.status, "refused")
        self.assertIsNone(found.value)
        return found

    def test_each_missing_thing_is_named_with_the_next_step(self) -> None:
        record = record_of("tobin_first_face")
        clip = record.clips[0]

        def but(**change: object) -> SwingRecord:
            return replace(record, clips=(replace(clip, **change),))  # type: ignore[arg-type]

        self.assertIn("known length", self.refused(but(known_length=None)).reason)
        pegs = {at: frame for at, frame in clip.checkpoints.items() if at != "top"}
        self.assertIn("top peg", self.refused(but(checkpoints=pegs)).reason)
        marks = {name: frames for name, frames in clip.marks.items() if name != "trail_hip"}
        missing = self.refused(but(marks=marks))
        self.assertEqual((missing.needs[0].kind, missing.needs[0].name), ("mark", "trail_hip"))
        self.assertIn("face-on", self.refused(but(view="down_the_line")).reason)
        # A bend toward the camera is never read off a face-on clip, and a small turn neither.
        self.assertIn("down-the-line", self.refused(record, "knee_flex_lead").reason)
        small = self.refused(record, "pelvis_turn", "address")
        self.assertIn("From one side alone", small.reason)

    def test_pegs_on_one_frame_leave_the_rest_standing(self) -> None:
        record = record_of("tobin_first_face")
        clip = record.clips[0]
        for first, second in combinations(clip.checkpoints, 2):
            with self.subTest(first=first, second=second):
                pegs = {**clip.checkpoints, second: clip.checkpoints[first]}
                found = read(replace(record, clips=(replace(clip, checkpoints=pegs),)), curves=True).readings
                given = [each for each in found if each.value is not None and each.u95 is not None]
                self.assertGreater(len(given), 10)
                for each in given:
                    self.assertTrue(np.isfinite([each.value, each.u95]).all(), each)
        pegs = {**clip.checkpoints, "top": clip.checkpoints["address"]}
        found = read(replace(record, clips=(replace(clip, checkpoints=pegs),))).readings
        told = by_key(found)["going_back", "top"]
        self.assertEqual(told.reason, "The top is pegged on the frame of address.")

    def test_a_share_of_next_to_nothing_is_refused(self) -> None:
        record = record_of("tobin_first_face")
        clip = record.clips[0]
        (frame,) = clip.marks["trail_foot_outer"]
        foot = clip.marks["trail_foot_outer"][frame]
        beside = replace(foot, x=clip.marks["trail_hip_edge"][frame].x - 3)
        marks = {**clip.marks, "trail_foot_outer": {frame: beside}}
        refusal = self.refused(replace(record, clips=(replace(clip, marks=marks),)), "trail_hip_gap_share")
        self.assertIn("says nothing", refusal.reason)

    def test_without_any_length_angles_and_ratios_are_still_given(self) -> None:
        (trial,) = trials("face-on, stick", 1, seed=2)
        bare = replace(trial.record, clips=(replace(trial.record.clips[0], known_length=None),))
        found = by_key(read(bare).readings)
        ratio = found["stance_ratio", "address"]
        assert ratio.value is not None and ratio.u95 is not None
        self.assertLess(abs(ratio.value - float(trial.true["stance_ratio", "address"])), ratio.u95 * 1.5)
        self.assertIn("known length", self.refused(bare).reason)
