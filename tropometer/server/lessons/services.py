"""Writing, sending and taking back a lesson."""

from dataclasses import asdict
from typing import Any
from uuid import UUID

from django.conf import settings
from django.core.files.base import ContentFile
from django.core.mail import EmailMessage
from django.db import transaction
from django.db.models import Avg, Max, QuerySet
from django.http import Http404
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.bench import services as bench
from tropometer.server.bench.measure import from_impact_s, measured
from tropometer.server.bench.models import Swing
from tropometer.server.clips.models import Clip
from tropometer.server.clips.proposing import motion_of
from tropometer.server.clips.services import clip_of, still
from tropometer.server.lessons.drills import DRILLS
from tropometer.server.lessons.models import Lesson, LessonFrame, new_token
from tropometer.server.people.models import User


class NotNow(Exception):
    """The lesson's state forbids what was asked; the text says why."""


def lessons_of(instructor: User) -> QuerySet[Lesson]:
    """The instructor's lessons with what the lists show of them."""
    return Lesson.objects.filter(instructor=instructor).select_related("swing__student")


def lesson_of(instructor: User, id: UUID) -> Lesson:
    """One of the instructor's lessons, or Http404."""
    return owned(lessons_of(instructor).prefetch_related("frames"), id)


def lesson_for(instructor: User, swing_id: UUID) -> Lesson:
    """The lesson of a student's swing, begun if there is none yet."""
    swing = bench.swing_of(instructor, swing_id)
    if swing.student is None:
        raise NotNow("A reference swing gets no lesson.")
    lesson, _ = Lesson.objects.get_or_create(
        swing=swing, defaults={"instructor": instructor, "title": f"Your {swing.club or 'swing'}"}
    )
    return lesson_of(instructor, lesson.pk)


def must_be_draft(lesson: Lesson) -> None:
    """NotNow once the lesson is sent: the student must find what was sent."""
    if lesson.sent_at:
        raise NotNow("This lesson has been sent and can no longer be changed.")


def add_frame(
    lesson: Lesson, clip_id: UUID, frame: int, words: str, shown: list[str] | None = None
) -> LessonFrame:
    """Put a frame into the lesson with its gauges, all or those `shown`, and values as they are now."""
    must_be_draft(lesson)
    clip = clip_of(lesson.instructor, clip_id)
    if frame >= clip.frame_count:
        raise NotNow(f"The clip has no frame {frame}.")
    last = lesson.frames.aggregate(last=Max("position"))["last"]
    added = LessonFrame(
        lesson=lesson,
        clip=clip,
        frame=frame,
        words=words,
        position=0 if last is None else last + 1,
        drawn=_drawn(bench.swing_of(lesson.instructor, clip.swing_id), clip, frame, shown),
    )
    added.still.save("still.jpg", ContentFile(still(clip, frame)), save=False)
    added.save(force_insert=True)
    return added


def _drawn(swing: Swing, clip: Clip, frame: int, shown: list[str] | None) -> dict[str, Any]:
    state = measured(swing)
    on_clip = next(found for found in state["clips"] if found["clip_id"] == clip.pk)
    pegs = {peg.name: peg.frame for peg in on_clip["pegs"]}
    here = next((name for name, pegged in pegs.items() if pegged == frame), "")
    gauges = [
        {
            **gauge,
            "lines": [
                {**line, **{end: _as_seen(clip, frame, line[end]) for end in ("a", "b")}}
                for line in gauge["lines"]
            ],
            "shapes": [
                {**shape, "points": [_as_seen(clip, frame, point) for point in shape["points"]]}
                for shape in gauge["shapes"]
                if shape["frame"] == frame
            ],
        }
        for gauge in map(asdict, on_clip["gauges"])
        if shown is None or gauge["id"] in shown
    ]
    told = {shape["reading"] for gauge in gauges for shape in gauge["shapes"]}
    values = [
        {key: reading[key] for key in ("reading", "unit", "value", "u95")}
        for reading in state["readings"]
        if reading["at"] == here
        and reading["status"] == "ok"
        and (reading["reading"] in told or reading["band"] is not None)
    ]
    return {
        "whose": "student" if swing.student else "reference",
        "name": swing.student.name if swing.student else swing.reference.name,
        "hand": swing.hand,
        "width": clip.width,
        "height": clip.height,
        "checkpoint": here,
        "time_from_impact_s": from_impact_s(swing, clip, frame),
        "crop": _crop(clip),
        "gauges": gauges,
        "values": values,
    }


