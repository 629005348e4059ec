"""From a swing record to readings, gauges and cameras."""

from __future__ import annotations

import pickle
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import asdict, dataclass
from functools import cached_property
from hashlib import sha256
from threading import Lock
from typing import TYPE_CHECKING, Any

from tropometer.server.bench.asking import asked_of_swing
from tropometer.server.bench.columns import floor_columns, gauge_columns, reading_columns
from tropometer.server.bench.editing import versions_of
from tropometer.server.bench.models import Swing
from tropometer.server.bench.pegs import checkpoints_of
from tropometer.server.bench.record import calibration_of, is_sized, pressure_of, ready_clips, record_of
from tropometer.server.clips.bodies import proposals_of
from tropometer.swing.camera.mat import UNSQUARED, camera_from_mat
from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.doubts import doubts
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.gauges.drawing import gauges
from tropometer.swing.gauges.floor_plan import FloorPlan, floor_plan
from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.names import (
    ClubClass,
    SwingLength,
)
from tropometer.swing.proposals.club_class import propose_club_class
from tropometer.swing.proposals.swing_length import swing_length_of
from tropometer.swing.read import read
from tropometer.swing.readings.from_plate import FromPlate
from tropometer.swing.readings.next_click import NextClick, next_clicks
from tropometer.swing.readings.reading import Reading
from tropometer.swing.readings.register import KINDS
from tropometer.swing.readings.two_swings import unlike
from tropometer.swing.record.clip import Clip as RecordClip
from tropometer.swing.record.plate import PressurePlate
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.camera_audit import audit, hips_at, hips_on_mat
from tropometer.swing.scene.in_picture import InPicture, in_picture
from tropometer.swing.scene.scene import Scene
from tropometer.teaching.judging.asked import Asked

if TYPE_CHECKING:
    pass

SQUARED_DEG = (0.0, 1.5)
REFERENCE_HEIGHT_PX = 720
KNOWN_LENGTH_SD_PX = 1.5
UNSIZED = {"camera": None, "camera_trouble": "Say how large the mat is: nothing is measured by it before."}


def measured(swing: Swing) -> dict[str, Any]:
    """What was put on a swing's clips beside their marks, and what follows from all of it, as `told`."""
    clips = ready_clips(swing, whole=False)
    record = record_of(swing, clips, whole=False)
    versions = versions_of(swing)
    told = _told(record, asked_of_swing(swing))
    return {
        "clips": [
            {
                "clip_id": clip.pk,
                "version": versions.get(clip.pk, 0),
                "pegs": sorted(clip.pegs.all(), key=lambda peg: peg.frame),
                "calibration": calibration_of(clip),
                "mat": getattr(clip, "mat", None),
                "facts": getattr(clip, "camera_facts", None),
                **(camera if is_sized(clip) else UNSIZED),
                "player": player,
            }
            for clip, camera, player in zip(clips, told.cameras, told.players, strict=True)
        ],
        "pressure": _pressure_told(swing, record.plate),
        "pairing": _pairing(swing, record),
        "kind_seen": told.kind_seen,
        "told": told,
    }


@dataclass(frozen=True)
class KindSeen:
    """What club and what length of swing the marks tell, if they tell it surely."""

    club_class: ClubClass | None
    swing_length: SwingLength | None


@dataclass(frozen=True)
class Told:
    """What follows from a record; cameras and gauges clip by clip. `state` names record and what is asked."""

    state: str
    asked: Asked | None
    clips: tuple[str, ...]
    cameras: list[dict[str, Any]]
    players: list[InPicture | None]
    gauges: list[Sequence[Gauge]]
    readings: list[Reading]
    floor: FloorPlan
    next: list[NextClick]
    kind_seen: KindSeen

    @cached_property
    def reading_columns(self) -> list[dict[str, Any]]:
        return reading_columns(self.readings, self.asked, self.clips)

    @cached_property
    def gauge_columns(self) -> list[list[dict[str, Any]]]:
        return [gauge_columns(drawn) for drawn in self.gauges]

    @cached_property
    def floor_columns(self) -> dict[str, Any]:
        return floor_columns(self.floor)


_RECENT = 32  # swings are opened again and again, and shown beside later ones
_recent: OrderedDict[str, Told] = OrderedDict()
_recent_lock = Lock()


def told_as(state: str | None) -> Told | None:
    """What followed in a state that this process has told of lately."""
    with _recent_lock:
        found = _recent.get(state) if state else None
        if found:
            _recent.move_to_end(found.state)
        return found


