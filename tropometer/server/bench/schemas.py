"""What the API says about swings, their marks and their readings."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, FiniteFloat

from tropometer.server.clips.schemas import ClipIn, ClipOut, ProposalsOut
from tropometer.server.people.schemas import Hand, StudentOut
from tropometer.swing.names import Checkpoint, Event, LengthPlace, MarkSource

Frame = Annotated[int, Field(ge=0)]
Pixels = Annotated[FiniteFloat, Field(ge=-10000, le=10000)]


class SwingIn(Schema):
    """What a student sends: words, and the uploads that are its clips."""

    club: str = Field("", max_length=60)
    words: str = Field("", max_length=2000)
    usual_miss: str = Field("", max_length=200)
    what_hurts: str = Field("", max_length=200)
    camera_place: str = Field("", max_length=200)
    clips: list[ClipIn] = Field(min_length=1, max_length=8)


class SwingOf(SwingIn):
    """A swing as the instructor takes it in: for one of their students."""

    student_id: UUID


class SwingRow(Schema):
    """A line of the inbox."""

    id: UUID
    student: StudentOut
    club: str
    words: str
    usual_miss: str
    what_hurts: str
    camera_place: str
    received_at: datetime
    answered_at: datetime | None
    part: int
    parts: int
    clips: list[ClipOut]


class Received(Schema):
    """What came of sent clips: the swing they are in, and a line for each that was refused."""

    swing_id: UUID
    refused: list[str]


class MoreClips(Schema):
    clips: list[ClipIn] = Field(min_length=1, max_length=8)


class PegEdit(Schema):
    id: UUID
    kind: Literal["peg"]
    name: Checkpoint | Event
    frame: Frame | None
    between: bool = False  # impact only: it lies between this frame and the next


class MarkPlace(Schema):
    x: Pixels
    y: Pixels
    sd_px: Annotated[FiniteFloat, Field(gt=0, le=200)]
    source: MarkSource = "hand"


class MarkEdit(Schema):
    id: UUID
    kind: Literal["mark"]
    name: str
    frame: Frame
    place: MarkPlace | None


class CalibrationValue(Schema):
    ax: Pixels
    ay: Pixels
    bx: Pixels
    by: Pixels
    length_m: Annotated[FiniteFloat, Field(gt=0, le=20)]
    place: LengthPlace
    camera_distance_m: Annotated[FiniteFloat, Field(ge=1, le=30)] | None = None
    squared: bool = False


class CalibrationEdit(Schema):
    id: UUID
    kind: Literal["calibration"]
    value: CalibrationValue | None


Metres = Annotated[FiniteFloat, Field(gt=0, le=20)]


class Corner(Schema):
    x: Pixels
    y: Pixels


class MatValue(Schema):
    corners: list[Corner] = Field(min_length=4, max_length=4)
    along_m: Metres
    across_m: Metres


class MatEdit(Schema):
    id: UUID
    kind: Literal["mat"]
    value: MatValue | None


class Edits(Schema):
    edits: list[Annotated[PegEdit | MarkEdit | CalibrationEdit | MatEdit, Field(discriminator="kind")]] = (
        Field(max_length=2000)
    )


class PegOut(Schema):
    name: Checkpoint | Event
    frame: int
    between: bool


class MarkOut(Schema):
    name: str
    frame: int
    x: float
    y: float
    sd_px: float
    source: MarkSource


class PointOut(Schema):
    x: float
    y: float


class LineOut(Schema):
    a: PointOut
    b: PointOut
    style: Literal["plumb", "gate"]


class SpanOut(Schema):
    frame: int
    at: Checkpoint
    a: PointOut
    b: PointOut
    value: float
    u95: float


class GaugeOut(Schema):
    id: str
    label: str
    lines: list[LineOut]
    spans: list[SpanOut]


class Figure(Schema):
    value: float
    u95: float


class FloorPlace(Schema):
    t: float
    b: float


class CameraOut(Schema):
    """Where the camera stood, solved from the mat; degrees and metres, T and B from the mat's middle."""

    distance: Figure
    height: Figure
    off_square: Figure
    tilt: Figure
    roll: Figure
    refilm: list[str]
    eye: FloorPlace
    player: FloorPlace


class ClipMarks(Schema):
    """All that was put on one clip, and the gauges that follow from it."""

    clip_id: UUID
    pegs: list[PegOut]
    marks: list[MarkOut]
    calibration: CalibrationValue | None
    mat: MatValue | None
    camera: CameraOut | None
    camera_trouble: str  # why no camera follows from the mat
    gauges: list[GaugeOut]


class NeedOut(Schema):
    kind: Literal["peg", "mark", "known_length", "mat", "view"]
    name: str
    at: Checkpoint | None


class BandOut(Schema):
    low: float
    high: float


class ReadingOut(Schema):
    reading: str
    at: Checkpoint
    unit: Literal["m", "ratio"]
    status: Literal["ok", "refused"]
    method: str
    sign: str
    value: float | None
    u95: float | None
    reason: str
    clips: list[str]
    frames: list[int]
    needs: list[NeedOut]
    largest_error: str
    band: BandOut | None
    standing: Literal["inside", "edge", "below", "above", "undecided"] | None


class Measured(Schema):
    """What changes with every mark: what is on the clips, and the readings."""

    clips: list[ClipMarks]
    readings: list[ReadingOut]


class BenchClip(ClipOut):
    frame_times_s: list[float]
    proposals: ProposalsOut
    looking: bool


class Window(Schema):
    """The frames of a clip that are the swing, both included; neither: all of it."""

    first: Frame | None = None
    last: Frame | None = None


class Stretch(Schema):
    first: Frame
    last: Frame


class BenchSwing(Schema):
    """A swing opened on the bench."""

    id: UUID
    title: str
    hand: Hand
    student: StudentOut | None
    club: str
    words: str
    usual_miss: str
    what_hurts: str
    part: int
    parts: int
    clips: list[BenchClip]
    measured: Measured
