"""Times and rates: between frames, against the truth of made-up golfers."""

import tracemalloc
from collections import defaultdict
from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.times import missed_times
from tests.strangers.trials import Missed
from tests.swing.coverage import too_narrow
from tests.swing.keyed import by_key
from tests.swings import true_reading, truth
from tropometer.swing.read import read
from tropometer.swing.readings.curve_events import rate_about, turn_of
from tropometer.swing.readings.reading import Refused
from tropometer.swing.record.calibration import Mat
from tropometer.swing.record.clip import Clip, Mark
from tropometer.swing.record.swing import SwingRecord


class TimeTests(TestCase):
    """Events that nobody pegged, read between the frames of a swing whose marks are on every one."""

    STRANGERS = 24

    def test_events_are_found_within_a_frame(self) -> None:
        known = truth("model_free_face")
        clips = tuple(fully_marked(f"model_free_{view}") for view in ("face", "line"))
        found = by_key(
            read(
                SwingRecord(hand=known["hand"], clips=clips, stature_m=known["stature_m"]), curves=True
            ).readings
        )
        for key in (
            ("start_times", "lead_knee"), ("start_times", "pelvis_shift"), ("start_times", "pelvis_turn"),
            ("start_times", "chest"), ("start_times", "lead_arm"), ("heel_return_lead", "top"),
            ("heel_off_trail", "impact"),
        ):  # fmt: skip
            with self.subTest(key):
                each, true = found[key], true_reading("model_free_face", *key)
                assert each.value is not None and each.u95 is not None, each.reason
                self.assertLess(abs(each.value - true), 1 / 60 + 0.002)
                self.assertLess(abs(each.value - true), each.u95)
        self.assertIn("does not happen", found["post_time", "impact"].reason)
        # It hardly gets straighter than that, and an eye's hip joint is off by as much.
        self.assertIn("cannot be told", found["lead_knee_straight_time", "impact"].reason)

    def test_times_of_strangers_are_near_and_held(self) -> None:
        """Soft starts within 25 ms, root mean square (readings.md)."""
        found: dict[tuple[str, str], list[Missed]] = defaultdict(list)
        for seed in range(self.STRANGERS):
            for each in missed_times(seed, rate_hz=120):
                found[each.reading, each.at].append(each)
        for key, missed in found.items():
            with self.subTest(key):
                self.assertEqual(too_narrow([[each.held] for each in missed]), "")
        starts = [each.by for key, of in found.items() if key[0] == "start_times" for each in of]
        self.assertLess(float(np.sqrt(np.mean(np.square(starts)))), 0.025)
        self.assertLess(
            abs(float(np.mean([each.by for each in found["pelvis_sway", "extreme_back"]]))), 0.004
        )

    def test_a_minute_at_240_a_second_takes_little_memory(self) -> None:
        times = np.arange(-50.0, 10.0, 1 / 240)
        tracemalloc.start()
        found = turn_of(times, (times + 0.3) ** 2 + 1e-4 * np.sin(1e3 * times), -1.0, 0.0)
        peak = tracemalloc.get_traced_memory()[1]
        tracemalloc.stop()
        assert found is not None
        self.assertLess(abs(found.at_s + 0.3), 2 * found.sd_s)
        self.assertLess(peak, 20e6)

    def test_a_rate_is_that_of_the_straight_line_through_the_curve(self) -> None:
        times, every = np.arange(-30, 31) / 120, np.linspace(-0.05, 0.05, 2001)

        def place(when: np.ndarray) -> np.ndarray:
            return 0.3 * when - 2 * when**2 + 40 * when**3

        still = np.full(len(times), 0.01)
        found = rate_about(times, place(times), still, 0.0, 0.0)
        self.assertAlmostEqual(found.value, np.polyfit(every, place(every), 1)[0], places=3)
        self.assertAlmostEqual(found.sd, 0, places=6)  # an error that is the same on all frames does nothing
        self.assertGreater(rate_about(times, place(times), still, 0.0, 1 / 240).sd, 0.01)
        for shown in (np.arange(len(times)) % 4 == 0, times <= 0, times >= 0, np.abs(times) > 0.02):
            with self.assertRaisesRegex(Refused, "every frame"):
                rate_about(times[shown], place(times[shown]), still[shown], 0.0, 0.0)

    def test_without_its_own_impact_a_clip_tells_no_rate_about_it(self) -> None:
        face, line = (fully_marked(f"model_free_{view}") for view in ("face", "line"))
        unpegged = {at: frame for at, frame in face.checkpoints.items() if at != "impact"}
        clips = (replace(face, checkpoints=unpegged), line)
        found = by_key(read(SwingRecord(hand="right", clips=clips), curves=True).readings)
        self.assertEqual(found["pelvis_forward_rate", "impact"].reason, "Set the impact peg.")

    def test_two_clips_of_one_name_are_read(self) -> None:
        face, line = (fully_marked(f"model_free_{view}") for view in ("face", "line"))
        record = SwingRecord(hand="right", clips=(face, replace(line, id=face.id)))
        found = by_key(read(record, curves=True).readings)
        self.assertEqual(found["start_times", "club"].status, "ok")

    def test_a_peg_goes_before_what_the_marks_say(self) -> None:
        clip = fully_marked("model_free_face")
        heel = clip.checkpoints["impact"] - 4
        pegged = replace(clip, events={"trail_heel_off": heel})
        found = by_key(read(SwingRecord(hand=truth(clip.id)["hand"], clips=(pegged,)), curves=True).readings)[
            "heel_off_trail", "impact"
        ]
        self.assertAlmostEqual(found.value or 0, -4 / 60, places=3)
        self.assertIn(heel, found.frames)

    def test_times_from_impact_count_from_the_blow_also_between_two_frames(self) -> None:
        clip = Clip(
            id="a",
            view="face_on",
            width=10,
            height=10,
            frame_times_s=tuple(i / 60 for i in range(40)),
            checkpoints={"top": 10, "impact": 30},
        )
        clip = replace(clip, events={"trail_heel_off": 24, "club_start": 10}, impact_between=True)
        found = by_key(read(SwingRecord(hand="right", clips=(clip,))).readings)
        self.assertAlmostEqual(found["heel_off_trail", "impact"].value or 0, -6.5 / 60)
        self.assertAlmostEqual(found["start_times", "club"].value or 0, 0)


def fully_marked(name: str) -> Clip:
    """A demo clip with its true marks on every frame, and its mat."""
    known = truth(name)
    marks = {
        mark: {frame: Mark(x, y, 0.5) for frame, (x, y) in enumerate(places) if abs(x) + abs(y) < 5000}
        for mark, places in known["pixels"].items()
    }
    corners = tuple((x, y) for x, y in known["mat_corners"]["pixels"])
    (left, near, _), (_, far, _), (right, _, _), _ = known["mat_corners"]["tbu_m"]
    camera, times = known["camera"], known["times_s"]["frames"]
    return Clip(
        id=name,
        view=known["view"],
        width=camera["width"],
        height=camera["height"],
        frame_times_s=tuple(time - times[0] for time in times),
        checkpoints=dict(known["checkpoints"]),
        marks=marks,
        mat=Mat(corners, right - left, far - near, 0.5),
    )
