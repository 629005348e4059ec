"""Swings coming in, and what becomes of them."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import TYPE_CHECKING
from uuid import UUID

from django.conf import settings
from django.db import transaction
from django.db.models import Exists, F, OuterRef, QuerySet
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.bench.changed import swing_changed
from tropometer.server.bench.first_look import look_anew
from tropometer.server.bench.models import (
    BenchEdit,
    Calibration,
    CameraFacts,
    Mark,
    Mat,
    Peg,
    Pressure,
    Shot,
    Swing,
    SwingQuerySet,
    Track,
)
from tropometer.server.bench.schemas import SwingIn, SwingKind
from tropometer.server.bench.tracking import follow_later
from tropometer.server.clips.schemas import ClipChange, ClipIn
from tropometer.server.clips.services import (
    check_all,
    claim,
    handed_in_before,
    same_file,
    say_anew,
    take_in,
)
from tropometer.server.clips.uploads import Sender
from tropometer.server.rooms import RefusedClip, RoomFailed
from tropometer.server.text import once
from tropometer.swing.formats.launch import launch_document
from tropometer.swing.formats.plate import plate_document
from tropometer.swing.formats.plate_file import read_plate

SHOWN_BEFORE = 60

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip
    from tropometer.server.people.models import Student, User
    from tropometer.swing.record.launch import Launch
    from tropometer.swing.record.plate import PressurePlate


def swings_of(instructor: User) -> SwingQuerySet:
    """The instructor's swings with what the lists show of them."""
    found = Swing.objects.seen_by(instructor)
    return found.select_related("student", "reference", "first_look").prefetch_related("clips")


def swing_of(instructor: User, id: UUID) -> Swing:
    """One of the instructor's swings, or Http404."""
    own = Swing.objects.seen_by(instructor)
    return owned(own.select_related("student", "reference", "pressure", "shot", "first_look"), id)


def swings_before(swing: Swing) -> list[Swing]:
    """The same student's earlier swings that can be shown, the latest first."""
    if swing.student_id is None:
        return []
    theirs = Swing.objects.swung().filter(student_id=swing.student_id, removed_at__isnull=True)
    shown = theirs.filter(received_at__lt=swing.received_at, clips__state="ready").distinct()
    return list(shown.order_by("-received_at")[:SHOWN_BEFORE])


def keep_pressure(swing: Swing, file_name: str, text: str, impact_s: float | None) -> None:
    """Keep a plate's data in place of what there was; RecordError says what is wrong with the file."""
    keep_felt(swing, file_name, read_plate(text, impact_s))


def keep_felt(swing: Swing, source: str, plate: PressurePlate) -> None:
    """Keep what a plate felt in place of what there was; `source` is the file's name, or the plate's."""
    values = {"file_name": source, "felt": plate_document(plate)}
    swing.pressure, _ = Pressure.objects.update_or_create(swing=swing, defaults=values)
    swing_changed.send(None, swing_id=swing.pk)


def drop_pressure(swing: Swing) -> None:
    """Forget a pressure plate's data."""
    Pressure.objects.filter(swing=swing).delete()
    swing_changed.send(None, swing_id=swing.pk)


def keep_shot(swing: Swing, source: str, launch: Launch) -> None:
    """Keep what a launch monitor said of a swing's shot in place of what there was."""
    values = {"source": source, "said": launch_document(launch)}
    swing.shot, _ = Shot.objects.update_or_create(swing=swing, defaults=values)


def forget_shots(swings: Iterable[Swing]) -> None:
    """Forget what a launch monitor said of these swings' shots."""
    Shot.objects.filter(swing__in=list(swings)).delete()


def _check_consent(student: Student) -> None:
    if not student.may_be_filmed:
        raise RefusedClip(
            f"{student.name} is under age: note a guardian's consent on the student's card first."
        )


def _check_day(sender: Sender) -> None:
    since = timezone.now() - timedelta(days=1)
    today = Swing.objects.filter(sent_by_id=sender.request_id, received_at__gte=since)
    if sender.request_id is not None and today.count() >= settings.LINK_SWINGS_A_DAY:
        raise RefusedClip(f"{settings.LINK_SWINGS_A_DAY} swings have come today; send more tomorrow.")


KIND = ("club", "club_class", "swing_length")


def receive(
    sender: Sender,
    student: Student,
    data: SwingIn,
    received_at: datetime | None = None,
    drill: str = "",
) -> tuple[Swing, list[str]]:
    """Take in a student's swing with its clips; returns also a line for each refused one.

    It may be a try at a drill. When all files are refused there is no swing.
    """
    _check_consent(student)
    _check_day(sender)
    swing = Swing(
        instructor=sender.instructor,
        student=student,
        sent_by_id=sender.request_id,
        received_at=received_at or timezone.now(),
        **data.dict(include=set(KIND)),
        words=data.words,
        usual_miss=data.usual_miss,
        what_hurts=data.what_hurts,
        misses=once(data.misses),
        hurts=once(data.hurts),
        camera_place=data.camera_place,
        one_swing=data.one_swing,
        drill=drill,
    )
    return _hand_in(sender, swing, data.clips)


def receive_measured(student: Student, kind: SwingKind, words: str, received_at: datetime) -> Swing:
    """A swing that was measured before and of which no clip is kept: nobody waits for an answer to it."""
    return Swing.objects.create(
        instructor=student.instructor,
        student=student,
        received_at=received_at,
        words=words,
        **kind.dict(include=set(KIND)),
    )


def drills_filmed(student: Student) -> QuerySet[Swing]:
    """A student's tries at drills, sent to be checked, the latest first; but for those in the bin."""
    tries = Swing.objects.filter(student=student, removed_at__isnull=True).exclude(drill="")
    return tries.prefetch_related("clips").order_by("-received_at", "pk")


