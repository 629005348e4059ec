"""Drills: what to practise, how much of it, how a camera checks it, and for whom it is not."""

from __future__ import annotations

from pydantic import Field

from tropometer.swing.names import View
from tropometer.teaching.knowledge.rule import Condition
from tropometer.teaching.knowledge.trade_words import BodyPart, Id, Known, Place, Prose


class Step(Known):
    """A rung of a drill's ladder, from slow without a club to full with a ball."""

    do: Prose
    dose: Prose


class Check(Known):
    """What a picture shows when the drill is done well, in words and as a rule."""

    holds: Condition
    text: Prose


class CameraCheck(Check):
    """What the student's own phone shows when the drill is done well.

    `alone`: a phone without a mat, that nobody marks, tells this too, or something else in its place; it
    tells it often enough to be asked (`./tropo bench drill-check`).
    """

    view: View
    alone: bool | Check = False

    @property
    def told_alone(self) -> Check | None:
        """What a phone alone is asked of; None where it would seldom know."""
        if isinstance(self.alone, Check):
            return self.alone
        return Check(holds=self.holds, text=self.text) if self.alone else None


class Drill(Known):
    """What to practise."""

    id: Id
    name: Prose
    faults: tuple[Id, ...] = Field(min_length=1)
    not_for: tuple[BodyPart, ...] = ()  # parts that must not hurt
    loads: tuple[BodyPart, ...] = ()
    props: tuple[Id, ...] = ()
    places: tuple[Place, ...] = Field(min_length=1)
    set_up: Prose
    feel: Prose
    not_felt: Prose
    cue: Prose  # of what lies outside the body
    steps: tuple[Step, Step, Step, Step]
    camera: CameraCheck
    caution: Prose
    done_wrong: Prose
    drawn_as: Id | None = None  # the shipped drill whose drawings show this one too
