"""What the API says about filmed drills."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from ninja import Schema

from tropometer.server.lessons.schemas import Drawn
from tropometer.swing.readings.reading import Unit

Said = Literal["inside", "outside"]


class TryAnswer(Schema):
    """What a machine alone answered: `beyond` the limit by so much, positive where the check holds.

    `unsure`: the limit is no farther than `give_or_take`, a one-sided 95 % bound. `not_read`: `why` says what
    to change. `said` is what the instructor, who has looked, says.
    """

    answer: Literal["inside", "outside", "unsure", "not_read"]
    why: Literal["", "no_swing", "slowed", "other_view", "mirrored", "cut_off", "refused"]
    reason: str
    holds: str
    unit: Unit | Literal[""]
    beyond: float | None
    give_or_take: float | None
    clip_id: UUID | None
    frame: int
    drawn: Drawn | None
    said: Said | Literal[""]


class TryOut(Schema):
    """A drill that a student filmed to have it checked."""

    id: UUID
    drill: str
    name: str
    received_at: datetime
    state: Literal["waiting", "looking", "failed", "answered"]
    trouble: str
    answer: TryAnswer | None


class Checkable(Schema):
    """A drill that a phone alone can check, and what it then looks at."""

    drill: str
    shows: str


class TriesOut(Schema):
    """A student's tries, and how often the machine was right of those that the instructor looked at."""

    tries: list[TryOut]
    looked_at: int
    right: int


class TrySaid(Schema):
    said: Said | None  # null: taken back
