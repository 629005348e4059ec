"""What judgement asks of a student: reach, aches, and where the ball goes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from tropometer.swing.names import Hand
from tropometer.teaching.knowledge.caution import Trouble
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart

LengthUnit = Literal["cm", "in"]


@dataclass(frozen=True, kw_only=True)
class Ache:
    """What is the matter with a part of the body (None: with the whole person), and who agreed to drills."""

    part: BodyPart | None
    trouble: Trouble
    agreed_by: str = ""  # a physician or physiotherapist, as the instructor confirmed it


@dataclass(frozen=True, kw_only=True)
class Student:
    """`motions` are ranges of motion by their id, degrees; `misses` and clubs are what the student says."""

    hand: Hand = "right"
    units: LengthUnit = "cm"
    motions: Mapping[str, float] = field(default_factory=dict)
    aches: tuple[Ache, ...] = ()
    misses: tuple[BallMiss, ...] = ()
