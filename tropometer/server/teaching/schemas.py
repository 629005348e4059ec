"""What the API says about the book."""

from typing import Any, Literal, Self

from ninja import Schema
from pydantic import Field, model_validator

from tropometer.teaching.knowledge.book import Standard
from tropometer.teaching.knowledge.dispute import Clash, Dispute
from tropometer.teaching.knowledge.drill import Drill
from tropometer.teaching.knowledge.motion import Motion
from tropometer.teaching.knowledge.pages import LONGEST
from tropometer.teaching.knowledge.teaching_model import TeachingModel
from tropometer.teaching.knowledge.trade_words import BallMiss, Phase


class ModelOut(Schema):
    id: str
    name: str
    about: str
    own: bool


class FaultOut(Schema):
    """What a fault is called and when it happens; `unproved` says why it was never tried on drawn golfers."""

    id: str
    name: str
    moment: str
    phase: Phase
    ball: list[BallMiss]
    unproved: str | None


class ShownOut(Schema):
    """A picture or a silent clip that shows how a drill goes: its start, its end, right, wrong."""

    what: Literal["start", "end", "right", "wrong", "own"]
    kind: Literal["picture", "clip"]
    url: str


class BookOut(Schema):
    """The book as an instructor has it; `own` names their own pages, as "drill my_drill".

    `shown` has for each drill what shows it.
    """

    standards: list[Standard]
    disputes: list[Dispute]
    clashes: list[Clash]
    models: list[TeachingModel]
    faults: list[FaultOut]
    drills: list[Drill]
    motions: list[Motion]
    own: list[str]
    shown: dict[str, list[ShownOut]]


class PageIn(Schema):
    """A page of the book, as TOML or as the document that TOML would hold."""

    text: str | None = Field(None, max_length=LONGEST)
    document: dict[str, Any] | None = None

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.text is None) == (self.document is None):
            raise ValueError("page: send either text or document")
        return self


class PageOut(Schema):
    kind: str
    piece: str
    document: dict[str, Any]
