"""Cautions: what is said where a drill or a target touches a part that hurts, and when it waits."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from tropometer.teaching.knowledge.trade_words import BodyPart, Id, Known, Prose

# What may be the matter with a part of the body, or with the whole person.
Trouble = Literal["stiff", "pain", "injury", "operation", "replaced", "dizziness"]


class Caution(Known):
    """What is said to whom a part troubles; where it `holds`, what loads that part waits for a physician."""

    id: Id
    parts: tuple[BodyPart, ...] = ()  # none: the whole person
    troubles: tuple[Trouble, ...] = Field(min_length=1)
    holds: bool
    text: Prose
