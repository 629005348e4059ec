"""What the API says about swings, their marks and their readings."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, FiniteFloat

from tropometer.server.clips.schemas import ClipIn, ClipOut, ProposalsOut
from tropometer.server.people.schemas import Hand, StudentOut
from tropometer.swing.names import Checkpoint, Event, LengthPlace, MarkSource, View
from tropometer.swing.wanted import Group

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


class Edited(Schema):
    """What every edit says beside its change: its own name, and the gesture that it is a part of.

    One drag is one gesture however many places it passes; undoing names the gesture that is taken back.
    """

    id: UUID
    gesture: UUID | None = None
    way: Literal["do", "undo", "redo"] = "do"


class PegEdit(Edited):
    kind: Literal["peg"]
    name: Checkpoint | Event
    frame: Frame | None
    between: bool = False  # impact only: it lies between this frame and the next


class MarkPlace(Schema):
    x: Pixels
    y: Pixels
    sd_px: Annotated[FiniteFloat, Field(gt=0, le=200)]
    source: MarkSource = "hand"


class MarkEdit(Edited):
    kind: Literal["mark"]
    name: str
    frame: Frame
    place: MarkPlace | None


class HiddenEdit(Edited):
    """A mark that was looked for on a frame and cannot be seen, or can after all."""

    kind: Literal["hidden"]
    name: str
    frame: Frame
    hidden: bool


class CalibrationValue(Schema):
    ax: Pixels
    ay: Pixels
    bx: Pixels
    by: Pixels
    length_m: Annotated[FiniteFloat, Field(gt=0, le=20)]
    place: LengthPlace


class CalibrationEdit(Edited):
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


class MatEdit(Edited):
    kind: Literal["mat"]
    value: MatValue | None


class PlumbValue(Schema):
    ax: Pixels
    ay: Pixels
    bx: Pixels
    by: Pixels


class FactsValue(Schema):
    distance_m: Annotated[FiniteFloat, Field(ge=1, le=30)] | None = None
    height_m: Annotated[FiniteFloat, Field(ge=0.05, le=5)] | None = None
    squared: bool = False
    plumb: PlumbValue | None = None


class FactsEdit(Edited):
    kind: Literal["facts"]
    value: FactsValue | None


Edit = PegEdit | MarkEdit | HiddenEdit | CalibrationEdit | MatEdit | FactsEdit


class Edits(Schema):
    """Edits in order; `seen` is the version of the clip that they were made on."""

    edits: list[Annotated[Edit, Field(discriminator="kind")]] = Field(max_length=2000)
    seen: int | None = None


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


class HiddenOut(Schema):
    name: str
    frame: int


class PointOut(Schema):
    x: float
    y: float


Unit = Literal["m", "deg", "ratio", "s", "hours", "sd"]


class LineOut(Schema):
    a: PointOut
    b: PointOut
    style: Literal["plumb", "gate", "post", "wall"]


class ShapeOut(Schema):
    """What a gauge draws on one frame, and the reading that it shows, if that is given."""

    frame: int
    at: Checkpoint
    points: list[PointOut]
    style: Literal["span", "bones", "level"]
    reading: str
    unit: Unit
    value: float | None
    u95: float | None


class GaugeOut(Schema):
    id: str
    label: str
    lines: list[LineOut]
    shapes: list[ShapeOut]


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


class ClipMeasured(Schema):
    """What was put on one clip beside its marks, and what follows from all of it."""

    clip_id: UUID
    version: int  # the number of the last edit
    pegs: list[PegOut]
    calibration: CalibrationValue | None
    mat: MatValue | None
    facts: FactsValue | None
    camera: CameraOut | None
    camera_trouble: str  # why no camera follows from the mat
    gauges: list[GaugeOut]


class MarkColumns(Schema):
    """All marks of one name on a clip, column by column: there may be thousands."""

    name: str
    frame: list[int]
    x: list[float]
    y: list[float]
    sd_px: list[float]
    source: list[MarkSource]


class ClipMarks(ClipMeasured):
    """All that was put on one clip, and what follows from it."""

    marks: list[MarkColumns]
    hidden: list[HiddenOut]


class NeedOut(Schema):
    kind: Literal["peg", "mark", "known_length", "mat", "plumb", "view"]
    name: str
    at: Checkpoint | None
    view: View | None


class BandOut(Schema):
    low: float
    high: float


class ShareOut(Schema):
    source: str
    share: float


class NextOut(Schema):
    """A cheapest next click: what it gives at once, how many readings need it, what it narrows."""

    need: NeedOut
    gives: list[str]
    helps: int
    narrows: list[str]


class ReadingOut(Schema):
    reading: str
    at: str  # a checkpoint, or what a reading without one is of
    unit: Unit
    group: Literal["feet", "knees", "pelvis", "trunk", "sequence", "pressure"]
    status: Literal["ok", "refused"]
    method: str
    sign: str
    said: str
    value: float | None
    u95: float | None
    reason: str
    clips: list[str]
    frames: list[int]
    needs: list[NeedOut]
    largest_error: str
    budget: list[ShareOut]
    band: BandOut | None
    standing: Literal["inside", "edge", "below", "above", "undecided"] | None


class Measured(Schema):
    """What is on the clips, and the readings."""

    clips: list[ClipMarks]
    readings: list[ReadingOut]
    next: list[NextOut]


class EditAnswer(Schema):
    """What follows from some edits, and what somebody else had changed meanwhile.

    The marks are those that the sender had and changed. A version higher than its own edits make it says
    that somebody else has changed something too, and the swing is to be fetched anew.
    """

    clips: list[ClipMeasured]
    readings: list[ReadingOut]
    next: list[NextOut]
    met: list[str]


class Done(Schema):
    """A gesture that can be taken back: what brings back what was there, and what does it again."""

    clip_id: UUID
    gesture: UUID
    undo: Annotated[Edit, Field(discriminator="kind")]
    redo: Annotated[Edit, Field(discriminator="kind")]


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


class CarriedMat(Schema):
    mat: MatValue
    said: str


class WantedOut(Schema):
    """A mark of the round: the group it belongs to, and the checkpoints at which it is wanted."""

    name: str
    view: View
    group: Group
    at: list[Checkpoint]


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
