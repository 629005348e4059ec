"""Ranges of motion: what is measured on a student, and what it narrows."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, model_validator

from tropometer.teaching.knowledge.trade_words import Id, Known, Prose

End = Literal["low", "high"]


class Narrowing(Known):
    """A band's end that gives way by `per_degree` for each degree by which a motion is under `under`."""

    reading: str
    at: str
    end: End
    under: float
    per_degree: float
    text: Prose


class Motion(Known):
    """A range of motion, degrees; values outside `least` to `most` are no measurement."""

    id: Id
    name: Prose
    how: Prose
    least: float = 0.0
    most: float = Field(gt=0)
    usual: float
    narrows: tuple[Narrowing, ...] = ()

    @model_validator(mode="after")
    def _check_ends(self) -> Motion:
        if not self.least <= self.usual <= self.most:
            raise ValueError("usual does not lie between least and most")
        return self
