"""What the API says about lessons."""

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, Field

from tropometer.server.bench.edit_schemas import Frame
from tropometer.server.bench.measured_schemas import GaugeOut
from tropometer.server.judging.schemas import SentPlan
from tropometer.server.people.schemas import Hand, LookOut, StudentOut, Units
from tropometer.server.studio.schemas import HourInLesson
from tropometer.server.text import Line
from tropometer.server.walks.schemas import Chapter
from tropometer.server.walks.score import Stroke
from tropometer.swing.readings.reading import Unit


class DrawnValue(Schema):
    reading: str
    unit: Unit
    value: float
    u95: float
    provisional: bool = False  # it hangs on marks that nobody looked at


class Crop(Schema):
    """The part of the picture that is shown, pixels."""

    left: float
    top: float
    width: float
    height: float


class Drawn(Schema):
    """A frame as it stood on the stage: whose it is, where in time, gauges and values."""

    whose: Literal["student", "reference", "earlier"]
    on: date | None = None  # the day of its swing
    name: str
    hand: Hand
    width: int
    height: int
    checkpoint: str
    time_from_impact_s: float | None
    crop: Crop
    gauges: list[GaugeOut]
    values: list[DrawnValue]
    chalk: list[Stroke] = []


class LessonFrameIn(Schema):
    id: UUID | None = None  # the sender's name for it: sent twice, it is put in once
    clip_id: UUID
    frame: Frame
    words: str = Field("", max_length=2000)
    gauges: list[Annotated[str, Field(max_length=40)]] | None = Field(None, max_length=40)  # those shown
    chalk: list[Stroke] = Field(default_factory=list, max_length=60)  # what is drawn on the frame


class LessonFrameChange(Schema):
    id: UUID | None = None  # the sender's name for the change: sent twice, it is made once
    words: str | None = Field(None, max_length=2000)
    left_out: list[Annotated[str, Field(max_length=60)]] | None = Field(None, max_length=200)
    position: int | None = Field(None, ge=0, le=100)


class LessonFrameOut(Schema):
    id: UUID
    clip_id: UUID | None
    frame: int
    position: int
    words: str
    drawn: Drawn
    left_out: list[str]


class LessonChange(Schema):
    id: UUID | None = None  # the sender's name for the change: sent twice, it is made once
    title: Line | None = Field(None, min_length=1, max_length=120)
    opening: str | None = Field(None, max_length=4000)


class Expiry(Schema):
    """The last day on which a lesson's link holds; null: until it is taken back."""

    last_day: date | None


class Version(Schema):
    """One sending of a lesson."""

    number: int
    sent_at: datetime


class SendLater(Schema):
    """When a draft is to go by itself."""

    at: AwareDatetime


class TemplateIn(Schema):
    """Words to begin a lesson with; {name} and {club} are filled in."""

    name: Line = Field(min_length=1, max_length=60)
    text: str = Field(min_length=1, max_length=4000)
    used_first: bool = False


class TemplateOut(TemplateIn):
    id: UUID
    name: str
    text: str


class RemarkOut(Schema):
    """One thing to know before a lesson goes; `stops`: it cannot go before that is mended."""

    kind: Literal["missing", "uncertain", "hurts", "side"]
    words: str
    stops: bool


class LessonRow(Schema):
    id: UUID
    swing_id: UUID
    student: StudentOut = Field(alias="swing.student")
    what_hurts: str = Field(alias="swing.what_hurts")
    club: str = Field(alias="swing.club")
    title: str
    started_at: datetime
    sent_at: datetime | None
    correcting: bool
    revoked_at: datetime | None
    first_read_at: datetime | None


class TriesIn(Schema):
    """Which studio hour a lesson tells; null: none."""

    hour_id: UUID | None


class LessonOut(LessonRow):
    opening: str
    frames: list[LessonFrameOut]
    tries: HourInLesson | None
    versions: list[Version]
    send_at: datetime | None
    send_trouble: str
    link: str | None
    expires_on: date | None
    mailed_at: datetime | None
    mail_trouble: str
    seconds_to_take_back: float


class SheetWalk(Schema):
    """What the heading of a sheet says of its walk; not ready: a machine still makes it."""

    length_ms: int
    ready: bool
    film: bool  # to be taken along
    chapters: list[Chapter]


class LessonSheet(Schema):
    """What the student reads."""

    title: str
    opening: str
    student: str
    instructor: str
    look: LookOut
    hand: Hand
    units: Units
    club: str
    sent_at: datetime | None
    version: int  # 1; each correction is one more
    versions: list[Version]
    page: str | None = None  # the token of the student's own page, for whoever came by the link
    lesson_id: UUID | None = None
    plan: SentPlan | None
    walk: SheetWalk | None
    tries: HourInLesson | None
    frames: list[LessonFrameOut]
