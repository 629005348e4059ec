"""From what is stored to a swing record, and from the record to readings and gauges."""

from __future__ import annotations

import pickle
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import asdict, dataclass
from functools import cached_property
from hashlib import sha256
from threading import Lock
from typing import TYPE_CHECKING, Any, cast

from django.db.models import Prefetch, prefetch_related_objects

from tropometer.server.bench.asking import asked_of_swing, post_of_swing
from tropometer.server.bench.columns import floor_columns, gauge_columns, reading_columns
from tropometer.server.bench.editing import versions_of
from tropometer.server.bench.models import Calibration, CameraFacts, Mark, Pressure, Swing
from tropometer.server.bench.tracking import tracked_marks
from tropometer.server.clips.bodies import proposals_of
from tropometer.server.clips.proposing import motion_of
from tropometer.server.clips.services import times_s
from tropometer.swing.camera.mat import UNSQUARED, camera_from_mat
from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.doubts import doubts
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.formats.plate import plate_from
from tropometer.swing.gauges.drawing import gauges
from tropometer.swing.gauges.floor_plan import FloorPlan, floor_plan
from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.names import (
    CHECKPOINTS,
    EVENTS,
    ClubClass,
    Hand,
    LengthPlace,
    MarkSource,
    SwingLength,
    View,
)
from tropometer.swing.proposals.club_class import propose_club_class
from tropometer.swing.proposals.swing_length import swing_length_of
from tropometer.swing.read import read
from tropometer.swing.readings.from_plate import FromPlate
from tropometer.swing.readings.next_click import NextClick, next_clicks
from tropometer.swing.readings.reading import Reading
from tropometer.swing.readings.register import KINDS
from tropometer.swing.readings.two_swings import unlike
from tropometer.swing.record.calibration import Mat, PlumbLine
from tropometer.swing.record.clip import Clip as RecordClip
from tropometer.swing.record.clip import KnownLength
from tropometer.swing.record.clip import Mark as RecordMark
from tropometer.swing.record.plate import PressurePlate
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.beside import frames_beside
from tropometer.swing.scene.camera_audit import audit, hips_at, hips_on_mat
from tropometer.swing.scene.scene import Scene
from tropometer.teaching.judging.asked import Asked

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

SQUARED_DEG = (0.0, 1.5)
REFERENCE_HEIGHT_PX = 720
KNOWN_LENGTH_SD_PX = 1.5
UNSIZED = {"camera": None, "camera_trouble": "Say how large the mat is: nothing is measured by it before."}


def ready_clips(swing: Swing, whole: bool = True) -> list[Clip]:
    """Ready clips of a swing with what was put on them, in a fixed number of queries.

    With `whole` false their marks are those of pegged frames only, and of the frames beside them.
    """
    rows = swing.clips.ready().prefetch_related("pegs", "hidden_marks", "tracks")
    with_facts = rows.select_related("calibration", "mat", "camera_facts", "proposals")
    clips = list(with_facts)
    marks = Mark.objects.all()
    if not whole:
        marks = marks.filter(frame__in={frame for clip in clips for frame in _near_pegs(clip)})
    prefetch_related_objects(clips, Prefetch("marks", marks))
    return clips


def _near_pegs(clip: Clip) -> set[int]:
    times = times_s(clip)
    return frames_beside(times, [peg.frame for peg in clip.pegs.all() if peg.frame < len(times)])


def record_of(swing: Swing, clips: list[Clip], whole: bool = True) -> SwingRecord:
    """The swing record of what is stored; with `whole` false, followed marks of pegged frames only."""
    return SwingRecord(
        hand=cast(Hand, swing.hand),
        stature_m=swing.student.stature_m if swing.student else None,
        club=swing.club,
        club_class=cast(ClubClass | None, swing.club_class),
        swing_length=cast(SwingLength | None, swing.swing_length),
        post_m=post_of_swing(swing),
        one_swing=swing.one_swing is True,  # what nobody has said is not believed
        plate=plate_from(felt.felt) if (felt := _pressure(swing)) else None,
        clips=tuple(_clip(clip, whole) for clip in clips),
    )


def _pressure(swing: Swing) -> Pressure | None:
    return cast(Pressure | None, getattr(swing, "pressure", None))


