"""A studio hour's ladder: what each change did, against the tries before it."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from tropometer.teaching.over_time.typical import Typical
from tropometer.teaching.trials.against import Tried, against, hour_scatter
from tropometer.teaching.trials.ladder import Column, Rung, steps

TURN = Column(id="turn", typical=Typical(within=2.0, wide=0.6, between=0.7, between_wide=0.8), worth=1.0)


def rungs(*groups: tuple[str, list[float]], u95: float = 1.0) -> list[Rung]:
    return [
        Rung(changed=changed, values={"turn": Tried(value=value, u95=u95)})
        for changed, values in groups
        for value in values
    ]


class LadderTests(TestCase):
    def test_four_against_four_can_be_real_three_cannot(self) -> None:
        base, narrow = [30.0, 31, 29, 30.5], [37.0, 38, 36.5, 37.5]
        (whole,) = steps(rungs(("", base), ("narrow", narrow)), [TURN])
        found = whole.by_column["turn"]
        self.assertEqual((found.verdict, found.more), ("real", 0))
        self.assertAlmostEqual(found.by, 7.1, delta=0.3)
        self.assertFalse(whole.went_back)
        (short,) = steps(rungs(("", base[:3]), ("narrow", narrow[:3])), [TURN])
        few = short.by_column["turn"]
        self.assertEqual((few.verdict, few.p, few.more), ("seems", None, 1))
        self.assertAlmostEqual(few.rarest, 0.1)

    def test_one_lucky_try_is_never_real(self) -> None:
        (step,) = steps(rungs(("", [30.0, 31, 29, 30.5]), ("narrow", [45.0])), [TURN])
        self.assertNotEqual(step.by_column["turn"].verdict, "real")
        self.assertGreaterEqual(step.by_column["turn"].more, 3)

    def test_a_base_line_that_moved_by_itself_is_named(self) -> None:
        early, narrow = [30.0, 31, 29, 30.5], [37.0, 38, 36.5, 37.5]
        (step,) = steps(rungs(("", early), ("narrow", narrow), ("", [38.0, 37, 37.5, 38.5])), [TURN])
        self.assertTrue(step.went_back)
        self.assertEqual(step.drifted, ("turn",))
        (step,) = steps(rungs(("", early), ("narrow", narrow), ("", [30.0, 29.5, 31, 30])), [TURN])
        self.assertEqual((step.went_back, step.drifted), (True, ()))
        self.assertEqual(step.by_column["turn"].verdict, "real")

    def test_what_is_left_out_or_missing_counts_for_nothing(self) -> None:
        hour = rungs(("", [30.0, 31, 29, 30.5]), ("narrow", [30.5, 30, 29.5, 31]))
        wild = Rung(changed="narrow", values={"turn": Tried(value=90, u95=1)}, counts=False)
        unread = Rung(changed="narrow", values={})
        (step,) = steps([*hour, wild, unread], [TURN])
        self.assertLess(abs(step.by_column["turn"].by), 1)
        self.assertEqual(steps([], [TURN]), ())
        (none,) = steps([hour[0], unread], [TURN])
        self.assertEqual(none.by_column, {})

    @given(st.floats(-50, 50), st.floats(0.1, 3))
    def test_where_nought_lies_and_which_side_is_called_base_change_only_the_sign(
        self, moved: float, u95: float
    ) -> None:
        a = [Tried(value=value, u95=u95) for value in (1.0, 2.5, 0.5, 1.5)]
        b = [Tried(value=value, u95=u95) for value in (4.0, 5.5, 3.5, 6.0)]
        there = [[Tried(value=each.value + moved, u95=u95) for each in group] for group in (b, a)]
        scatter = hour_scatter([a, b], TURN.typical)
        one, other = against(a, b, scatter, 1.0), against(there[0], there[1], scatter, 1.0)
        self.assertAlmostEqual(one.by, -other.by, places=6)
        self.assertAlmostEqual(one.low, -other.high, places=5)
        self.assertEqual((one.verdict, one.p), (other.verdict, other.p))
