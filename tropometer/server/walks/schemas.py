"""What the API says about walks."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, Field, field_validator

from tropometer.server.bench.measured_schemas import GaugeOut, PegOut
from tropometer.server.people.schemas import Hand
from tropometer.server.walks.score import Ms, Name, ScoreEvent
from tropometer.swing.names import View
from tropometer.swing.readings.reading import Unit

MOST_VOICE_CHARACTERS = 2_800_000  # of a piece, in base64: 20 s of what a browser without any codec records
MOST_EVENTS = 20_000
MOST_STRETCHES = 2000

Container = Literal["webm", "mp4", "wav"]


class WalkStretch(Schema):
    """A stretch of one take, ms on its clock; `to` null: as far as it goes."""

    take: UUID
    from_: Ms = Field(alias="from")
    to: Ms | None


class TakeIn(Schema):
    """A take that begins. It is put at the walk's end, or where `cut`, which then has it in it, says."""

    id: UUID
    container: Container
    silent: bool = False  # nobody speaks in it: its words are read
    cut: list[WalkStretch] | None = Field(None, max_length=MOST_STRETCHES)


class PieceIn(Schema):
    """The next few seconds of a take: bytes of its voice (base64), and what happened meanwhile."""

    number: int = Field(ge=0, le=20_000)
    voice: str = Field(max_length=MOST_VOICE_CHARACTERS)
    score: list[ScoreEvent] = Field(max_length=MOST_EVENTS)
    until_ms: Ms  # on the voice's clock, when it ends
    last: bool = False


class CutIn(Schema):
    id: UUID | None = None  # the sender's name for the change: sent twice, it is made once
    cut: list[WalkStretch] | None = Field(None, max_length=MOST_STRETCHES)
    captions: dict[Name, str] | None = None

    @field_validator("captions")
    @classmethod
    def _short(cls, captions: dict[str, str] | None) -> dict[str, str] | None:
        for name, words in (captions or {}).items():
            if len(words) > 1000:
                raise ValueError(f"{name}: longer than 1000 characters")
        if captions and len(captions) > 40:
            raise ValueError("more than 40")
        return captions


class TakeOut(Schema):
    id: UUID
    begun_at: datetime
    ended: bool
    length_ms: int
    ready: bool
    silences: list[list[int]]  # [from, to] ms
    again: list[int]  # where something was to be said again
    trouble: str


class Chapter(Schema):
    """A stretch of a walk about one moment of the swing, ms; its name "" before the first one is reached."""

    at: int
    name: str


class WalkOut(Schema):
    """A walk as its instructor works on it. `making`: voice and score are older than the cut."""

    lesson_id: UUID
    takes: list[TakeOut]
    cut: list[WalkStretch]
    captions: dict[str, str]
    changed: int
    making: bool
    length_ms: int
    trouble: str
    film: bool  # there is one of the walk as it is
    film_progress: int | None  # percent of one that is being made


class WalkCurve(BaseModel):
    """A reading over time; null where a frame lacks its marks."""

    reading: str
    unit: Unit
    at_s: list[float]  # from impact
    values: list[float | None]
    u95: list[float | None]


class WalkStart(BaseModel):
    """When a part of the body starts toward the target, seconds from the top."""

    part: str
    value: float
    u95: float


class WalkOnFloor(BaseModel):
    """A mark seen from above at a checkpoint: metres from the middle between the heels at address."""

    name: str
    at: str
    t: float
    b: float


class WalkTape(BaseModel):
    """A reading at a moment, and the band that it is held against."""

    reading: str
    at: str
    unit: Unit
    value: float
    u95: float
    low: float | None
    high: float | None


class WalkClip(BaseModel):
    """A clip as a walk shows it."""

    id: UUID
    whose: Literal["student", "reference"]
    name: str
    hand: Hand
    view: View
    width: int
    height: int
    frame_count: int
    from_impact_s: list[float] | None
    pegs: list[PegOut]
    gauges: list[GaugeOut]
    camera_motion: list[list[float]] | None
    curves: list[WalkCurve] = []  # those that lay open in the walk
    starts: list[WalkStart] = []  # where the relay did
    tapes: list[WalkTape] = []  # those that were looked into
    floor: list[WalkOnFloor] = []  # where the floor plan lay open


class PlayedWalk(BaseModel):
    """All of a walk but its voice and pictures."""

    made: int
    length_ms: int
    silent: bool = False  # nobody speaks: its captions are read
    score: list[ScoreEvent]
    chapters: list[Chapter]
    captions: dict[str, str]
    clips: list[WalkClip]