def _told(record: SwingRecord, asked: Asked | None) -> Told:
    bands = tuple(asked.bands.values()) if asked else ()
    state = sha256(pickle.dumps((record, bands))).hexdigest()[:32]
    told = told_as(state) or _follow(state, record, asked)
    with _recent_lock:
        _recent[state] = told
        while len(_recent) > _RECENT:
            _recent.popitem(last=False)
    return told


def _follow(state: str, record: SwingRecord, asked: Asked | None) -> Told:
    found = read(record)
    # Few have a pressure plate: what would need one is not asked for.
    readings = [
        each for each in found.readings if record.plate or not isinstance(KINDS[each.reading], FromPlate)
    ]
    # A click is worth what it brings to the readings that the model looks at.
    ends = {key: (band.low, band.high) for key, band in asked.bands.items()} if asked else {}
    looked_at = [each for each in readings if asked is None or (each.reading, each.at) in asked.bands]
    return Told(
        state,
        asked,
        tuple(clip.id for clip in record.clips),
        [_camera(found.scene_of(clip.id), clip) for clip in record.clips],
        [_player(found.scene_of(clip.id), clip) for clip in record.clips],
        [
            gauges(scene, clip.view, readings, ends) if (scene := found.scene_of(clip.id)) else ()
            for clip in record.clips
        ],
        readings,
        floor_plan(found.swings[0].scene),
        next_clicks(looked_at, all(clip.mat for clip in record.clips)),
        KindSeen(propose_club_class(found.swings[0].scene), swing_length_of(readings)),
    )


def _pairing(swing: Swing, record: SwingRecord) -> dict[str, Any] | None:
    """What was said of a swing's two views, and what speaks against their being one swing."""
    if len({clip.view for clip in record.clips}) < 2:
        return None
    return {"one_swing": swing.one_swing, "unlike": unlike(record)}


def _pressure_told(swing: Swing, felt: PressurePlate | None) -> dict[str, Any] | None:
    """In short what a pressure plate's data are."""
    stored = pressure_of(swing)
    if felt is None or stored is None:
        return None
    first, last = float(felt.times_s[0]), float(felt.times_s[-1])
    return {
        "file_name": stored.file_name,
        "instants": len(felt.times_s),
        "seconds": last - first,
        "impact_s": felt.impact_s,
        "impact_u95_s": NORMAL_95 * felt.impact_sd_s,
    }


def doubted(swing: Swing) -> list[dict[str, Any]]:
    """Marks of a swing to look at again, the worst first, shaped as `DoubtOut`."""
    clips = ready_clips(swing)
    seen = {str(clip.pk): proposals_of(clip, checkpoints_of(clip)).at for clip in clips}
    found = doubts(record_of(swing, clips), seen)
    return [{**asdict(doubt), "clip_id": doubt.clip} for doubt in found]


def _camera(scene: Scene | None, clip: RecordClip) -> dict[str, Any]:
    """The camera that follows from a clip's mat, or why none does."""
    if clip.mat is None or scene is None:
        return {"camera": None, "camera_trouble": ""}
    eye = scene.eyes.get(clip.view)
    if eye is None or eye.scale != "mat":
        return {"camera": None, "camera_trouble": scene.troubles.get(clip.view) or _mat_trouble(scene, clip)}
    hips_b = hips_on_mat(eye)
    found = audit(eye.solved, hips_b)
    named = {
        "distance": found.distance_m,
        "height": found.height_m,
        "off_square": found.off_square_deg,
        "tilt": found.tilt_deg,
        "roll": found.roll_deg,
    }
    figures = {name: {"value": float(each.value), "u95": float(each.u95)} for name, each in named.items()}
    turn = None if scene.turn is UNSQUARED else scene.turn
    plan = {
        "mat_off": {"value": turn.off_deg, "u95": NORMAL_95 * turn.sd_deg} if turn else None,
        "eye": _on_plan(eye.solved.camera.eye),
        "player": _on_plan(hips_at(float(hips_b.value))),
        "refilm": list(found.refilm),
    }
    return {"camera": {**figures, **plan}, "camera_trouble": ""}


def _player(scene: Scene | None, clip: RecordClip) -> InPicture | None:
    eye = scene.eyes.get(clip.view) if scene else None
    return in_picture(eye) if eye is not None else None


def _mat_trouble(scene: Scene, clip: RecordClip) -> str:
    """Why a mat's corners were not used although something else was."""
    try:
        if clip.mat is not None:
            camera_from_mat(
                clip.mat, clip.view, scene.record.hand, clip.width, clip.height, clip.camera_facts
            )
    except Unsolved as trouble:
        return str(trouble)
    return ""


def _on_plan(place: Any) -> dict[str, float]:
    return {"t": float(place[0]), "b": float(place[1])}
