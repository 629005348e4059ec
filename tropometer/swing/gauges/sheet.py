"""The sheet that gauges are drawn on: one clip of a swing, with the readings that they show."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.gauges.gauge import GaugeLine, GaugeShape, LineStyle, Point, ShapeStyle
from tropometer.swing.names import CHECKPOINTS, Checkpoint
from tropometer.swing.readings.reading import Reading
from tropometer.swing.record.clip import Clip
from tropometer.swing.scene.eye import Eye
from tropometer.swing.scene.scene import Scene

LINE_TOP_M = 1.5  # above the floor: where a standing line ends
LEVEL_BEYOND = 0.35  # how much longer a level is drawn than from joint to joint, at each end


class Sheet:
    """A clip whose address is pegged and whose camera is known."""

    def __init__(self, scene: Scene, clip: Clip, eye: Eye, readings: Sequence[Reading]) -> None:
        self.scene, self.clip, self.eye = scene, clip, eye
        self._readings = {(each.reading, each.at): each for each in readings}

    @property
    def pegged(self) -> list[Checkpoint]:
        """The clip's checkpoints in the order of the swing."""
        return [at for at in CHECKPOINTS if at in self.clip.checkpoints]

    def pixels(self, at: Checkpoint, *names: str) -> list[Array] | None:
        """Where some marks are in the picture; None unless all of them are there."""
        frame = self.clip.checkpoints.get(at)
        marks = [] if frame is None else [self.clip.still_mark(name, frame) for name in names]
        found = [np.array([mark.x, mark.y]) for mark in marks if mark is not None]
        return found if len(found) == len(names) else None

    def each(self, *names: str) -> Iterator[tuple[Checkpoint, list[Array]]]:
        """The checkpoints that have all of some marks, and where in the picture those are."""
        for at in self.pegged:
            pixels = self.pixels(at, *names)
            if pixels is not None:
                yield at, pixels

    def place(self, name: str, at: Checkpoint) -> Array | None:
        """Where a mark that this clip has is in the player's axes."""
        if not self.scene.has(self.clip.view, name)[CHECKPOINTS.index(at)]:
            return None
        place = np.array([each.value for each in self.scene.at(name, at)])
        return place if np.isfinite(place).all() else None

    def seen(self, place: Array) -> Point:
        """Where a place is in the picture."""
        return point(self.eye.see(place[None])[0])

    def upright(self, place: Array, style: LineStyle) -> GaugeLine:
        """A line that stands on the floor under a place."""
        foot, top = place * [1, 1, 0], place * [1, 1, 0] + [0, 0, LINE_TOP_M]
        return GaugeLine(a=self.seen(foot), b=self.seen(top), style=style)

    def shape(self, at: Checkpoint, points: tuple[Point, ...], style: ShapeStyle, reading: str) -> GaugeShape:
        """What is drawn at a checkpoint, with the reading that it shows."""
        found = self._readings.get((reading, at))
        given = found is not None and found.status == "ok"
        return GaugeShape(
            frame=self.clip.checkpoints[at],
            at=at,
            points=points,
            style=style,
            reading=reading,
            unit=found.unit if found else "m",
            value=found.value if found and given else None,
            u95=found.u95 if found and given else None,
        )

    def travel(self, name: str, reading: str, axis: int) -> tuple[GaugeShape, ...]:
        """From where a mark would be had it not moved along one axis since address, to where it is."""
        start = self.place(name, "address")
        spans = []
        for at in self.pegged:
            now, pixels = self.place(name, at), self.pixels(at, name)
            if start is None or now is None or pixels is None or at == "address":
                continue
            origin = now.copy()
            origin[axis] = start[axis]
            spans.append(self.shape(at, (self.seen(origin), point(pixels[0])), "span", reading))
        return tuple(spans)

    def bones(self, names: tuple[str, ...], reading: str) -> tuple[GaugeShape, ...]:
        """A line through some marks."""
        return tuple(
            self.shape(at, tuple(map(point, pixels)), "bones", reading) for at, pixels in self.each(*names)
        )

    def levels(self, part: str, reading: str) -> tuple[GaugeShape, ...]:
        """A line through both marks of a part, and beyond them."""
        return tuple(
            self.shape(at, beyond(pixels), "level", reading)
            for at, pixels in self.each(f"trail_{part}", f"lead_{part}")
        )


def point(pixel: Array) -> Point:
    """A place in the picture."""
    return Point(float(pixel[0]), float(pixel[1]))


def beyond(ends: list[Array]) -> tuple[Point, ...]:
    """The ends of a line that goes on beyond two places."""
    more = (ends[1] - ends[0]) * LEVEL_BEYOND
    return point(ends[0] - more), point(ends[1] + more)
