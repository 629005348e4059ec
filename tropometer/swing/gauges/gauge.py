"""What a gauge is: lines that stand in the picture, and what is drawn and told on the marked frames."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tropometer.swing.names import Checkpoint
from tropometer.swing.readings.reading import Unit

LineStyle = Literal["plumb", "gate", "post", "wall"]
ShapeStyle = Literal["span", "bones", "level"]


@dataclass(frozen=True)
class Point:
    """A place in the picture, pixels of the full frame; of a hand-held camera in its still picture."""

    x: float
    y: float


@dataclass(frozen=True, kw_only=True)
class GaugeLine:
    """A line that stands on every frame."""

    a: Point
    b: Point
    style: LineStyle


@dataclass(frozen=True, kw_only=True)
class GaugeShape:
    """What a gauge draws on one frame, and the reading that it shows, if that is given.

    A span is measured across from the first point to the last; bones and levels run through their points.
    `target` is where its end would lie were the reading in the band that is asked for, from low to high.
    """

    frame: int
    at: Checkpoint
    points: tuple[Point, ...]
    style: ShapeStyle
    reading: str
    unit: Unit
    value: float | None
    u95: float | None
    target: tuple[Point, ...] = ()


@dataclass(frozen=True, kw_only=True)
class Gauge:
    """One gauge of a clip: its standing lines, and what it draws on the marked frames."""

    id: str
    label: str
    lines: tuple[GaugeLine, ...] = ()
    shapes: tuple[GaugeShape, ...] = ()
