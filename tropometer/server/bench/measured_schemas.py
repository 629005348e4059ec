"""What the API says about what was put on clips, and what follows from it.

There are many of these in every answer, so they are checked by pydantic alone: ninja's own Schema first looks
for Django's managers and files in each, which none of them has.
"""

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel, ConfigDict

from tropometer.server.bench.edit_schemas import CalibrationValue, FactsValue, MatValue
from tropometer.swing.gauges.gauge import LineStyle, ShapeStyle
from tropometer.swing.names import Checkpoint, ClubClass, Event, MarkSource, SwingLength, View
from tropometer.swing.readings.reading import Group, NeedKind, Unit
from tropometer.teaching.knowledge.band import Standing


class Plain(BaseModel):
    model_config = ConfigDict(from_attributes=True)


class PegOut(Plain):
    name: Checkpoint | Event
    frame: int
    between: bool
    accepted: bool  # as a machine proposed it


class MarkOut(Plain):
    name: str
    frame: int
    x: float
    y: float
    sd_px: float
    source: MarkSource
    shared_px: float


class HiddenOut(Plain):
    name: str
    frame: int


class PointOut(Plain):
    x: float
    y: float


class LineOut(Plain):
    a: PointOut
    b: PointOut
    style: LineStyle


class ShapeOut(Plain):
    """What a gauge drew on the frame, the reading that it shows, if given, and where its end should lie."""

    frame: int
    at: Checkpoint
    points: list[PointOut]
    style: ShapeStyle
    reading: str
    unit: Unit
    value: float | None
    u95: float | None
    target: list[PointOut] = []


class GaugeOut(Plain):
    id: str
    label: str
    lines: list[LineOut]
    shapes: list[ShapeOut]


class GaugeColumns(Plain):
    """A gauge: lines that stand on every frame, and what it draws on some, frame by frame.

    Its shapes are alike and show one reading, where that is given. Points are x and y in turn, those of
    `target` from the low end of what is asked for to the high one.
    """

    id: str
    label: str
    lines: list[LineOut]
    style: ShapeStyle | None
    reading: str
    unit: Unit | None
    frame: list[int]
    points: list[list[float]]
    target: list[list[float]]
    value: list[float | None]
    u95: list[float | None]


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


class InPictureOut(Plain):
    """How the player stands in the picture: the middle between the heels, and pixels to a metre there.

    Degrees to the side of and above square, and metres: where the camera stood; `squared`: a mat told it.
    """

    foot_x: float
    foot_y: float
    px_per_m: float
    aside_deg: float
    above_deg: float
    distance_m: float
    squared: bool


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
    player: InPictureOut | None  # null: without a mat or a known length, or without marked feet
    gauges: list[GaugeColumns]


class MarkColumns(Plain):
    """All marks of one name on a clip, column by column: there may be thousands.

    Beyond the end of `sd_px`, `source` and `shared_px` their last entry holds.
    """

    name: str
    frame: list[int]
    x: list[float]
    y: list[float]
    sd_px: list[float]
    source: list[MarkSource]
    shared_px: list[float]


class ClipMarks(ClipMeasured):
    """All that was put on one clip, and what follows from it."""

    marks: list[MarkColumns]
    hidden: list[HiddenOut]


class NeedOut(Plain):
    kind: NeedKind
    name: str
    at: Checkpoint | None
    view: View | None


class BandOut(Plain):
    """From low to high; an end that is null is not asked for."""

    low: float | None
    high: float | None


class ShareOut(Plain):
    source: str
    share: float


class NextOut(Plain):
    """A cheapest next click: what it gives at once, how many readings need it, what it narrows."""

    need: NeedOut
    gives: list[str]
    helps: int
    narrows: list[str]


class ReadingKind(Plain):
    """What is always true of a reading."""

    reading: str
    unit: Unit
    group: Group
    method: str
    sign: str


