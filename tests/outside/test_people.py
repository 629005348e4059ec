"""A real person from four sides: the open footage of pose2sim 0.10.49, Demo_SinglePerson (BSD 3-clause).

Somebody walks; nobody swings a club.
"""

from unittest import TestCase

import numpy as np
from django.conf import settings

from tests.outside.captured import FOLDER
from tropometer.swing.proposals.checkpoints import propose_checkpoints
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.motion import Heard
from tropometer.video.landmarks import LandmarkFinder
from tropometer.video.movement import MovementMeter
from tropometer.video.proxy import upright_frames


class PeopleTests(TestCase):
    def test_no_swing_is_claimed_where_somebody_walks(self) -> None:
        for camera in ("cam01", "cam02", "cam03", "cam04"):
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
