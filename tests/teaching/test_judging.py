"""Judging: certainties, sizes, the chain of causes, and what is chosen from it."""

from math import sqrt
from statistics import NormalDist
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.teaching.saying import fault, judged, only, reading, refused
from tropometer.swing.error.budget import Share
from tropometer.swing.error.source import Source
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.readings.reading import Need, Reading
from tropometer.teaching.judge import Beside
from tropometer.teaching.judging.asked import Swung, asked_of
from tropometer.teaching.judging.finding import Finding
from tropometer.teaching.judging.goals import Goal, detectable, goal_for
from tropometer.teaching.judging.population import Population, Usual
from tropometer.teaching.judging.sparing import drills_that_fit
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.over_time.typical import typical_scatter
from tropometer.teaching.student import Ache, Student

TURN = {"reading": "pelvis_turn", "at": "top", "below": 36.0, "half": 6.0}
SWAY = {"reading": "pelvis_sway", "at": "top", "below": -0.06, "half": 0.02}
U95 = 1.959964


def one(evidence: dict, *readings: Reading, **more: Any) -> Finding:
    """The finding of a book with one fault."""
    return judged(list(readings), book=only(fault("it", evidence)), **more).findings[0]


class CertaintyTest(TestCase):
    def test_a_single_condition_is_the_normal_tail(self) -> None:
        for value in (30.0, 34.0, 36.0, 37.0, 40.0):
            found = one(TURN, reading("pelvis_turn", "top", value, 2 * U95))
            self.assertAlmostEqual(found.certainty, NormalDist(value, 2).cdf(36), delta=0.004)

    def test_errors_that_are_shared_cancel_in_a_change(self) -> None:
        change = {"reading": "spine_incline", "at": "impact", "since": "address", "below": -8.0}
        both = [reading("spine_incline", at, v, 3 * U95) for at, v in (("address", 30.0), ("impact", 20.0))]

        def shared(keys: list[Key]) -> np.ndarray:
            return np.full((len(keys), len(keys)), 9.0) * 0.96 + np.eye(len(keys)) * 9 * 0.04

        self.assertGreater(one(change, *both, covariance=shared).certainty, 0.98)
        self.assertAlmostEqual(one(change, *both).certainty, NormalDist(-10, 3 * sqrt(2)).cdf(-8), delta=0.01)

    def test_what_all_must_hold_and_what_one_of_them(self) -> None:
        given_ = (reading("pelvis_turn", "top", 36.0, U95), reading("pelvis_sway", "top", -0.06, 0.01 * U95))
        self.assertAlmostEqual(one({"all": [TURN, SWAY]}, *given_).certainty, 0.25, delta=0.01)
        self.assertAlmostEqual(one({"any": [TURN, SWAY]}, *given_).certainty, 0.75, delta=0.01)
        two = {"at_least": 2, "of": [TURN, SWAY, {"reading": "pelvis_turn", "at": "top", "below": 99.0}]}
        self.assertAlmostEqual(one(two, *given_).certainty, 0.75, delta=0.01)

    def test_a_population_draws_what_is_unsure_to_where_people_are(self) -> None:
        people = Population(
            origin="made up",
            readings={("pelvis_turn", "top"): Usual(45.0, 8.0)},
        )
        # Of N(45, 8²) seen as 34 ± sd 6: mean 45 + 64/100 · (34 − 45) = 37.96, sd √(64 · 36 / 100) = 4.8.
        found = one(TURN, reading("pelvis_turn", "top", 34.0, 6 * U95), population=people)
        self.assertAlmostEqual(found.certainty, NormalDist(37.96, 4.8).cdf(36), delta=0.004)

    def test_verdicts_are_said_by_certainty(self) -> None:
        for value, verdict in ((30, "shown"), (35, "likely"), (37, "open"), (42, "not_shown")):
            self.assertEqual(one(TURN, reading("pelvis_turn", "top", value, 2 * U95)).verdict, verdict)

    @settings(deadline=None)  # the first one makes the table of draws
    @given(st.floats(-100, 100), st.floats(0, 50))
    def test_a_certainty_is_never_beyond_what_can_be(self, value: float, u95: float) -> None:
        found = one({"any": [TURN, SWAY]}, reading("pelvis_turn", "top", value, u95))
        self.assertTrue(0 <= found.certainty <= 1)


