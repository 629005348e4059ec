"""What the API says about people."""

from datetime import date, datetime
from typing import Annotated, Any, Literal, Self
from uuid import UUID, uuid4

from ninja import Schema
from pydantic import EmailStr, Field, FiniteFloat, model_validator

from tropometer.server.people.look import OWN_PORTRAIT, look_of
from tropometer.server.people.models import User
from tropometer.server.text import Line
from tropometer.swing.names import ClubClass
from tropometer.teaching.knowledge.caution import Trouble
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart

Hand = Literal["right", "left"]
Units = Literal["cm", "in"]
Heading = Literal["pine", "sea", "heath", "earth"]
MailWish = Literal["each", "daily", "off"]


TeachingModel = Annotated[str, Field(max_length=40)]


class LookOut(Schema):
    """How the heading of what students read looks."""

    practice: str
    heading: Heading
    portrait: str | None  # where its reader finds the picture


class Me(Schema):
    id: UUID
    name: str
    email: str
    units: Units
    mail_wish: MailWish
    look: LookOut
    hand_sd_px: float | None

    @staticmethod
    def resolve_look(user: User) -> dict[str, Any]:
        return look_of(user, OWN_PORTRAIT)


class RepeatedMark(Schema):
    """How far the second placing of a mark lies from the first, pixels of a 720-line picture."""

    dx: FiniteFloat = Field(ge=-2000, le=2000)
    dy: FiniteFloat = Field(ge=-2000, le=2000)


class HandTest(Schema):
    marks: list[RepeatedMark] = Field(max_length=100)


class HandOut(Schema):
    """One standard deviation of this hand on a 720-line picture, its 95 % interval, from how many marks."""

    sd: float
    low: float
    high: float
    pairs: int
    slips: int


class MeChange(Schema):
    units: Units | None = None
    mail_wish: MailWish | None = None
    practice: Line | None = Field(None, max_length=80)
    heading: Heading | None = None


class StudentIn(Schema):
    name: Line = Field(min_length=1, max_length=120)
    email: EmailStr | Literal[""] = ""
    hand: Hand
    units: Units | Literal[""] = ""  # that they read in; empty: the instructor's
    stature_m: float | None = Field(None, ge=0.8, le=2.5)
    teaching_model: TeachingModel = "loaded_shift"
    history: str = Field("", max_length=2000)
    minor: bool = False
    guardian: Line = Field("", max_length=120)
    guardian_email: EmailStr | Literal[""] = ""
    consent_on: date | None = None

    @model_validator(mode="after")
    def _consent_is_somebodys(self) -> Self:
        if self.consent_on is not None and not self.guardian.strip():
            raise ValueError("guardian: say who consented")
        return self


class StudentNew(StudentIn):
    id: UUID = Field(
        default_factory=uuid4, description="the sender's name for it: added twice, it is there once"
    )


class StudentOut(Schema):
    id: UUID
    name: str
    email: str
    hand: Hand
    units: Units | Literal[""]
    stature_m: float | None
    teaching_model: str
    history: str
    minor: bool
    guardian: str
    guardian_email: str
    consent_on: date | None
    archived_at: datetime | None


class Archive(Schema):
    archived: bool


class Merge(Schema):
    other: UUID  # the card that is gone afterwards


class NoteIn(Schema):
    """What was noted on a day; no student reads it."""

    day: date
    words: str = Field(min_length=1, max_length=4000, pattern=r"\S")


class NoteOut(Schema):
    id: UUID
    day: date
    words: str


class AcheSaid(Schema):
    """What is the matter with a part of the body (empty: all of it), and who agreed to drills, when."""

    part: BodyPart | Literal[""] = ""
    trouble: Trouble
    agreed_by: Line = Field(default="", max_length=120)
    agreed_on: date | None = None

    @model_validator(mode="after")
    def _agreed_by_somebody_on_a_day(self) -> Self:
        self.agreed_by = self.agreed_by.strip()
        if bool(self.agreed_by) != (self.agreed_on is not None):
            raise ValueError("agreed_by: say who agreed, and agreed_on: on which day")
        return self


class MotionSaid(Schema):
    """A range of motion, degrees, and when it was measured."""

    motion: str = Field(max_length=40)
    degrees: FiniteFloat
    measured_on: date


class Body(Schema):
    """A student's body and ball."""

    aches: list[AcheSaid] = Field(default_factory=list, max_length=40)
    motions: list[MotionSaid] = Field(default_factory=list, max_length=40)
    misses: list[BallMiss] = Field(default_factory=list, max_length=12)
    good_clubs: list[ClubClass] = Field(default_factory=list, max_length=4)
    bad_clubs: list[ClubClass] = Field(default_factory=list, max_length=4)

    @model_validator(mode="after")
    def _said_once(self) -> Self:
        if len({(ache.part, ache.trouble) for ache in self.aches}) < len(self.aches):
            raise ValueError("aches: the same trouble of the same part is there twice")
        if len({motion.motion for motion in self.motions}) < len(self.motions):
            raise ValueError("motions: one of them is there twice")
        return self
