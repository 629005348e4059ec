"""The lines of the trade, placed by marks at address and read wherever the hips are marked."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Literal

from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.face_on import FaceOn
from tropometer.swing.face_on import look as look_face_on
from tropometer.swing.names import Checkpoint
from tropometer.swing.record import Clip, Mark, SwingRecord


@dataclass(frozen=True)
class Point:
    """A place in the picture, pixels of the full frame; of a hand-held camera in its still picture."""

    x: float
    y: float


@dataclass(frozen=True)
class GaugeLine:
    """A line that stands on every frame, pixels of the full frame."""

    a: Point
    b: Point
    style: Literal["plumb", "gate"]


@dataclass(frozen=True)
class GaugeSpan:
    """A measured distance on one frame, from the line to the mark."""

    frame: int
    at: Checkpoint
    a: Point
    b: Point
    value: float
    u95: float


@dataclass(frozen=True)
class Gauge:
    """One gauge of a clip: its standing lines and what it measures on the marked frames."""

    id: str
    label: str
    lines: tuple[GaugeLine, ...] = ()
    spans: list[GaugeSpan] = field(default_factory=list)


def gauges(record: SwingRecord, clip: Clip) -> list[Gauge]:
    """The trail plumb and the hip gates of a face-on clip, as far as their address marks exist."""
    address = clip.checkpoints.get("address")
    if clip.view != "face_on" or address is None:
        return []
    try:
        camera = look_face_on(clip, record.hand)
    except Unsolved:
        camera = None  # the readings say why
    found = [_trail_plumb(clip, address, camera), *_hip_gates(clip, address, camera)]
    return [gauge for gauge in found if gauge is not None]


def _trail_plumb(clip: Clip, address: int, camera: FaceOn | None) -> Gauge | None:
    foot = clip.still_mark("trail_foot_outer", address)
    if foot is None:
        return None
    hip = clip.still_mark("trail_hip_edge", address)
    hip_y = hip.y if hip else clip.height * 0.55
    lean = camera.plumb_at_hips(foot, hip_y) if camera else foot.x
    # Hips stand farther from the camera than the toes: the same vertical plane meets them nearer to
    # the picture's middle, so the drawn plumb leans by that much between foot and hip.
    slope = (lean - foot.x) / (hip_y - foot.y) if hip_y != foot.y else 0.0
    line = GaugeLine(Point(foot.x, foot.y), Point(foot.x - slope * foot.y, 0.0), "plumb")
    gauge = Gauge("trail_plumb", "Trail plumb", (line,))
    for at, frame, edge in _marked(clip, "trail_hip_edge"):
        if camera is None:
            continue
        gap = camera.along_target("trail_hip_edge", frame, at) - camera.along_target(
            "trail_foot_outer", address, "address"
        )
        if not math.isfinite(gap.sd):
            continue  # the reading says why
        start = _place(camera, edge.x, -gap.value)
        gauge.spans.append(
            GaugeSpan(frame, at, Point(start, edge.y), Point(edge.x, edge.y), gap.value, gap.u95)
        )
    return gauge


def _hip_gates(clip: Clip, address: int, camera: FaceOn | None) -> list[Gauge | None]:
    found: list[Gauge | None] = []
    for side in ("lead", "trail"):
        name = f"{side}_hip_edge"
        edge = clip.still_mark(name, address)
        if edge is None:
            continue
        gate = GaugeLine(Point(edge.x, 0.0), Point(edge.x, float(clip.height)), "gate")
        gauge = Gauge(f"{side}_hip_gate", f"{side.capitalize()} hip gate", (gate,))
        for at, frame, mark in _marked(clip, name):
            if camera is None or at == "address":
                continue
            travel = camera.along_target(name, frame, at) - camera.along_target(name, address, "address")
            if not math.isfinite(travel.sd):
                continue
            start = _place(camera, mark.x, -travel.value)
            gauge.spans.append(
                GaugeSpan(frame, at, Point(start, mark.y), Point(mark.x, mark.y), travel.value, travel.u95)
            )
        found.append(gauge)
    return found


def _marked(clip: Clip, name: str) -> list[tuple[Checkpoint, int, Mark]]:
    marks = [(at, frame, clip.still_mark(name, frame)) for at, frame in clip.checkpoints.items()]
    return [(at, frame, mark) for at, frame, mark in marks if mark is not None]


def _place(camera: FaceOn, x: float, along_target_m: float) -> float:
    return x + camera.toward_target * along_target_m * camera.px_per_m_at_hips
