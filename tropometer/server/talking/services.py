"""Threads: what is said, heard, seen and settled."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.core.files import File
from django.db import IntegrityError, transaction
from django.db.models import Q, QuerySet
from django.http import Http404
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.bench import requests
from tropometer.server.clips.services import ready_clip
from tropometer.server.lessons.sending import links_of, renew_all
from tropometer.server.people import student_page
from tropometer.server.people.services import students_of
from tropometer.server.rooms import room_on_disk, scratch, video
from tropometer.server.talking.models import Message, Practised, Side

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip
    from tropometer.server.people.models import Student, StudentPage, User

VOICE_SECONDS = 120
A_DAY = 200  # messages by one link: nobody says more
PARTS = Q(side=Side.STUDENT, settled_at__isnull=True)


class NotSaid(ValueError):
    """A message that is not taken; the text is for whoever says it."""


def say(
    student: Student, side: Side, id: UUID, words: str, lesson_id: UUID | None = None, voice: bytes = b""
) -> Message:
    """Add to a thread; said again under the same id, it is there once.

    What an instructor says settles all that waited. Raises RefusedClip for a voice that is none, RoomFailed
    when the machine could not look at it, NotSaid for nothing, or for too much of it.
    """
    before = Message.objects.filter(pk=id).first()
    if before is not None:
        return owned(Message.objects.filter(student=student, side=side), id)
    if not words.strip() and not voice:
        raise NotSaid("words: say something, or speak.")
    today = Message.objects.filter(student=student, side=side, said_at__date=timezone.now().date())
    if today.count() >= A_DAY:
        raise NotSaid(f"words: {A_DAY} messages came today; go on tomorrow.")
    about = {lesson.pk for lesson in links_of(student)} if lesson_id else set()
    message = Message(
        pk=id,
        student=student,
        side=side,
        words=words.strip(),
        lesson_id=lesson_id if lesson_id in about else None,
    )
    with scratch() as folder:
        made = _evened(folder, voice) if voice else None
        try:
            with transaction.atomic():
                _keep(message, made)
                if side == Side.INSTRUCTOR:
                    settle(student, timezone.now())
        except IntegrityError:  # the same came by another request just now
            return owned(Message.objects.filter(student=student, side=side), id)
    return message


def _evened(folder: Path, voice: bytes) -> tuple[Path, int]:
    source, target = folder / "said", folder / "voice.m4a"
    source.write_bytes(voice)
    told = next(video("voice", source, target, seconds=VOICE_SECONDS))
    return target, round(told["length_s"] * 1000)


def _keep(message: Message, made: tuple[Path, int] | None) -> None:
    if made is None:
        message.save(force_insert=True)
        return
    path, message.voice_ms = made
    with room_on_disk(), path.open("rb") as content:
        message.voice.save("voice", File(content), save=False)
    try:
        message.save(force_insert=True)
    except BaseException:
        message.voice.delete(save=False)
        raise


def thread_of(student: Student) -> QuerySet[Message]:
    """All that was said, in order."""
    return Message.objects.filter(student=student)


def message_of(student: Student, id: UUID) -> Message:
    """One message of a thread, or Http404."""
    return owned(thread_of(student), id)


def seen_by(student: Student, side: Side, until: datetime) -> None:
    """Note that one side has seen what the other has said until a time."""
    others = thread_of(student).exclude(side=side)
    others.filter(seen_at__isnull=True, said_at__lte=until).update(seen_at=timezone.now())


def settle(student: Student, now: datetime) -> None:
    """All that waits of a student is answered, or needs no answer."""
    thread_of(student).filter(PARTS).update(settled_at=now)
    Practised.objects.filter(student=student, speaks_up=True, settled_at__isnull=True).update(settled_at=now)


def unsettle(student: Student, at: datetime) -> None:
    """Take back that all was settled at a time."""
    thread_of(student).filter(side=Side.STUDENT, settled_at=at).update(settled_at=None)
    Practised.objects.filter(student=student, settled_at=at).update(settled_at=None)


def waiting(instructor: User) -> list[dict[str, Any]]:
    """What of the instructor's students waits for an answer, shaped as `Waiting`, who waits longest first."""
    theirs = {each.pk: each for each in students_of(instructor)}
    found: dict[UUID, dict[str, Any]] = {}

    def of(student_id: UUID, at: datetime) -> dict[str, Any]:
        blank = {"student": theirs[student_id], "since": at, "questions": [], "felt": []}
        entry = found.setdefault(student_id, blank)
        entry["since"] = min(entry["since"], at)
        return entry

    for message in Message.objects.filter(PARTS, student__in=theirs):
        of(message.student_id, message.said_at)["questions"].append(message)
    for tick in Practised.objects.filter(student__in=theirs, speaks_up=True, settled_at__isnull=True):
        of(tick.student_id, tick.ticked_at)["felt"].append(tick)
    return sorted(found.values(), key=lambda each: each["since"])


def clip_for(student: Student, id: UUID) -> Clip:
    """A clip of one of the student's own swings that can be shown, or Http404."""
    clip = ready_clip(id)
    if clip is None or clip.is_removed or clip.swing.student_id != student.pk:
        raise Http404("There is no such clip here.")
    return clip


def renew(page: StudentPage) -> None:
    """New links to all that is this student's: the old ones lead nowhere, for whoever had them."""
    with transaction.atomic():
        student_page.renew(page)
        renew_all(page.student)
        requests.close_all(page.student)
