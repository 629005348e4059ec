"""A student's record as one zip: rows and files as they are kept, beside what people can read."""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Iterator
from pathlib import Path
from shutil import copyfileobj
from typing import TYPE_CHECKING, Any

import orjson
from django.core import serializers
from django.core.files.storage import default_storage
from django.db import transaction
from django.db.models import FileField, Model, Q, QuerySet
from django.utils import timezone

from tropometer.server.bench.exports import curves_csv, readings_csv
from tropometer.server.bench.record import ready_clips, record_of
from tropometer.server.bench.services import swings_sent
from tropometer.server.judging.trends import log_csv
from tropometer.server.lessons import paper
from tropometer.server.lessons.sending import links_of
from tropometer.server.lessons.versions import version_of
from tropometer.server.operations.record.register import PARTS, STUDENT, Part
from tropometer.server.rooms import RoomFailed
from tropometer.swing.formats.swing_record import to_document

if TYPE_CHECKING:
    from tropometer.server.people.models import Student

FORMAT, VERSION = "tropometer-record", 1
ABOUT = "record.json"
SHEET = "lessons.SentSheet"
WORDS = """This is all that Tropometer keeps of {name}, as of {day}.

swings/    each swing as an open record (swing.json), its readings and curves as tables
lessons/   each lesson as a page that opens without a network (lesson.html), with pictures, walk, calendar
log.csv    every reading of every swing
media/     clips and other files as they came; rows/ what is known of them

`./tropo import MAIL FILE` brings it back on another machine.
"""


def pack(student: Student, into: Path) -> None:
    """Write a student's record without what lies in the bin.

    Of rows and files, private links and what shows somebody else stay out; lessons are as they were sent.
    """
    part = into.with_suffix(".part")  # what stands under its name is whole
    try:
        _pack(student, part)
        part.replace(into)
    finally:
        part.unlink(missing_ok=True)


def _pack(student: Student, into: Path) -> None:
    with zipfile.ZipFile(into, "w", zipfile.ZIP_DEFLATED) as files, transaction.atomic():
        about = {"format": FORMAT, "version": VERSION, "student": str(student.pk), "name": student.name}
        files.writestr(ABOUT, orjson.dumps(about))
        day = timezone.localdate().isoformat()
        files.writestr("READ-ME.txt", WORDS.format(name=student.name, day=day))
        _readable(files, student)  # first: a sheet that was never kept is kept by being read
        kept: set[str] = set()
        for part in PARTS:
            _rows(files, part, student, kept)


def file_name(student: Student) -> str:
    """What a student's record is called."""
    plain = re.sub(r"\W+", "-", student.name).strip("-")
    return f"{plain}-{str(student.pk)[:8]}.zip"


def rows_of(part: Part, student: Student) -> QuerySet[Model]:
    """The rows of one part that belong to the record."""
    way: list[str] = []
    at = part
    while at.model != STUDENT:
        way.append(at.hangs_on)
        above = at.of._meta.get_field(at.hangs_on).related_model
        at = next(each for each in PARTS if each.of is above)
    rows = part.of._default_manager.filter(**{"__".join([*way, "pk"]): student.pk})
    if "swing" in way or part.model == "bench.Swing":
        swing = "__".join([*way[: way.index("swing") + 1], ""]) if "swing" in way else ""
        rows = rows.filter(**{f"{swing}removed_at__isnull": True})
    fields = {field.name for field in part.of._meta.fields}
    if "student" in fields and part.hangs_on != "student":  # it may show somebody else's swing
        rows = rows.filter(Q(student__isnull=True) | Q(student=student))
    return rows.order_by("pk")


def files_of(model: type[Model]) -> list[FileField]:
    """The fields of a model that are files."""
    return [field for field in model._meta.fields if isinstance(field, FileField)]


def names_in(part: Part, fields: dict[str, Any]) -> Iterator[str]:
    """The stored names of the files that a row, as it is told, holds or shows."""
    for each in files_of(part.of):
        if fields.get(each.name):
            yield fields[each.name]
    if part.model == SHEET:
        yield from (frame["still"] for frame in fields["document"]["frames"])


def _rows(files: zipfile.ZipFile, part: Part, student: Student, kept: set[str]) -> None:
    lines = io.BytesIO()
    fields = [field.name for field in part.of._meta.fields if field.name not in part.left_out]
    for row in rows_of(part, student).iterator(chunk_size=500):
        (told,) = serializers.serialize("python", [row], fields=fields)
        if part.model == SHEET:
            _without_others(told["fields"]["document"], student)
        lines.write(orjson.dumps(told, default=str, option=orjson.OPT_APPEND_NEWLINE))
        for name in names_in(part, told["fields"]):
            if name not in kept and default_storage.exists(name):
                kept.add(name)
                _store(files, name)
    files.writestr(f"rows/{part.model}.jsonl", lines.getvalue())


def _without_others(document: dict[str, Any], student: Student) -> None:
    """A sheet without frames of somebody else's swing."""
    own = (None, str(student.pk))
    document["frames"] = [each for each in document["frames"] if each.get("student_id") in own]


def _store(files: zipfile.ZipFile, name: str) -> None:
    """Pictures and clips are packed as they are."""
    about = zipfile.ZipInfo(f"media/{name}", timezone.localtime().timetuple()[:6])
    with default_storage.open(name) as source, files.open(about, "w", force_zip64=True) as target:
        copyfileobj(source, target)


def _readable(files: zipfile.ZipFile, student: Student) -> None:
    files.writestr("log.csv", log_csv(student))
    for swing in swings_sent(student).filter(clips__state="ready").distinct():
        folder = f"swings/{timezone.localdate(swing.received_at)} {str(swing.pk)[:8]}"
        record = to_document(record_of(swing, ready_clips(swing)))
        files.writestr(f"{folder}/swing.json", orjson.dumps(record, option=orjson.OPT_INDENT_2))
        files.writestr(f"{folder}/readings.csv", readings_csv(swing))
        files.writestr(f"{folder}/curves.csv", curves_csv(swing))
    for lesson in links_of(student):
        folder = f"lessons/{timezone.localdate(lesson.sent_at)} {str(lesson.pk)[:8]}"
        try:
            packed = paper.bundle(lesson, version_of(lesson))
        except RoomFailed as failure:  # its rows and files are there all the same
            files.writestr(f"{folder}/not-laid-out.txt", str(failure))
            continue
        for name, content in _unpacked(packed):
            files.writestr(f"{folder}/{name}", content)


def _unpacked(packed: bytes) -> Iterator[tuple[str, bytes]]:
    with zipfile.ZipFile(io.BytesIO(packed)) as inner:
        for name in inner.namelist():
            yield name, inner.read(name)
