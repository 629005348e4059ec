"""All readings in one register, and how their errors hang together."""

from unittest import TestCase

import numpy as np

from tests.strangers.trials import trials
from tests.swing.keyed import by_key
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.read import read
from tropometer.swing.readings.register import KINDS, DuplicateReading, enter


class RegisterTests(TestCase):
    def test_two_readings_cannot_have_one_id(self) -> None:
        with self.assertRaisesRegex(DuplicateReading, "stance_width"):
            enter(KINDS["stance_width"])

    def test_readings_of_one_swing_share_errors(self) -> None:
        """How far the pelvis goes from the top to impact is known better than where it is at either."""
        top, impact = ("pelvis_sway", "top"), ("pelvis_sway", "impact")
        missed = []
        for trial in trials("both, mat", 40, seed=9):
            whole = read(trial.record)
            shown = by_key(whole.readings)
            shared = whole.covariance([top, impact, ("tempo", "swing")])
            said = [(shown[key].u95 or 0) / NORMAL_95 for key in (top, impact, ("tempo", "swing"))]
            np.testing.assert_allclose(np.sqrt(np.diag(shared)), said, rtol=1e-6)
            self.assertEqual(np.count_nonzero(shared[2]), 1)
            a, b = ((shown[key].value or 0) - float(trial.true[key]) for key in (top, impact))
            apart = shared[0, 0] + shared[1, 1] - 2 * shared[0, 1]
            self.assertLess(apart, (shared[0, 0] + shared[1, 1]) * 0.8)
            missed.append((a - b) / np.sqrt(apart))
        self.assertTrue(0.75 < np.sqrt(np.mean(np.square(missed))) < 1.25, missed)
