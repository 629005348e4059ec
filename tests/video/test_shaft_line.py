"""A shaft is a straight line from the grip: its end is the club head, or nothing is said."""

from unittest import TestCase

import cv2
import numpy as np

from tests.swings import truth
from tests.video.test_ball import pictures_of
from tropometer.swing.proposals.ball import SHAFT_AT
from tropometer.video.shaft_line import Hands, club_head

ARMS = ("lead_elbow", "trail_elbow", "lead_shoulder", "trail_shoulder")


class ShaftTests(TestCase):
    def test_its_end_is_the_club_head(self) -> None:
        for name, plane in (("tobin_first_face", "frontal"), ("dag_first_line", "sagittal")):
            known, pictures = truth(name), pictures_of(name)
            pixels = {mark: np.array(rows) for mark, rows in known["pixels"].items()}
            address = known["checkpoints"]["address"]
            hips = (pixels["lead_hip"][address] + pixels["trail_hip"][address]) / 2
            torso_px = float(np.hypot(*(pixels["neck"][address] - hips)))
            club_px = float(np.hypot(*(pixels["ball"][address] - pixels["grip"][address])))
            for at, least in SHAFT_AT[plane].items():
                frame = known["checkpoints"][at]
                hands = Hands(
                    frame=frame,
                    grip=tuple(pixels["grip"][frame] + [3, -4]),  # hands are a machine's too
                    arms=tuple(tuple(pixels[arm][frame]) for arm in ARMS),
                    least=least,
                )
                gray = np.asarray(cv2.cvtColor(pictures[frame], cv2.COLOR_RGB2GRAY), np.uint8)
                found = club_head(gray, hands, torso_px, club_px)
                with self.subTest(name, at=at):
                    if found is None:
                        self.assertEqual(at, "arm_down")  # the fast club is not always seen to its end
                        continue
                    off = np.abs(np.subtract(found, pixels["club_head"][frame])).max()
                    self.assertLess(float(off), 0.2 * torso_px)

    def test_nothing_is_said_where_no_line_leads_from_the_hands(self) -> None:
        blank = np.full((400, 400), 128, np.uint8)
        self.assertIsNone(club_head(blank, Hands(frame=0, grip=(200, 200), arms=()), 100, 150))
        short = blank.copy()
        cv2.line(short, (205, 205), (240, 240), 255, 3)  # a glove's edge
        self.assertIsNone(club_head(short, Hands(frame=0, grip=(200, 200), arms=()), 100, 150))
        club = blank.copy()
        cv2.line(club, (205, 205), (300, 300), 255, 3)
        x, y = club_head(club, Hands(frame=0, grip=(200, 200), arms=()), 100, 150) or (0, 0)
        self.assertLess(np.hypot(x - 300, y - 300), 6)
        self.assertIsNone(
            club_head(club[:302], Hands(frame=0, grip=(200, 200), arms=()), 100, 150)
        )  # cut off
