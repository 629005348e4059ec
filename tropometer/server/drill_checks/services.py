"""Filmed drills with their answers, and how often the machine was right."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import timedelta
from typing import TYPE_CHECKING, Any, cast
from uuid import UUID

from django.db.models import F
from django.http import Http404
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.bench.services import drills_filmed, swing_of, swings_of
from tropometer.server.clips.services import ready_clip
from tropometer.server.drill_checks.models import Answer, CheckedDrill
from tropometer.server.teaching.services import book_of
from tropometer.teaching.words.sentences import for_student

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.clips.models import Clip
    from tropometer.server.people.models import Student, User
    from tropometer.swing.names import Hand

MOST_SHOWN = 30
LONGEST_LOOK = timedelta(hours=1)  # after which nobody is told to wait any more
ANSWERED = (Answer.INSIDE, Answer.OUTSIDE)


def tries_of(student: Student) -> list[dict[str, Any]]:
    """A student's filmed drills, the latest first, answered or not; shaped as `TryOut`."""
    names = {drill.id: drill.name for drill in book_of(student.instructor).drills.values()}
    filmed = drills_filmed(student).select_related("checked")[:MOST_SHOWN]
    return [_told(swing, names) for swing in filmed]


def checkable(student: Student, drills: Iterable[str]) -> list[dict[str, str]]:
    """Those of some drills that a phone alone can check, and what it looks at; shaped as `Checkable`."""
    book, hand = book_of(student.instructor).drills, cast("Hand", student.hand)
    asked = {id: check for id in drills if id in book and (check := book[id].camera.told_alone)}
    return [{"drill": id, "shows": for_student(check.text, hand)} for id, check in asked.items()]


def _told(swing: Swing, names: dict[str, str]) -> dict[str, Any]:
    checked: CheckedDrill | None = getattr(swing, "checked", None)
    told: dict[str, Any] = {
        "id": swing.pk,
        "drill": swing.drill,
        "received_at": swing.received_at,
        "name": checked.name if checked else names.get(swing.drill, swing.drill),
        "state": "answered" if checked else _state(list(swing.clips.all())),
        "trouble": "" if checked else " ".join(clip.trouble for clip in swing.clips.all()).strip(),
        "answer": None,
    }
    if checked is not None:
        told["answer"] = {
            each: getattr(checked, each)
            for each in (
                "answer",
                "why",
                "reason",
                "holds",
                "unit",
                "beyond",
                "give_or_take",
                "frame",
                "drawn",
                "said",
            )
        }
        told["answer"]["clip_id"] = checked.clip
    return told


def _state(clips: list[Clip]) -> str:
    latest = max((clip.added_at for clip in clips), default=timezone.now())
    given_up = timezone.now() - latest > LONGEST_LOOK
    if given_up or any(clip.state in ("refused", "failed") for clip in clips):
        return "failed"
    return "looking" if any(clip.state == "ready" for clip in clips) else "waiting"


def rightness(instructor: User) -> dict[str, int]:
    """Of the machine's answers that the instructor has looked at: how many, and how many were right."""
    own = CheckedDrill.objects.filter(swing__in=swings_of(instructor).values("pk"), answer__in=ANSWERED)
    looked_at = own.exclude(said="")
    return {"looked_at": looked_at.count(), "right": looked_at.filter(said=F("answer")).count()}


def say(instructor: User, swing_id: UUID, said: str) -> None:
    """What the instructor, who has looked, says of a try; "" takes it back."""
    checked = _of(instructor, swing_id)
    checked.said, checked.said_at = said, timezone.now() if said else None
    checked.save(update_fields=["said", "said_at"])


def _of(instructor: User, swing_id: UUID) -> CheckedDrill:
    return owned(CheckedDrill.objects.filter(swing=swing_of(instructor, swing_id)), swing_id)


def picture_for(instructor: User, swing_id: UUID) -> tuple[Clip, int]:
    """The clip and frame of a try's picture, or Http404."""
    return _picture(_of(instructor, swing_id))


def picture_of_own(student: Student, swing_id: UUID) -> tuple[Clip, int]:
    """The same for the student."""
    own = CheckedDrill.objects.filter(swing__in=drills_filmed(student).values("pk"))
    return _picture(owned(own, swing_id))


def _picture(checked: CheckedDrill) -> tuple[Clip, int]:
    clip = ready_clip(checked.clip) if checked.clip else None
    if clip is None:
        raise Http404("There is no picture of it.")
    return clip, checked.frame