class UnseenTest(TestCase):
    def test_what_all_hangs_on_and_nobody_saw_cannot_be_seen(self) -> None:
        seen = reading("pelvis_turn", "top", 20.0, 1.0)
        need = Need("mark", "trail_hip", "top", "face_on")
        found = one({"all": [TURN, SWAY]}, seen, refused("pelvis_sway", "top", need))
        self.assertEqual(found.verdict, "cannot_be_seen")
        self.assertEqual(found.settled_by[0].need, need)

    def test_what_is_ruled_out_by_what_was_seen_is_ruled_out(self) -> None:
        seen = reading("pelvis_turn", "top", 60.0, 1.0)
        self.assertEqual(one({"all": [TURN, SWAY]}, seen).verdict, "not_shown")

    def test_of_alternatives_those_that_are_seen_count(self) -> None:
        seen = reading("pelvis_turn", "top", 20.0, 1.0)
        self.assertEqual(one({"any": [SWAY, TURN]}, seen).verdict, "shown")

    def test_a_fault_is_provisional_with_its_evidence(self) -> None:
        for provisional in (True, False):
            seen = reading("pelvis_turn", "top", 20.0, 1.0, provisional=provisional)
            self.assertEqual(one(TURN, seen).provisional, provisional)

    def test_an_open_one_names_what_would_settle_it(self) -> None:
        mark = Source("mark", "lead_hip", "top", "face_on")
        seen = reading("pelvis_turn", "top", 35.0, 6.0, budget=(Share("marks", 0.9),), largest_source=mark)
        (settles,) = one(TURN, seen).settled_by
        self.assertEqual(settles.need, Need("mark", "lead_hip", "top", "face_on"))
        # sd 3.06, of whose variance 63 % goes: mean of max(p, 1 − p) over what may be learnt.
        drawn = np.random.default_rng(1).normal(-1.0, 3.06 * sqrt(0.63), 200_000)
        p = np.array([NormalDist().cdf(z) for z in drawn[:20_000] / (3.06 * sqrt(0.37))])
        self.assertAlmostEqual(settles.certainty, float(np.maximum(p, 1 - p).mean()), delta=0.01)


class AskedTest(TestCase):
    def test_a_driver_stands_wider_than_a_wedge(self) -> None:
        for club, ratio, wide in (("wedge", 1.2, True), ("driver", 1.2, False), ("driver", 1.9, True)):
            found = judged([reading("stance_ratio", "address", ratio, 0.02)], swung=Swung(club=club))
            of = {each.fault: each.verdict for each in found.findings}
            self.assertEqual(of["stance_too_wide"] == "shown", wide, (club, ratio))

    def test_a_pitch_is_no_restricted_turn(self) -> None:
        short = [reading("pelvis_turn", "top", 15.0, 2.0)]
        for length, judged_ in (("full", True), ("pitch", False), ("shoulder_high", False)):
            faults = [each.fault for each in judged(short, swung=Swung(length=length)).findings]
            self.assertEqual("restricted_turn" in faults, judged_, length)

    def test_a_stiff_hip_is_asked_less_and_never_nothing(self) -> None:
        book, model = shipped(), shipped().models["centred"]
        for degrees, low in ((40.0, 38.0), (20.0, 32.0), (0.0, 20.0)):
            asked = asked_of(book, model, Swung(), {"trail_hip_in": degrees})
            self.assertAlmostEqual(asked.bands["pelvis_turn", "top"].low, low)
        self.assertEqual([clash.id for clash in asked.clashes], ["held_knee_and_full_turn"])

    def test_one_swing_is_judged_by_what_its_teacher_asks(self) -> None:
        held = [reading("knee_flex_change_trail", "top", 0.0, 3.0)]
        by = {
            model: {each.fault: each.verdict for each in judged(held, model=model).findings}
            for model in ("loaded_shift", "centred")
        }
        self.assertEqual(by["loaded_shift"]["trail_knee_held"], "shown")
        self.assertEqual(by["centred"]["trail_knee_held"], "not_shown")


