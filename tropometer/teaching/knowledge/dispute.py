"""Disputes: points on which teachers disagree, each with the options between which a teacher chooses."""

from __future__ import annotations

from pydantic import Field

from tropometer.teaching.knowledge.band import Band
from tropometer.teaching.knowledge.trade_words import BodyPart, Id, Known, Phase, Prose


class Option(Known):
    """One way of teaching it: why, whom it suits, what it asks, and what of the body it loads."""

    id: Id
    name: Prose
    why: Prose
    suits: Prose
    bands: tuple[Band, ...] = Field(min_length=1)
    loads: tuple[BodyPart, ...] = ()
    post_m: float | None = Field(default=None, gt=0, lt=0.4)  # where the post mark stands


class Dispute(Known):
    """A question on which teachers disagree."""

    id: Id
    phase: Phase
    name: Prose
    question: Prose
    options: tuple[Option, ...] = Field(min_length=2)


class Chosen(Known):
    """An option of a dispute."""

    dispute: Id
    option: Id


class Clash(Known):
    """What does not go together: options, and ranges of motion that are smaller than they need."""

    id: Id
    options: tuple[Chosen, ...] = Field(min_length=1)
    motion: Id | None = None
    under: float | None = None
    text: Prose
