"""Faults: named patterns with their evidence, what they lead to, and what is said of them."""

from __future__ import annotations

from pydantic import Field, model_validator

from tropometer.swing.names import CLUB_CLASSES, SWING_LENGTHS, ClubClass, SwingLength
from tropometer.teaching.knowledge.rule import DEEPEST, Rule, depth
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart, Id, Known, Phase, Prose, phase_of


class LeadsTo(Known):
    """What a fault brings about: how often it does, 0 to 1; or what it only makes room for."""

    fault: Id
    strength: float = Field(gt=0, le=1)
    makes_room: bool = False


class Words(Known):
    """What is said of a fault to a teacher, to a student, and in one line.

    `{reading.at}` in a text is the value read there, never finer than its error.
    """

    teacher: Prose
    student: Prose
    line: Prose


class Fault(Known):
    """A named pattern. It is judged for these clubs and lengths, and under these options of a dispute."""

    id: Id
    name: Prose
    moment: str  # the checkpoint at which it happens
    evidence: Rule
    clubs: tuple[ClubClass, ...] = Field(default=CLUB_CLASSES, min_length=1)
    lengths: tuple[SwingLength, ...] = Field(default=SWING_LENGTHS, min_length=1)
    options: dict[Id, tuple[Id, ...]] = {}
    leads_to: tuple[LeadsTo, ...] = ()
    ball: tuple[BallMiss, ...] = ()
    loads: tuple[BodyPart, ...] = ()  # what of the body it strains
    words: Words
    no_drill: Prose | None = None  # why there is none
    unproved: Prose | None = None  # why no golfer with it was drawn and judged

    @model_validator(mode="after")
    def _check_moment(self) -> Fault:
        try:
            phase_of(self.moment)
        except ValueError as error:
            raise ValueError(f"moment: there is no checkpoint {self.moment}") from error
        return self

    @model_validator(mode="after")
    def _check_depth(self) -> Fault:
        if depth(self.evidence) > DEEPEST:
            raise ValueError(f"evidence: is joined more than {DEEPEST} deep")
        return self

    @property
    def phase(self) -> Phase:
        """The part of the swing that it belongs to."""
        return phase_of(self.moment)
