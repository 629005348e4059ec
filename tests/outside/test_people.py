"""A real person from four sides: the open footage of pose2sim 0.10.49, Demo_SinglePerson (BSD 3-clause).

Somebody walks; nobody swings a club. Where a joint is, three cameras tell the fourth.
"""

from unittest import TestCase

import numpy as np
from django.conf import settings

from tests.outside.captured import FOLDER
from tests.outside.walk import CAMERAS, PARTS, walk
from tropometer.swing.proposals.checkpoints import propose_checkpoints
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.motion import Heard
from tropometer.swing.proposals.offsets import REAL_PEOPLE
from tropometer.video.landmarks import LandmarkFinder
from tropometer.video.movement import MovementMeter
from tropometer.video.proxy import upright_frames

WIDER = 1.3  # a spread that was measured on one person is taken wider for others


class PeopleTests(TestCase):
    def test_no_swing_is_claimed_where_somebody_walks(self) -> None:
        for camera in CAMERAS:
            finder, meter, bodies, times = LandmarkFinder(settings.LANDMARK_MODELS), MovementMeter(), [], []
            for picture, time_s in upright_frames(FOLDER / f"{camera}.mp4"):
                bodies.append(finder.find(picture))
                meter.add(picture)
                times.append(time_s)
            points = [np.full((33, 3), np.nan) if body is None else body.landmarks for body in bodies]
            landmarks = Landmarks(np.array(times), np.array(points))
            self.assertTrue(landmarks.enough)
            for strike in (None, Heard(times[len(times) // 2], 1.0)):
                with self.subTest(camera, strike=strike is not None):
                    found = propose_checkpoints(landmarks, meter.found(), "right", strike)
                    self.assertEqual(found, {})

    def test_spreads_of_marks_hold_on_a_real_person(self) -> None:
        """Of what either pair of cameras sees at least 85 % lies within 1.96 spreads, on both axes."""
        seen, pairs = walk(), ((0, 1), (2, 3))
        tall = seen.statures()
        self.assertTrue(3.0 < tall < 4.5, tall)
        for part in PARTS:
            missed = [np.concatenate([seen.missed(part, camera) for camera in pair]) for pair in pairs]
            shipped = float(np.hypot(*REAL_PEOPLE["close"][part]))
            with self.subTest(part):
                self.assertLess(1.96 * shipped / tall, 0.04)  # of stature: honest, and not by being wide
                for here, there in (missed, missed[::-1]):
                    measured = WIDER * np.quantile(np.abs(here), 0.95, axis=0).max() / 1.96
                    for spread in (shipped, measured):
                        self.assertGreater(np.mean((np.abs(there) < 1.96 * spread).all(axis=1)), 0.85)
