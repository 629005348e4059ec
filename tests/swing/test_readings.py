"""Readings against the truth of made-up golfers: values, steadying, ways of going back."""

from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.trials import trials
from tests.swing.keyed import by_key
from tests.swings import record_of, true_reading
from tropometer.swing.formats.swing_record import from_document, to_document
from tropometer.swing.read import read
from tropometer.swing.readings.by_part.going_back import going_back
from tropometer.swing.readings.curves import curves_of_marks, placed_on_frames
from tropometer.swing.readings.reading import Reading, Refused
from tropometer.swing.readings.register import KINDS
from tropometer.swing.record.camera_motion import CameraMotion
from tropometer.swing.record.swing import SwingRecord

# One standard deviation of each reading that a way of going back is told from.
SDS = {"pelvis_sway": 0.01, "pelvis_turn": 5.0, "trail_hip_push": 0.01}


def hand_held(record: SwingRecord) -> SwingRecord:
    """The same swing seen by a camera that moves: each frame's marks are carried by its own homography."""
    clip = record.clips[0]
    rows = np.tile([1.0, 0, 0, 0, 1, 0, 0, 0, 0], (len(clip.frame_times_s), 1))
    rows[clip.checkpoints["top"]] = [1, -0.004, 9, 0.004, 1, -6, 1e-6, 0, 0]
    rows[clip.checkpoints["impact"]] = np.nan
    motion = CameraMotion(rows)
    marks = {}
    for name, by_frame in clip.marks.items():
        carried = {frame: (mark, motion.moved(frame, mark.x, mark.y)) for frame, mark in by_frame.items()}
        marks[name] = {frame: replace(mark, x=x, y=y) for frame, (mark, (x, y)) in carried.items()}
    return replace(record, clips=(replace(clip, marks=marks, camera_motion=motion),))


class ValueTests(TestCase):
    def test_a_careful_face_on_clip_gives_sway_and_gap(self) -> None:
        found = by_key(read(record_of("tobin_first_face")).readings)
        for name in ("pelvis_sway", "trail_hip_gap"):
            for at in ("top", "impact"):
                each = found[name, at]
                assert each.value is not None and each.u95 is not None
                self.assertLess(abs(each.value - true_reading("tobin_first_face", name, at)), each.u95)

    def test_a_hand_held_camera_is_steadied_and_where_it_was_not_seen_it_costs_certainty(self) -> None:
        still = record_of("tobin_first_face")
        before, after = by_key(read(still).readings), by_key(read(hand_held(still)).readings)
        for key in (("pelvis_sway", "top"), ("trail_hip_gap", "impact")):
            self.assertAlmostEqual(before[key].value or 0, after[key].value or 0, places=6)
        sway = "pelvis_sway"
        self.assertAlmostEqual(before[sway, "top"].u95 or 0, after[sway, "top"].u95 or 0, places=5)
        self.assertGreater(after[sway, "impact"].u95 or 0, before[sway, "impact"].u95 or 0)
        document = to_document(hand_held(still))
        self.assertEqual(to_document(from_document(document)), document)

    def test_knowing_the_camera_narrows_the_interval(self) -> None:
        record = record_of("tobin_first_face")
        clip = replace(record.clips[0], camera_distance_m=4.8, off_square_deg=(0.0, 1.5))
        by_eye, squared = by_key(read(record).readings), by_key(read(replace(record, clips=(clip,))).readings)
        wide, narrow = by_eye["trail_hip_gap", "top"].u95, squared["trail_hip_gap", "top"].u95
        assert wide is not None and narrow is not None
        self.assertLess(narrow, wide * 0.92)
        self.assertEqual(by_eye["trail_hip_gap", "top"].budget[0].source, "camera")

    def test_a_curve_passes_through_its_checkpoints(self) -> None:
        (trial,) = trials("both, mat", 1, seed=5)
        at_pegs = by_key(read(trial.record).readings)
        clip = trial.record.clips[0]
        for curve in curves_of_marks(
            placed_on_frames(trial.record), ("pelvis_sway", "knee_flex_lead", "pelvis_turn")
        ):
            for at in ("arm_back", "top", "impact"):
                row = clip.checkpoints[at] - int(curve.frames[0])
                # A knee's bend leans a little on its error, and a curve's frames have no error in time.
                near = 2e-3 if KINDS[curve.reading].unit == "m" else 0.02
                self.assertAlmostEqual(
                    curve.values[row], at_pegs[curve.reading, at].value or 0, delta=near, msg=curve.reading
                )

    def test_the_ways_of_going_back_are_told_apart(self) -> None:
        right = told = 0
        for trial in trials("both, mat", 25, seed=11):
            found = by_key(read(trial.record).readings)["going_back", "top"]
            if found.value is not None and found.value > 2:  # two standard deviations from any limit
                told += 1
                right += found.said == trial.true["going_back", "top"]
        self.assertGreater(told, 8)
        self.assertEqual(right, told)

    def test_face_on_alone_says_what_the_way_of_going_back_hangs_on(self) -> None:
        found = [
            by_key(read(each.record).readings)["going_back", "top"]
            for each in trials("face-on, mat", 16, seed=11)
        ]
        reasons = {each.reason.partition(":")[0] for each in found if each.status == "refused"}
        self.assertLessEqual({"Loaded or pure sway", "Centred or empty turn"}, reasons)

    def test_a_hip_that_travels_the_other_way_stays_on_the_clock(self) -> None:
        (trial,) = trials("both, mat", 1, seed=3)
        clips = []
        for clip in trial.record.clips:
            hip, top, impact = clip.marks["lead_hip"], clip.checkpoints["top"], clip.checkpoints["impact"]
            changed = {**hip, top: hip[impact], impact: hip[top]}
            clips.append(replace(clip, marks={**clip.marks, "lead_hip": changed}))
        there, back = (
            by_key(read(record).readings)["hip_travel_clock", "impact"].value or 0
            for record in (trial.record, replace(trial.record, clips=tuple(clips)))
        )
        self.assertTrue(6 < there < 12, there)
        self.assertAlmostEqual(back, there - 6, delta=0.1)

    def test_a_sway_without_a_turn_is_one_however_deep(self) -> None:
        """How sure it is: as far as the nearest of the readings that must be wrong together."""

        def way(**values: float) -> tuple[str, float | None]:
            given = {
                (name, "top"): Reading(
                    reading=name, at="top", unit="m", status="ok", method="", value=value, u95=u95
                )
                for name, value, u95 in ((name, value, SDS[name] * 1.96) for name, value in values.items())
            }
            try:
                found = going_back(given)
            except Refused:
                return "", None
            return found.said, round(float(found.value.value), 1)

        self.assertEqual(way(pelvis_sway=-0.05, pelvis_turn=15), ("pure_sway", 3.0))
        self.assertEqual(way(pelvis_sway=-0.05, pelvis_turn=15, trail_hip_push=-0.02), ("pure_sway", 3.0))
        self.assertEqual(way(pelvis_sway=-0.05, pelvis_turn=30, trail_hip_push=-0.02), ("pure_sway", 3.0))
        self.assertEqual(way(pelvis_sway=-0.05, pelvis_turn=30, trail_hip_push=-0.08), ("pure_sway", 1.0))
        self.assertEqual(way(pelvis_sway=-0.05, pelvis_turn=50, trail_hip_push=-0.08), ("loaded", 2.0))
        self.assertEqual(way(pelvis_sway=0.0, trail_hip_push=-0.08), ("centred", 2.0))
        self.assertEqual(way(pelvis_sway=-0.05, pelvis_turn=50), ("", None))
