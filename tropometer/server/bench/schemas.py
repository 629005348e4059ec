"""What the API says about swings, their clips and what helps to mark them."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, FiniteFloat

from tropometer.server.bench.edit_schemas import Frame, MatValue
from tropometer.server.bench.measured_schemas import Measured, ReadingKind
from tropometer.server.clips.schemas import ClipIn, ClipOut, ProposalsOut
from tropometer.server.people.schemas import Hand, StudentOut
from tropometer.server.text import Line
from tropometer.swing.names import Checkpoint, ClubClass, SwingLength, View
from tropometer.swing.readings.reading import Unit
from tropometer.swing.readings.round import Group
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart


class Views(Schema):
    """Whether two views show one swing filmed by two cameras, or two swings; null: nobody has said."""

    one_swing: bool | None = None


class SwingKind(Schema):
    """What a swing was made with, and how far it was meant to go back; null: nobody has said."""

    club: Line = Field("", max_length=60)
    club_class: ClubClass | None = None
    swing_length: SwingLength | None = None


class SwingIn(Views, SwingKind):
    """What a student sends: words, and the uploads that are its clips."""

    words: str = Field("", max_length=2000)
    usual_miss: Line = Field("", max_length=200)
    what_hurts: Line = Field("", max_length=200)
    misses: list[BallMiss] = Field(default_factory=list, max_length=12)
    hurts: list[BodyPart] = Field(default_factory=list, max_length=20)
    camera_place: Line = Field("", max_length=200)
    clips: list[ClipIn] = Field(min_length=1, max_length=8)


class SwingSent(SwingIn):
    """What comes by a link: a swing to be answered, or a try at a drill to be checked."""

    drill: Line = Field("", max_length=40)


class SwingOf(SwingIn):
    """A swing as the instructor takes it in: for one of their students."""

    student_id: UUID


class FirstTape(Schema):
    """A reading that stands out at the first look: where it stands, and how sure that is, 0 to 1."""

    reading: str
    at: str
    unit: Unit
    value: float
    u95: float
    low: float | None
    high: float | None
    standing: Literal["below", "above"]
    sure: float


class SwingRow(Schema):
    """A line of the inbox."""

    id: UUID
    student: StudentOut
    club: str
    club_class: ClubClass | None
    swing_length: SwingLength | None
    words: str
    usual_miss: str
    what_hurts: str
    misses: list[BallMiss]
    hurts: list[BodyPart]
    camera_place: str
    received_at: datetime
    answered_at: datetime | None
    part: int
    parts: int
    clips: list[ClipOut]
    first_tapes: list[FirstTape]  # of the first look: nobody has looked at them


class Received(Schema):
    """What came of sent clips: the swing they are in, and a line for each that was refused."""

    swing_id: UUID
    refused: list[str]


class MoreClips(Views):
    clips: list[ClipIn] = Field(min_length=1, max_length=8)


class TrackOut(Schema):
    """A followed mark from `first` on: places and one standard deviation, pixels; null where it stopped."""

    name: str
    first: int
    x: list[float | None]
    y: list[float | None]
    sd_px: list[float | None]


class TracksOut(Schema):
    """All followed marks of a clip; `stale` while a worker follows some anew."""

    stale: bool
    tracks: list[TrackOut]


class PathOut(Schema):
    """A mark's path without its noise: places, frames that were bridged, and the filter's cutoff."""

    name: str
    first: int
    x: list[float | None]
    y: list[float | None]
    bridged: list[int]
    cutoff_hz: float | None


class SetupOut(Schema):
    """Another clip whose mat may be carried over."""

    clip_id: UUID
    title: str
    added_at: datetime


class MatSize(Schema):
    """A size that a mat may have, and why."""

    along_m: float
    across_m: float
    place: str
    said: str


class CarriedMat(Schema):
    mat: MatValue
    said: str


class WantedOut(Schema):
    """A mark of the round: the group it belongs to, and the checkpoints at which it is wanted."""

    name: str
    view: View
    group: Group
    at: list[Checkpoint]


class Catalogue(Schema):
    """What is the same for every swing: the marks of the round, and the readings."""

    marks: list[WantedOut]
    readings: list[ReadingKind]


class DoubtOut(Schema):
    """A mark to look at again: why, and by how many standard deviations it disagrees."""

    clip_id: UUID
    name: str
    frame: int
    why: str
    sigmas: float


class BenchClip(ClipOut):
    frame_times_s: list[float]
    camera_motion: list[list[float]] | None  # each frame's homography from the still picture, but its last 1
    proposals: ProposalsOut
    looking: bool
    closer: int | None  # percent of a closer look that is under way


class Window(Schema):
    """The frames of a clip that are the swing, both included; neither: all of it."""

    first: Frame | None = None
    last: Frame | None = None


class Stretch(Schema):
    first: Frame
    last: Frame


class PressureFile(Schema):
    """A pressure plate's data as the text of a file; `impact_s` where the file does not say it."""

    file_name: Line = Field(min_length=1, max_length=120)
    text: str = Field(min_length=1, max_length=2_000_000)
    impact_s: FiniteFloat | None = None


class SwingBefore(Schema):
    """An earlier swing of the same student, to compare with."""

    id: UUID
    club: str
    received_at: datetime


class BenchSwing(Schema):
    """A swing opened on the bench."""

    id: UUID
    title: str
    hand: Hand
    student: StudentOut | None
    club: str
    club_class: ClubClass | None
    swing_length: SwingLength | None
    words: str
    usual_miss: str
    what_hurts: str
    misses: list[BallMiss]
    hurts: list[BodyPart]
    part: int
    parts: int
    before: list[SwingBefore]
    lesson: UUID | None
    clips: list[BenchClip]
    measured: Measured
