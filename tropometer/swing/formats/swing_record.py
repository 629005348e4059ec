"""The swing record as a document of the open format, in and out.

The format is described in docs/formats/swing-record.md; its shape is checked by the JSON Schema beside that
text, its sense (frames inside the clip, known names) here.
"""

from __future__ import annotations

from typing import Any, cast

import numpy as np

from tropometer.swing.camera.mat import check_corners
from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.formats.launch import launch_document, launch_from
from tropometer.swing.formats.plate import plate_document, plate_from
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.names import (
    CHECKPOINTS,
    EVENTS,
    MARKS,
    Checkpoint,
    Event,
)
from tropometer.swing.record.calibration import Mat, PlumbLine
from tropometer.swing.record.camera_motion import CameraMotion
from tropometer.swing.record.clip import Clip, KnownLength, Mark
from tropometer.swing.record.swing import POST_M, SwingRecord

FORMAT = "tropometer-swing"
VERSION = 1


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
        post_m=document.get("post_m", POST_M),
        club=document.get("club", ""),
        club_class=document.get("club_class"),
        swing_length=document.get("swing_length"),
        plate=plate_from(document["pressure"]) if "pressure" in document else None,
        launch=launch_from(document["launch"]) if "launch" in document else None,
        clips=tuple(_clip(clip, f"clips[{i}]") for i, clip in enumerate(document["clips"])),
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
        for i, (frame, x, y, sd_px, source, *shared) in enumerate(rows):
            _inside(frame, frames, f"{where}.marks.{name}[{i}]")
            if shared and shared[0] > sd_px:
                raise RecordError(f"{where}.marks.{name}[{i}]", "more of its error is shared than there is")
            marks.setdefault(name, {})[frame] = Mark(x, y, sd_px, source, *shared)
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
        peg_sd_s=_peg_sd_s(data.get("peg_sd_s", {}), checkpoints, f"{where}.peg_sd_s"),
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


def _peg_sd_s(data: dict[str, float], pegs: dict[Checkpoint, int], where: str) -> dict[Checkpoint, float]:
    for name in data:
        if name not in pegs:
            raise RecordError(f"{where}.{name}", "not among the checkpoints")
    return {at: data[at] for at in pegs if at in data}


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
        **({} if record.club_class is None else {"club_class": record.club_class}),
        **({} if record.swing_length is None else {"swing_length": record.swing_length}),
        **({} if record.post_m == POST_M else {"post_m": record.post_m}),
        **({} if record.one_swing is None else {"one_swing": record.one_swing}),
        **({} if record.plate is None else {"pressure": plate_document(record.plate)}),
        **({} if record.launch is None else {"launch": launch_document(record.launch)}),
        "clips": [_clip_document(clip) for clip in record.clips],
    }


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
        "peg_sd_s": dict(clip.peg_sd_s),
        "marks": {
            name: [
                [frame, m.x, m.y, m.sd_px, m.source] + ([m.shared_px] if m.shared_px else [])
                for frame, m in sorted(by_frame.items())
            ]
            for name, by_frame in clip.marks.items()
        },
        "hidden": {name: sorted(frames) for name, frames in clip.hidden.items()},
    }
