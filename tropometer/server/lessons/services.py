"""Writing a lesson."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import TYPE_CHECKING, Any
from uuid import UUID, uuid4

from django.core.files.base import ContentFile
from django.db import transaction
from django.db.models import Avg, Max, QuerySet
from django.http import Http404
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.bench import services as bench
from tropometer.server.bench.drawing import crop_about, gauges_on
from tropometer.server.bench.measure import Told, measured
from tropometer.server.bench.record import from_impact_s
from tropometer.server.clips.services import clip_of, still
from tropometer.server.judging.plans import said_plan
from tropometer.server.lessons import versions
from tropometer.server.lessons.models import Lesson, LessonFrame, TakenChange
from tropometer.server.lessons.states import NotNow, must_be_draft
from tropometer.server.people.look import OWN_PORTRAIT, look_of
from tropometer.server.studio.ladder import told_in_lesson
from tropometer.server.studio.services import hour_of
from tropometer.server.teaching.showing import shown_to_instructor
from tropometer.swing.names import CHECKPOINTS

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.clips.models import Clip
    from tropometer.server.people.models import User
    from tropometer.server.walks.models import Walk
    from tropometer.server.walks.score import Stroke


def lessons_of(instructor: User) -> QuerySet[Lesson]:
    """The instructor's lessons with what the lists show of them, but for what lies in the bin."""
    own = Lesson.objects.filter(instructor=instructor, swing__removed_at__isnull=True)
    return own.filter(swing__student__removed_at__isnull=True).select_related("swing__student")


def lesson_of(instructor: User, id: UUID) -> Lesson:
    """One of the instructor's lessons, or Http404."""
    return owned(lessons_of(instructor).prefetch_related("frames"), id)


def begun_as(swing: Swing) -> str:
    """The title of a draft that nobody has named."""
    return f"Your {swing.club or 'swing'}"


def lesson_for(instructor: User, swing_id: UUID) -> Lesson:
    """The lesson of a student's swing, begun if there is none yet."""
    swing = bench.swing_of(instructor, swing_id)
    if swing.student is None:
        raise NotNow("A reference swing gets no lesson.")
    lesson, _ = Lesson.objects.get_or_create(
        swing=swing, defaults={"instructor": instructor, "title": begun_as(swing)}
    )
    return lesson_of(instructor, lesson.pk)


@contextmanager
def draft(lesson: Lesson) -> Iterator[Lesson]:
    """The lesson as it is now, kept a draft until the change is done; NotNow once it is sent."""
    with transaction.atomic():
        now = Lesson.objects.select_for_update(of=("self",)).get(pk=lesson.pk)
        must_be_draft(now)
        yield now


def _taken(lesson: Lesson, id: UUID | None) -> bool:
    """Whether a change, or what its sender put in its place, has been made before."""
    return id is not None and TakenChange.objects.filter(pk=id, lesson=lesson).exists()


def _take(lesson: Lesson, id: UUID | None) -> bool:
    """Note a change of a locked draft as made; False when it was, by another request just now."""
    return id is None or TakenChange.objects.get_or_create(pk=id, defaults={"lesson": lesson})[1]


def change(lesson: Lesson, said: dict[str, Any], id: UUID | None = None) -> None:
    """Change the words of a draft; `id` is the sender's name for the change."""
    if _taken(lesson, id):
        return
    with draft(lesson) as now:
        if not _take(now, id):
            return
        for field, value in said.items():
            setattr(now, field, value)
        now.save(update_fields=list(said))


def put_tries(lesson: Lesson, hour_id: UUID | None) -> None:
    """Tell an hour of the lesson's student in it, as it stands now; None: none. Http404 for another's."""
    told = None
    if hour_id is not None:
        hour = hour_of(lesson.instructor, hour_id)
        if hour.student_id != lesson.swing.student_id:
            raise Http404("There is no such hour of this student.")
        told = told_in_lesson(hour)
    with draft(lesson) as now:
        now.tries = told
        now.save(update_fields=["tries"])


def add_frame(
    lesson: Lesson,
    clip_id: UUID,
    frame: int,
    words: str,
    shown: list[str] | None = None,
    id: UUID | None = None,
    chalk: Sequence[Stroke] = (),
) -> None:
    """Put a frame into the lesson with its gauges (all, or those `shown`), chalk, and values as they are now.

    `id` is the sender's name for it: a frame that is sent twice is put in once, and one that was taken out
    since stays out. Values that hang on marks nobody looked at are left out until they are asked for.
    """
    if _taken(lesson, id):
        return
    must_be_draft(lesson)
    clip = clip_of(lesson.instructor, clip_id)
    if frame >= clip.frame_count:
        raise NotNow(f"The clip has no frame {frame}.")
    swing = bench.swing_of(lesson.instructor, clip.swing_id)
    drawn = _drawn(lesson, swing, clip, frame, shown)
    drawn["chalk"] = [
        stroke.model_dump(mode="json") for stroke in chalk if (stroke.clip, stroke.frame) == (clip.pk, frame)
    ]
    added = LessonFrame(
        pk=id or uuid4(),
        lesson=lesson,
        clip=clip,
        student_id=swing.student_id,
        frame=frame,
        words=words,
        drawn=drawn,
        left_out=[value["reading"] for value in drawn["values"] if value["provisional"]],
    )
    added.still.save("still.jpg", ContentFile(still(clip, frame)), save=False)
    new = False
    try:
        with draft(lesson) as now:
            last = now.frames.aggregate(last=Max("position"))["last"]
            added.position = 0 if last is None else last + 1
            new = _take(now, id)
            if new:
                added.save(force_insert=True)
    finally:
        if not new:  # sent meanwhile, or the same frame came twice at once
            added.still.delete(save=False)


