"""What the API says about clips."""

from typing import Annotated, Literal
from uuid import UUID

from ninja import Query, Schema
from pydantic import Field

from tropometer.server.clips.models import LEAST_CAPTURE_FPS, MOST_CAPTURE_FPS
from tropometer.swing.names import Checkpoint, SwingLength, View

CaptureRate = Annotated[float, Field(ge=LEAST_CAPTURE_FPS, le=MOST_CAPTURE_FPS)]


Height = Annotated[int | None, Query(ge=32, le=2160)]  # of a still that is asked for, pixels


class ClipIn(Schema):
    """A finished upload that is to become a clip."""

    upload_id: UUID
    view: View
    capture_fps: CaptureRate | None = None
    flipped: bool = False


class WindowOut(Schema):
    """The frames of a clip that are the swing, both included."""

    first: int
    last: int


class PlayerAt(Schema):
    """A point of a frame's picture that lies on who plays."""

    frame: Annotated[int, Field(ge=0)]
    x: Annotated[float, Field(allow_inf_nan=False)]
    y: Annotated[float, Field(allow_inf_nan=False)]


class ClipOut(Schema):
    id: UUID
    view: View
    capture_fps: float | None
    capture_from: Literal["sender", "file"]
    played_fps: float
    flipped: bool
    drawn: bool  # from markers that came without a picture
    original_name: str
    state: Literal["waiting", "working", "ready", "refused", "failed"]
    progress: int
    trouble: str
    width: int
    height: int
    frame_count: int
    window: WindowOut
    window_from: Literal["found", "hand"]
    player_at: PlayerAt | None = None


class ClipChange(Schema):
    view: View
    capture_fps: CaptureRate | None = None
    flipped: bool = False


class ShownPlayer(Schema):
    """Who plays, as a hand shows it; null: the machine is to find out."""

    at: PlayerAt | None = None


class ProposedView(Schema):
    value: View
    confidence: float


class ProposedHand(Schema):
    value: Literal["right", "left"]
    confidence: float


class ProposedLength(Schema):
    value: SwingLength
    confidence: float


class BoxOut(Schema):
    left: float
    top: float
    right: float
    bottom: float


class ProposedPeg(Schema):
    name: Checkpoint
    frame: int
    confidence: float


class CameraStood(Schema):
    """Whether the camera stood still, and by how many pixels its picture moved at most."""

    how: Literal["still", "moved", "unseen"]
    most_px: float


class ProposalsOut(Schema):
    """What a clip seems to show; `is_swing` is false where somebody is seen who does not swing a club."""

    view: ProposedView | None = None
    hand: ProposedHand | None = None
    swing_length: ProposedLength | None = None
    box: BoxOut | None = None
    capture_fps: float | None = None
    camera: CameraStood | None = None
    bends: float | None = None  # how strongly the lens bends straight lines; null: not to speak of
    pegs: list[ProposedPeg] = []
    is_swing: bool | None = None  # null where too little was seen of anybody