class ChainTest(TestCase):
    SWAYED = (
        reading("stance_ratio", "address", 1.7, 0.05),
        reading("pelvis_turn", "top", 20.0, 3.0),
        reading("shoulder_turn", "top", 60.0, 4.0),
        reading("heel_lift_lead", "top", 0.12, 0.01),
    )

    def test_findings_go_by_the_time_of_the_swing_from_the_floor_up(self) -> None:
        found = judged(self.SWAYED).findings
        times = [CHECKPOINTS.index(each.moment) for each in found]
        self.assertEqual(times, sorted(times))
        at_the_top = [each.fault for each in found if each.moment == "top"]
        places = [
            at_the_top.index(each)
            for each in ("lead_heel_high", "trail_knee_held", "restricted_turn", "short_shoulders")
        ]
        self.assertEqual(places, sorted(places))

    def test_what_leads_to_what_hangs_together_by_the_time_of_the_swing(self) -> None:
        chain = judged(self.SWAYED).chain
        self.assertEqual(
            chain.faults, ("stance_too_wide", "lead_heel_high", "restricted_turn", "short_shoulders")
        )
        self.assertEqual(
            {(link.cause, link.effect) for link in chain.links},
            {
                ("stance_too_wide", "restricted_turn"),
                ("stance_too_wide", "short_shoulders"),
                ("restricted_turn", "short_shoulders"),
            },
        )
        self.assertEqual([root.fault for root in chain.roots], ["stance_too_wide", "lead_heel_high"])
        # The best path: straight 0.4, by the turn 0.7 · 0.5.
        self.assertEqual(chain.roots[0].explains, {"restricted_turn": 0.7, "short_shoulders": 0.4})

    def test_a_compensation_is_no_cause(self) -> None:
        made_room = [
            reading("toe_line", "address", 9.0, 1.0),
            reading("pelvis_depth", "shaft_down", 0.07, 0.01),
            reading("pelvis_depth", "impact", 0.07, 0.01),
        ]
        chain = judged(made_room).chain
        self.assertTrue(any(link.makes_room for link in chain.links))
        self.assertEqual({root.fault for root in chain.roots}, {"closed_toe_line", "seat_leaves_the_wall"})

    def test_the_usual_miss_weighs(self) -> None:
        student = Student(misses=("topped",))
        without, with_ = (judged(self.SWAYED, student=s).chain for s in (None, student))
        before, after = ({r.fault: r for r in chain.roots} for chain in (without, with_))
        self.assertEqual(after["lead_heel_high"].misses, ("topped",))
        self.assertGreater(after["lead_heel_high"].weight, before["lead_heel_high"].weight)
        self.assertEqual(after["stance_too_wide"].weight, before["stance_too_wide"].weight)