def change_frame(
    lesson: Lesson, frame_id: UUID, words: str | None, left_out: list[str] | None, id: UUID | None = None
) -> None:
    """Change the words under a frame, or which of its values the student is not shown."""
    if _taken(lesson, id):
        return
    with draft(lesson) as now:
        frame = owned(now.frames.all(), frame_id)
        if not _take(now, id):
            return
        if words is not None:
            frame.words = words
        if left_out is not None:
            frame.left_out = left_out
        frame.save(update_fields=["words", "left_out"])


def take_out(lesson: Lesson, frame_id: UUID) -> None:
    """Take a frame out of a draft."""
    with draft(lesson) as now:
        owned(now.frames.all(), frame_id).delete()


def _drawn(lesson: Lesson, swing: Swing, clip: Clip, frame: int, shown: list[str] | None) -> dict[str, Any]:
    own = lesson.swing.student_id
    state = measured(swing)
    told: Told = state["told"]
    on_clip = next(found for found in state["clips"] if found["clip_id"] == clip.pk)
    pegs = {peg.name: peg.frame for peg in on_clip["pegs"] if peg.name in CHECKPOINTS}
    here = next((name for name, pegged in pegs.items() if pegged == frame), "")
    gauges = gauges_on(clip, frame, told.gauges[told.clips.index(str(clip.pk))], shown)
    drawn = {shape["reading"] for gauge in gauges for shape in gauge["shapes"]}
    values = [
        {key: getattr(each, key) for key in ("reading", "unit", "value", "u95", "provisional")}
        for each in told.readings
        if each.at == here
        and each.status == "ok"
        and (each.reading in drawn or (told.asked and (each.reading, each.at) in told.asked.bands))
    ]
    return {
        "whose": _whose(lesson, swing),
        "on": timezone.localdate(swing.received_at).isoformat(),
        "name": bench.name_for(swing, own),
        "hand": swing.hand,
        "width": clip.width,
        "height": clip.height,
        "checkpoint": here,
        "time_from_impact_s": from_impact_s(swing, clip, frame),
        "crop": crop_about(clip, clip.marks.aggregate(middle=Avg("x"))["middle"]),
        "gauges": gauges,
        "values": values,
    }


def _whose(lesson: Lesson, swing: Swing) -> str:
    """An earlier swing of the same student is no reference."""
    if swing.student_id != lesson.swing.student_id:
        return "reference"
    return "earlier" if swing.received_at < lesson.swing.received_at else "student"


def move_frame(lesson: Lesson, frame_id: UUID, position: int) -> None:
    """Put a frame at another place; the others close up."""
    with draft(lesson) as now:
        frame = owned(now.frames.all(), frame_id)
        others = [other for other in now.frames.all() if other.pk != frame.pk]
        others.insert(position, frame)
        for place, each in enumerate(others):
            LessonFrame.objects.filter(pk=each.pk).update(position=place)


def sheet(lesson: Lesson) -> dict[str, Any]:
    """What the student reads, or will read, as the instructor's preview of it."""
    if not lesson.is_draft:
        return versions.read(lesson, versions.version_of(lesson), shown_to_instructor, OWN_PORTRAIT)
    swing = lesson.swing
    return {
        "title": lesson.title,
        "opening": lesson.opening,
        "student": swing.student.name if swing.student else "",
        "instructor": lesson.instructor.name,
        "look": look_of(lesson.instructor, OWN_PORTRAIT),
        "hand": swing.hand,
        "units": swing.units,
        "club": swing.club,
        "sent_at": None,
        "version": len(versions.versions_of(lesson)) + 1,
        "versions": versions.versions_of(lesson),
        "plan": said_plan(swing),
        "walk": versions.walk_told(lesson),
        "tries": lesson.tries,
        "frames": [
            versions.as_shown({"id": frame.pk, "clip_id": frame.clip_id, **_fields(frame)})
            for frame in lesson.frames.all()
        ],
    }


def _fields(frame: LessonFrame) -> dict[str, Any]:
    return {field: getattr(frame, field) for field in versions.FRAME}


def walk_in(lesson: Lesson) -> Walk:
    """The walk of a lesson that its reader may see; Http404 where there is none."""
    found: Walk | None = getattr(lesson, "walk", None)
    if found is None:
        raise Http404("This lesson has no walk.")
    return found
