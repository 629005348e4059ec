"""Where a student felt a drill, and what is said when it was felt in a place that it must not be felt in."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal

from tropometer.teaching.judging.sparing import warnings
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.trade_words import BodyPart
from tropometer.teaching.student import Ache, Student

FeltPlace = Literal[
    "low_back", "belly", "upper_back",
    "lead_side", "trail_side", "lead_shoulder", "trail_shoulder",
    "lead_seat", "trail_seat", "lead_hip", "trail_hip",
    "lead_thigh_front", "trail_thigh_front", "lead_thigh_back", "trail_thigh_back",
    "lead_thigh_inside", "trail_thigh_inside",
    "lead_knee", "trail_knee", "lead_calf", "trail_calf", "lead_foot", "trail_foot",
]  # fmt: skip
# Joints that carry a drill done wrong; muscles that work are meant to be felt (common practice, no source).
SPEAKS_UP: dict[FeltPlace, BodyPart] = {
    "low_back": "low_back",
    "lead_knee": "lead_knee",
    "trail_knee": "trail_knee",
}


def speaking_up(places: Iterable[FeltPlace]) -> list[BodyPart]:
    """The parts among the places that a drill must not be felt in."""
    return [SPEAKS_UP[place] for place in places if place in SPEAKS_UP]


def cautions_for(book: Book, student: Student, parts: Sequence[BodyPart]) -> list[str]:
    """What is said to somebody who felt a drill in these parts; each text once."""
    felt = tuple(Ache(part=part, trouble="pain") for part in parts)
    told = Student(hand=student.hand, units=student.units, aches=felt)
    return list(dict.fromkeys(each.text for each in warnings(book, told, parts)))
