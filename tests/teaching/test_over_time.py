"""Change over the months, on made-up series whose change and scatter follow other rules than are believed.

The scatter of a golfer is uniform, not log-normal; swings and days fly off as Student's t with 5 degrees of
freedom do, not as the normal does; counts of swings and days are anybody's.
"""

from __future__ import annotations

import math

import numpy as np
from django.test import SimpleTestCase as TestCase
from django.test import tag
from hypothesis import given, settings
from hypothesis import strategies as st

from tropometer.swing.arrays import Array
from tropometer.swing.error.value import NORMAL_95
from tropometer.teaching.judging.goals import Goal
from tropometer.teaching.knowledge.band import Band
from tropometer.teaching.over_time.change import Change, change_between
from tropometer.teaching.over_time.goal_state import inside, state_of
from tropometer.teaching.over_time.scatter import BETWEEN_STEPS, WITHIN_STEPS, means_of
from tropometer.teaching.over_time.series import Point, Series
from tropometer.teaching.over_time.together import others_of, together
from tropometer.teaching.over_time.typical import Typical, typical_scatter

TURN = typical_scatter("pelvis_turn")
BAND = Band(reading="pelvis_turn", at="top", low=38.0, high=55.0)


def stretch(number: int, *values: float, u95: float = 2.0, day: int = 0) -> list[Point]:
    """Swings of one day after so many lessons."""
    return [Point(value=each, u95=u95, day=100 * number + day, stretch=number) for each in values]


def changed(points: list[Point], band: Band | None = BAND, typical: Typical | None = None) -> Change:
    """From the first stretch to the second."""
    return change_between(Series(points), 0, 1, band, typical or TURN)


class MadeUpGolfers:
    """Golfers with a known change, seen on some days before it and some after."""

    def __init__(self, seed: int, times_usual: float | None, day_share: float | None) -> None:
        self.random = np.random.default_rng(seed)
        self.times_usual, self.day_share = times_usual, day_share

    def flung(self, size: float) -> float:
        """Student's t with 5 degrees of freedom, of one standard deviation `size`."""
        return float(size * self.random.standard_t(5) / math.sqrt(5 / 3))

    def golfer(self, change: float) -> list[Point]:
        """A reading of one golfer before and after a change."""
        scatter = TURN.within * (self.times_usual or self.random.uniform(0.4, 1.7))
        days = scatter * (self.random.uniform(0.2, 0.8) if self.day_share is None else self.day_share)
        points = []
        for number in (0, 1):
            for day in range(self.random.integers(1, 8)):
                that_day = self.flung(days)
                for _ in range(self.random.integers(1, 7)):
                    error = self.random.uniform(0.3, 1.2)
                    value = number * change + that_day + self.flung(scatter) + self.random.normal(0, error)
                    points += stretch(number, value, u95=NORMAL_95 * error, day=day)
        return points

    def covered(self, golfers: int, no_change: bool = False) -> float:
        """How many of the golfers' changes lie in the interval that is said of them."""
        hits = 0
        for _ in range(golfers):
            change = 0.0 if no_change else float(self.random.normal(0, 6))
            found = changed(self.golfer(change), None)
            hits += found.low <= change <= found.high
        return hits / golfers


@tag("slow")
class CoverageTest(TestCase):
    """2 000 golfers a case: the standard error of a share of 0.95 is 0.005."""

    def test_over_golfers_the_change_lies_in_its_interval_as_often_as_is_said(self) -> None:
        self.assertTrue(0.93 <= (share := MadeUpGolfers(11, None, None).covered(2000)) <= 0.97, share)

    def test_golfers_with_twice_the_usual_scatter_are_not_told_too_much(self) -> None:
        self.assertGreaterEqual(MadeUpGolfers(12, 2.0, None).covered(2000), 0.85)

    def test_no_change_is_seldom_called_one_even_where_days_differ_much(self) -> None:
        self.assertGreaterEqual(MadeUpGolfers(14, 1.0, 0.8).covered(2000, no_change=True), 0.95)


