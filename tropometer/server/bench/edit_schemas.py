"""What the API says about edits: what can be put on a clip, and how."""

from typing import Annotated, Literal, Self
from uuid import UUID

from ninja import Schema
from pydantic import Field, FiniteFloat, model_validator

from tropometer.server.text import Line
from tropometer.swing.names import Checkpoint, Event, LengthPlace, MarkSource

Frame = Annotated[int, Field(ge=0, le=100_000)]
Pixels = Annotated[FiniteFloat, Field(ge=-10000, le=10000)]


MarkName = Annotated[str, Field(max_length=40)]


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
    accepted: bool = False  # as it was proposed: less exact than a hand's


class MarkPlace(Schema):
    x: Pixels
    y: Pixels
    sd_px: Annotated[FiniteFloat, Field(gt=0, le=200)]
    source: MarkSource = "hand"
    shared_px: Annotated[FiniteFloat, Field(ge=0, le=200)] = 0.0  # of sd_px: the same on all frames

    @model_validator(mode="after")
    def _shares_at_most_all(self) -> Self:
        if self.shared_px > self.sd_px:
            raise ValueError("shared_px is a part of sd_px: it cannot be larger")
        return self


class MarkEdit(Edited):
    kind: Literal["mark"]
    name: MarkName
    frame: Frame
    place: MarkPlace | None


class HiddenEdit(Edited):
    """A mark that was looked for on a frame and cannot be seen, or can after all."""

    kind: Literal["hidden"]
    name: MarkName
    frame: Frame
    hidden: bool


class CalibrationValue(Schema):
    ax: Pixels
    ay: Pixels
    bx: Pixels
    by: Pixels
    length_m: Annotated[FiniteFloat, Field(gt=0, le=20)] | None  # null: nobody has said
    place: LengthPlace


class CalibrationEdit(Edited):
    kind: Literal["calibration"]
    value: CalibrationValue | None


Metres = Annotated[FiniteFloat, Field(gt=0, le=20)]


class Corner(Schema):
    x: Pixels
    y: Pixels


class MatValue(Schema):
    """A mat's corners, its size once somebody has said it (never assumed), and what its place is called."""

    corners: list[Corner] = Field(min_length=4, max_length=4)
    along_m: Metres | None = None
    across_m: Metres | None = None
    place: Line = Field("", max_length=80)

    @model_validator(mode="after")
    def _whole_size(self) -> Self:
        if (self.along_m is None) != (self.across_m is None):
            raise ValueError("a mat's size is along and across, or neither")
        return self


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
    """Edits in order; `seen` is the version of the clip that they were made on.

    `since` is the state of the swing beside which the answer is to tell what differs.
    """

    edits: list[Annotated[Edit, Field(discriminator="kind")]] = Field(max_length=2000)
    seen: Annotated[int, Field(ge=0, le=2**31 - 1)] | None = None
    since: Annotated[str, Field(max_length=64)] | None = None


class Done(Schema):
    """A gesture that can be taken back: what brings back what was there, and what does it again."""

    clip_id: UUID
    gesture: UUID
    undo: Annotated[Edit, Field(discriminator="kind")]
    redo: Annotated[Edit, Field(discriminator="kind")]
