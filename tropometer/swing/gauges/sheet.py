"""The sheet that gauges are drawn on: one clip of a swing, with the readings that they show."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.gauges.gauge import GaugeLine, GaugeShape, LineStyle, Point, ShapeStyle
from tropometer.swing.gauges.target import BEYOND_DEG, BEYOND_M, Ends, Reach, along, around, hinged, target
from tropometer.swing.names import CHECKPOINTS, PLANE_OF, Checkpoint
from tropometer.swing.readings.reading import Reading
from tropometer.swing.record.clip import Clip
from tropometer.swing.scene.eye import Eye
from tropometer.swing.scene.scene import Scene

LINE_TOP_M = 1.5  # above the floor: where a standing line ends
LEVEL_BEYOND = 0.35  # how much longer a level is drawn than from joint to joint, at each end


class Sheet:
    """A clip whose address is pegged and whose camera is known."""

    def __init__(
        self,
        scene: Scene,
        clip: Clip,
        eye: Eye,
        readings: Sequence[Reading],
        bands: Mapping[tuple[str, str], Ends],
    ) -> None:
        self.scene, self.clip, self.eye = scene, clip, eye
        self._bands = bands
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

    def middle(self, part: str, at: Checkpoint) -> Array | None:
        """Where the middle of both marks of a part is in the player's axes."""
        lead, trail = self.place(f"lead_{part}", at), self.place(f"trail_{part}", at)
        return None if lead is None or trail is None else np.asarray((lead + trail) / 2)

    def seen(self, place: Array) -> Point:
        """Where a place is in the picture."""
        return point(self.eye.see(place[None])[0])

    def upright(self, place: Array, style: LineStyle) -> GaugeLine:
        """A line that stands on the floor under a place."""
        foot, top = place * [1, 1, 0], place * [1, 1, 0] + [0, 0, LINE_TOP_M]
        return GaugeLine(a=self.seen(foot), b=self.seen(top), style=style)

    def shape(
        self,
        at: Checkpoint,
        points: tuple[Point, ...],
        style: ShapeStyle,
        reading: str,
        reach: Callable[[float], Reach | None] | None = None,
        asked: str = "",
    ) -> GaugeShape:
        """What is drawn at a checkpoint, with the reading that it shows.

        `reach` says of the reading's value how the gauge's end moves with it, if it is known; of another
        reading's that is `asked` for instead.
        """
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
            target=self._target(asked or reading, at, reach) if given and reach else (),
        )

    def _target(
        self, reading: str, at: Checkpoint, reach: Callable[[float], Reach | None]
    ) -> tuple[Point, ...]:
        band, found = self._bands.get((reading, at)), self._readings.get((reading, at))
        if band is None or found is None or found.status != "ok" or found.value is None:
            return ()
        way = reach(found.value)
        if way is None or self.eye.scale == "none":
            return ()
        turns = found.unit == "deg"
        beyond = BEYOND_DEG if turns else BEYOND_M
        return tuple(map(self.seen, target(band, found.value, beyond, way, arc=turns)))

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
            ends = (self.seen(origin), point(pixels[0]))
            spans.append(self.shape(at, ends, "span", reading, moves(along(now, axis))))
        return tuple(spans)

    def bones(
        self,
        names: tuple[str, ...],
        reading: str,
        reach: Callable[..., Callable[[float], Reach | None]] | None = None,
    ) -> tuple[GaugeShape, ...]:
        """A line through some marks; `reach` says of their places how the last one moves with the reading."""
        shapes = []
        for at, pixels in self.each(*names):
            places = [self.place(name, at) for name in names]
            known = [place for place in places if place is not None]
            way = reach(*known) if reach and len(known) == len(names) else None
            shapes.append(self.shape(at, tuple(map(point, pixels)), "bones", reading, way))
        return tuple(shapes)

    def levels(self, part: str, reading: str) -> tuple[GaugeShape, ...]:
        """A line through both marks of a part, and beyond them."""
        shapes = []
        for at, pixels in self.each(f"trail_{part}", f"lead_{part}"):
            trail, lead = self.place(f"trail_{part}", at), self.place(f"lead_{part}", at)
            turn = None if trail is None or lead is None else self.turns(trail, lead, from_level=True)
            shapes.append(self.shape(at, beyond(pixels), "level", reading, turn))
        return tuple(shapes)

    def turns(self, pivot: Array, end: Array, *, from_level: bool = False) -> Callable[[float], Reach | None]:
        """How an end turns about a pivot in the plane that the clip shows, as an angle grows."""
        plane = PLANE_OF[self.clip.view]
        return lambda value: around(pivot, end, plane, value, from_level=from_level)

    def bends(self, start: Array, hinge: Array, end: Array) -> Callable[[float], Reach | None]:
        """How an end turns about a hinge in the plane that the clip shows, as the bend there grows."""
        plane = PLANE_OF[self.clip.view]
        return lambda value: hinged(start, hinge, end, plane, value)


def turns_on_floor(pivot: Array, end: Array, *, from_level: bool = False) -> Callable[[float], Reach | None]:
    """How an end turns over the floor as an angle from the ball's way, or from the target's, grows."""
    return lambda value: around(pivot, end, "floor", value, from_level=from_level)


def moves(reach: Reach) -> Callable[[float], Reach | None]:
    """A way that does not depend on the value."""
    return lambda value: reach


def point(pixel: Array) -> Point:
    """A place in the picture."""
    return Point(float(pixel[0]), float(pixel[1]))


def beyond(ends: list[Array]) -> tuple[Point, ...]:
    """The ends of a line that goes on beyond two places."""
    more = (ends[1] - ends[0]) * LEVEL_BEYOND
    return point(ends[0] - more), point(ends[1] + more)
