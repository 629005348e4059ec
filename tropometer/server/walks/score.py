"""A score: what stood on the stages when, by the voice's own clock (docs/formats/walk.md)."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field

from tropometer.server.text import Line

Ms = Annotated[int, Field(ge=0, le=3_600_000)]
Px = Annotated[float, Field(ge=-20_000, le=20_000)]
Frame = Annotated[int, Field(ge=0, le=1_000_000)]
Side = Literal["student", "reference"]
Name = Annotated[str, Field(max_length=60)]
MOST_POINTS = 4000


class Exact(BaseModel):
    model_config = ConfigDict(extra="forbid")


class Point(Exact):
    """A place in a frame's own picture, pixels."""

    x: Px
    y: Px


class Showing(Exact):
    """How a stage shows its picture: the point in its middle, how much of it, and which way round."""

    cx: Px
    cy: Px
    high: float = Field(gt=0, le=40_000)
    wide: float = Field(gt=0, le=40_000)
    mirrored: bool


class StageShown(Exact):
    clip: UUID
    frame: Frame
    showing: Showing


class Stroke(Exact):
    """Something drawn on a frame: a way, two ends, middle and rim, end, corner and end, or one place."""

    id: UUID
    clip: UUID
    frame: Frame
    tool: Literal["free", "line", "arrow", "ring", "angle", "text"]
    points: list[Point] = Field(min_length=1, max_length=MOST_POINTS)
    text: Line | None = Field(None, max_length=120)


class DrawerShown(Exact):
    part: Literal["curves", "relay", "floor", "pressure"]
    reading: Name


class PointedAt(Point):
    side: Side


class StageEvent(Exact):
    """A stage shows another clip; null: nothing any more."""

    at: Ms
    kind: Literal["stage"]
    side: Side
    shown: StageShown | None


class FrameEvent(Exact):
    at: Ms
    kind: Literal["frame"]
    side: Side
    frame: Frame


class ShowingEvent(Exact):
    at: Ms
    kind: Literal["showing"]
    side: Side
    showing: Showing


class SoloEvent(Exact):
    """One stage stands alone; null: both are seen."""

    at: Ms
    kind: Literal["solo"]
    side: Side | None


class GaugesEvent(Exact):
    at: Ms
    kind: Literal["gauges"]
    ids: list[Name] = Field(max_length=60)


class DrawerEvent(Exact):
    at: Ms
    kind: Literal["drawer"]
    drawer: DrawerShown | None


class TapeShown(Exact):
    reading: Name
    at: Name


class TapeEvent(Exact):
    """A reading's tape is looked into; null: none is any more."""

    at: Ms
    kind: Literal["tape"]
    tape: TapeShown | None


class RateEvent(Exact):
    """The swing runs at a share of real time; null: it stands."""

    at: Ms
    kind: Literal["rate"]
    rate: float | None = Field(ge=-4, le=4)


class PointerEvent(Exact):
    at: Ms
    kind: Literal["pointer"]
    pointer: PointedAt | None


class ChalkEvent(Exact):
    """A stroke is there, or one of that id has changed."""

    at: Ms
    kind: Literal["chalk"]
    stroke: Stroke


class ChalkOnEvent(Exact):
    """A free line goes on."""

    at: Ms
    kind: Literal["chalk_on"]
    id: UUID
    points: list[Point] = Field(max_length=MOST_POINTS)


class WipeEvent(Exact):
    """A stroke is wiped away; null: all are."""

    at: Ms
    kind: Literal["wipe"]
    id: UUID | None


class AgainEvent(Exact):
    """ "Say this again": a mark for whoever mends it. Nothing is seen."""

    at: Ms
    kind: Literal["again"]


ScoreEvent = Annotated[
    StageEvent
    | FrameEvent
    | ShowingEvent
    | SoloEvent
    | GaugesEvent
    | DrawerEvent
    | TapeEvent
    | RateEvent
    | PointerEvent
    | ChalkEvent
    | ChalkOnEvent
    | WipeEvent
    | AgainEvent,
    Field(discriminator="kind"),
]


def last_frames(score: list[ScoreEvent], on_stage: dict[str, str]) -> tuple[dict[str, int], dict[str, str]]:
    """The last frame that a score names of each clip, and what stands on each stage after it.

    `on_stage` is what stood there before: clips by stage.
    """
    found: dict[str, int] = {}
    stages = dict(on_stage)
    for event in score:
        named: tuple[str, int] | None = None
        if isinstance(event, StageEvent):
            if event.shown:
                stages[event.side] = str(event.shown.clip)
                named = stages[event.side], event.shown.frame
            else:
                stages.pop(event.side, None)
        elif isinstance(event, FrameEvent) and event.side in stages:
            named = stages[event.side], event.frame
        elif isinstance(event, ChalkEvent):
            named = str(event.stroke.clip), event.stroke.frame
        if named:
            found[named[0]] = max(found.get(named[0], 0), named[1])
    return found, stages
