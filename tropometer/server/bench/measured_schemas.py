"""What the API says about what was put on clips, and what follows from it.

There are many of these in every answer, so they are checked by pydantic alone: ninja's own Schema first looks
for Django's managers and files in each, which none of them has.
"""

from datetime import datetime
from typing import Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict

from tropometer.server.bench.edit_schemas import CalibrationValue, FactsValue, MatValue
from tropometer.swing.names import Checkpoint, Event, MarkSource, View


class Plain(BaseModel):
    model_config = ConfigDict(from_attributes=True)


class PegOut(Plain):
    name: Checkpoint | Event
    frame: int
    between: bool


class MarkOut(Plain):
    name: str
    frame: int
    x: float
    y: float
    sd_px: float
    source: MarkSource


class HiddenOut(Plain):
    name: str
    frame: int


class PointOut(Plain):
    x: float
    y: float


Unit = Literal["m", "deg", "ratio", "to_one", "s", "hours", "sd"]


class LineOut(Plain):
    a: PointOut
    b: PointOut
    style: Literal["plumb", "gate", "post", "wall"]


class ShapeOut(Plain):
    """What a gauge draws on one frame, and the reading that it shows, if that is given."""

    frame: int
    at: Checkpoint
    points: list[PointOut]
    style: Literal["span", "bones", "level"]
    reading: str
    unit: Unit
    value: float | None
    u95: float | None


class GaugeOut(Plain):
    id: str
    label: str
    lines: list[LineOut]
    shapes: list[ShapeOut]


class Figure(Plain):
    value: float
    u95: float


class FloorPlace(Plain):
    t: float
    b: float


class CameraOut(Plain):
    """Where the camera stood, solved from the mat; degrees and metres, T and B from the mat's middle."""

    distance: Figure
    height: Figure
    off_square: Figure
    tilt: Figure
    roll: Figure
    mat_off: Figure | None  # how far the mat points from the target line toward the ball, where a stick tells
    refilm: list[str]
    eye: FloorPlace
    player: FloorPlace


class ClipMeasured(Plain):
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


class MarkColumns(Plain):
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


class NeedOut(Plain):
    kind: Literal["peg", "mark", "known_length", "mat", "plumb", "view"]
    name: str
    at: Checkpoint | None
    view: View | None


class BandOut(Plain):
    low: float
    high: float


class ShareOut(Plain):
    source: str
    share: float


class NextOut(Plain):
    """A cheapest next click: what it gives at once, how many readings need it, what it narrows."""

    need: NeedOut
    gives: list[str]
    helps: int
    narrows: list[str]


class ReadingOut(Plain):
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
    provisional: bool  # it hangs on marks that nobody looked at
    largest_error: str
    budget: list[ShareOut]
    band: BandOut | None
    standing: Literal["inside", "edge", "below", "above", "undecided"] | None


class FloorMarkOut(Plain):
    name: str
    at: Checkpoint
    t: float
    b: float
    u95_t: float
    u95_b: float


class FloorCameraOut(Plain):
    view: View
    t: float
    b: float


class FloorOut(Plain):
    """The swing from above, metres from the middle between the heels at address; empty without a scale."""

    marks: list[FloorMarkOut]
    cameras: list[FloorCameraOut]


class PressureOut(Plain):
    """In short what a pressure mat's data are; impact is on the mat's own clock."""

    file_name: str
    instants: int
    seconds: float
    impact_s: float


class UnlikeOut(Plain):
    """How long it takes between two pegs face-on and down the line, seconds: too different for one swing."""

    first: Checkpoint
    last: Checkpoint
    a_s: float
    b_s: float


class PairingOut(Plain):
    """Whether a swing's two views are one swing, null while nobody has said, and what speaks against it."""

    one_swing: bool | None
    unlike: UnlikeOut | None


class CurveOut(Plain):
    """A reading over time; null where a frame lacks its marks."""

    reading: str
    unit: Unit
    values: list[float | None]
    u95: list[float | None]


class CourseOut(Plain):
    """A swing over time: one reading's curve on the frames of one clip, and when things happen.

    `offered` names the readings that have a curve; `curve` is the asked one, if it has one. It is `stale`
    while a worker follows some marks anew.
    """

    stale: bool
    clip_id: UUID | None
    frames: list[int]
    offered: list[str]
    curve: CurveOut | None
    times: list[ReadingOut]


class EarlierReading(Plain):
    reading: str
    at: str
    value: float
    u95: float


class EarlierOut(Plain):
    """An earlier swing of the same student, and what was read there."""

    swing_id: UUID
    received_at: datetime
    club: str
    readings: list[EarlierReading]


class Measured(Plain):
    """What is on the clips, and the readings."""

    clips: list[ClipMarks]
    readings: list[ReadingOut]
    next: list[NextOut]
    floor: FloorOut
    pressure: PressureOut | None
    pairing: PairingOut | None


class EditAnswer(Plain):
    """What follows from some edits, and what somebody else had changed meanwhile.

    The marks are those that the sender had and changed. A version higher than its own edits make it says
    that somebody else has changed something too, and the swing is to be fetched anew.
    """

    clips: list[ClipMeasured]
    readings: list[ReadingOut]
    next: list[NextOut]
    floor: FloorOut
    pressure: PressureOut | None
    pairing: PairingOut | None
    met: list[str]
