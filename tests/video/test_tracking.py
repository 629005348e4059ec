"""Marks followed on pictures whose motion is known, and lost where the picture says nothing."""

from unittest import TestCase

import cv2
import numpy as np

from tests.swings import DEMO_CLIPS, truth
from tropometer.video.proxy import upright_frames
from tropometer.video.tracking import Span, track

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
