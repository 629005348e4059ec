"""Teaching models: one option a dispute, and bands of one's own."""

from __future__ import annotations

from pydantic import Field

from tropometer.teaching.knowledge.band import Band
from tropometer.teaching.knowledge.trade_words import Id, Known, Prose


class TeachingModel(Known):
    """How somebody teaches; `chosen` names an option for each dispute, `changes` replace bands."""

    id: Id
    name: Prose
    about: Prose
    chosen: dict[Id, Id] = Field(min_length=1)
    changes: tuple[Band, ...] = ()
