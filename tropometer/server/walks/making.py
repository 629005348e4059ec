"""Makes of takes and cut what a student is given: one voice, one score, the clips as they were shown."""

from __future__ import annotations

import json
from dataclasses import asdict
from datetime import timedelta
from pathlib import Path
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.core.files import File
from django.db import transaction
from django.utils import timezone

from tropometer.server.bench import services as bench
from tropometer.server.bench.measure import Told, measured
from tropometer.server.bench.record import times_from_impact_s
from tropometer.server.clips.camera import motion_rows
from tropometer.server.clips.services import ready_clip
from tropometer.server.rooms import RefusedClip, local_copy, scratch, video
from tropometer.server.walks.drawers import Opened, laid_open, opened_in
from tropometer.server.walks.models import KeptClip, Take, Walk
from tropometer.server.walks.schemas import WalkClip
from tropometer.server.walks.screens_code import screens_code
from tropometer.server.walks.services import pieces_of, score_of
from tropometer.swing.names import CHECKPOINTS

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

VOICE_SECONDS = 900
SCORE_SECONDS = 60


def voice_take(take_id: UUID) -> None:
    """Make the voice of a take from the pieces that have come. Safe to run twice."""
    take = Take.objects.filter(pk=take_id).first()
    if take is None:
        return
    pieces = pieces_of(take)
    if not pieces or len(pieces) == take.voiced_pieces:
        return
    with scratch() as folder:
        source, target = folder / "said", folder / "voice.m4a"
        source.write_bytes(b"".join(bytes(piece.voice) for piece in pieces))
        try:
            made = next(video("voice", source, target, seconds=VOICE_SECONDS))
        except RefusedClip as refusal:
            Take.objects.filter(pk=take_id).update(trouble=str(refusal), voiced_pieces=len(pieces))
            return
        with transaction.atomic(), target.open("rb") as content:
            now = Take.objects.select_for_update().filter(pk=take_id).first()
            if now is None or now.voiced_pieces >= len(pieces):
                return
            before = now.voice.name
            now.voice.save("voice", File(content), save=False)
            now.voiced_pieces, now.trouble = len(pieces), ""
            now.length_ms = round(made["length_s"] * 1000)
            now.silences = [[round(end * 1000) for end in each] for each in made["silences"]]
            now.save()
            if before and before != now.voice.name:
                storage = now.voice.storage
                transaction.on_commit(lambda: storage.delete(before))


def is_being_said(lesson_id: UUID, within_s: float) -> bool:
    """Whether a piece of a take that has not ended has just come."""
    since = timezone.now() - timedelta(seconds=within_s)
    return Take.objects.filter(walk=lesson_id, ended=False, pieces__came_at__gt=since).exists()


def is_sent(lesson_id: UUID) -> bool:
    """Whether the lesson of a walk has gone to its student."""
    return Walk.objects.filter(pk=lesson_id, lesson__sent_at__isnull=False).exists()


def make(lesson_id: UUID) -> None:
    """Make a walk's voice, score, chapters and clips from its cut as it is now. Safe to run twice."""
    walk = Walk.objects.select_related("lesson__swing").filter(pk=lesson_id).first()
    if walk is None:
        return
    for take in walk.takes.all():
        voice_take(take.pk)
    takes = {str(take.pk): take for take in walk.takes.all() if take.length_ms}
    cut = [stretch for stretch in walk.cut if stretch["take"] in takes]
    told = [
        {"id": id, "length_ms": take.length_ms, "score": score_of(pieces_of(take))}
        for id, take in takes.items()
    ]
    opened = opened_in(told)
    kept = {id: shown for id in sorted(_clips_in(told)) if (shown := _shown(walk, UUID(id), opened))}
    pegs = {
        id: {peg.name: peg.frame for peg in clip.pegs if peg.name in CHECKPOINTS} for id, clip in kept.items()
    }
    with screens_code(SCORE_SECONDS) as ask:
        whole = ask("whole", cut, told, pegs)
    with scratch() as folder:
        voice = _joined_voice(folder, cut, takes) if whole["length_ms"] else None
        named = _clips_in([whole])
        _keep(walk, whole, {UUID(id): shown for id, shown in kept.items() if id in named}, voice)


def _shown(walk: Walk, clip_id: UUID, opened: Opened) -> WalkClip | None:
    """A clip as it can be drawn now; where it was deleted since, as the walk has kept it."""
    clip = ready_clip(clip_id)
    if clip is not None and not clip.is_removed:
        return kept_clip(clip, walk.lesson.swing.student_id, opened)
    kept = walk.clips.filter(clip_id=clip_id).first()
    return WalkClip.model_validate(kept.shown) if kept else None


