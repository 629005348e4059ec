"""Readings of the rendered golfer against where his joints really are (our own model; not a publication)."""

from unittest import TestCase

import numpy as np

from tests.outside.test_common_practice import clip_of
from tests.swings import along_target, record_of, truth
from tropometer.golfer.cast import TAKES
from tropometer.swing.read import read
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.register import KINDS, kinds_of
from tropometer.swing.record.swing import SwingRecord

HIPS = ("lead_hip", "trail_hip")
FACE_ON = [take.name for take in TAKES if take.camera.view == "face_on"]
_LINES = {take.name.removesuffix("_line") for take in TAKES if take.camera.view == "down_the_line"}
BOTH_SIDES = sorted(_LINES & {name.removesuffix("_face") for name in FACE_ON})
# The drawn golfer's shoulders are 0.175 of stature apart and give way when an arm is raised; people's, which
# the core goes by, are 0.215 ± 0.020 and do not.
BY_SHOULDERS = {"stance_ratio", "shoulder_turn"}
LEAST_HELD = 0.9  # of intervals that should hold the truth in 95 of 100


class TruthTests(TestCase):
    def test_readings_hold_the_truth(self) -> None:
        held: dict[str, list[bool]] = {}
        for name in FACE_ON:
            readings = {(r.reading, r.at): r for r in read(record_of(name)).readings}
            plumb = along_target(name, "address", "trail_foot_outer")
            start = along_target(name, "address", "trail_hip_edge") - plumb
            for at in ("top", "impact"):
                gap = along_target(name, at, "trail_hip_edge") - plumb
                true = {
                    "pelvis_sway": along_target(name, at, *HIPS) - along_target(name, "address", *HIPS),
                    "trail_hip_gap": gap,
                    "trail_hip_gap_share": gap / start,
                }
                for reading, value in true.items():
                    found = readings[reading, at]
                    if found.value is None or found.u95 is None:
                        self.assertIn("says nothing", found.reason, f"{name} {reading} {at}")
                        continue
                    held.setdefault(reading, []).append(abs(found.value - value) <= found.u95)
        for reading, each in held.items():
            with self.subTest(reading):
                self.assertGreater(len(each), len(FACE_ON))
                self.assertGreaterEqual(sum(each) / len(each), LEAST_HELD, f"{sum(each)} of {len(each)}")

    def test_every_reading_of_both_sides_is_where_the_golfer_is(self) -> None:
        """Marked without error: what an eye may miss by is in the intervals all the same."""
        held: dict[str, list[bool]] = {}
        for swing in BOTH_SIDES:
            names = (f"{swing}_face", f"{swing}_line")
            known = truth(names[0])
            true = {(row["reading"], row["at"]): row["value"] for row in known["readings"]}
            record = SwingRecord(
                hand=known["hand"], clips=tuple(map(clip_of, names)), stature_m=known["stature_m"]
            )
            for each in read(record).readings:
                value = true.get((each.reading, each.at))
                if isinstance(value, float) and isinstance(KINDS[each.reading], FromMarks) and each.u95:
                    held.setdefault(each.reading, []).append(abs((each.value or 0) - value) <= each.u95)
        marks = {kind.id for kind in kinds_of(FromMarks)}
        self.assertEqual(marks - held.keys(), set())
        for reading in held.keys() - BY_SHOULDERS:
            each_time = held[reading]
            with self.subTest(reading):
                self.assertGreaterEqual(
                    np.mean(each_time), LEAST_HELD, f"{sum(each_time)} of {len(each_time)}"
                )
