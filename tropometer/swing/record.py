"""The swing record: marks, pegs and calibration of a swing's clips, as plain data.

The open format is described in docs/formats/swing-record.md; its shape is checked by the JSON Schema
beside that text, its sense (frames inside the clip, known names) here.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from typing import Any, cast

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.camera.facts import CameraFacts, FloorLength, PlumbLine
from tropometer.swing.camera.mat import Mat, check_corners
from tropometer.swing.camera.motion import CameraMotion
from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.names import (
    CHECKPOINTS,
    EVENTS,
    MARKS,
    Checkpoint,
    Event,
    Hand,
    LengthPlace,
    MarkSource,
    View,
)

# How far a length on the floor lies from the heels toward the ball: mean and spread; common practice, no
# source.
PLACE_B_M: dict[LengthPlace, tuple[float, float]] = {"toe_line": (0.32, 0.06), "ball_line": (0.70, 0.12)}

FORMAT = "tropometer-swing"
VERSION = 1


class RecordError(ValueError):
    """A record that cannot be read; says which field and why."""

    def __init__(self, where: str, why: str) -> None:
        super().__init__(f"{where}: {why}")


@dataclass(frozen=True)
class Mark:
    """A point on a frame, pixels of the upright full-size frame; `sd_px` is one standard deviation."""

    x: float
    y: float
    sd_px: float
    source: MarkSource = "hand"


@dataclass(frozen=True)
class KnownLength:
    """A straight thing of known length in the picture, lying along the target line at a known place."""

    a: tuple[float, float]
    b: tuple[float, float]
    length_m: float
    place: LengthPlace
    length_sd_m: float = 0.005
    sd_px: float = 1.5


@dataclass(frozen=True)
class Clip:
    """One camera's view of the swing. `marks` maps mark name to frame to mark."""

    id: str
    view: View
    width: int
    height: int
    frame_times_s: tuple[float, ...]
    checkpoints: dict[Checkpoint, int] = field(default_factory=dict)
    marks: dict[str, dict[int, Mark]] = field(default_factory=dict)
    known_length: KnownLength | None = None
    camera_distance_m: float | None = None
    off_square_deg: tuple[float, float] | None = None  # angle and its standard deviation
    impact_between: bool = False  # impact lies between its frame and the next
    events: dict[Event, int] = field(default_factory=dict)
    mat: Mat | None = None
    camera_height_m: float | None = None
    plumb: PlumbLine | None = None
    hidden: dict[str, frozenset[int]] = field(default_factory=dict)  # looked for, and not to be seen
    camera_motion: CameraMotion | None = None  # None: it stood still

    def still_mark(self, name: str, frame: int) -> Mark | None:
        """A mark where it would lie had the camera stood still; None where there is none."""
        mark = self.marks.get(name, {}).get(frame)
        if mark is None or self.camera_motion is None:
            return mark
        still, sd_px = self.camera_motion.still(np.array([frame]), np.array([[mark.x, mark.y]]))
        x, y = still[0].tolist()
        return Mark(x, y, math.hypot(mark.sd_px, sd_px[0]), mark.source)

    @property
    def camera_facts(self) -> CameraFacts:
        """What is known of the camera beside the mat."""
        known = self.known_length
        length = body_length = None
        if known is not None:
            told = FloorLength(known.a, known.b, known.length_m, known.length_sd_m, known.sd_px)
            if known.place == "body_plane":
                body_length = told
            else:  # a mat's own middle is not the heels'
                length = replace(told, along_b=None if self.mat else PLACE_B_M[known.place])
        return CameraFacts(
            self.camera_distance_m, self.camera_height_m, self.off_square_deg, self.plumb, length, body_length
        )

    def time_from_impact_s(self, frame: int) -> float | None:
        """Real seconds from impact to a frame, negative before; None while impact is not pegged."""
        impact = self.checkpoints.get("impact")
        if impact is None:
            return None
        times = self.frame_times_s
        struck = (times[impact] + times[impact + 1]) / 2 if self.impact_between else times[impact]
        return times[frame] - struck


@dataclass(frozen=True, eq=False)
class Pressure:
    """What a mat felt at n instants of its own clock, on which impact is at `impact_s`.

    Forces (n,) in newtons; places (n, 2) in each shoe, heel 0 to toe 1 and inner edge 0 to outer edge 1.
    """

    times_s: Array
    lead_force_n: Array
    trail_force_n: Array
    impact_s: float
    lead_place: Array | None = None
    trail_place: Array | None = None
    # One standard deviation each; common practice, no source.
    impact_sd_s: float = 0.004
    force_sd_n: float = 12.0
    place_sd: float = 0.02


@dataclass(frozen=True)
class SwingRecord:
    """Everything the core needs to read one swing."""

    hand: Hand
    clips: tuple[Clip, ...]
    stature_m: float | None = None
    hip_width_m: float | None = None  # over the trochanters
    club: str = ""
    pressure: Pressure | None = None
    one_swing: bool | None = None  # whether its views show one swing; None: nobody has said, so it is tested


