"""What the API says about threads, practice and a student's own page."""

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, EmailStr, Field

from tropometer.server.drill_checks.schemas import Checkable, TryOut
from tropometer.server.judging.schemas import ChangeOut, FocusSent, GoalSent
from tropometer.server.judging.time_schemas import GoalChecked
from tropometer.server.lessons.schemas import LessonFrameOut
from tropometer.server.people.schemas import Hand, LookOut, MailWish, StudentOut, Units
from tropometer.server.text import Line
from tropometer.teaching.judging.felt import FeltPlace

MOST_VOICE_CHARACTERS = 2_400_000  # in base64: some minutes as browsers record it


class Tick(Schema):
    """A drill done on a day of the student's calendar; where it was felt, and how."""

    drill: str = Field(max_length=40)
    day: date
    step: int = Field(0, ge=0, le=4)  # how far up its ladder; 0: not said
    places: list[FeltPlace] = Field(default_factory=list, max_length=24)
    words: str = Field("", max_length=1000)


class PractisedOut(Schema):
    id: UUID
    drill: str
    name: str
    day: date
    step: int
    places: list[FeltPlace]
    words: str
    speaks_up: bool
    ticked_at: datetime


class Ticked(Schema):
    """A tick as it is kept, and what is to be taken care of after it."""

    tick: PractisedOut
    cautions: list[str]


class MessageIn(Schema):
    id: UUID  # the sender's name for it: said twice, it is there once
    words: str = Field("", max_length=4000)
    lesson_id: UUID | None = None
    voice: str = Field("", max_length=MOST_VOICE_CHARACTERS)  # what a browser recorded, base64


class AnswerIn(Schema):
    id: UUID  # the sender's name for it: said twice, it is there once
    words: str = Field(min_length=1, max_length=4000)


class MessageOut(Schema):
    id: UUID
    side: Literal["student", "instructor"]
    words: str
    voice_ms: int  # 0: nothing was spoken
    said_at: datetime
    seen_at: datetime | None
    settled_at: datetime | None
    lesson_id: UUID | None


class Waiting(Schema):
    """A student who waits for an answer, or whose body has spoken up."""

    student: StudentOut
    since: datetime
    questions: list[MessageOut]
    felt: list[PractisedOut]


class Settled(Schema):
    """When all that waited was settled: the name by which that is taken back."""

    at: AwareDatetime


class PageState(Schema):
    """A student's own page, as their instructor sees it."""

    link: str | None  # null: closed
    opened_at: datetime | None
    mail_wish: MailWish
    mail_trouble: str


class ThreadOut(Schema):
    """All of one student: what was said, what was practised, how their page stands."""

    student: StudentOut
    messages: list[MessageOut]
    practised: list[PractisedOut]
    page: PageState


class PageLesson(Schema):
    """A lesson in the list of a student's page; its address is private."""

    id: UUID
    token: str
    title: str
    sent_at: datetime
    first_read_at: datetime | None


class PageSwing(Schema):
    """A swing that the student has sent."""

    id: UUID
    club: str
    words: str
    received_at: datetime
    answered_at: datetime | None
    clips: list[UUID]  # those that are ready


class PictureThen(Schema):
    """A frame as a lesson showed it, and where its picture is."""

    frame: LessonFrameOut
    src: str


class ThenAndNow(Schema):
    """A goal that was read in more than one lesson: first and last, and whether that is a change."""

    name: str
    goal: GoalSent
    then_on: datetime
    now_on: datetime
    change: ChangeOut
    pictures: list[PictureThen]  # then and now at that moment, from the same side; or none


class OwnPageOut(Schema):
    """Everything of one student in one place, and nothing of another's."""

    student: str
    instructor: str
    look: LookOut
    hand: Hand
    units: Units
    minor: bool
    mail_wish: MailWish
    focus: list[FocusSent]  # the current plan: of the latest lesson that has one
    lesson_id: UUID | None  # the lesson it is of
    goals: list[GoalChecked]  # as the instructor sees them
    then_and_now: list[ThenAndNow]
    checkable: list[Checkable]  # of the plan's drills
    tries: list[TryOut]
    lessons: list[PageLesson]
    swings: list[PageSwing]
    practised: list[PractisedOut]
    messages: list[MessageOut]


class MailWishIn(Schema):
    mail_wish: MailWish


class SeenUntil(Schema):
    until: AwareDatetime  # what was said later was not on the screen


class SendingLink(Schema):
    token: str  # of the page by which a swing is sent


class CodeWanted(Schema):
    email: EmailStr


class CodeIn(Schema):
    email: EmailStr
    code: Annotated[Line, Field(max_length=40)]


class OpenedPage(Schema):
    """A page that a code has opened: siblings may share an address."""

    token: str
    student: str
    instructor: str
