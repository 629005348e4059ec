"""Recording and mending a walk."""

from __future__ import annotations

import binascii
from base64 import b64decode
from collections.abc import Iterable
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db import transaction
from django.db.models import Max, QuerySet
from django.http import Http404

from tropometer.server.clips.services import clip_of
from tropometer.server.walks.models import Piece, Take, Walk
from tropometer.server.walks.playing import has_film
from tropometer.server.walks.score import last_frames

if TYPE_CHECKING:
    from django.db.models.fields.files import FieldFile

    from tropometer.server.people.models import User
    from tropometer.server.walks.schemas import CutIn, PieceIn, TakeIn, WalkStretch

MOST_TAKES = 400
MOST_TAKEN = 200  # ids of changes that are remembered


class NoWalkNow(Exception):
    """The walk's state forbids what was asked; the text says why."""


class BadWalk(ValueError):
    """A piece or a cut that makes no sense; the text names what of it."""


def walks_of(instructor: User) -> QuerySet[Walk]:
    """The walks of an instructor's lessons, but for what lies in the bin."""
    own = Walk.objects.filter(lesson__instructor=instructor, lesson__swing__removed_at__isnull=True)
    return own.filter(lesson__swing__student__removed_at__isnull=True).select_related("lesson")


def walk_of(instructor: User, lesson_id: UUID) -> Walk:
    """The walk of one of the instructor's lessons; Http404 where there is none."""
    found = walks_of(instructor).filter(pk=lesson_id).first()
    if found is None:
        raise Http404("This lesson has no walk.")
    return found


def has_walk(lesson_id: UUID) -> bool:
    """Whether anything was said in a lesson's walk."""
    return Piece.objects.filter(take__walk=lesson_id).exists()


def _locked(lesson_id: UUID) -> Walk:
    """The walk as it is now, its lesson still a draft; NoWalkNow once it is sent."""
    walk = Walk.objects.select_for_update(of=("self",)).select_related("lesson").get(pk=lesson_id)
    if walk.lesson.sent_at is not None:
        raise NoWalkNow("This lesson has been sent: its walk can no longer be changed.")
    return walk


def told(walk: Walk) -> dict[str, Any]:
    """A walk as its instructor works on it, shaped as `WalkOut`."""
    takes = walk.takes.annotate(until=Max("pieces__until_ms"))
    return {
        "lesson_id": walk.pk,
        "takes": [
            {
                "id": take.pk,
                "begun_at": take.begun_at,
                "ended": take.ended,
                "length_ms": take.length_ms or take.until or 0,
                "ready": bool(take.voice),
                "silences": take.silences,
                "again": take.again,
                "trouble": take.trouble,
            }
            for take in takes
        ],
        "cut": walk.cut,
        "captions": walk.captions,
        "changed": walk.changed,
        "making": bool(walk.cut) and walk.made != walk.changed,
        "length_ms": walk.length_ms,
        "trouble": walk.trouble,
        "film": has_film(walk),
        "film_progress": walk.film_progress,
    }


@transaction.atomic
def begin_take(lesson_id: UUID, said: TakeIn) -> Walk:
    """A take begins, at the walk's end or where the cut that comes with it has it.

    A take that is there already stays as it is. The lesson is one that its asker may write.
    """
    Walk.objects.get_or_create(pk=lesson_id)
    walk = _locked(lesson_id)
    there = Take.objects.filter(pk=said.id).first()
    if there is not None:
        if there.walk_id != lesson_id:
            raise Http404("There is no such take here.")
        return walk
    if walk.takes.count() >= MOST_TAKES:
        raise NoWalkNow(f"A walk has {MOST_TAKES} takes at the most.")
    Take.objects.create(id=said.id, walk=walk, container=said.container, silent=said.silent)
    if said.cut is None:
        walk.cut = [*walk.cut, {"take": str(said.id), "from": 0, "to": None}]
    else:
        walk.cut = _checked(walk, said.cut)
    _changed(walk, ["cut"])
    return walk