def from_document(document: dict[str, Any]) -> SwingRecord:
    """A record from a document that already fits the JSON Schema.

    Raises RecordError when a name is unknown or a frame lies outside its clip.
    """
    player = document["player"]
    return SwingRecord(
        hand=player["hand"],
        stature_m=player.get("stature_m"),
        hip_width_m=player.get("hip_width_m"),
        one_swing=document.get("one_swing"),
        club=document.get("club", ""),
        pressure=pressure_from(document["pressure"]) if "pressure" in document else None,
        clips=tuple(_clip(clip, f"clips[{i}]") for i, clip in enumerate(document["clips"])),
    )


def pressure_from(data: dict[str, Any]) -> Pressure:
    """A mat's data from a document that fits the JSON Schema; RecordError where they make no sense."""
    columns: dict[str, Array] = {
        name: np.array(data[name], float)
        for name in ("times_s", "lead_force_n", "trail_force_n", "lead_place", "trail_place")
        if name in data
    }
    count = len(columns["times_s"])
    for name, column in columns.items():
        if len(column) != count:
            raise RecordError(f"pressure.{name}", f"it has {len(column)} values, times_s has {count}")
        endless = np.flatnonzero(~np.isfinite(column).reshape(count, -1).all(axis=1))
        if len(endless):
            raise RecordError(f"pressure.{name}[{endless[0]}]", "not a number")
    late = np.flatnonzero(np.diff(columns["times_s"]) <= 0)
    if len(late):
        raise RecordError(f"pressure.times_s[{late[0] + 1}]", "times must rise")
    if not columns["times_s"][0] <= data["impact_s"] <= columns["times_s"][-1]:
        raise RecordError("pressure.impact_s", "impact is outside the mat's times")
    known = {name: data[name] for name in ("impact_sd_s", "force_sd_n", "place_sd") if name in data}
    for name, value in known.items():
        if not math.isfinite(value):
            raise RecordError(f"pressure.{name}", "not a number")
    return Pressure(
        columns["times_s"],
        columns["lead_force_n"],
        columns["trail_force_n"],
        data["impact_s"],
        columns.get("lead_place"),
        columns.get("trail_place"),
        **known,
    )


def _clip(data: dict[str, Any], where: str) -> Clip:
    times = tuple(float(t) for t in data["frame_times_s"])
    late = next((i for i in range(1, len(times)) if times[i] <= times[i - 1]), None)
    if late is not None:
        raise RecordError(f"{where}.frame_times_s[{late}]", "times must rise from frame to frame")
    frames = len(times)
    checkpoints: dict[Checkpoint, int] = {}
    for name, frame in data.get("checkpoints", {}).items():
        if name not in CHECKPOINTS:
            raise RecordError(f"{where}.checkpoints.{name}", "not a checkpoint")
        _inside(frame, frames, f"{where}.checkpoints.{name}")
        checkpoints[cast(Checkpoint, name)] = frame
    events: dict[Event, int] = {}
    for name, frame in data.get("events", {}).items():
        if name not in EVENTS:
            raise RecordError(f"{where}.events.{name}", "not an event")
        _inside(frame, frames, f"{where}.events.{name}")
        events[cast(Event, name)] = frame
    between = bool(data.get("impact_between", False))
    if between:
        if "impact" not in checkpoints:
            raise RecordError(f"{where}.impact_between", "impact is not among the checkpoints")
        _inside(checkpoints["impact"] + 1, frames, f"{where}.impact_between")
    marks: dict[str, dict[int, Mark]] = {}
    for name, rows in data.get("marks", {}).items():
        if name not in MARKS:
            raise RecordError(f"{where}.marks.{name}", "not a mark")
        for i, (frame, x, y, sd_px, source) in enumerate(rows):
            _inside(frame, frames, f"{where}.marks.{name}[{i}]")
            marks.setdefault(name, {})[frame] = Mark(x, y, sd_px, source)
    hidden: dict[str, frozenset[int]] = {}
    for name, hidden_frames in data.get("hidden", {}).items():
        if name not in MARKS:
            raise RecordError(f"{where}.hidden.{name}", "not a mark")
        for i, frame in enumerate(hidden_frames):
            _inside(frame, frames, f"{where}.hidden.{name}[{i}]")
            if frame in marks.get(name, {}):
                raise RecordError(f"{where}.hidden.{name}[{i}]", f"frame {frame} is marked too")
        hidden[name] = frozenset(hidden_frames)
    calibration = data.get("calibration", {})
    return Clip(
        id=data["id"],
        view=data["view"],
        width=data["width"],
        height=data["height"],
        frame_times_s=times,
        checkpoints=checkpoints,
        impact_between=between,
        events=events,
        marks=marks,
        known_length=_known_length(calibration.get("known_length"), f"{where}.calibration.known_length"),
        camera_distance_m=calibration.get("camera_distance_m"),
        off_square_deg=_pair(calibration.get("off_square_deg")),
        mat=_mat(calibration.get("mat"), f"{where}.calibration.mat"),
        camera_height_m=calibration.get("camera_height_m"),
        plumb=_plumb(calibration.get("plumb"), f"{where}.calibration.plumb"),
        hidden=hidden,
        camera_motion=_motion(calibration.get("camera_motion"), frames, f"{where}.calibration.camera_motion"),
    )


