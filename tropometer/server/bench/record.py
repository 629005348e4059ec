"""From what is stored to a swing record."""

from __future__ import annotations

from typing import TYPE_CHECKING, cast

from django.db.models import Prefetch, prefetch_related_objects

from tropometer.server.bench.asking import post_of_swing
from tropometer.server.bench.models import Calibration, CameraFacts, Mark, Pressure, Shot, Swing
from tropometer.server.bench.pegs import checkpoints_of
from tropometer.server.bench.tracking import tracked_marks
from tropometer.server.clips.camera import motion_of
from tropometer.server.clips.services import times_s
from tropometer.swing.formats.launch import launch_from
from tropometer.swing.formats.plate import plate_from
from tropometer.swing.names import (
    EVENTS,
    Checkpoint,
    ClubClass,
    Hand,
    LengthPlace,
    MarkSource,
    SwingLength,
    View,
)
from tropometer.swing.proposals.provisional import PEG_SD_S
from tropometer.swing.record.calibration import Mat, PlumbLine
from tropometer.swing.record.clip import Clip as RecordClip
from tropometer.swing.record.clip import KnownLength
from tropometer.swing.record.clip import Mark as RecordMark
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.beside import frames_beside

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

SQUARED_DEG = (0.0, 1.5)
REFERENCE_HEIGHT_PX = 720
KNOWN_LENGTH_SD_PX = 1.5


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
        plate=plate_from(felt.felt) if (felt := pressure_of(swing)) else None,
        launch=launch_from(shot.said) if (shot := shot_of(swing)) else None,
        clips=tuple(_clip(clip, whole) for clip in clips),
    )


def pressure_of(swing: Swing) -> Pressure | None:
    """What a pressure plate felt of a swing."""
    return cast(Pressure | None, getattr(swing, "pressure", None))


def shot_of(swing: Swing) -> Shot | None:
    """What a launch monitor said of a swing's shot."""
    return cast(Shot | None, getattr(swing, "shot", None))


def _clip(clip: Clip, whole: bool) -> RecordClip:
    marks = marks_of(clip)
    calibration = calibration_of(clip)
    facts = cast(CameraFacts | None, getattr(clip, "camera_facts", None))
    times = times_s(clip)
    checkpoints = checkpoints_of(clip)
    events = {peg.name: peg.frame for peg in clip.pegs.all() if peg.name in EVENTS and peg.frame < len(times)}
    hidden: dict[str, set[int]] = {}
    for each in clip.hidden_marks.all():
        hidden.setdefault(each.name, set()).add(each.frame)
    for track in clip.tracks.all():
        placed = marks.get(track.name, {})
        kept = None if whole else {*checkpoints.values(), *events.values()}
        marks[track.name] = placed | tracked_marks(track, placed, kept)
    return RecordClip(
        id=str(clip.pk),
        view=cast(View, clip.view),
        width=clip.width,
        height=clip.height,
        frame_times_s=tuple(times),
        checkpoints=checkpoints,
        events=events,
        impact_between=any(peg.between for peg in clip.pegs.all()),
        peg_sd_s={
            at: PEG_SD_S[at]
            for peg in clip.pegs.all()
            if peg.accepted and (at := cast(Checkpoint, peg.name)) in checkpoints
        },
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


def marks_of(clip: Clip) -> dict[str, dict[int, RecordMark]]:
    """The marks that are put on a clip, by name and frame."""
    marks: dict[str, dict[int, RecordMark]] = {}
    for mark in clip.marks.all():
        place = RecordMark(mark.x, mark.y, mark.sd_px, cast(MarkSource, mark.source), mark.shared_px)
        marks.setdefault(mark.name, {})[mark.frame] = place
    return marks


def is_sized(clip: Clip) -> bool:
    """Whether the size of a clip's mat, if it has one, was said."""
    stored = getattr(clip, "mat", None)
    return stored is None or stored.along_m is not None


def _plumb(ends: dict[str, float], clip: Clip) -> PlumbLine:
    return PlumbLine((ends["ax"], ends["ay"]), (ends["bx"], ends["by"]), careful_sd_px(clip))


def _mat(clip: Clip) -> Mat | None:
    stored = getattr(clip, "mat", None)
    if stored is None or stored.along_m is None:
        return None
    corners = tuple((corner["x"], corner["y"]) for corner in stored.corners)
    return Mat(corners, stored.along_m, stored.across_m, careful_sd_px(clip))


def careful_sd_px(clip: Clip) -> float:
    """One standard deviation of a careful click on a clip's picture, pixels."""
    return KNOWN_LENGTH_SD_PX * min(clip.width, clip.height) / REFERENCE_HEIGHT_PX


def calibration_of(clip: Clip) -> Calibration | None:
    """The known length that was drawn on a clip."""
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
        sd_px=careful_sd_px(clip),
    )


def from_impact_s(swing: Swing, clip: Clip, frame: int) -> float | None:
    """Real seconds from impact to a frame of a clip; None while impact is not pegged."""
    return _recorded(swing, clip).time_from_impact_s(frame)


def times_from_impact_s(swing: Swing, clip: Clip) -> list[float] | None:
    """Real seconds from impact to every frame of a clip; None while impact is not pegged."""
    recorded = _recorded(swing, clip)
    first = recorded.time_from_impact_s(0)
    if first is None:
        return None
    return [round(first + time - recorded.frame_times_s[0], 5) for time in recorded.frame_times_s]


def _recorded(swing: Swing, clip: Clip) -> RecordClip:
    clips = [each for each in ready_clips(swing, whole=False) if each.pk == clip.pk]
    return record_of(swing, clips, whole=False).clips[0]