@transaction.atomic
def add_piece(walk: Walk, take_id: UUID, said: PieceIn) -> Take:
    """Keep the next piece of a take. One that comes twice is kept once; they may come in any order.

    BadWalk for another piece of that number, and for a score that names a frame that is not there.
    """
    take = Take.objects.select_for_update().filter(pk=take_id, walk=walk).first()
    if take is None:
        raise Http404("There is no such take here.")
    try:
        voice = b64decode(said.voice, validate=True)
    except binascii.Error as error:
        raise BadWalk(f"voice: piece {said.number} is not base64.") from error
    score = [event.model_dump(mode="json") for event in said.score]
    there = take.pieces.filter(number=said.number).first()
    if there is not None:
        if bytes(there.voice) != voice or there.score != score:
            raise BadWalk(f"number: another piece {said.number} of this take is here already.")
        return take
    now = _locked(walk.pk)
    take.on_stage = _checked_frames(walk, take, said)
    Piece.objects.create(take=take, number=said.number, voice=voice, score=score, until_ms=said.until_ms)
    take.ended = take.ended or said.last
    take.again = sorted({*take.again, *(event.at for event in said.score if event.kind == "again")})
    take.save(update_fields=["ended", "on_stage", "again"])
    _changed(now, [])
    return take


def _checked_frames(walk: Walk, take: Take, said: PieceIn) -> dict[str, str]:
    """What stands on the stages after a piece; BadWalk where it names a frame that is not there."""
    frames, stages = last_frames(said.score, take.on_stage)
    for clip_id, frame in frames.items():
        clip = clip_of(walk.lesson.instructor, UUID(clip_id))
        if frame >= clip.frame_count:
            raise BadWalk(f"score: names frame {frame} of a clip of {clip.frame_count} frames.")
    return stages


@transaction.atomic
def change(walk: Walk, said: CutIn) -> Walk:
    """Mend the cut, or the words over the chapters. Takes stay as they are, in the cut or not.

    A change that comes again is not made again: a browser that was killed may not know of newer ones.
    """
    now = _locked(walk.pk)
    if said.id is not None:
        if str(said.id) in now.taken:
            return now
        now.taken = [*now.taken, str(said.id)][-MOST_TAKEN:]
    if said.captions is not None:
        # Those of other chapters stay; an empty one goes. The voice is the same: only a film has them drawn
        # in.
        now.captions = {k: v for k, v in (now.captions | said.captions).items() if v.strip()}
        now.film_made = None
    now.save(update_fields=["captions", "film_made", "taken"])
    if said.cut is not None:
        now.cut = _checked(now, said.cut)
        _changed(now, ["cut"])
    return now


def _checked(walk: Walk, wanted: list[WalkStretch]) -> list[dict[str, Any]]:
    """A cut as it is kept; BadWalk for one that makes no sense."""
    known = {str(id) for id in walk.takes.values_list("pk", flat=True)}
    cut = [stretch.model_dump(mode="json", by_alias=True) for stretch in wanted]
    for stretch in cut:
        if stretch["take"] not in known:
            raise BadWalk("cut: names a take that this walk does not have.")
        if stretch["to"] is not None and stretch["to"] < stretch["from"]:
            raise BadWalk("cut: a stretch ends before it begins.")
    return cut


def _changed(walk: Walk, fields: list[str]) -> None:
    walk.changed += 1
    walk.save(update_fields=[*fields, "changed"])


def pieces_of(take: Take) -> list[Piece]:
    """The pieces of a take from its first, up to where one is missing."""
    found: list[Piece] = []
    for piece in take.pieces.order_by("number"):
        if piece.number != len(found):
            break
        found.append(piece)
    return found


def score_of(pieces: Iterable[Piece]) -> list[dict[str, Any]]:
    """What happened in a take, in the order of the voice's clock."""
    return sorted((event for piece in pieces for event in piece.score), key=lambda event: event["at"])


def voice_of(walk: Walk, take_id: UUID) -> FieldFile:
    """The voice of one take, for whoever mends the walk; Http404 while it is not made."""
    take = walk.takes.filter(pk=take_id).first()
    if take is None or not take.voice:
        raise Http404("The voice of this take is not here.")
    return take.voice