def note_trouble(lesson_id: UUID, words: str) -> None:
    """Say on the desk why a walk could not be made."""
    Walk.objects.filter(pk=lesson_id).update(trouble=f"The walk could not be made ready: {words}"[:300])


def _clips_in(scores: list[dict[str, Any]]) -> set[str]:
    """The clips that scores show, by id."""
    shown = (event.get("shown") for each in scores for event in each["score"] if event["kind"] == "stage")
    return {stage["clip"] for stage in shown if stage}


def _joined_voice(folder: Path, cut: list[dict[str, Any]], takes: dict[str, Take]) -> Path:
    spans, target = [], folder / "voice.m4a"
    for stretch in cut:
        source = folder / stretch["take"]
        if not source.exists():
            pieces = pieces_of(takes[stretch["take"]])
            source.write_bytes(b"".join(bytes(piece.voice) for piece in pieces))
        end = min(stretch["to"] or takes[stretch["take"]].length_ms, takes[stretch["take"]].length_ms)
        spans.append({"path": str(source), "from_s": stretch["from"] / 1000, "to_s": end / 1000})
    listed = folder / "spans.json"
    listed.write_text(json.dumps(spans))
    next(video("walk-voice", listed, target, seconds=VOICE_SECONDS))
    return target


def _keep(walk: Walk, whole: dict[str, Any], clips: dict[UUID, WalkClip], voice: Path | None) -> None:
    """Put what was made in place of what was there, unless something newer is there already."""
    with transaction.atomic():
        now = Walk.objects.select_for_update(of=("self",)).filter(pk=walk.pk).first()
        if now is None or (now.made is not None and now.made > walk.changed):
            return
        before = now.voice.name
        if voice is None:
            now.voice = ""
        else:
            with voice.open("rb") as content:
                now.voice.save("voice", File(content), save=False)
        now.score, now.chapters, now.length_ms = whole["score"], whole["chapters"], round(whole["length_ms"])
        now.made, now.trouble = walk.changed, ""
        now.save()
        _keep_clips(now, clips)
        if before:
            storage = now.voice.storage
            transaction.on_commit(lambda: storage.delete(before))


def _keep_clips(walk: Walk, clips: dict[UUID, WalkClip]) -> None:
    for gone in walk.clips.exclude(clip_id__in=clips):
        gone.delete()
    there = {kept.clip_id: kept for kept in walk.clips.all()}
    for id, shown in clips.items():
        kept = there.get(id) or KeptClip(walk=walk, clip_id=id)
        kept.shown = shown.model_dump(mode="json")
        clip = None if kept.file else ready_clip(id)
        if clip is not None:
            kept.student_id = clip.swing.student_id
            with local_copy(clip.proxy) as proxy, proxy.open("rb") as content:
                kept.file.save("clip", File(content), save=False)
        kept.save()


def kept_clip(clip: Clip, student_id: UUID | None, opened: Opened = frozenset()) -> WalkClip:
    """A clip with what can be drawn on it, for a student; values hang on no mark that nobody looked at.

    `opened` is what lay open of its swing over time. Somebody else's swing is neither theirs nor named.
    """
    swing = bench.swing_of(clip.instructor, clip.swing_id)
    state = measured(swing)
    told: Told = state["told"]
    provisional = {(each.reading, each.at) for each in told.readings if each.provisional}
    on_clip = next(found for found in state["clips"] if found["clip_id"] == clip.pk)
    gauges = [
        {
            **gauge,
            "shapes": [
                shape | {"value": None, "u95": None, "target": []}
                if (shape["reading"], shape["at"]) in provisional
                else shape
                for shape in gauge["shapes"]
            ],
        }
        for gauge in map(asdict, told.gauges[told.clips.index(str(clip.pk))])
    ]
    return WalkClip.model_validate(
        {
            "id": clip.pk,
            "whose": "student" if swing.student_id == student_id else "reference",
            "name": bench.name_for(swing, student_id),
            "hand": swing.hand,
            "view": clip.view,
            "width": clip.width,
            "height": clip.height,
            "frame_count": clip.frame_count,
            "from_impact_s": times_from_impact_s(swing, clip),
            "pegs": on_clip["pegs"],
            "gauges": gauges,
            "camera_motion": motion_rows(clip),
            **laid_open(swing, told, opened),
        },
        from_attributes=True,
    )
