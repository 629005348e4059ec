"""The lines of the trade: placed at address, read wherever their marks are, drawn by the readings."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.readings.by_part.pelvis import POST_M
from tropometer.swing.readings.reading import Reading, Unit
from tropometer.swing.record.clip import Clip
from tropometer.swing.scene.eye import Eye
from tropometer.swing.scene.scene import Scene

LINE_TOP_M = 1.5  # above the floor: where a standing line ends
LEVEL_BEYOND = 0.35  # how much longer a level is drawn than from joint to joint, at each end


@dataclass(frozen=True)
class Point:
    """A place in the picture, pixels of the full frame; of a hand-held camera in its still picture."""

    x: float
    y: float


@dataclass(frozen=True)
class GaugeLine:
    """A line that stands on every frame."""

    a: Point
    b: Point
    style: Literal["plumb", "gate", "post", "wall"]


@dataclass(frozen=True)
class GaugeShape:
    """What a gauge draws on one frame, and the reading that it shows, if that is given.

    A span is measured across from the first point to the last; bones and levels run through their points.
    """

    frame: int
    at: Checkpoint
    points: tuple[Point, ...]
    style: Literal["span", "bones", "level"]
    reading: str
    unit: Unit
    value: float | None
    u95: float | None


@dataclass(frozen=True)
class Gauge:
    """One gauge of a clip: its standing lines, and what it draws on the marked frames."""

    id: str
    label: str
    lines: tuple[GaugeLine, ...] = ()
    shapes: tuple[GaugeShape, ...] = ()


def gauges(scene: Scene, view: View, readings: list[Reading]) -> list[Gauge]:
    """The gauges of a view's clip, as far as their marks exist."""
    clip, eye = scene.clips[view], scene.eyes.get(view)
    if "address" not in clip.checkpoints or eye is None:
        return []
    bench = _Bench(scene, clip, eye, {(each.reading, each.at): each for each in readings})
    found = bench.face_on() if view == "face_on" else bench.down_the_line()
    return [gauge for gauge in found if gauge.lines or gauge.shapes]


