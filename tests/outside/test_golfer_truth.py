"""Readings of the rendered golfer against where his joints really are (our own model; not a publication)."""

from unittest import TestCase

from tests.swings import along_target, record_of
from tropometer.swing.read import read

HIPS = ("lead_hip", "trail_hip")


class TruthTests(TestCase):
    def test_readings_hold_the_truth(self) -> None:
        for name in ("tobin", "ilse", "dag", "reference"):
            readings = {(r.reading, r.at): r for r in read(record_of(name))}
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
                    with self.subTest(name=name, at=at, reading=reading):
                        found = readings[reading, at]
                        self.assertEqual(found.status, "ok")
                        self.assertLessEqual(abs(found.value - value), found.u95)
