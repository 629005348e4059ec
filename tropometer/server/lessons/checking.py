"""What to know before a lesson goes: what is missing, uncertain, hurts, or is read as left or right."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import TYPE_CHECKING, Literal, NamedTuple

from tropometer.server.judging.judged import judged
from tropometer.server.judging.plans import plan_for
from tropometer.server.lessons.models import Lesson
from tropometer.server.people.student_page import page_of
from tropometer.server.walks.services import has_walk
from tropometer.teaching.judging.sparing import warnings

if TYPE_CHECKING:
    from tropometer.server.judging.judged import JudgedSwing
    from tropometer.server.people.models import Student

Kind = Literal["missing", "uncertain", "hurts", "side"]
_SIDES = re.compile(r"\b(lead|trail|left|right)\b(?!\s+(?:away|now|after|before)\b)", re.IGNORECASE)


class Remark(NamedTuple):
    """One thing to know; `stops`: the lesson cannot go before it is mended."""

    kind: Kind
    words: str
    stops: bool = False


def remarks_on(lesson: Lesson) -> list[Remark]:
    """All of them, what stops the lesson first."""
    student = lesson.swing.student
    found = [] if student is None else [*_who(lesson, student), *_content(lesson, student)]
    return sorted(found, key=lambda remark: not remark.stops)


def _who(lesson: Lesson, student: Student) -> Iterator[Remark]:
    if not student.addresses:
        yield Remark("missing", f"{student.name} has no mail address yet; add it on their card.", True)
    page = page_of(student)
    if page.closed_at is not None:
        yield Remark("missing", f"{student.name}'s page is closed; renew its link on their page.", True)
    elif page.mail_wish == "off":
        yield Remark("missing", f"{student.name} wants no mails: give them the link yourself.")
    if page.mail_trouble:
        yield Remark("missing", f"{page.mail_trouble}.")
    if not student.may_be_filmed:
        yield Remark(
            "missing", f"{student.name} is under age: note a guardian's consent on their card.", True
        )


def _content(lesson: Lesson, student: Student) -> Iterator[Remark]:
    planned = plan_for(lesson.swing)
    frames = list(lesson.frames.all())
    if planned is None and not frames and not lesson.opening.strip() and not has_walk(lesson.pk):
        yield Remark("missing", "The lesson is still empty: a frame, some words, a walk, or a focus.", True)
    if planned is None or not planned.document["focus"]:
        yield Remark("missing", "No focus: the student learns what you see, not what to do.")
    if not frames:
        yield Remark("missing", "No picture: press P on the bench at a frame.")
    if not lesson.opening.strip():
        yield Remark("missing", "No opening words.")
    for frame in frames:
        drawn = {shape["reading"] for gauge in frame.drawn.get("gauges", []) for shape in gauge["shapes"]}
        told = [value for value in frame.drawn.get("values", []) if value["reading"] in drawn]
        shown = [value for value in told if value["reading"] not in frame.left_out]
        where = f"Frame {frame.frame}"
        if any(value["provisional"] for value in shown):
            yield Remark("uncertain", f"{where} shows a number that hangs on marks nobody has looked at.")
        if any(abs(value["value"]) < value["u95"] for value in shown):
            yield Remark("uncertain", f"{where} shows a number that is smaller than its own error.")
    if planned is not None:
        yield from _plan(judged(lesson.swing, "", lesson.swing.units), planned.document)
    yield from _sides(lesson, student)


def _plan(found: JudgedSwing, document: dict[str, list[dict[str, object]]]) -> Iterator[Remark]:
    for focus in document["focus"]:
        fault = found.book.faults.get(str(focus["fault"]))
        if fault is None:
            continue
        finding = found.finding(fault.id)
        if finding is None or not finding.is_active:
            yield Remark("uncertain", f"“{fault.name}” is not found in this swing any more.", True)
        elif finding.provisional and finding.decision != "added":
            yield Remark("uncertain", f"“{fault.name}” rests on marks that nobody looked at.", True)
        elif finding.verdict not in ("shown",) and finding.decision is None:
            yield Remark("uncertain", f"“{fault.name}” is likely, not shown; you have not said so yourself.")
        drills = focus["drills"]
        assert isinstance(drills, list)
        if not drills:
            yield Remark("missing", f"“{fault.name}” has no drill.")
        if focus["goal"] is None:
            yield Remark("missing", f"“{fault.name}” has no goal.")
        for chosen in drills:
            drill = found.book.drills.get(chosen["drill"])
            for warned in warnings(found.book, found.student, drill.loads) if drill else ():
                part = (warned.ache.part or "the whole person").replace("_", " ")
                if drill and not warned.ache.agreed_by:
                    words = f"“{drill.name}” loads what hurts ({part}), and nobody has agreed to it."
                    yield Remark("hurts", f"{words} Its caution goes along.", warned.held)


def _sides(lesson: Lesson, student: Student) -> Iterator[Remark]:
    """Words typed by hand that name a side: those of the book are turned for the hand, these are not."""
    planned = plan_for(lesson.swing)
    typed = [("the title", lesson.title), ("the opening", lesson.opening)]
    typed += [(f"the words under frame {frame.frame}", frame.words) for frame in lesson.frames.all()]
    focus = planned.document["focus"] if planned else []
    typed += [(f"what is said of focus {number}", each["words"]) for number, each in enumerate(focus, 1)]
    lead = "left" if student.hand == "right" else "right"
    for where, text in typed:
        sides = {found[1].lower() for found in _SIDES.finditer(text)}
        said = " and ".join(sorted(sides))
        if sides & {"lead", "trail"}:
            yield Remark("side", f"In {where} you say {said}, and they read it so: lead is their {lead}.")
        elif sides:
            yield Remark("side", f"In {where} you say {said}: their front foot is the {lead}.")
