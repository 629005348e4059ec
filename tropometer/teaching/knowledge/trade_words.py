"""The words of the trade that the book is written in."""

from __future__ import annotations

import re
from typing import Annotated, Literal, get_args

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from tropometer.swing.names import CHECKPOINTS

BodyPart = Literal[
    "neck", "low_back", "trunk",
    "lead_hip", "trail_hip", "lead_knee", "trail_knee", "lead_ankle", "trail_ankle",
    "lead_shoulder", "trail_shoulder", "lead_wrist", "trail_wrist",
]  # fmt: skip
BODY_PARTS: tuple[BodyPart, ...] = get_args(BodyPart)
# Which way the ball goes, or how it is struck.
BallMiss = Literal[
    "heavy", "thin", "topped", "slice", "hook", "push", "pull", "shank", "high", "low", "short", "two_way"
]
BALL_MISSES: tuple[BallMiss, ...] = get_args(BallMiss)
Phase = Literal["set_up", "going_back", "change", "coming_down", "through"]
PHASES: tuple[Phase, ...] = get_args(Phase)
Place = Literal["home", "range"]
# What a moment between checkpoints is put behind; the rest are checkpoints.
MOMENTS: tuple[str, ...] = CHECKPOINTS

Id = Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]{1,39}$")]
_SIDES = re.compile(r"\b(left|right)(?!\s+away\b)\b", re.IGNORECASE)


def _no_sides(text: str) -> str:
    found = _SIDES.search(text)
    if found:
        raise ValueError(f"says “{found[0]}”: say lead or trail, which hold for either hand")
    return text


Prose = Annotated[str, Field(min_length=1, max_length=600), AfterValidator(_no_sides)]


class Known(BaseModel):
    """A piece of knowledge: it never changes, and has no field that nobody reads."""

    model_config = ConfigDict(frozen=True, extra="forbid")


def phase_of(moment: str) -> Phase:
    """The part of the swing that a checkpoint belongs to."""
    order = CHECKPOINTS.index(moment)
    if order == 0:
        return "set_up"
    if order <= CHECKPOINTS.index("top"):
        return "going_back"
    if order == CHECKPOINTS.index("arm_down"):
        return "change"
    return "coming_down" if order <= CHECKPOINTS.index("impact") else "through"
