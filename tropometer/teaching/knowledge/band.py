"""A band: what a teacher asks of a reading at a checkpoint."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, model_validator

from tropometer.swing.names import CLUB_CLASSES, SWING_LENGTHS, ClubClass, SwingLength
from tropometer.teaching.knowledge.trade_words import Known, Prose

Standing = Literal["inside", "edge", "below", "above", "undecided"]
Key = tuple[str, str]  # a reading, and the checkpoint or the part that it is of


class Band(Known):
    """From `low` to `high` in the reading's unit; an end that is not there is not asked for.

    It holds for these clubs and swing lengths. How far back a swing goes changes nothing about how somebody
    stands, so at address all lengths are asked alike; elsewhere it is said, or the full swing is meant.
    """

    reading: str
    at: str
    low: float | None = None
    high: float | None = None
    clubs: tuple[ClubClass, ...] = Field(default=CLUB_CLASSES, min_length=1)
    lengths: tuple[SwingLength, ...] = ()
    keep: Prose | None = None  # what is said of a swing that holds it

    @model_validator(mode="after")
    def _check_ends(self) -> Band:
        if self.low is None and self.high is None:
            raise ValueError("has neither low nor high")
        if self.low is not None and self.high is not None and self.low >= self.high:
            raise ValueError(f"is upside down: low {self.low:g} is not below high {self.high:g}")
        return self

    @property
    def key(self) -> Key:
        """The reading and where it is read."""
        return self.reading, self.at

    @property
    def half_width(self) -> float | None:
        """Half of what lies between the ends; None where one end is open."""
        return None if self.low is None or self.high is None else (self.high - self.low) / 2

    def holds_for(self, club: ClubClass, length: SwingLength) -> bool:
        """Whether it is asked of a swing of this length with this club."""
        lengths = self.lengths or (SWING_LENGTHS if self.at == "address" else ("full",))
        return club in self.clubs and length in lengths

    def standing(self, value: float, u95: float) -> Standing:
        """Where a value stands: `edge` when its interval holds a limit, `undecided` when it holds both."""
        touches_low = self.low is not None and value - u95 < self.low < value + u95
        touches_high = self.high is not None and value - u95 < self.high < value + u95
        if touches_low and touches_high:
            return "undecided"
        if touches_low or touches_high:
            return "edge"
        if self.low is not None and value <= self.low:
            return "below"
        return "above" if self.high is not None and value >= self.high else "inside"