class ChangeTest(TestCase):
    def test_one_swing_then_and_one_now_show_little(self) -> None:
        one = changed(stretch(0, 30.0) + stretch(1, 36.0))
        self.assertEqual(one.moved, "unsure")
        many = changed(stretch(0, 29.6, 30.4, 30.1, 29.9) + stretch(1, 36.2, 35.8, 36.1, 35.9))
        self.assertEqual(many.moved, "toward")
        self.assertLess(many.u95, one.u95)
        self.assertGreater(many.sure, 0.975)

    def test_where_nothing_moved_it_says_how_much_would_have_been_seen(self) -> None:
        still = [30.0, 31.0, 29.5, 30.5, 30.2]
        days = [point for day in range(4) for point in stretch(0, *still, day=day)]
        later = [point for day in range(4) for point in stretch(1, *still, day=day)]
        found = changed(days + later)
        self.assertEqual(found.moved, "not_shown")
        self.assertIsNone(found.settles)
        self.assertLess(found.u95, 4.0)

    def test_what_is_unsure_says_how_many_swings_would_tell_and_so_many_do(self) -> None:
        then = [point for day in range(3) for point in stretch(0, 29.6, 30.4, 30.1, 29.9, day=day)]
        now = stretch(1, 32.0, u95=7.0)
        found = changed(then + now)
        self.assertEqual(found.moved, "unsure")
        assert found.settles is not None
        self.assertGreater(found.settles.swings, 0)
        more = [
            point
            for day in range(1, max(found.settles.days, 1) + 1)
            for point in stretch(1, *[32.0, 32.3, 31.7] * (found.settles.swings // 3 + 1), u95=7.0, day=day)
        ]
        self.assertNotEqual(changed(then + now + more).moved, "unsure")

    def test_swings_before_one_camera_cannot_take_its_error_away(self) -> None:
        def seen(share: float) -> Change:
            points = [
                Point(value=value, u95=6.0, day=number, stretch=number, set_up_share=share)
                for number, value in ((0, 30.0), (1, 34.0))
                for _ in range(8)
            ]
            return changed(points)

        self.assertGreater(seen(0.9).u95, 1.5 * seen(0.0).u95)
        settles = seen(0.9).settles
        assert settles is not None
        self.assertTrue(settles.measuring)
        self.assertFalse(settles.swings and not settles.days, "more of the same day would not tell")

    def test_inside_the_band_a_change_is_neither_toward_nor_away(self) -> None:
        then, now = [42.0, 42.4, 41.7] * 3, [51.0, 51.4, 50.7] * 3
        self.assertEqual(changed(stretch(0, *then) + stretch(1, *now)).moved, "moved")
        self.assertEqual(changed(stretch(0, *now) + stretch(1, *[36.0, 36.4, 35.7] * 3)).moved, "away")

    def test_what_is_no_number_is_named(self) -> None:
        with self.assertRaisesRegex(ValueError, "point 1"):
            Series(stretch(0, 30.0, math.nan))
        with self.assertRaises(KeyError):
            changed(stretch(0, 30.0))

    @settings(deadline=None)
    @given(
        st.lists(st.floats(-60, 60), min_size=2, max_size=6),
        st.lists(st.floats(-60, 60), min_size=2, max_size=6),
        st.floats(-100, 100),
    )
    def test_where_it_is_measured_from_changes_nothing(
        self, then: list[float], now: list[float], by: float
    ) -> None:
        here = changed(stretch(0, *then) + stretch(1, *now), None)
        there = changed(stretch(0, *[x + by for x in then]) + stretch(1, *[x + by for x in now]), None)
        self.assertAlmostEqual(here.by, there.by, places=4)
        self.assertAlmostEqual(here.u95, there.u95, places=4)


class KnownLimitTest(TestCase):
    """Where scatter is known, the grid must give the textbook's answer (weighted means; closed form)."""

    def test_with_very_many_swings_the_interval_is_that_of_two_means(self) -> None:
        random = np.random.default_rng(3)
        sure = Typical(within=2.0, wide=0.5, between=BETWEEN_STEPS[9], between_wide=0.05)
        groups: list[Array] = [random.normal(mean, 2.0, 400) for mean in (30.0, 33.0)]
        points = [each for number in (0, 1) for each in stretch(number, *groups[number], u95=1e-6)]
        found = changed(points, None, sure)
        textbook = NORMAL_95 * math.sqrt(2 * (4.0 / 400 + (2.0 * BETWEEN_STEPS[9]) ** 2))
        self.assertAlmostEqual(found.by, groups[1].mean() - groups[0].mean(), places=6)
        self.assertAlmostEqual(found.u95 / textbook, 1.0, delta=0.05)


class TogetherTest(TestCase):
    def test_the_swing_that_is_unlike_the_others_of_its_day_is_named(self) -> None:
        day = stretch(0, 44.0, 45.5, 43.2, 44.6, 45.0)
        found = together(day, TURN)
        assert found is not None
        self.assertIsNone(found.unlike)
        self.assertAlmostEqual(found.mean, 44.46, places=2)
        odd = together([*day[:2], *stretch(0, 22.0), *day[2:]], TURN)
        assert odd is not None
        self.assertEqual(odd.unlike, 2)
        self.assertIsNone(together(day[:2], TURN))

    def test_each_swing_s_others_are_what_all_but_it_would_say(self) -> None:
        random = np.random.default_rng(6)
        day = [
            Point(
                value=random.normal(40, 3),
                u95=random.uniform(1, 4),
                day=0,
                set_up_share=random.uniform(0, 0.6),
            )
            for _ in range(6)
        ]
        others = others_of(Series(day), TURN)
        for number, point in enumerate(day):
            left = Series([each for each in day if each is not point])
            means = means_of(left, TURN)
            own = Series([point]).own_variances[0] + means.within**2
            sd = np.sqrt(means.variance[:, 0] - means.between**2 - left.set_up_variances[0] + own)
            # Whatever days differ by, the others of the day lie the same: one normal stands for all of them.
            weight, mean, sd = (
                each.reshape(len(WITHIN_STEPS), -1) for each in (means.weight, means.mean[:, 0], sd)
            )
            np.testing.assert_allclose(others.weight[:, number], weight.sum(axis=1), atol=1e-9)
            np.testing.assert_allclose(np.repeat(others.mean[:, number, None], mean.shape[1], 1), mean)
            np.testing.assert_allclose(np.repeat(others.sd[:, number, None], sd.shape[1], 1), sd)

    def test_swings_of_one_rule_are_seldom_called_unlike(self) -> None:
        random = np.random.default_rng(5)
        named = 0
        for _ in range(400):
            points = stretch(0, *random.normal(40, 2.5, random.integers(3, 9)), u95=1.0)
            found = together(points, TURN)
            named += found is not None and found.unlike is not None
        self.assertLessEqual(named / 400, 0.03)


class GoalStateTest(TestCase):
    GOAL = Goal(reading="pelvis_turn", at="top", low=38.0, high=55.0)

    def state(self, then: list[float], now: list[float], u95: float = 2.0) -> str:
        points = stretch(0, *then, u95=u95) + stretch(1, *now, u95=u95)
        return state_of(inside(Series(points), 1, self.GOAL, TURN), changed(points))

    def test_a_goal_is_reached_on_the_way_not_yet_or_cannot_be_told(self) -> None:
        then = [26.0, 26.5, 25.6, 26.2]
        self.assertEqual(self.state(then, [46.0, 45.0, 47.0]), "reached")
        self.assertEqual(self.state(then, [34.0, 34.6, 33.5]), "on_the_way")
        self.assertEqual(self.state(then, [26.3, 26.1, 25.9]), "not_yet")
        self.assertEqual(self.state([37.0], [38.5], u95=12.0), "cannot_be_told")