def _clip(clip: Clip, whole: bool) -> RecordClip:
    marks: dict[str, dict[int, RecordMark]] = {}
    for mark in clip.marks.all():
        place = RecordMark(mark.x, mark.y, mark.sd_px, cast(MarkSource, mark.source))
        marks.setdefault(mark.name, {})[mark.frame] = place
    calibration = _calibration(clip)
    facts = cast(CameraFacts | None, getattr(clip, "camera_facts", None))
    times = times_s(clip)
    # A peg beyond the last frame is kept, and not read.
    pegs = {peg.name: peg.frame for peg in clip.pegs.all() if peg.frame < len(times)}
    hidden: dict[str, set[int]] = {}
    for each in clip.hidden_marks.all():
        hidden.setdefault(each.name, set()).add(each.frame)
    for track in clip.tracks.all():
        placed = marks.get(track.name, {})
        kept = None if whole else set(pegs.values())
        marks[track.name] = placed | tracked_marks(track, placed, kept)
    return RecordClip(
        id=str(clip.pk),
        view=cast(View, clip.view),
        width=clip.width,
        height=clip.height,
        frame_times_s=tuple(times),
        checkpoints={name: frame for name, frame in pegs.items() if name in CHECKPOINTS},
        events={name: frame for name, frame in pegs.items() if name in EVENTS},
        impact_between=any(peg.between for peg in clip.pegs.all()),
        marks=marks,
        known_length=_known_length(calibration, clip),
        camera_distance_m=facts.distance_m if facts else None,
        off_square_deg=SQUARED_DEG if facts and facts.squared else None,
        mat=_mat(clip),
        camera_height_m=facts.height_m if facts else None,
        plumb=_plumb(facts.plumb, clip) if facts and facts.plumb else None,
        hidden={name: frozenset(frames) for name, frames in hidden.items()},
        camera_motion=motion_of(clip),
    )


def _sized(clip: Clip) -> bool:
    """Whether the size of a clip's mat, if it has one, was said."""
    stored = getattr(clip, "mat", None)
    return stored is None or stored.along_m is not None


def _plumb(ends: dict[str, float], clip: Clip) -> PlumbLine:
    return PlumbLine((ends["ax"], ends["ay"]), (ends["bx"], ends["by"]), _careful_sd_px(clip))


def _mat(clip: Clip) -> Mat | None:
    stored = getattr(clip, "mat", None)
    if stored is None or stored.along_m is None:
        return None
    corners = tuple((corner["x"], corner["y"]) for corner in stored.corners)
    return Mat(corners, stored.along_m, stored.across_m, _careful_sd_px(clip))


def _careful_sd_px(clip: Clip) -> float:
    return KNOWN_LENGTH_SD_PX * min(clip.width, clip.height) / REFERENCE_HEIGHT_PX


def _calibration(clip: Clip) -> Calibration | None:
    return cast(Calibration | None, getattr(clip, "calibration", None))


def _known_length(stored: Calibration | None, clip: Clip) -> KnownLength | None:
    """The length that was drawn; none before somebody has said how long it is."""
    if stored is None or stored.length_m is None:
        return None
    return KnownLength(
        a=(stored.ax, stored.ay),
        b=(stored.bx, stored.by),
        length_m=stored.length_m,
        place=cast(LengthPlace, stored.place),
        sd_px=_careful_sd_px(clip),
    )


def from_impact_s(swing: Swing, clip: Clip, frame: int) -> float | None:
    """Real seconds from impact to a frame of a clip; None while impact is not pegged."""
    clips = [each for each in ready_clips(swing, whole=False) if each.pk == clip.pk]
    return record_of(swing, clips, whole=False).clips[0].time_from_impact_s(frame)


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
                "calibration": _calibration(clip),
                "mat": getattr(clip, "mat", None),
                "facts": getattr(clip, "camera_facts", None),
                **(camera if _sized(clip) else UNSIZED),
            }
            for clip, camera in zip(clips, told.cameras, strict=True)
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
    stored = _pressure(swing)
    if felt is None or stored is None:
        return None
    first, last = float(felt.times_s[0]), float(felt.times_s[-1])
    return {
        "file_name": stored.file_name,
        "instants": len(felt.times_s),
        "seconds": last - first,
        "impact_s": felt.impact_s,
    }


def doubted(swing: Swing) -> list[dict[str, Any]]:
    """Marks of a swing to look at again, the worst first, shaped as `DoubtOut`."""
    clips = ready_clips(swing)
    seen = {str(clip.pk): proposals_of(clip).at for clip in clips}
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
