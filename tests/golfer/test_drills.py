"""The drawn drills: each does what its page of the book asks, and is shipped as it is drawn."""

import itertools
from typing import Any

import av
import cv2
import numpy as np
from django.test import SimpleTestCase, tag

from tropometer.golfer.clips import body_of
from tropometer.golfer.drills.catalogue import DRILLS
from tropometer.golfer.drills.drawing import HEIGHT, WIDTH, Drawing, DrawnDrill, end_of
from tropometer.golfer.drills.holds import hands
from tropometer.golfer.drills.rehearsal import LONGEST_S, moments, pose
from tropometer.golfer.drills.scene import Scene
from tropometer.golfer.events import timing
from tropometer.golfer.forces import pressure
from tropometer.golfer.motion import Motion
from tropometer.golfer.true_readings import true_readings
from tropometer.teaching.knowledge.pages import DRAWINGS, shipped

BY_ID = {drill.id: drill for drill in DRILLS}


def value(drill: DrawnDrill, done: Any) -> float:
    """What the drill's own camera check reads on the swing that it ends in, by the golfer's truth."""
    check = shipped().drills[drill.id].camera.holds
    motion = Motion(body_of(drill.person), end_of(drill.stages(done)).settings)

    def mat(instants: Any) -> Any:
        return pressure(motion, instants, drill.person.man, drill.person.mass_kg)

    posted = "post" in check.reading  # what takes longest to find is left out where nothing asks for it
    found_all = true_readings(motion, timing(motion), mat, posted=posted)
    read = {(r.reading, r.at): r.value for r in found_all}
    found = read[check.reading, check.at]
    assert isinstance(found, float)
    return found


@tag("slow")
class DrawnDrillTests(SimpleTestCase):
    def test_every_drill_of_the_book_is_drawn_and_what_is_done_right_passes_its_camera_check(self) -> None:
        self.assertEqual(set(BY_ID), set(shipped().drills))
        caught = 0
        for drill in DRILLS:
            check = shipped().drills[drill.id].camera.holds
            low, high = (np.inf if end is None else float(end) for end in (check.above, check.below))
            low = -np.inf if check.above is None else low
            with self.subTest(drill.id):
                self.assertTrue(low < value(drill, "right") < high)
            if drill.wrong:
                caught += not low < value(drill, "wrong") < high
        # The camera looks for what the drill is for; not all that can go wrong with it is that.
        self.assertGreaterEqual(caught, 12)

    def test_what_is_done_wrong_looks_different(self) -> None:
        for drill in DRILLS:
            if not drill.wrong:
                continue
            apart = 0.0
            for right, wrong in zip(moments(drill.right), moments(drill.wrong), strict=False):
                heads = [
                    pose(body_of(drill.person), settings, drill.hold, at)[1].heads
                    for at, settings in (right, wrong)
                ]
                joints = ("thigh_l", "thigh_r", "calf_l", "calf_r", "head", "hand_l", "foot_l", "foot_r")
                apart = max(apart, *(float(np.linalg.norm(heads[0][j] - heads[1][j])) for j in joints))
                if apart > 0.04:
                    break
            with self.subTest(drill.id):
                self.assertGreater(apart, 0.04)

    def test_hands_that_are_held_on_the_body_stay_on_it(self) -> None:
        """A wrist keeps its distance to the bone that it is held on, all through the drill."""
        drill = BY_ID["seat_to_the_chair"]
        body = body_of(drill.person)
        placed = hands("folded", body)
        for at, settings in moments(drill.right)[::12]:
            poses = pose(body, settings, drill.hold, at)[1]
            for side in ("l", "r"):
                held = placed[side]
                away = np.linalg.norm(poses.heads[f"hand_{side}"][0] - poses.heads[held.bone][0])
                self.assertAlmostEqual(away, np.linalg.norm(held.wrist - body.head[held.bone]), places=6)
                arm = [poses.heads[f"{bone}_{side}"][0] for bone in ("upperarm", "lowerarm", "hand")]
                rest = [body.head[f"{bone}_{side}"] for bone in ("upperarm", "lowerarm", "hand")]
                for (a, b), (c, d) in zip(itertools.pairwise(arm), itertools.pairwise(rest), strict=True):
                    self.assertAlmostEqual(np.linalg.norm(b - a), np.linalg.norm(d - c), places=6)

    def test_a_stick_beside_the_hip_is_pushed_over_by_a_sway_and_stands_without_one(self) -> None:
        drill = BY_ID["stick_by_the_hip"]
        (stick,) = drill.props
        start = Scene(*pose(body_of(drill.person), drill.right[0].settings, drill.hold, drill.right[0].at))
        for done, leans in (("right", False), ("wrong", True)):
            end = end_of(drill.stages(done))  # type: ignore[arg-type]
            now = Scene(*pose(body_of(drill.person), end.settings, drill.hold, end.at))
            ((_, place),) = stick.placed(start, now)
            lean = np.degrees(np.arccos(place[1, 1]))
            self.assertEqual(bool(lean > 2), leans, f"{done}: {lean:.1f}°")

    def test_the_shipped_files_are_small_and_loop_for_two_to_four_seconds(self) -> None:
        sizes = {path.name: path.stat().st_size for path in DRAWINGS.iterdir()}
        wanted = {
            f"{drill.id}-{what}"
            for drill in DRILLS
            for what in ("start.webp", "end.webp", "right.mp4", *(["wrong.mp4"] if drill.wrong else []))
        }
        self.assertEqual(set(sizes), wanted)
        self.assertLess(max(sizes.values()), 250_000)
        self.assertLess(sum(sizes.values()), 15_000_000)
        for path in DRAWINGS.glob("*.mp4"):
            with av.open(str(path)) as clip, self.subTest(path.name):
                stream = clip.streams.video[0]
                frames = stream.frames
                assert stream.average_rate is not None
                self.assertTrue(2.0 <= frames / float(stream.average_rate) <= LONGEST_S + 0.2)
                self.assertEqual((stream.width, stream.height), (WIDTH, HEIGHT))
                self.assertFalse(clip.streams.audio)

    def test_a_drawing_is_still_what_is_shipped(self) -> None:
        drill = BY_ID["wall_behind"]
        now = Drawing(drill).picture(drill.right[0].at, drill.right[0].settings)
        kept = cv2.imread(str(DRAWINGS / f"{drill.id}-start.webp"))[:, :, ::-1]
        self.assertLess(np.abs(now.astype(float) - kept).mean(), 3.0)
