"""What is said of a finding in three voices."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from tropometer.swing.names import Hand
from tropometer.swing.readings.reading import Reading
from tropometer.teaching.judging.finding import Finding
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.checking import PLACEHOLDER
from tropometer.teaching.knowledge.fault import Fault
from tropometer.teaching.student import LengthUnit
from tropometer.teaching.words.numbers import said

# What has sides: nothing else that is led or trailed is a side.
_PARTS = (
    "foot|side|hip|knee|kneecap|thigh|leg|heel|toe|ankle|"
    "arm|elbow|shoulder|hand|wrist|seat|pocket|shoe|trouser|one"
)
_SIDED = re.compile(rf"\b([Ll]ead|[Tt]rail)(?= (?:{_PARTS})\b)")
NOT_TOLD = "an amount that cannot be told from this clip"
STRUCK = {"shown": "", "likely": "Most likely: ", "open": "Perhaps: "}


@dataclass(frozen=True, kw_only=True)
class Sentences:
    """To a teacher, to a student, and in one line."""

    teacher: str
    student: str
    line: str


def sentences(
    fault: Fault, finding: Finding, readings: Mapping[Key, Reading], hand: Hand, lengths: LengthUnit
) -> Sentences:
    """What is said of a finding; how sure it is stands before what is said of it."""
    surely = STRUCK.get(finding.verdict, "") if finding.decision is None else ""

    def filled(text: str) -> str:
        return surely + PLACEHOLDER.sub(_told(readings, lengths), text)

    return Sentences(
        teacher=filled(fault.words.teacher),
        student=for_student(filled(fault.words.student), hand),
        line=filled(fault.words.line),
    )


def for_student(text: str, hand: Hand) -> str:
    """Lead and trail as that student's left (front) and right (back)."""
    lead, trail = ("left", "right") if hand == "right" else ("right", "left")
    sides = {"lead": f"{lead} (front)", "trail": f"{trail} (back)"}

    def side(found: re.Match[str]) -> str:
        word = sides[found[1].lower()]
        return word.capitalize() if found[1][0].isupper() else word

    return _SIDED.sub(side, text)


def _told(readings: Mapping[Key, Reading], lengths: LengthUnit) -> Callable[[re.Match[str]], str]:
    def told(found: re.Match[str]) -> str:
        reading, _, at = found[1].partition(".")
        read = readings.get((reading, at))
        if read is None or read.value is None or read.u95 is None:
            return NOT_TOLD
        return said(abs(read.value), read.u95, read.unit, lengths)

    return told
