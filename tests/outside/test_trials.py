"""Tries held against each other, by other people's reckoning and by golfers of other rules."""

from __future__ import annotations

import math
from unittest import TestCase

import numpy as np
from scipy.stats import permutation_test

from tropometer.teaching.over_time.typical import Typical
from tropometer.teaching.trials.against import Tried, against, exact_p, hour_scatter, rarest
from tropometer.teaching.trials.strikes import Struck, counted

TYPICAL = Typical(within=2.0, wide=0.6, between=0.7, between_wide=0.8)


def tries(values: np.ndarray, u95: float = 0.0) -> list[Tried]:
    return [Tried(value=float(value), u95=u95) for value in values]


class ExactTests(TestCase):
    def test_the_p_is_scipy_s_over_all_ways_to_deal_them_out(self) -> None:
        random = np.random.default_rng(1)
        for base, changed in ((4, 4), (4, 6), (7, 5)):
            a, b = random.normal(0, 1, base), random.normal(0.8, 2, changed)
            wished = permutation_test(
                (a, b),
                lambda x, y, axis: np.abs(np.mean(x, axis=axis) - np.mean(y, axis=axis)),
                vectorized=True,
                n_resamples=np.inf,
                alternative="greater",
            )
            self.assertEqual(wished.null_distribution.size, math.comb(base + changed, base))
            self.assertAlmostEqual(exact_p(a, b), wished.pvalue, places=9)

    def test_counting_alone_says_what_so_many_tries_can_show(self) -> None:
        """Of C(8, 4) = 70 ways two are wholly apart; of C(6, 3) = 20 too: counting."""
        self.assertAlmostEqual(exact_p([1, 2, 3, 4], [5, 6, 7, 8]), 2 / 70)
        self.assertAlmostEqual(rarest(3, 3), 0.1)
        self.assertIsNone(exact_p([1, 2, 3], [7, 8, 9]))
        self.assertAlmostEqual(exact_p([1, 1, 1, 1], [1, 1, 1, 1]), 1.0)

    def test_of_too_many_ways_a_draw_is_near_the_t_test(self) -> None:
        from scipy.stats import ttest_ind

        random = np.random.default_rng(3)
        a, b = random.normal(0, 1, 14), random.normal(0.7, 1, 14)  # 40 million ways
        self.assertAlmostEqual(exact_p(a, b), ttest_ind(a, b).pvalue, delta=0.02)
        self.assertEqual(exact_p(a, b), exact_p(a, b))


class OtherGolfersTests(TestCase):
    """Tries of golfers whose scatter is neither normal nor the typical one: drawn by other rules."""

    def drawn(self, seed: int, effect: float) -> tuple[list[Tried], list[Tried]]:
        random = np.random.default_rng([9, seed])
        own = TYPICAL.within * math.exp(random.uniform(-0.9, 0.9))
        error, u95 = random.uniform(0.2, 1.5), 0.0

        def group(mean: float) -> list[Tried]:
            count = random.integers(4, 8)
            heavy = random.standard_t(5, count) / math.sqrt(5 / 3)  # now and then a wild one
            return tries(mean + own * heavy + error * random.normal(size=count), u95 or 1.96 * error)

        shared = random.normal(0, 3)  # of the camera's place: in all tries of the hour
        return group(20 + shared), group(20 + effect + shared)

    def test_intervals_hold_the_truth_and_nothing_is_called_real_that_is_not(self) -> None:
        held, alarms, found, count = 0, 0, 0, 400
        for seed in range(count):
            base, changed = self.drawn(seed, 0.0)
            said = against(base, changed, hour_scatter([base, changed], TYPICAL), worth=1.0)
            held += said.low <= 0 <= said.high
            alarms += said.verdict == "real"
            base, changed = self.drawn(seed + count, 6.0)
            said = against(base, changed, hour_scatter([base, changed], TYPICAL), worth=1.0)
            held += said.low <= 6 <= said.high
            found += said.verdict == "real"
        self.assertGreaterEqual(held / (2 * count), 0.93)
        self.assertLessEqual(alarms / count, 0.05)
        self.assertGreaterEqual(found / count, 0.7)

    def test_so_many_more_tries_do_settle_it(self) -> None:
        settled, asked = 0, 0
        for seed in range(200):
            random = np.random.default_rng([12, seed])
            first = [tries(random.normal(mean, 2, 2), 1.0) for mean in (20, 24)]
            said = against(first[0], first[1], hour_scatter(first, TYPICAL), worth=1.0)
            if said.more:
                asked += 1
                whole = [
                    group + tries(random.normal(mean, 2, said.more), 1.0)
                    for group, mean in zip(first, (20, 24), strict=True)
                ]
                settled += (
                    against(whole[0], whole[1], hour_scatter(whole, TYPICAL), worth=1.0).verdict == "real"
                )
        self.assertGreater(asked, 150)
        self.assertGreater(settled / asked, 0.5)


class StrikesTests(TestCase):
    def test_the_lady_tasting_tea(self) -> None:
        """Fisher 1935, The Design of Experiments, 2: three of four right, or as far off, is 34 in 70."""
        milk: list[Struck] = ["heavy"] * 3 + ["clean"]
        tea: list[Struck] = ["heavy"] + ["clean"] * 3
        clean, heavy = counted(milk, tea)
        self.assertEqual((heavy.struck, heavy.base, heavy.changed), ("heavy", 3, 1))
        self.assertAlmostEqual(heavy.p, 34 / 70)
        self.assertAlmostEqual(clean.p, 34 / 70)
        self.assertFalse(heavy.real)
        (all_clean, none_heavy) = counted(["heavy"] * 4, ["clean"] * 4)
        self.assertAlmostEqual(none_heavy.p, 2 / 70)
        self.assertTrue(all_clean.real)
        self.assertEqual(counted(["heavy"], []), ())
