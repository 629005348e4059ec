"""What teachers and papers say of sound swings and of faults, read by the core off swings drawn to show them.

Both views of the demo's takes, marked without error on their pegged frames, through their mats.
"""

from functools import lru_cache
from unittest import TestCase

from tests.swings import truth
from tropometer.swing.read import read
from tropometer.swing.record.calibration import Mat
from tropometer.swing.record.clip import Clip, Mark
from tropometer.swing.record.swing import SwingRecord

SOUND = ("model_loaded", "model_centred")
SD_PX = 1.0


def clip_of(name: str) -> Clip:
    known = truth(name)
    first = known["times_s"]["frames"][0]
    width, height = known["camera"]["width"], known["camera"]["height"]
    marks = {
        mark: {frame: Mark(rows[frame][0], rows[frame][1], SD_PX) for frame in known["checkpoints"].values()}
        for mark, rows in known["pixels"].items()
    }
    (left, near, _), (_, far, _), (right, _, _), _ = known["mat_corners"]["tbu_m"]
    corners = tuple((x, y) for x, y in known["mat_corners"]["pixels"])
    return Clip(
        id=name,
        view=known["view"],
        width=width,
        height=height,
        frame_times_s=tuple(t - first for t in known["times_s"]["frames"]),
        checkpoints=dict(known["checkpoints"]),
        marks=marks,
        mat=Mat(corners, right - left, far - near, SD_PX),
    )


@lru_cache(maxsize=16)
def readings(swing: str) -> dict[tuple[str, str], float | str]:
    known = truth(f"{swing}_face")
    clips = (clip_of(f"{swing}_face"), clip_of(f"{swing}_line"))
    found = read(SwingRecord(hand=known["hand"], clips=clips, stature_m=known["stature_m"])).readings
    return {(each.reading, each.at): each.said or each.value or 0.0 for each in found if each.status == "ok"}


class SoundTests(TestCase):
    def check(self, swing: str, reading: str, at: str, low: float, high: float) -> None:
        value = readings(swing)[reading, at]
        self.assertIsInstance(value, float)
        self.assertTrue(low <= float(value) <= high, f"{swing} {reading} {at}: {value} not {low} to {high}")

    def test_check_values_of_a_sound_swing(self) -> None:
        """Common practice, no source, but for turn: hips about 55, shoulders about 87 at the top (McTeigue et
        al. 1994, from memory), and tempo about 3 to 1 (Grober and Cholewicki 2008, from memory)."""
        for swing in SOUND:
            self.check(swing, "stance_ratio", "address", 0.9, 1.4)  # shoulder width to slightly over
            self.check(swing, "pelvis_turn", "top", 35, 60)
            self.check(swing, "shoulder_turn", "top", 78, 105)
            self.check(swing, "pelvis_turn", "impact", -60, -20)  # open well ahead of the ball
            self.check(swing, "trail_hip_gap", "top", 0, 0.2)  # never outside the trail foot
            self.check(swing, "lead_leg_lean", "arm_down", -9, 6)  # stacked, or nearly
            # From the top toward the post; the drawn golfers stop short of 15 to 20 cm from set-up.
            gone = float(readings(swing)["post_gap", "top"]) - float(readings(swing)["post_gap", "impact"])
            self.assertTrue(0.08 <= gone <= 0.2, f"{swing}: {gone}")
            self.check(swing, "heel_lift_lead", "top", -0.01, 0.05)
            self.check(swing, "tempo", "swing", 2.4, 3.6)

    def test_schools_differ_as_they_say(self) -> None:
        """Common practice, no source."""
        self.check("model_centred", "pelvis_sway", "top", -0.025, 0.02)  # between fixed lines
        self.check("model_loaded", "pelvis_sway", "top", -0.07, -0.02)  # a few centimetres away
        for swing in SOUND:  # the trail knee gives up some of its bend and never locks
            self.check(swing, "knee_flex_change_trail", "top", -25, 0)
            self.check(swing, "knee_flex_trail", "top", 5, 40)
        self.assertEqual(readings("model_loaded")["going_back", "top"], "loaded")
        self.assertEqual(readings("model_centred")["going_back", "top"], "centred")

    def test_faults_are_seen_in_their_readings(self) -> None:
        """Common practice, no source: what each swing was drawn to show."""
        self.check("tobin_first", "pelvis_sway", "top", -0.25, -0.08)
        self.check("tobin_first", "trail_hip_gap", "top", -0.15, 0.0)  # outside the foot
        self.assertEqual(readings("tobin_first")["going_back", "top"], "pure_sway")
        self.assertEqual(readings("sunniva_square")["going_back", "top"], "empty_turn")
        flared, square = readings("sunniva_flared"), readings("sunniva_square")
        for side in ("lead", "trail"):  # both feet one notch out
            key = (f"foot_flare_{side}", "address")
            self.assertGreater(float(flared[key]), float(square[key]) + 5)
        turned = float(flared["pelvis_turn", "top"]) - float(square["pelvis_turn", "top"])
        self.assertGreater(turned, 2)  # flare frees turn
        self.check("dag_first", "knee_flex_change_trail", "top", -20, -10)  # half of the bend is gone