def name_for(swing: Swing, student_id: UUID | None) -> str:
    """What a swing is called before a student: somebody else's is not named."""
    if swing.student is None:
        return swing.reference.name
    return swing.student.name if swing.student_id == student_id else "another player"


def sent_by_link_since(student: Student, since: datetime) -> int:
    """How many swings a student has sent by a link since a time."""
    sent = Swing.objects.swung().filter(student=student, sent_by__isnull=False)
    return sent.filter(received_at__gt=since).count()


def swings_sent(student: Student) -> QuerySet[Swing]:
    """A student's swings, the latest first, with their clips; but for those in the bin."""
    theirs = Swing.objects.swung().filter(student=student, removed_at__isnull=True)
    return theirs.prefetch_related("clips").order_by("-received_at", "pk")


def add_clips(swing: Swing, clips: list[ClipIn], one_swing: bool | None = None) -> list[str]:
    """Take in more clips of a swing, from another side: of the same swing, of another, or nobody knows."""
    if swing.student is not None:
        _check_consent(swing.student)
    if one_swing is not None:  # who says nothing takes nothing back
        swing.one_swing = one_swing
    return _hand_in(Sender(swing.instructor), swing, clips)[1]


def receive_reference(
    instructor: User, hand: str, kind: SwingKind, clips: list[ClipIn], one_swing: bool | None
) -> tuple[Swing, list[str]]:
    """Take in a reference swing: no student, its own hand."""
    swing = Swing(
        instructor=instructor, reference_hand=hand, one_swing=one_swing, **kind.dict(include=set(KIND))
    )
    return _hand_in(Sender(instructor), swing, clips)


def say_kind(swing: Swing, kind: SwingKind) -> None:
    """Say what a swing was made with, or how far it was meant to go back; what is left out stays."""
    said = kind.dict(include=set(KIND), exclude_unset=True)
    for name, value in said.items():
        setattr(swing, name, value)
    swing.save(update_fields=list(said))
    look_anew([swing.pk])


def say_views(swing: Swing, one_swing: bool | None) -> None:
    """Say whether a swing's two views show one swing or two."""
    swing.one_swing = one_swing
    swing.save(update_fields=["one_swing"])
    look_anew([swing.pk])


def _hand_in(sender: Sender, swing: Swing, clips: list[ClipIn]) -> tuple[Swing, list[str]]:
    """Clips become a swing's, once: a sender whose answer was lost, and who sends again, is told it again."""
    try:
        good, refused = check_all(sender, clips)
        with transaction.atomic():
            claim(good)
            swing.save()
            for checked in good:
                take_in(swing.pk, checked)
    except (RefusedClip, RoomFailed, FileNotFoundError):  # also when another request takes the file meanwhile
        before = handed_in_before(sender, clips)
        if before is None or not (found := _same(swing, before[0])):
            raise
        return found, before[1]
    return swing, refused


def _same(wanted: Swing, id: UUID) -> Swing | None:
    """The swing that uploads went to, when it is the one they are handed in for."""
    found = Swing.objects.filter(pk=id, student=wanted.student)
    return (found if wanted._state.adding else found.filter(pk=wanted.pk)).first()


def remove(swing: Swing) -> None:
    """Put a swing into the bin, from which it can be taken back for a while."""
    Swing.objects.filter(pk=swing.pk).update(removed_at=timezone.now())


def change_clip(clip: Clip, wanted: ClipChange) -> None:
    """Say anew what a clip shows; what is marked on it turns round with it.

    RefusedClip for one that was drawn: it shows what was drawn.
    """
    if clip.drawn:
        raise RefusedClip(
            f"{clip.original_name}: this clip was drawn from markers, as they were said to lie."
        )
    with transaction.atomic():
        list(same_file(clip).select_for_update())
        if say_anew(clip, wanted):
            clips = same_file(clip)
            Mark.objects.filter(clip__in=clips).update(x=clip.width - F("x"))
            turned = {"ax": clip.width - F("ax"), "bx": clip.width - F("bx")}
            Calibration.objects.filter(clip__in=clips).update(**turned)
            for mat in Mat.objects.filter(clip__in=clips):
                mat.corners = [{"x": clip.width - corner["x"], "y": corner["y"]} for corner in mat.corners]
                mat.save(update_fields=["corners"])
            for facts in CameraFacts.objects.filter(clip__in=clips, plumb__isnull=False):
                plumb = facts.plumb or {}
                facts.plumb = {**plumb, "ax": clip.width - plumb["ax"], "bx": clip.width - plumb["bx"]}
                facts.save(update_fields=["plumb"])
            Track.objects.filter(clip__in=clips).delete()
            BenchEdit.objects.filter(clip__in=clips).update(
                gesture=None
            )  # its places lie the other way round
            for each in clips:
                follow_later(each.pk)
        look_anew({each.swing_id for each in same_file(clip)})


def mark_answered(swing_id: UUID, at: datetime | None) -> None:
    """A lesson went out for this swing; None: it was taken back."""
    Swing.objects.filter(pk=swing_id).update(answered_at=at)


def pegged_swings() -> QuerySet[Swing]:
    """All students' swings of which something can be read, whoever's they are; but for those in bins."""
    shown = Swing.objects.swung().filter(student__isnull=False, removed_at__isnull=True)
    return shown.filter(Exists(Peg.objects.filter(clip__swing=OuterRef("pk"), clip__state="ready")))


def removed_swings() -> QuerySet[Swing]:
    """All swings in bins, whoever's they are."""
    return Swing.objects.filter(removed_at__isnull=False)


def swings_by_id(ids: Iterable[UUID]) -> QuerySet[Swing]:
    """Swings whoever's they are, for the upkeep."""
    return Swing.objects.filter(pk__in=ids)