class PlanTest(TestCase):
    def test_the_root_comes_before_its_effects_and_says_why(self) -> None:
        plan = judged(ChainTest.SWAYED).plan
        self.assertEqual([each.fault for each in plan.focus], ["stance_too_wide", "lead_heel_high"])
        self.assertIn("explains 2 of 3 others", plan.focus[0].why)

    def test_never_more_than_three(self) -> None:
        many = [
            *ChainTest.SWAYED,
            reading("toe_line", "address", 9.0, 1.0),
            reading("ball_position", "address", 1.4, 0.05),
            reading("pelvis_rise", "arm_down", 0.06, 0.01),
            reading("pelvis_sway", "arm_down", -0.05, 0.01),
        ]
        plan = judged(many).plan
        self.assertEqual(len(plan.focus), 3)
        self.assertTrue(all(each.why for each in plan.left_out))

    def test_what_is_left_from_last_time_goes_first(self) -> None:
        last = Beside(focused=("lead_heel_high",), unfinished=("lead_heel_high",))
        plan = judged(ChainTest.SWAYED, beside=last).plan
        self.assertEqual(plan.focus[0].fault, "lead_heel_high")
        self.assertIn("left from last time", plan.focus[0].why)

    def test_drills_that_would_hurt_are_left_out_and_others_wait(self) -> None:
        book = shipped()
        knee = Student(aches=(Ache(part="lead_knee", trouble="pain"),))
        offered = [drill.id for drill, _ in drills_that_fit(book, knee, "passive_lead_knee")]
        self.assertEqual(offered, ["half_swings_from_below"])
        for agreed_by, held in (("", True), ("Dr Holm", False)):
            back = Student(aches=(Ache(part="low_back", trouble="operation", agreed_by=agreed_by),))
            fitting = {d.id: w for d, w in drills_that_fit(book, back, "hips_square_at_impact")}
            self.assertEqual(list(fitting)[-1], "club_across_the_thighs")
            self.assertEqual([each.held for each in fitting["club_across_the_thighs"]], [held])
            self.assertEqual(fitting["flare_a_notch"], ())

    def test_all_drills_held_leave_the_fault_out(self) -> None:
        dizzy = Student(aches=(Ache(part=None, trouble="dizziness"),))
        plan = judged(ChainTest.SWAYED, student=dizzy).plan
        self.assertEqual(plan.focus, ())
        self.assertIn("until a physician", plan.left_out[0].why)
        agreed = Student(aches=(Ache(part=None, trouble="dizziness", agreed_by="Dr Holm"),))
        self.assertTrue(judged(ChainTest.SWAYED, student=agreed).plan.focus)

    def test_what_the_instructor_decided_goes_before_what_was_read(self) -> None:
        beside = Beside(decisions={"stance_too_wide": "rejected", "hangs_back": "added", "no_more": "added"})
        found = judged(ChainTest.SWAYED, beside=beside)
        self.assertEqual(
            found.chain.faults, ("lead_heel_high", "restricted_turn", "short_shoulders", "hangs_back")
        )
        self.assertIn("restricted_turn", [root.fault for root in found.chain.roots])
        by_hand = next(each for each in found.findings if each.fault == "hangs_back")
        self.assertEqual((by_hand.verdict, by_hand.counts), ("cannot_be_seen", 1.0))
        self.assertIn("hangs_back", [each.fault for each in found.plan.focus])


class StrengthTest(TestCase):
    def test_a_band_that_is_surely_held_is_a_strength(self) -> None:
        for value, kept in ((45.0, True), (39.0, False), (60.0, False)):
            words = [each.words for each in judged([reading("pelvis_turn", "top", value, 4.0)]).strengths]
            self.assertEqual("The pelvis turns fully going back." in words, kept)

    def test_a_fault_of_last_time_that_is_gone_comes_first(self) -> None:
        found = judged(
            [reading("pelvis_turn", "top", 46.0, 4.0)], beside=Beside(focused=("restricted_turn",))
        )
        self.assertEqual(found.strengths[0].fault, "restricted_turn")


class GoalTest(TestCase):
    def goal(self, turn: float, u95: float) -> Goal | None:
        """What is asked of somebody whose hips turn so far going back; 38 to 55 degrees are the band."""
        found = judged([reading("pelvis_turn", "top", turn, u95)])
        finding = next(each for each in found.findings if each.fault == "restricted_turn")
        return goal_for(finding, found.asked.bands)

    def test_a_goal_is_half_of_the_way_but_never_less_than_can_be_told(self) -> None:
        far, near = self.goal(14.0, 2.0), self.goal(33.0, 3.0)
        assert far and near
        self.assertEqual((far.low, far.high, far.swings), (26.0, 55.0, 1))
        typical = typical_scatter("pelvis_turn")
        self.assertGreater(detectable(3.0 / NORMAL_95, typical), 5.0 / 2)  # half of the way cannot be told
        self.assertEqual(near.low, 38.0)  # and what can be told lies past the band's edge
        self.assertGreater(near.swings or 0, 1)

    def test_where_no_count_of_swings_would_tell_it_says_so(self) -> None:
        near = self.goal(35.0, 6.0)
        assert near
        self.assertEqual((near.low, near.swings), (38.0, None))

    def test_a_goal_is_never_past_what_the_student_s_hips_allow(self) -> None:
        stiff = Student(motions={"trail_hip_in": 18.0})
        read = [reading("pelvis_turn", "top", 12.0, 2.0)]
        band = judged(read, student=stiff).asked.bands["pelvis_turn", "top"]
        self.assertLess(band.low, 38.0)
        found = judged(read, student=stiff)
        finding = next(each for each in found.findings if each.fault == "restricted_turn")
        goal = goal_for(finding, found.asked.bands)
        assert goal and band.low is not None
        self.assertLessEqual(goal.low or 0.0, band.low)
