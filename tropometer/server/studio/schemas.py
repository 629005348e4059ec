"""What is said of studio hours and their tries, in and out."""

from datetime import UTC, date, datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, Field

from tropometer.server.bench.glance import StruckBy
from tropometer.server.bench.schemas import SwingKind
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.studio.models import MOST_TRIES
from tropometer.server.text import Line
from tropometer.swing.names import View
from tropometer.swing.readings.reading import Unit
from tropometer.teaching.trials.against import Verdict
from tropometer.teaching.trials.outcomes import ShotUnit
from tropometer.teaching.trials.strikes import Struck

MOST_AGO_S = 7 * 86_400  # a try that waited on a camera's disk for a week is still sent
THEN, FAR = datetime(2020, 1, 1, tzinfo=UTC), datetime(2100, 1, 1, tzinfo=UTC)  # between which tries are hit
ColumnId = Annotated[str, Field(max_length=66, pattern=r"^[a-z0-9_]+\.[a-z0-9_]+$")]


class HourIn(Schema):
    day: date | None = None  # null: today
    about: Line = Field("", max_length=200)


class HourOut(Schema):
    id: UUID
    day: date
    about: str
    tries: int = Field(alias="count")


class HourChange(Schema):
    """What is left out stays; `order` names all tries, as they are to stand."""

    id: UUID | None = None  # the sender's name for the change: sent twice, it is made once
    about: Line | None = Field(None, max_length=200)
    columns: list[ColumnId] | None = Field(None, max_length=12)
    order: list[UUID] | None = Field(None, max_length=MOST_TRIES)


class FilmedIn(SwingKind):
    """A ball that a camera of the hour has just seen struck; `struck_s` is played time of its clip."""

    clip: ClipIn
    ago_s: Annotated[float, Field(ge=0, le=MOST_AGO_S)]  # before this is sent, by the camera's own clock
    struck_s: Annotated[float, Field(ge=0, le=60)]
    struck_by: StruckBy
    changed: Line = Field("", max_length=80)


class RungIn(Schema):
    """A swing as a try, the last where no `place` is said; one that was taken out comes back as it was."""

    swing_id: UUID
    changed: Line = Field("", max_length=80)
    felt: Line = Field("", max_length=200)
    struck: Struck | Literal[""] = ""
    left_out: Line = Field("", max_length=120)
    struck_at: Annotated[AwareDatetime, Field(ge=THEN, le=FAR)] | None = None
    place: Annotated[int, Field(ge=0, lt=MOST_TRIES)] | None = None


class RungChange(Schema):
    """What is left out stays. `left_out` is why a try does not count; empty: it counts."""

    id: UUID | None = None  # the sender's name for the change: sent twice, it is made once
    changed: Line | None = Field(None, max_length=80)
    felt: Line | None = Field(None, max_length=200)
    struck: Struck | Literal[""] | None = None
    left_out: Line | None = Field(None, max_length=120)


class ColumnOut(Schema):
    """A reading at a moment, or at "shot" what became of the ball."""

    column: str
    reading: str
    at: str
    unit: Unit | ShotUnit


class ColumnValue(Schema):
    column: str
    value: float
    u95: float


class TriedValue(ColumnValue):
    provisional: bool


class FilmOut(Schema):
    """A clip of a try; `gates` are where the hips stood at address, or the seat: shares of its width.

    Its mat was laid by a hand, was found where one of an earlier clip lay, or was not found there: it or the
    camera was moved.
    """

    view: View
    name: str
    gates: list[float]
    mat: Literal["laid", "found", "moved"] | None


class RungOut(Schema):
    id: UUID
    swing_id: UUID
    received_at: datetime
    club: str
    changed: str
    felt: str
    struck: Struck | Literal[""]
    left_out: str
    struck_at: datetime | None  # as a camera of the hour saw it
    has_shot: bool
    films: list[FilmOut]
    looking: bool  # a machine has not read it yet
    values: list[TriedValue]


class AgainstOut(Schema):
    """A column of changed tries against the base: shaped as `teaching.trials.against.Against`."""

    column: str
    base: float
    changed: float
    by: float
    low: float
    high: float
    sure: float
    p: float | None
    rarest: float
    verdict: Verdict
    more: int


class CountedOut(Schema):
    """How often the ball was struck so, before and with a change."""

    struck: Struck
    base: int
    of_base: int
    changed: int
    of_changed: int
    real: bool


class StepOut(Schema):
    """What one change did; `drifted` are columns in which the base line moved by itself."""

    changed: str
    went_back: bool
    drifted: list[str]
    columns: list[AgainstOut]
    strikes: list[CountedOut]


class LadderOut(Schema):
    """An hour with its tries, what is watched of them, and what each change did."""

    id: UUID
    student_id: UUID
    day: date
    about: str
    columns: list[ColumnOut]
    offered: list[ColumnOut]
    tries: list[RungOut]
    steps: list[StepOut]


class TriedInLesson(Schema):
    """A try as a lesson tells it."""

    changed: str
    values: list[ColumnValue]


class HourInLesson(Schema):
    """An hour as it goes into a lesson: what somebody looked at, of the tries that count."""

    hour_id: UUID
    day: date
    columns: list[ColumnOut]
    tries: list[TriedInLesson]
    steps: list[StepOut]
