"""Readings of the rendered golfer against where his joints really are (our own model; not a publication)."""

from unittest import TestCase

from tests.swings import along_target, record_of
from tropometer.golfer.cast import TAKES
from tropometer.swing.read import read

HIPS = ("lead_hip", "trail_hip")
FACE_ON = [take.name for take in TAKES if take.camera.view == "face_on"]
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
