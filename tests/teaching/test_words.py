"""Words made from numbers: never finer than their error, and sides as the student has them."""

import re
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from tests.teaching.saying import judged, reading
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.words.numbers import said, step_of
from tropometer.teaching.words.sentences import NOT_TOLD, Sentences, for_student, sentences


class NumbersTest(TestCase):
    def test_numbers_are_said_by_their_error(self) -> None:
        for value, u95, unit, lengths, words in (
            (0.0413, 0.013, "m", "cm", "about 4 cm"),
            (0.0413, 0.013, "m", "in", "about 1.5 in"),
            (0.0413, 0.002, "m", "cm", "4 cm"),
            (43.7, 6.2, "deg", "cm", "about 45°"),
            (43.7, 0.4, "deg", "cm", "44°"),
            (0.008, 0.013, "m", "cm", "less than 3 cm"),
            (-38.2, 3.1, "deg", "cm", "about −38°"),
            (0.634, 0.03, "ratio", "cm", "about 64 %"),
            (-0.043, 0.02, "s", "cm", "about −40 ms"),
            (3.12, 0.2, "to_one", "cm", "about 3.2 to 1"),
        ):
            self.assertEqual(said(value, u95, unit, lengths), words)

    @given(st.floats(-500, 500), st.floats(0.01, 200))
    def test_what_is_said_is_never_finer_than_the_error_nor_far_from_it(
        self, value: float, u95: float
    ) -> None:
        told = said(value, u95, "deg")
        number = float(re.search(r"[−\d.]+", told)[0].replace("−", "-"))
        step = max(step_of(u95), 1.0)
        self.assertAlmostEqual(number / step, round(number / step), places=6)
        if not told.startswith("less than"):
            self.assertLessEqual(abs(number - value), step / 2 + 1e-9)
        else:
            self.assertGreaterEqual(number, abs(value))


class SentencesTest(TestCase):
    READ = (
        reading("pelvis_turn", "top", 20.0, 3.0),
        reading("trail_hip_gap", "top", -0.04, 0.012),
        reading("pelvis_sway", "top", -0.11, 0.013),
    )

    def told(self, hand: str, lengths: str) -> Sentences:
        found = next(each for each in judged(self.READ).findings if each.fault == "sways")
        readings = {(each.reading, each.at): each for each in self.READ}
        return sentences(shipped().faults["sways"], found, readings, hand, lengths)

    def test_three_voices(self) -> None:
        told = self.told("right", "cm")
        self.assertIn("the pelvis sways about 11 cm with a turn of about 20°", told.teacher)
        self.assertIn("your right (back) seat pocket", told.student)
        self.assertIn("about 4.5 in", self.told("right", "in").teacher)
        self.assertIn("your left (back) seat pocket", self.told("left", "cm").student)
        self.assertEqual(told.line, "Sways: away without turn and depth.")

    def test_sides_are_those_of_the_student(self) -> None:
        self.assertEqual(
            for_student("Trail heel up, lead knee in; it will lead to more.", "left"),
            "Left (back) heel up, right (front) knee in; it will lead to more.",
        )

    def test_what_was_not_read_is_said_to_be_untold(self) -> None:
        found = next(each for each in judged(self.READ[:2]).findings if each.fault == "sways")
        readings = {(each.reading, each.at): each for each in self.READ[:2]}
        told = sentences(shipped().faults["sways"], found, readings, "right", "cm")
        self.assertIn(NOT_TOLD, told.teacher)

    def test_every_text_of_the_book_can_be_said_to_a_student(self) -> None:
        for drill in shipped().drills.values():
            for text in (drill.feel, drill.set_up, drill.cue, drill.done_wrong):
                said_ = for_student(text, "right")
                self.assertNotRegex(said_, r"\b(lead|trail)\b(?= (foot|knee|hip|heel|leg|seat|arm))")
