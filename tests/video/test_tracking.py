"""Marks followed on pictures whose motion is known, and lost where the picture says nothing."""

from unittest import TestCase

import cv2
import numpy as np

from tests.swings import DEMO_CLIPS, truth
from tropometer.video.proxy import upright_frames
from tropometer.video.shaft import follow_shaft
from tropometer.video.tracking import Span, hung, track

WITHIN_PX = 3.0


def drifting(frames: int, jump_at: int | None = None) -> tuple[list["np.ndarray"], "np.ndarray"]:  # type: ignore[type-arg]
    """A textured picture that slides along a curve; from `jump_at` on it is another picture."""
    rng = np.random.default_rng(5)
    sheets = [cv2.GaussianBlur(rng.integers(0, 255, (900, 900), dtype=np.uint8), (0, 0), 3) for _ in range(2)]
    t = np.linspace(0, 1, frames)
    shift = np.column_stack([60 * t, 25 * np.sin(3 * t)])
    shown = []
    for i, (x, y) in enumerate(shift):
        sheet = sheets[int(jump_at is not None and i >= jump_at)]
        shown.append(cv2.warpAffine(sheet, np.array([[1, 0, x - 60], [0, 1, y - 60]]), (720, 720)))
    return shown, np.add(shift, [300, 320])


class FlowTests(TestCase):
    def test_a_point_is_followed_to_a_fraction_of_a_pixel(self) -> None:
        frames, true = drifting(40)
        (found,) = track(frames, [Span("ball", 0, 39, tuple(true[0]), tuple(true[-1]))])
        self.assertLess(np.abs(found[:, :2] - true).max(), 0.5)
        self.assertLess(found[:, 2].max(), 1.0)

    def test_where_the_two_ways_part_it_stops_and_both_ends_stand(self) -> None:
        frames, true = drifting(40, jump_at=20)
        (found,) = track(frames, [Span("ball", 0, 39, tuple(true[0]), tuple(true[-1] + [80, 90]))])
        self.assertTrue(np.isnan(found[15:25, 0]).any())
        np.testing.assert_allclose(found[0, :2], true[0])
        np.testing.assert_allclose(found[-1, :2], true[-1] + [80, 90])

    def test_a_guide_confirms_the_way_that_is_right(self) -> None:
        frames, true = drifting(40, jump_at=36)
        lost = Span("ball", 0, 39, tuple(true[0]), tuple(true[-1] + [30, 0]))
        guided = Span("ball", 0, 39, tuple(true[0]), tuple(true[-1] + [30, 0]), true)
        alone, led = (np.isfinite(found[1:30, 0]).sum() for found in track(frames, [lost, guided]))
        self.assertGreater(led, alone)


class GolferTests(TestCase):
    def test_shoes_and_ankles_between_two_marks_of_the_backswing(self) -> None:
        known = truth("dag_first_face")
        first, last = known["checkpoints"]["shaft_back"], known["checkpoints"]["top"]
        file = next(DEMO_CLIPS.glob("dag_first_face.m*"))
        frames = [cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY) for picture, _ in upright_frames(file)]
        names = ("lead_toe", "trail_toe", "lead_ankle", "lead_knee")
        true = {name: np.array(known["pixels"][name])[first : last + 1] for name in names}
        spans = [Span(name, first, last, tuple(each[0]), tuple(each[-1])) for name, each in true.items()]
        for name, found in zip(names, track(frames[first : last + 1], spans), strict=True):
            missed = np.hypot(*(found[:, :2] - true[name]).T)
            with self.subTest(name):
                self.assertGreater(np.mean(np.isfinite(missed)), 0.5)
                self.assertLess(np.nanpercentile(missed, 95), WITHIN_PX)


class ClubTests(TestCase):
    def test_the_head_is_found_by_its_shaft_through_the_blur_of_the_downswing(self) -> None:
        known = truth("dag_first_face")
        file = next(DEMO_CLIPS.glob("dag_first_face.m*"))
        frames = [cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY) for picture, _ in upright_frames(file)]
        grips, heads = (np.array(known["pixels"][name]) for name in ("grip", "club_head"))
        pegs = known["checkpoints"]
        for a, b in ((pegs["top"], pegs["arm_down"]), (pegs["shaft_back"], pegs["arm_back"])):
            found = follow_shaft(frames[a - 2 : b + 3], grips[a : b + 1], heads[a], heads[b])
            there = np.isfinite(found[:, 0])
            missed = np.hypot(*(found[there, :2] - heads[a : b + 1][there]).T)
            with self.subTest(a):
                self.assertGreater(there.mean(), 0.6)
                self.assertLess(float(np.median(missed)), 12)
                held = missed <= 2.45 * np.maximum(found[there, 2], 1)
                self.assertGreater(held.mean(), 0.8)

    def test_without_a_moving_club_nothing_is_believed(self) -> None:
        rng = np.random.default_rng(0)
        still = rng.integers(0, 255, (480, 640), dtype=np.uint8)
        grips = np.tile([300.0, 200.0], (12, 1))
        found = follow_shaft([still] * 16, grips, np.array([300.0, 350.0]), np.array([160.0, 200.0]))
        self.assertTrue(np.isnan(found[1:-1, 0]).all())

    def test_the_grip_hangs_on_the_landmarks_between_its_placed_ends(self) -> None:
        seen = np.column_stack([np.linspace(0, 90, 10), np.zeros(10)])
        span = Span("grip", 0, 9, (5.0, 2.0), (95.0, 4.0), seen, "landmarks")
        found = hung(span, 1.0)
        np.testing.assert_allclose(found[[0, -1], :2], [[5, 2], [95, 4]])
        self.assertAlmostEqual(found[4, 0], seen[4, 0] + 5)
        blind = hung(Span("grip", 0, 9, (5.0, 2.0), (95.0, 4.0)), 1.0)
        self.assertTrue(np.isnan(blind[1:-1]).all())
