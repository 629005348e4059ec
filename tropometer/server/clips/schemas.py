"""What the API says about clips."""

from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

View = Literal["face_on", "down_the_line"]


class ClipIn(Schema):
    """A finished upload that is to become a clip."""

    upload_id: UUID
    view: View
    capture_fps: float | None = Field(None, gt=0, le=2000)
    flipped: bool = False


class ClipOut(Schema):
    id: UUID
    view: View
    capture_fps: float | None
    capture_from: Literal["sender", "file"]
    played_fps: float
    flipped: bool
    strike_frame: int | None
    strike_confidence: float | None
    original_name: str
    state: Literal["waiting", "working", "ready", "refused"]
    progress: int
    refusal: str
    width: int
    height: int
    frame_count: int


class ClipChange(Schema):
    view: View
    capture_fps: float | None = Field(None, gt=0, le=2000)
    flipped: bool = False
