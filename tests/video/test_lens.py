"""A lens that bends straight lines is noticed, and a plain one is not suspected."""

from unittest import TestCase

import cv2
import numpy as np

from tests.swings import DEMO_CLIPS
from tests.video.spoilt import wide_lens
from tropometer.video.lens import bending
from tropometer.video.proxy import upright_frames


class LensTests(TestCase):
    def test_bent_lines_are_noticed_and_straight_ones_are_left(self) -> None:
        for name in ("dag_first_face", "wynn_line", "petra_closed_line", "ilse_face"):
            (path,) = DEMO_CLIPS.glob(f"{name}.m*")
            picture, _ = next(upright_frames(path))
            (bent,), _ = wide_lens([picture], {"pixels": {}})
            plain, wide = (
                bending(np.asarray(cv2.cvtColor(each, cv2.COLOR_RGB2GRAY), np.uint8))
                for each in (picture, bent)
            )
            with self.subTest(name):
                self.assertIsNone(plain)
                assert wide is not None
                self.assertLess(wide, -0.2)

    def test_nothing_is_said_of_a_picture_without_lines(self) -> None:
        self.assertIsNone(bending(np.full((360, 640), 120, np.uint8)))
