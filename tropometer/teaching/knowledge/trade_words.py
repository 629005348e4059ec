"""The words of the trade that the book is written in."""

from __future__ import annotations

import re
import unicodedata
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from tropometer.swing.names import CHECKPOINTS

BodyPart = Literal[
    "neck", "low_back", "trunk",
    "lead_hip", "trail_hip", "lead_knee", "trail_knee", "lead_ankle", "trail_ankle",
    "lead_shoulder", "trail_shoulder", "lead_wrist", "trail_wrist",
]  # fmt: skip
# Which way the ball goes, or how it is struck.
BallMiss = Literal[
    "heavy", "thin", "topped", "slice", "hook", "push", "pull", "shank", "high", "low", "short", "two_way"
]
Phase = Literal["set_up", "going_back", "change", "coming_down", "through"]
Place = Literal["home", "range"]

Id = Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]{1,39}$")]
_SIDES = re.compile(r"\b(left|right)(?!\s+away\b)\b", re.IGNORECASE)


def _in_words(text: str) -> str:
    for each in text:
        # No database keeps the first of them, and no screen shows any.
        if unicodedata.category(each) in ("Cc", "Cs") and each not in "\n\t":
            raise ValueError(f"has a control character (U+{ord(each):04X}) in it")
    found = _SIDES.search(text)
    if found:
        raise ValueError(f"says “{found[0]}”: say lead or trail, which hold for either hand")
    return text


Prose = Annotated[str, Field(min_length=1, max_length=600), AfterValidator(_in_words)]


class Known(BaseModel):
    """A piece of knowledge: it never changes, and has no field that nobody reads."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


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
