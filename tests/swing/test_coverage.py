"""The rule that judges intervals sees what is wrong, and is not taken in by trials that repeat themselves."""

from unittest import TestCase

import numpy as np

from tests.swing.coverage import independent, too_narrow

TRIALS, EACH = 60, 8


class CoverageTests(TestCase):
    def drawn(self, share: float, alike: bool, seed: int) -> list[list[bool]]:
        """Trials of eight intervals that hold with a probability, each by itself or all of a trial alike."""
        dice = np.random.default_rng(seed)
        if alike:
            return [[bool(dice.random() < share)] * EACH for _ in range(TRIALS)]
        return [[bool(each) for each in dice.random(EACH) < share] for _ in range(TRIALS)]

    def test_honest_intervals_pass_and_narrow_ones_do_not(self) -> None:
        said = {
            share: [bool(too_narrow(self.drawn(share, False, seed))) for seed in range(200)]
            for share in (0.80, 0.87, 0.95)
        }
        self.assertEqual(sum(said[0.95]), 0)
        self.assertEqual(sum(said[0.80]), 200)
        self.assertGreater(sum(said[0.87]), 150)  # it is not blind

    def test_trials_that_repeat_themselves_count_once(self) -> None:
        self.assertAlmostEqual(independent(self.drawn(0.9, True, 1)), TRIALS, delta=1)
        self.assertGreater(independent(self.drawn(0.9, False, 1)), 0.7 * TRIALS * EACH)
        falsely = [bool(too_narrow(self.drawn(0.95, True, seed))) for seed in range(200)]
        self.assertLessEqual(sum(falsely), 2)  # it is not flaky
