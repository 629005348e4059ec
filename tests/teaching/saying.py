"""Readings and books that tests make up."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from tropometer.swing.readings.reading import Need, Reading
from tropometer.teaching.judge import Beside, Judgement, judge_readings
from tropometer.teaching.judging.asked import Swung
from tropometer.teaching.judging.population import Population
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.book import Book, Piece
from tropometer.teaching.knowledge.pages import from_document, shipped
from tropometer.teaching.student import Student

UNITS = {"pelvis_turn": "deg", "knee_flex_trail": "deg", "spine_incline": "deg"}


def reading(name: str, at: str, value: float, u95: float = 0.0, **more: Any) -> Reading:
    """A reading that is given."""
    return Reading(
        reading=name, at=at, unit=UNITS.get(name, "m"), status="ok", method="", value=value, u95=u95, **more
    )


def refused(name: str, at: str, *needs: Need) -> Reading:
    """A reading that is refused."""
    return Reading(reading=name, at=at, unit="m", status="refused", method="", reason="no", needs=needs)


def apart(readings: Sequence[Reading]) -> Callable[[Sequence[Key]], np.ndarray]:
    """A covariance of errors that share nothing."""
    sd = {(each.reading, each.at): (each.u95 or 0.0) / 1.959964 for each in readings}

    def covariance(keys: Sequence[Key]) -> np.ndarray:
        return np.diag([sd[key] ** 2 for key in keys])

    return covariance


def judged(
    readings: Sequence[Reading],
    *,
    book: Book | None = None,
    model: str = "loaded_shift",
    swung: Swung | None = None,
    student: Student | None = None,
    population: Population | None = None,
    beside: Beside | None = None,
    covariance: Any = None,
) -> Judgement:
    """What is found in some readings, by the shipped book if no other."""
    book = book or shipped()
    return judge_readings(
        readings,
        covariance or apart(readings),
        frozenset({"face_on", "down_the_line"}),
        swung or Swung(),
        book,
        book.models[model],
        population=population,
        student=student or Student(),
        beside=beside or Beside(),
    )


def fault(id: str, evidence: dict[str, Any], **more: Any) -> Piece:
    """A fault of a test's own."""
    words = {"teacher": "It is so.", "student": "It is so.", "line": "So."}
    document = {
        "kind": "fault",
        "id": id,
        "name": id.replace("_", " "),
        "moment": "top",
        "evidence": evidence,
        "words": words,
        "no_drill": "None was made up.",
        **more,
    }
    return from_document(document, f"{id}.toml")


def only(*faults: Piece) -> Book:
    """The shipped book with these faults alone, and no drills."""
    return replace(shipped(), faults={each.id: each for each in faults}, drills={})