def _motion(rows: list[list[float]] | None, frames: int, where: str) -> CameraMotion | None:
    if rows is None:
        return None
    if len(rows) != frames:
        raise RecordError(where, f"it has {len(rows)} rows, the clip has {frames} frames")
    return CameraMotion(np.array(rows, float))


def _plumb(data: dict[str, Any] | None, where: str) -> PlumbLine | None:
    if data is None:
        return None
    if data["a"] == data["b"]:
        raise RecordError(where, "both ends are the same point")
    return PlumbLine((data["a"][0], data["a"][1]), (data["b"][0], data["b"][1]), data.get("sd_px", 1.5))


def _mat(data: dict[str, Any] | None, where: str) -> Mat | None:
    if data is None:
        return None
    corners = tuple((float(x), float(y)) for x, y in data["corners"])
    try:
        check_corners(corners)
    except Unsolved as trouble:
        raise RecordError(f"{where}.corners", str(trouble)) from trouble
    return Mat(corners, data["along_m"], data["across_m"], data.get("sd_px", 1.5))


def _known_length(data: dict[str, Any] | None, where: str) -> KnownLength | None:
    if data is None:
        return None
    if data["a"] == data["b"]:
        raise RecordError(where, "both ends are the same point")
    return KnownLength(
        a=(data["a"][0], data["a"][1]),
        b=(data["b"][0], data["b"][1]),
        length_m=data["length_m"],
        place=data["place"],
        length_sd_m=data.get("length_sd_m", 0.005),
        sd_px=data.get("sd_px", 1.5),
    )


def _pair(values: list[float] | None) -> tuple[float, float] | None:
    return None if values is None else (values[0], values[1])


def _inside(frame: int, frames: int, where: str) -> None:
    if not 0 <= frame < frames:
        raise RecordError(where, f"frame {frame} is outside the clip (0 to {frames - 1})")


def to_document(record: SwingRecord) -> dict[str, Any]:
    """The record as a document of the open format."""
    player: dict[str, Any] = {"hand": record.hand}
    if record.stature_m is not None:
        player["stature_m"] = record.stature_m
    if record.hip_width_m is not None:
        player["hip_width_m"] = record.hip_width_m
    return {
        "format": FORMAT,
        "version": VERSION,
        "player": player,
        "club": record.club,
        **({} if record.one_swing is None else {"one_swing": record.one_swing}),
        **({} if record.pressure is None else {"pressure": pressure_document(record.pressure)}),
        "clips": [_clip_document(clip) for clip in record.clips],
    }


def pressure_document(mat: Pressure) -> dict[str, Any]:
    """A mat's data as a document."""
    columns = {
        name: column.tolist() if isinstance(column, np.ndarray) else column
        for name, column in vars(mat).items()
    }
    return {name: column for name, column in columns.items() if column is not None}


def _clip_document(clip: Clip) -> dict[str, Any]:
    calibration: dict[str, Any] = {}
    if clip.known_length is not None:
        known = clip.known_length
        calibration["known_length"] = {
            "a": list(known.a),
            "b": list(known.b),
            "length_m": known.length_m,
            "length_sd_m": known.length_sd_m,
            "place": known.place,
            "sd_px": known.sd_px,
        }
    if clip.mat is not None:
        calibration["mat"] = {
            "corners": [list(corner) for corner in clip.mat.corners],
            "along_m": clip.mat.along_m,
            "across_m": clip.mat.across_m,
            "sd_px": clip.mat.sd_px,
        }
    if clip.camera_distance_m is not None:
        calibration["camera_distance_m"] = clip.camera_distance_m
    if clip.camera_height_m is not None:
        calibration["camera_height_m"] = clip.camera_height_m
    if clip.plumb is not None:
        plumb = clip.plumb
        calibration["plumb"] = {"a": list(plumb.a), "b": list(plumb.b), "sd_px": plumb.sd_px}
    if clip.off_square_deg is not None:
        calibration["off_square_deg"] = list(clip.off_square_deg)
    if clip.camera_motion is not None:
        calibration["camera_motion"] = clip.camera_motion.known_rows.tolist()
    return {
        "id": clip.id,
        "view": clip.view,
        "width": clip.width,
        "height": clip.height,
        "frame_times_s": list(clip.frame_times_s),
        "calibration": calibration,
        "checkpoints": dict(clip.checkpoints),
        "impact_between": clip.impact_between,
        "events": dict(clip.events),
        "marks": {
            name: [[frame, m.x, m.y, m.sd_px, m.source] for frame, m in sorted(by_frame.items())]
            for name, by_frame in clip.marks.items()
        },
        "hidden": {name: sorted(frames) for name, frames in clip.hidden.items()},
    }