def _as_seen(clip: Clip, frame: int, point: dict[str, float]) -> dict[str, float]:
    """A gauge's point as it lies in the frame's own picture, however the camera moved."""
    motion = motion_of(clip)
    if motion is None:
        return point
    x, y = motion.moved(frame, point["x"], point["y"])
    return {"x": x, "y": y}


def _crop(clip: Clip) -> dict[str, float]:
    """An upright 3:4 cut about the player; the middle while nothing is marked."""
    middle = clip.marks.aggregate(middle=Avg("x"))["middle"]
    height = float(clip.height)
    width = min(float(clip.width), height * 0.75)
    left = min(max(0.0, (clip.width / 2 if middle is None else middle) - width / 2), clip.width - width)
    return {"left": round(left, 1), "top": 0.0, "width": round(width, 1), "height": height}


def move_frame(lesson: Lesson, frame: LessonFrame, position: int) -> None:
    """Put a frame at another place; the others close up."""
    must_be_draft(lesson)
    others = [other for other in lesson.frames.all() if other.pk != frame.pk]
    others.insert(position, frame)
    with transaction.atomic():
        for place, each in enumerate(others):
            LessonFrame.objects.filter(pk=each.pk).update(position=place)


def send(lesson: Lesson) -> None:
    """Freeze the lesson, make its link and mail it to the student."""
    must_be_draft(lesson)
    student = lesson.swing.student
    if student is None or not student.email:
        raise NotNow(f"{student} has no mail address yet; add it on the student's card.")
    if not lesson.frames.exists() and not lesson.opening.strip():
        raise NotNow("This lesson is still empty: add a frame or some words.")
    with transaction.atomic():
        lesson.sent_at, lesson.token = timezone.now(), new_token()
        lesson.save(update_fields=["sent_at", "token"])
        bench.mark_answered(lesson.swing)
        _mail(lesson, student.name, student.email)


def _mail(lesson: Lesson, name: str, address: str) -> None:
    text = (
        f"Hello {name},\n\n{lesson.instructor.name} has looked at your swing and written you a lesson.\n"
        f"Read it here, no password needed:\n\n{link(lesson)}\n\n"
        "The link is private: whoever has it can read the lesson.\n"
    )
    EmailMessage(
        subject=f"{lesson.instructor.name}: {lesson.title}",
        body=text,
        to=[address],
        reply_to=[lesson.instructor.email],
    ).send()


def link(lesson: Lesson) -> str | None:
    """Where the student reads the lesson, while the link holds."""
    return f"{settings.SITE_URL}/l/{lesson.token}" if lesson.token else None


def revoke(lesson: Lesson) -> None:
    """Make the link lead nowhere."""
    if lesson.token is None:
        raise NotNow("This lesson has no link to take back.")
    lesson.token, lesson.revoked_at = None, timezone.now()
    lesson.save(update_fields=["token", "revoked_at"])


def renew(lesson: Lesson) -> None:
    """A new link after the old one was taken back."""
    if lesson.sent_at is None or lesson.token is not None:
        raise NotNow("Only a lesson whose link was taken back gets a new one.")
    lesson.token, lesson.revoked_at = new_token(), None
    lesson.save(update_fields=["token", "revoked_at"])


def by_token(token: str) -> Lesson:
    """The lesson a link leads to, or Http404."""
    found = Lesson.objects.select_related("swing__student", "instructor").filter(token=token).first()
    if found is None:
        raise Http404("This link does not lead to a lesson. It may have been taken back.")
    return found


def sheet(lesson: Lesson) -> dict[str, Any]:
    """What the student reads, also shown as the instructor's preview."""
    drill = DRILLS.get(lesson.drill)
    swing = lesson.swing
    return {
        "title": lesson.title,
        "opening": lesson.opening,
        "student": swing.student.name if swing.student else "",
        "instructor": lesson.instructor.name,
        "hand": swing.hand,
        "units": lesson.instructor.units,
        "club": swing.club,
        "sent_at": lesson.sent_at,
        "drill": drill,
        "frames": list(lesson.frames.all()),
    }
