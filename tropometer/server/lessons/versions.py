"""What was sent, as it was sent: each sending keeps a sheet, and a correction is a new one beside the old."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.core.files.storage import default_storage
from django.db import transaction
from django.db.models.fields.files import FieldFile
from django.http import Http404
from django.utils import timezone

from tropometer.server.clips.services import still_there
from tropometer.server.judging import plans
from tropometer.server.lessons.models import Lesson, LessonFrame, SentSheet
from tropometer.server.lessons.states import NotNow
from tropometer.server.people.look import look_of
from tropometer.server.walks.playing import has_film, is_made

if TYPE_CHECKING:
    from tropometer.server.walks.models import Walk

FRAME = ("frame", "position", "words", "drawn", "left_out")


def keep(lesson: Lesson) -> SentSheet:
    """Keep a lesson as it is being sent, as its next version."""
    assert lesson.sent_at is not None
    last = lesson.sheets.last()
    return SentSheet.objects.create(
        lesson=lesson,
        number=last.number + 1 if last else 1,
        sent_at=lesson.sent_at,
        document=_document(lesson, plans.words_sent(lesson.swing)),
    )


def as_it_stands(lesson: Lesson) -> SentSheet:
    """A draft as it would be sent now; it is not kept."""
    plan = plans.said_plan(lesson.swing)
    return SentSheet(lesson=lesson, number=1, sent_at=timezone.now(), document=_document(lesson, plan))


def _document(lesson: Lesson, plan: dict[str, Any] | None) -> dict[str, Any]:
    swing = lesson.swing
    return {
        "title": lesson.title,
        "opening": lesson.opening,
        "student": swing.student.name if swing.student else "",
        "instructor": lesson.instructor.name,
        "hand": swing.hand,
        "units": swing.units,
        "club": swing.club,
        "plan": plan,
        "tries": lesson.tries,
        "frames": [
            {
                "id": str(frame.pk),
                "clip_id": frame.clip_id and str(frame.clip_id),
                "student_id": frame.student_id and str(frame.student_id),
                "still": frame.still.name,
                **{field: getattr(frame, field) for field in FRAME},
            }
            for frame in lesson.frames.all()
        ],
    }


def versions_of(lesson: Lesson) -> list[SentSheet]:
    """What was sent, the oldest first; of a lesson that was sent before sheets were kept, it is kept now."""
    found = list(lesson.sheets.all())
    if not found and lesson.sent_at is not None and not lesson.correcting:
        with transaction.atomic():
            now = Lesson.objects.select_for_update(of=("self",)).get(pk=lesson.pk)
            found = list(now.sheets.all()) or [keep(now)]
    return found


def version_of(lesson: Lesson, number: int | None = None) -> SentSheet:
    """One version, or the latest; Http404 where there is none."""
    wanted = [each for each in versions_of(lesson) if number is None or each.number == number]
    if not wanted:
        raise Http404("This lesson has no such version.")
    return wanted[-1]


def plan_sent(lesson: Lesson) -> dict[str, Any] | None:
    """The plan of what was sent last, in its words."""
    found = versions_of(lesson)
    plan: dict[str, Any] | None = found[-1].document["plan"] if found else None
    return plan


def read(lesson: Lesson, version: SentSheet, address: Callable[[UUID], str], portrait: str) -> dict[str, Any]:
    """A version as it is read, shaped as `LessonSheet` but for what only the reader's page knows.

    `address` is where who reads it finds pictures and clips of the instructor's own, `portrait` where the
    picture of the instructor.
    """
    document = version.document
    return {
        **{
            key: document[key]
            for key in ("title", "opening", "student", "instructor", "hand", "units", "club")
        },
        "look": look_of(lesson.instructor, portrait),
        "sent_at": version.sent_at,
        "version": version.number,
        "versions": versions_of(lesson),
        "plan": document["plan"] and plans.with_shown(document["plan"], address),
        "walk": walk_told(lesson),
        "tries": document.get("tries"),
        "frames": [as_shown(frame) for frame in document["frames"]],
    }


def still_sent(lesson: Lesson, frame_id: UUID) -> FieldFile:
    """The picture of a frame of any version, or Http404."""
    for version in versions_of(lesson):
        for frame in version.document["frames"]:
            if frame["id"] == str(frame_id):
                field = LessonFrame._meta.get_field("still")
                return FieldFile(LessonFrame(), field, frame["still"])
    raise Http404("There is no such picture in this lesson.")


def correct(lesson: Lesson) -> None:
    """Open a sent lesson to be written anew; its student keeps what was sent until the next version goes."""
    with transaction.atomic():
        now = Lesson.objects.select_for_update(of=("self",)).get(pk=lesson.pk)
        if now.is_draft:
            raise NotNow("This lesson is a draft: it can be written in.")
        versions_of(now)
        now.correcting = True
        now.save(update_fields=["correcting"])
        plans.reopen(now.swing)
    lesson.refresh_from_db()


def leave(lesson: Lesson) -> None:
    """Put a lesson that is being corrected back to what was sent."""
    with transaction.atomic():
        now = Lesson.objects.select_for_update(of=("self",)).get(pk=lesson.pk)
        if not now.correcting:
            raise NotNow("This lesson is not being corrected.")
        sent = version_of(now).document
        now.frames.all().delete()
        there = still_there(frame["clip_id"] for frame in sent["frames"])
        for frame in sent["frames"]:
            LessonFrame.objects.create(
                pk=frame["id"],
                lesson=now,
                clip_id=frame["clip_id"] if frame["clip_id"] in there else None,
                student_id=frame.get("student_id"),
                still=frame["still"],
                **{field: frame[field] for field in FRAME},
            )
        now.title, now.opening, now.correcting = sent["title"], sent["opening"], False
        now.tries = sent.get("tries")
        now.save(update_fields=["title", "opening", "tries", "correcting"])
        plans.put_back(now.swing, sent["plan"])
    lesson.refresh_from_db()


def walk_told(lesson: Lesson) -> dict[str, Any] | None:
    """What of its walk the heading of a sheet says, shaped as `SheetWalk`."""
    found: Walk | None = getattr(lesson, "walk", None)
    if found is None or not found.cut:
        return None
    return {
        "length_ms": found.length_ms,
        "ready": is_made(found),
        "film": has_film(found),
        "chapters": found.chapters,
    }


def as_shown(frame: Mapping[str, Any]) -> dict[str, Any]:
    """A frame without the values that were left out."""
    out, drawn = set(frame["left_out"]), frame["drawn"]
    gauges = [
        {
            **gauge,
            "shapes": [_unsaid(shape) if shape["reading"] in out else shape for shape in gauge["shapes"]],
        }
        for gauge in drawn.get("gauges", [])
    ]
    values = [value for value in drawn.get("values", []) if value["reading"] not in out]
    return {**frame, "drawn": {**drawn, "values": values, "gauges": gauges}}


def _unsaid(shape: Mapping[str, Any]) -> dict[str, Any]:
    return {**shape, "value": None, "u95": None, "target": []}


def forget_student(student_id: UUID) -> None:
    """Take the frames in which a student is seen out of every version of whoever's lessons."""
    for sheet in SentSheet.objects.filter(document__frames__contains=[{"student_id": str(student_id)}]):
        frames = sheet.document["frames"]
        stay = [frame for frame in frames if frame.get("student_id") != str(student_id)]
        gone = [frame["still"] for frame in frames if frame not in stay]
        sheet.document = {**sheet.document, "frames": stay}
        sheet.save(update_fields=["document"])
        forget_stills(sheet.lesson_id, gone)


def forget_stills(lesson_id: UUID, names: list[str]) -> None:
    """Forget pictures, once all is kept, that neither a frame nor a version of a lesson shows any more."""

    def forget() -> None:
        for name in names:
            shown = SentSheet.objects.filter(
                lesson_id=lesson_id, document__frames__contains=[{"still": name}]
            )
            if not shown.exists() and not LessonFrame.objects.filter(still=name).exists():
                default_storage.delete(name)

    transaction.on_commit(forget)


def stills_sent() -> set[str]:
    """The names of all pictures that any version shows."""
    documents = SentSheet.objects.order_by().values_list("document", flat=True)
    return {frame["still"] for document in documents.iterator() for frame in document["frames"]}


def pictures_sent() -> set[str]:
    """The ids of all pictures and clips of drills that any version shows."""
    documents = SentSheet.objects.order_by().values_list("document", flat=True)
    return {id for document in documents.iterator() for id in plans.pictures_in(document["plan"])}
