"""A plan in the words in which a student reads it, shaped as `SentPlan`."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.sparing import warnings
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.student import Student
from tropometer.teaching.words.sentences import for_student

Document = Mapping[str, Any]  # as `PlanIn`
ValueThen = Mapping[str, float]


def in_words(
    document: Document,
    book: Book,
    model: str,
    student: Student,
    said: Callable[[str], str],
    read: Callable[[Key], ValueThen | None],
    pictures: Mapping[str, str] | None = None,
) -> dict[str, Any]:
    """`said` is what is said of a fault where the instructor has no words of their own, `read` what is read,
    `pictures` which picture or clip of the instructor's own shows a drill.

    Faults and drills that the book no longer has are left out.
    """
    return {
        "model": model,
        "focus": [
            {
                "fault": focus["fault"],
                "name": for_student(book.faults[focus["fault"]].name, student.hand),
                "words": focus["words"].strip() or said(focus["fault"]),
                "drills": [
                    _drill(book, student, (pictures or {}).get(chosen["drill"]), **chosen)
                    for chosen in focus["drills"]
                    if chosen["drill"] in book.drills
                ],
                "goal": _goal(focus["goal"], read),
                "cautions": [
                    each.text for each in warnings(book, student, book.faults[focus["fault"]].loads)
                ],
            }
            for focus in document["focus"]
            if focus["fault"] in book.faults
        ],
    }


def _drill(book: Book, student: Student, picture: str | None, drill: str, dose: str) -> dict[str, Any]:
    page = book.drills[drill]

    def told(text: str) -> str:
        return for_student(text, student.hand)

    return {
        "id": page.id,
        "name": told(page.name),
        "set_up": told(page.set_up),
        "feel": told(page.feel),
        "not_felt": told(page.not_felt),
        "cue": told(page.cue),
        "steps": [{"do": told(step.do), "dose": told(step.dose)} for step in page.steps],
        "dose": dose,
        "camera_shows": told(page.camera.text),
        "view": page.camera.view,
        "caution": told(page.caution),
        "done_wrong": told(page.done_wrong),
        "cautions": [each.text for each in warnings(book, student, page.loads)],
        "drawn_as": page.drawn_as or page.id,
        "picture": picture,
    }


def _goal(goal: Mapping[str, Any] | None, read: Callable[[Key], ValueThen | None]) -> dict[str, Any] | None:
    if goal is None or goal["reading"] not in KINDS:
        return None
    return {
        **goal,
        "unit": KINDS[goal["reading"]].unit,
        "then": read((goal["reading"], goal["at"])),
    }
