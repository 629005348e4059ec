"""What is known of a student as a TOML document."""

from __future__ import annotations

import tomllib
from typing import Annotated

from pydantic import Field, ValidationError

from tropometer.swing.names import Hand
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.book_error import BookError
from tropometer.teaching.knowledge.caution import Trouble
from tropometer.teaching.knowledge.pages import field_of, shipped, why_of
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart, Id, Known
from tropometer.teaching.student import Ache, LengthUnit, Student


class _Ache(Known):
    part: BodyPart | None = None
    trouble: Trouble
    agreed_by: Annotated[str, Field(max_length=120)] = ""


class _Student(Known):
    hand: Hand = "right"
    units: LengthUnit = "cm"
    motions: dict[Id, float] = {}
    aches: tuple[_Ache, ...] = ()
    misses: tuple[BallMiss, ...] = ()


def read_student(text: str, file: str) -> Student:
    """A student from a TOML document; BookError names the field that makes no sense."""
    try:
        found = _Student.model_validate(tomllib.loads(text))
    except tomllib.TOMLDecodeError as error:
        raise BookError(file, "", f"not TOML ({error})") from error
    except ValidationError as error:
        worst = error.errors(include_url=False)[0]
        raise BookError(file, field_of(worst["loc"]), why_of(worst["msg"])) from error
    for id, degrees in found.motions.items():
        check_motion(shipped(), id, degrees, file)
    return Student(
        hand=found.hand,
        units=found.units,
        motions=found.motions,
        aches=tuple(Ache(part=a.part, trouble=a.trouble, agreed_by=a.agreed_by) for a in found.aches),
        misses=found.misses,
    )


def check_motion(book: Book, id: str, degrees: float, where: str) -> None:
    """Raises BookError where there is no such motion, or no body moves so far."""
    motion = book.motions.get(id)
    if motion is None:
        raise BookError(where, f"motions.{id}", "there is no such motion")
    if not motion.least <= degrees <= motion.most:
        raise BookError(
            where, f"motions.{id}", f"{degrees:g} degrees is not between {motion.least:g} and {motion.most:g}"
        )
