"""Repeatability against the literature's own table and another library."""

from __future__ import annotations

import math

import numpy as np
import pandas as pd
import pingouin as pg
from django.test import SimpleTestCase as TestCase

from tropometer.teaching.over_time.repeatability import repeatability

# Shrout and Fleiss 1979, Psychol Bull 86:420, table 2: four ratings of six targets.
TARGETS = [[9, 2, 5, 8], [6, 1, 3, 2], [8, 4, 6, 8], [7, 1, 2, 6], [10, 5, 6, 9], [6, 2, 4, 7]]


class RepeatabilityTest(TestCase):
    def test_shrout_and_fleiss_table_of_case_one(self) -> None:
        """Their table 4: ICC(1,1) = .17, ICC(1,4) = .44; WMS = 6.26 in their table 3."""
        found = repeatability(TARGETS)
        assert found is not None
        self.assertEqual((round(found.single, 2), round(found.mean, 2)), (0.17, 0.44))
        self.assertAlmostEqual(found.sem**2, 6.26, delta=0.01)

    def test_pingouin_agrees_on_random_tables(self) -> None:
        random = np.random.default_rng(8)
        for spread in (0.5, 2.0, 8.0):
            table = random.normal(40, spread, (9, 1)) + random.normal(0, 2, (9, 5))
            long = pd.DataFrame(
                [(row, column, table[row, column]) for row in range(9) for column in range(5)],
                columns=["golfer", "swing", "turn"],
            )
            theirs = pg.intraclass_corr(long, targets="golfer", raters="swing", ratings="turn")
            values = dict(zip(theirs["Type"], theirs["ICC"], strict=True))
            found = repeatability(table.tolist())
            assert found is not None
            single = next(value for name, value in values.items() if name in ("ICC1", "ICC(1,1)"))
            mean = next(value for name, value in values.items() if name in ("ICC1k", "ICC(1,k)"))
            self.assertAlmostEqual(found.single, single, places=9)
            self.assertAlmostEqual(found.mean, mean, places=9)

    def test_sem_by_the_intraclass_correlation_is_that_by_the_mean_square(self) -> None:
        """Weir 2005: SEM = SD √(1 − ICC); of between and within it is √WMS."""
        found = repeatability(TARGETS)
        assert found is not None
        within = found.sem**2
        between = found.single * within / (1 - found.single)
        self.assertAlmostEqual(math.sqrt(between + within) * math.sqrt(1 - found.single), found.sem)

    def test_students_who_never_repeat_tell_nothing(self) -> None:
        self.assertIsNone(repeatability([[1.0], [2.0], [3.0, 3.1]]))
        uneven = repeatability([[40.0, 41.0, 40.5], [52.0, 51.0], [47.0]])
        assert uneven is not None
        self.assertGreater(uneven.single, 0.9)
