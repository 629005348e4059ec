"""The book: what is shipped holds together, and what does not is told by its file and field."""

import copy
import json
from pathlib import Path
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from tests.strangers.injected import INJECTED
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.book_error import BookError
from tropometer.teaching.knowledge.checking import check
from tropometer.teaching.knowledge.pages import document_of, from_document, read_page, schema, shipped
from tropometer.teaching.student_page import read_student

SCHEMA = Path(__file__).parents[2] / "docs" / "formats" / "teaching-book.schema.json"
FAULT: dict[str, Any] = document_of(shipped().faults["restricted_turn"])
DRILL: dict[str, Any] = document_of(shipped().drills["seat_to_the_chair"])
TURN = {"reading": "pelvis_turn", "at": "top"}
MODEL: dict[str, Any] = document_of(shipped().models["centred"])

JUNK = st.recursive(
    st.none() | st.booleans() | st.floats() | st.text(max_size=8),
    lambda inner: (
        st.lists(inner, max_size=3)
        | st.dictionaries(st.sampled_from([*FAULT, "all", "any", "of", "at_least"]), inner, max_size=4)
    ),
)


def why(*documents: dict[str, Any]) -> str:
    """What is wrong with the shipped book and these pages; they replace pages of the same id."""
    try:
        pages = [from_document(each, f"{each.get('id', 'page')}.toml") for each in documents]
        replaced = {(type(each), each.id) for each in pages}
        kept = [each for each in shipped().pieces if (type(each), each.id) not in replaced]
        check(Book.of([*kept, *pages]))
    except BookError as error:
        return str(error)
    return ""


class BookTest(TestCase):
    def test_the_shipped_book_is_whole_and_large_enough(self) -> None:
        book = shipped()
        self.assertGreaterEqual(len(book.faults), 24)
        self.assertGreaterEqual(len(book.drills), 24)
        self.assertGreaterEqual(len(book.models), 6)

    def test_the_shipped_models_use_every_option(self) -> None:
        used = {pair for model in shipped().models.values() for pair in model.chosen.items()}
        every = {(each.id, option.id) for each in shipped().disputes.values() for option in each.options}
        self.assertEqual(used, every)

    def test_no_shipped_model_clashes_with_itself(self) -> None:
        for clash in shipped().clashes.values():
            for model in shipped().models.values():
                met = all(model.chosen[each.dispute] == each.option for each in clash.options)
                self.assertFalse(met and clash.motion is None, f"{model.id}: {clash.id}")

    def test_every_fault_is_put_into_a_stranger_or_said_to_be_unproved(self) -> None:
        unproved = {each.id for each in shipped().faults.values() if each.unproved}
        self.assertEqual(unproved | INJECTED.keys(), shipped().faults.keys())
        self.assertFalse(unproved & INJECTED.keys())

    def test_every_fault_says_what_the_ball_does(self) -> None:
        self.assertEqual([each.id for each in shipped().faults.values() if not each.ball], [])

    def test_a_page_comes_back_from_its_document(self) -> None:
        for piece in shipped().pieces:
            self.assertEqual(from_document(json.loads(json.dumps(document_of(piece))), "page"), piece)

    def test_the_published_schema_is_that_of_the_code(self) -> None:
        self.assertEqual(json.loads(SCHEMA.read_text("utf-8")), schema())

    def test_what_makes_no_sense_is_named_by_file_and_field(self) -> None:
        turned = copy.deepcopy(MODEL) | {
            "changes": [{"reading": "pelvis_turn", "at": "top", "low": 50.0, "high": 40.0}]
        }
        unknown = FAULT | {"evidence": {"reading": "hip_wiggle", "at": "top", "above": 1.0}}
        elsewhere = FAULT | {"evidence": {"reading": "stance_ratio", "at": "top", "above": 1.0}}
        endless = FAULT | {"evidence": {"reading": "pelvis_rise", "at": "top", "above": "high"}}
        sided = DRILL | {"feel": "The left seat pocket."}
        nested = FAULT | {"evidence": {"any": [{"reading": "pelvis_turn", "at": "top"}]}}
        deep: dict[str, Any] = {**TURN, "above": 1.0}
        for _ in range(5):
            deep = {"any": [deep]}
        arms = document_of(shipped().faults["arms_lifted"])
        caused = arms | {"leads_to": [{"fault": "short_shoulders", "strength": 0.5}]}
        for document, words in (
            (turned, "centred.toml: changes[0]: is upside down"),
            (unknown, "fault restricted_turn: evidence[0].reading: there is no reading hip_wiggle"),
            (elsewhere, "evidence[0].at: stance_ratio is not read at top"),
            (endless, "no band of pelvis_rise.top has a high end"),
            (sided, "seat_to_the_chair.toml: feel: says “left”"),
            (nested, "evidence.any[0]: says neither below nor above"),
            (caused, "leads_to: leads back to itself"),
            (FAULT | {"leads_to": [{"fault": "gremlins", "strength": 0.5}]}, "there is no fault gremlins"),
            (FAULT | {"no_drill": "It needs none."}, "no_drill: there is a drill"),
            (DRILL | {"feel": "The\x00 seat."}, "feel: has a control character (U+0000)"),
            (FAULT | {"evidence": {**TURN, "above": float("nan")}}, "evidence.above"),
            (FAULT | {"evidence": deep}, "joined more than 4 deep"),
            (DRILL | {"faults": ["gremlins"]}, "faults[0]: there is no fault gremlins"),
            (MODEL | {"chosen": {"trail_flare": "out"}}, "nothing is chosen"),
            (MODEL | {"chosen": MODEL["chosen"] | {"trail_flare": "sideways"}}, "has no option sideways"),
            (FAULT | {"colour": "brass"}, "restricted_turn.toml: colour"),
            ({"kind": "spell", "id": "x"}, "kind: is none of"),
        ):
            with self.subTest(words):
                self.assertIn(words, why(document))

    def test_what_is_no_toml_is_said_to_be_none(self) -> None:
        for text in ("kind = ", "\x00", "[" * 5000):
            with self.assertRaisesRegex(BookError, r"own\.toml: (not TOML|longer)"):
                read_page(text, "own.toml")

    @given(JUNK)
    def test_no_page_whatsoever_breaks_the_reader(self, junk: Any) -> None:
        for document in (junk, FAULT | {"evidence": junk}, FAULT | {"words": junk}):
            if isinstance(document, dict):
                try:
                    from_document(document, "own.toml")
                except BookError as error:
                    self.assertIn("own.toml: ", str(error))

    def test_a_student_s_page_is_checked_too(self) -> None:
        self.assertEqual(
            read_student("motions = {trail_hip_in = 22.0}", "s.toml").motions, {"trail_hip_in": 22}
        )
        for text, words in (
            ("motions = {trail_hip_in = 200.0}", "s.toml: motions.trail_hip_in: 200 degrees is not between"),
            ("motions = {elbow = 3.0}", "there is no such motion"),
            ('aches = [{part = "left_knee", trouble = "pain"}]', r"s.toml: aches[0].part"),
        ):
            with self.assertRaises(BookError) as told:
                read_student(text, "s.toml")
            self.assertIn(words, str(told.exception))