class ReadingColumns(Plain):
    """All of one reading, moment by moment: given where it has a value, else refused for a reason.

    `at` is a checkpoint, or what a reading without one is of. `clips` are places in the list of the swing's
    clips. A column from `said` on is empty where none of its rows says anything; beyond the end of one from
    `clips` on, but `frames`, its last entry holds.
    """

    reading: str
    at: list[str]
    value: list[float | None]
    u95: list[float | None]
    clips: list[list[int]]
    frames: list[list[int]]
    said: list[str]
    reason: list[str]
    needs: list[list[NeedOut]]
    provisional: list[bool]  # it hangs on marks that nobody looked at
    band: list[BandOut | None]
    standing: list[Standing | None]


class FirstLookOut(Plain):
    """What a machine reads of a swing where nobody has looked yet, and what to look at next.

    `looking` while players are looked for, `closer` the percent of a closer look that is under way; `mats`
    are the clips whose mat was carried over from others.
    """

    looking: bool
    closer: int | None
    mats: list[UUID]
    readings: list[ReadingColumns]
    next: list[NextOut]


class BudgetOut(Plain):
    """Where a reading's interval comes from: shares of its variance, and the largest single thing."""

    reading: str
    at: str
    budget: list[ShareOut]
    largest_error: str


class FloorColumns(Plain):
    """A mark from above at one checkpoint after the other, with its 95 % half-widths."""

    name: str
    at: list[Checkpoint]
    t: list[float]
    b: list[float]
    u95_t: list[float]
    u95_b: list[float]


class FloorCameraOut(Plain):
    view: View
    t: float
    b: float


class FloorOut(Plain):
    """The swing from above, metres from the middle between the heels at address; empty without a scale."""

    marks: list[FloorColumns]
    cameras: list[FloorCameraOut]


class PressureOut(Plain):
    """In short what a pressure plate's data are; impact is on the plate's own clock."""

    file_name: str
    instants: int
    seconds: float
    impact_s: float
    impact_u95_s: float


class UnlikeOut(Plain):
    """How long it takes between two pegs in two views, seconds: too different for one swing."""

    first: Checkpoint
    last: Checkpoint
    a_view: View
    b_view: View
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


class OtherBand(Plain):
    """What those ask of a reading who teach otherwise than the student's model."""

    teaching: str
    reading: str
    at: str
    low: float | None
    high: float | None


class CourseOut(Plain):
    """A swing over time: some readings' curves on the frames of one clip, and when things happen.

    `offered` names the readings that have a curve; `curves` are the asked ones that have one, in that order.
    It is `stale` while a worker follows some marks anew.
    """

    stale: bool
    clip_id: UUID | None
    frames: list[int]
    offered: list[str]
    curves: list[CurveOut]
    others: list[OtherBand]
    times: list[ReadingColumns]


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


class KindSeenOut(Plain):
    """What club and what length of swing the marks tell, by the shaft's length and the lead arm's raise."""

    club_class: ClubClass | None
    swing_length: SwingLength | None


class Measured(Plain):
    """What is on the clips, and the readings; `state` names all that follows from marks."""

    state: str
    clips: list[ClipMarks]
    readings: list[ReadingColumns]
    next: list[NextOut]
    floor: FloorOut
    pressure: PressureOut | None
    pairing: PairingOut | None
    kind_seen: KindSeenOut


class EditAnswer(Plain):
    """What follows from some edits, and what somebody else had changed meanwhile.

    The marks are those that the sender had and changed. A version higher than its own edits make it says
    that somebody else has changed something too, and the swing is to be fetched anew.

    With `since` set, readings, gauges and the floor are those alone that differ from that state; null: all.
    """

    state: str
    since: str | None
    clips: list[ClipMeasured]
    readings: list[ReadingColumns]
    next: list[NextOut]
    floor: FloorOut | None
    pressure: PressureOut | None
    pairing: PairingOut | None
    kind_seen: KindSeenOut
    met: list[str]
