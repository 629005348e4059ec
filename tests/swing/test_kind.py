"""What club and what length of swing marks tell: of strangers, whose clubs and arms the core did not draw."""

from unittest import TestCase

import numpy as np

from tests.strangers.filming import film
from tropometer.swing.names import ClubClass
from tropometer.swing.proposals.club_class import propose_club_class
from tropometer.swing.proposals.swing_length import swing_length_of
from tropometer.swing.read import read
from tropometer.swing.scene.scene import Scene

CLASS_OF: dict[str, ClubClass] = {"wedge": "wedge", "mid_iron": "iron", "driver": "driver"}


class KindTests(TestCase):
    def test_a_club_is_told_right_or_not_at_all_and_a_full_swing_is_none_to_the_lead_arm(self) -> None:
        told = lengths = 0
        for seed in range(40):
            filmed = film(("face_on", "down_the_line"), "mat", np.random.default_rng(seed))
            club = propose_club_class(Scene.at_checkpoints(filmed.record))
            if club is not None:
                told += 1
                self.assertEqual(club, CLASS_OF[filmed.swing.club])
            length = swing_length_of(read(filmed.record).readings)
            lengths += length is not None
            self.assertIn(length, (None, "shoulder_high", "full"))
        self.assertGreater(told, 10)
        self.assertGreater(lengths, 25)
