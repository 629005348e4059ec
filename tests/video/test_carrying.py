"""A mark by hand is carried to other frames as long as what was clicked is seen there."""

from unittest import TestCase

import numpy as np

from tests.swings import truth
from tests.video.test_ball import pictures_of
from tropometer.swing.proposals.carried import Carried, carried_mark, laid_together
from tropometer.swing.record.clip import Mark
from tropometer.video.carrying import Start, carried_from

NAME = "tobin_first_line"


def start(name: str, frame: int, *to: int) -> Start:
    x, y = truth(NAME)["pixels"][name][frame]
    return Start(frame, x, y, to)


class CarryTests(TestCase):
    def test_a_standing_foot_is_carried_through_the_swing_and_errs_as_it_says(self) -> None:
        known = truth(NAME)
        gray = [np.asarray(picture.mean(axis=2), np.uint8) for picture in pictures_of(NAME)]
        begin = known["checkpoints"]["address"]
        to = tuple(known["checkpoints"][at] for at in ("arm_back", "top", "arm_down"))
        names = ("lead_toe", "trail_toe", "trail_heel", "trail_ankle")
        starts = [start(name, begin, *to) for name in names]
        found = carried_from(gray, 0, starts)
        held = []
        for name, rows in zip(names, found, strict=True):
            for frame, (x, y, way_px, back_px) in zip(to, rows.tolist(), strict=True):
                mark = carried_mark(name, 0.0, Carried(x=x, y=y, way_px=way_px, back_px=back_px), 1.0)
                self.assertIsNotNone(mark, (name, frame))
                assert mark is not None
                off = np.abs(np.subtract(known["pixels"][name][frame], (mark.x, mark.y)))
                held += (off <= 1.96 * mark.sd_px).tolist()
                self.assertLess(float(off.max()), 6, (name, frame))
        self.assertGreaterEqual(np.mean(held), 0.9)

    def test_what_passes_behind_something_does_not_find_back(self) -> None:
        known = truth(NAME)
        gray = [np.asarray(picture.mean(axis=2), np.uint8) for picture in pictures_of(NAME)]
        top, impact = known["checkpoints"]["top"], known["checkpoints"]["impact"]
        (rows,) = carried_from(gray, 0, [start("lead_knee", top, impact)])
        x, y, way_px, back_px = rows[0].tolist()
        self.assertIsNone(
            carried_mark("lead_knee", 1.5, Carried(x=x, y=y, way_px=way_px, back_px=back_px), 1.0)
        )


class LaidTogetherTests(TestCase):
    def test_the_surer_counts_for_more_and_both_are_surer_together(self) -> None:
        seen, carried = Mark(110, 200, 8.0, "proposed", 5.0), Mark(100, 204, 2.0, "proposed")
        both = laid_together(seen, carried)
        assert both is not None
        self.assertAlmostEqual(both.x, 100 + 10 / 17)
        self.assertLess(both.sd_px, 2.0)
        self.assertAlmostEqual(both.shared_px, 5.0 / 17)
        self.assertEqual(both.source, "proposed")  # nobody has looked at it

    def test_what_lies_apart_is_left_to_what_saw_the_frame(self) -> None:
        seen, carried = Mark(150, 200, 8.0, "proposed"), Mark(100, 204, 2.0, "proposed")
        self.assertEqual(laid_together(seen, carried), seen)
        self.assertEqual(laid_together(None, carried), carried)
        self.assertEqual(laid_together(seen, None), seen)