class _Bench:
    """Draws the gauges of one clip."""

    def __init__(self, scene: Scene, clip: Clip, eye: Eye, readings: dict[tuple[str, str], Reading]) -> None:
        self.scene, self.clip, self.eye, self.readings = scene, clip, eye, readings

    def face_on(self) -> Iterator[Gauge]:
        yield self._trail_plumb()
        for side in ("trail", "lead"):
            yield self._hip_gate(side)
        yield self._post_mark()
        yield Gauge("belt_line", "Belt line", shapes=self._levels("hip", "pelvis_slant"))
        yield Gauge("spine_line", "Spine line", shapes=self._spine("spine_side_tilt"))
        yield Gauge("kneecap_level", "Kneecap level", shapes=self._levels("knee", "knee_height_difference"))
        yield Gauge("lead_leg", "Lead leg", shapes=self._bones("lead", "lead_leg_lean"))
        yield from self._feet()
        stance = tuple(
            self._shape("address", tuple(_point(each) for each in pair), "span", "stance_width")
            for pair in [self._pixels("address", "trail_heel", "lead_heel")]
            if pair is not None
        )
        yield Gauge("stance_tape", "Stance tape", shapes=stance)

    def down_the_line(self) -> Iterator[Gauge]:
        wall = self._place("seat", "address")
        lines = () if wall is None else (self._upright(wall, "wall"),)
        yield Gauge("seat_wall", "Seat wall", lines, self._travel("seat", "pelvis_depth", axis=1))
        yield Gauge("spine_line", "Spine line", shapes=self._spine("spine_incline"))
        for side in ("lead", "trail"):
            bones = self._bones(side, f"knee_flex_{side}")
            yield Gauge(f"{side}_knee_hinge", f"{side.capitalize()} knee hinge", shapes=bones)
        toes = self._pixels("address", "trail_toe", "lead_toe")
        line = () if toes is None else (self._shape("address", _longer(toes), "level", "toe_line"),)
        yield Gauge("toe_line", "Toe line", shapes=line)
        yield from self._feet()
        yield Gauge("grip_plumb", "Grip plumb", shapes=self._grip_plumb())

    def _trail_plumb(self) -> Gauge:
        foot, clicked = (
            self._place("trail_foot_outer", "address"),
            self._pixels("address", "trail_foot_outer"),
        )
        if foot is None or clicked is None:
            return Gauge("trail_plumb", "Trail plumb")
        hip = self._place("trail_hip_edge", "address")
        # Hips stand farther from the camera than the toes: the same upright plane meets them elsewhere.
        top = np.array([foot[0], -0.05 if hip is None else hip[1], LINE_TOP_M])
        line = GaugeLine(_point(clicked[0]), self._seen(top), "plumb")
        spans = []
        for at in self._pegged():
            edge, pixels = self._place("trail_hip_edge", at), self._pixels(at, "trail_hip_edge")
            if edge is not None and pixels is not None:
                ends = (self._seen(np.array([foot[0], edge[1], edge[2]])), _point(pixels[0]))
                spans.append(self._shape(at, ends, "span", "trail_hip_gap"))
        return Gauge("trail_plumb", "Trail plumb", (line,), tuple(spans))

    def _hip_gate(self, side: str) -> Gauge:
        name = f"{side}_hip_edge"
        edge = self._place(name, "address")
        lines = () if edge is None else (self._upright(edge, "gate"),)
        moved = self.scene.moved(name).t  # not a reading by itself: what has gone through the gate
        spans = []
        for shape in self._travel(name, "hip_moved", axis=0):
            column = CHECKPOINTS.index(shape.at)
            value, u95 = float(moved.value[column]), float(moved.u95[column])
            if self.eye.scale != "none" and math.isfinite(value) and math.isfinite(u95):
                shape = replace(shape, value=value, u95=u95)
            spans.append(shape)
        return Gauge(f"{side}_hip_gate", f"{side.capitalize()} hip gate", lines, tuple(spans))

    def _post_mark(self) -> Gauge:
        edge = self._place("lead_hip_edge", "address")
        if edge is None or self.eye.scale == "none":
            return Gauge("post_mark", "Post mark")
        post = edge + np.array([POST_M, 0.0, 0.0])
        spans = []
        for at in self._pegged():
            now, pixels = self._place("lead_hip_edge", at), self._pixels(at, "lead_hip_edge")
            if now is not None and pixels is not None and at != "address":
                ends = (self._seen(np.array([post[0], now[1], now[2]])), _point(pixels[0]))
                spans.append(self._shape(at, ends, "span", "post_gap"))
        return Gauge("post_mark", "Post mark", (self._upright(post, "post"),), tuple(spans))

    def _feet(self) -> Iterator[Gauge]:
        for side in ("lead", "trail"):
            name, title = f"{side}_foot", side.capitalize()
            fan = [
                self._shape(at, tuple(map(_point, pair)), "bones", f"foot_flare_{side}")
                for at, pair in self._each(f"{side}_heel", f"{side}_toe")
            ]
            yield Gauge(f"{name}_fan", f"{title} foot fan", shapes=tuple(fan))
            roll = [
                self._shape(at, tuple(map(_point, pair)), "bones", f"foot_roll_{side}")
                for at, pair in self._each(f"{side}_foot_inner", f"{side}_foot_outer")
                if self.clip.view == "face_on"
            ]
            yield Gauge(f"{name}_roll", f"{title} shoe roll", shapes=tuple(roll))
            lift = self._travel(f"{side}_heel", f"heel_lift_{side}", axis=2)
            yield Gauge(f"{side}_heel_lift", f"{title} heel lift", shapes=lift)

    def _travel(self, name: str, reading: str, axis: int) -> tuple[GaugeShape, ...]:
        """From where a mark would be had it not moved along one axis since address, to where it is."""
        start = self._place(name, "address")
        spans = []
        for at in self._pegged():
            now, pixels = self._place(name, at), self._pixels(at, name)
            if start is None or now is None or pixels is None or at == "address":
                continue
            origin = now.copy()
            origin[axis] = start[axis]
            spans.append(self._shape(at, (self._seen(origin), _point(pixels[0])), "span", reading))
        return tuple(spans)

    def _levels(self, part: str, reading: str) -> tuple[GaugeShape, ...]:
        return tuple(
            self._shape(at, _longer(pair), "level", reading)
            for at, pair in self._each(f"trail_{part}", f"lead_{part}")
        )

    def _spine(self, reading: str) -> tuple[GaugeShape, ...]:
        return tuple(
            self._shape(at, (_point((trail + lead) / 2), _point(neck)), "bones", reading)
            for at, (trail, lead, neck) in self._each("trail_hip", "lead_hip", "neck")
        )

    def _bones(self, side: str, reading: str) -> tuple[GaugeShape, ...]:
        names = (f"{side}_hip", f"{side}_knee", f"{side}_ankle")
        return tuple(
            self._shape(at, tuple(map(_point, places)), "bones", reading) for at, places in self._each(*names)
        )

    def _grip_plumb(self) -> tuple[GaugeShape, ...]:
        butt, pixels = self._place("grip_butt", "top"), self._pixels("top", "grip_butt")
        if butt is None or pixels is None:
            return ()
        below = self._seen(butt * [1, 1, 0])
        return (self._shape("top", (_point(pixels[0]), below), "bones", "grip_plumb"),)

    def _pegged(self) -> list[Checkpoint]:
        return [at for at in CHECKPOINTS if at in self.clip.checkpoints]

    def _each(self, *names: str) -> Iterator[tuple[Checkpoint, list[Array]]]:
        for at in self._pegged():
            pixels = self._pixels(at, *names)
            if pixels is not None:
                yield at, pixels

    def _pixels(self, at: Checkpoint, *names: str) -> list[Array] | None:
        frame = self.clip.checkpoints.get(at)
        marks = [] if frame is None else [self.clip.still_mark(name, frame) for name in names]
        found = [np.array([mark.x, mark.y]) for mark in marks if mark is not None]
        return found if len(found) == len(names) else None

    def _place(self, name: str, at: Checkpoint) -> Array | None:
        """Where a mark is that this clip has."""
        if not self.scene.has(self.clip.view, name)[CHECKPOINTS.index(at)]:
            return None
        place = np.array([each.value for each in self.scene.at(name, at)])
        return place if np.isfinite(place).all() else None

    def _seen(self, place: Array) -> Point:
        return _point(self.eye.see(place[None])[0])

    def _upright(self, place: Array, style: Literal["plumb", "gate", "post", "wall"]) -> GaugeLine:
        foot, top = place * [1, 1, 0], place * [1, 1, 0] + [0, 0, LINE_TOP_M]
        return GaugeLine(self._seen(foot), self._seen(top), style)

    def _shape(
        self,
        at: Checkpoint,
        points: tuple[Point, ...],
        style: Literal["span", "bones", "level"],
        reading: str,
    ) -> GaugeShape:
        found = self.readings.get((reading, at))
        given = found is not None and found.status == "ok"
        return GaugeShape(
            self.clip.checkpoints[at],
            at,
            points,
            style,
            reading,
            found.unit if found else "m",
            found.value if found and given else None,
            found.u95 if found and given else None,
        )


def _point(pixel: Array) -> Point:
    return Point(float(pixel[0]), float(pixel[1]))


def _longer(ends: list[Array]) -> tuple[Point, ...]:
    beyond = (ends[1] - ends[0]) * LEVEL_BEYOND
    return _point(ends[0] - beyond), _point(ends[1] + beyond)
