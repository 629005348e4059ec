"""Bringing a packed record back: what is not here yet, under the same ids; what is here stays as it is."""

from __future__ import annotations

import re
import zipfile
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import TYPE_CHECKING, Any
from uuid import UUID

import orjson
from django.conf import settings
from django.core import serializers
from django.core.exceptions import ValidationError
from django.core.files import File
from django.core.files.storage import default_storage
from django.core.serializers.base import DeserializationError
from django.db import Error, transaction
from django.db.models import AutoField, Model
from django.utils import timezone

from tropometer.server.operations.record.packing import ABOUT, FORMAT, VERSION, names_in
from tropometer.server.operations.record.register import PARTS, STUDENT, Part

if TYPE_CHECKING:
    from tropometer.server.people.models import User

MOST_ROWS_BYTES = 200_000_000  # of one table of one student
ID = "[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}"
STORED = re.compile(rf"(?:clips|lessons|walks|talking)/(?P<id>{ID})(?:/[\w-]+)*/[\w-]+(?:\.\w+)?")
NOT_READY = "It was brought from another machine before it was ready."


class RecordTrouble(Exception):
    """Why a record cannot be brought back; names what is wrong in the file."""


@dataclass
class Came:
    """What a record brought: rows by model, those that are new and those that were here."""

    name: str
    new: dict[str, set[Any]] = field(default_factory=lambda: defaultdict(set))
    here: dict[str, set[Any]] = field(default_factory=lambda: defaultdict(set))

    def names(self, id: str) -> bool:
        """Whether an id is that of some row of this record."""
        return any(UUID(id) in rows for found in (self.new, self.here) for rows in found.values())

    def has(self, model: str, pk: Any) -> bool:
        """Whether a row is of this record."""
        return pk in self.new[model] or pk in self.here[model]


def unpack(path: Path, instructor: User) -> Came:
    """Bring a record to an instructor; all of it or, with RecordTrouble, nothing."""
    written: list[str] = []
    try:
        with zipfile.ZipFile(path) as files, transaction.atomic():
            came = Came(_about(files)["name"])
            for part in PARTS:
                for told in _rows(files, part):
                    _bring(files, part, told, instructor, came, written)
    except BaseException as trouble:
        for name in written:
            default_storage.delete(name)
        if isinstance(trouble, zipfile.BadZipFile | OSError):
            raise RecordTrouble(f"{path.name}: it cannot be read: {trouble}") from trouble
        raise
    return came


def _about(files: zipfile.ZipFile) -> dict[str, Any]:
    try:
        about = orjson.loads(files.read(ABOUT))
    except (KeyError, orjson.JSONDecodeError):
        raise RecordTrouble(f"{ABOUT}: it is missing; this is no record of a student.") from None
    if not isinstance(about, dict) or about.get("format") != FORMAT or not isinstance(about.get("name"), str):
        raise RecordTrouble(f"{ABOUT}: this is no record of a student.")
    if about.get("version") != VERSION:
        raise RecordTrouble(f"{ABOUT}: version {about.get('version')} is not known here.")
    return about


def _rows(files: zipfile.ZipFile, part: Part) -> Iterator[dict[str, Any]]:
    name = f"rows/{part.model}.jsonl"
    try:
        info = files.getinfo(name)
    except KeyError:
        raise RecordTrouble(f"{name}: it is missing.") from None
    if info.file_size > MOST_ROWS_BYTES:
        raise RecordTrouble(f"{name}: it is too large.")
    with files.open(info) as lines:
        told = [(number, _row(name, number, line, part)) for number, line in enumerate(lines, start=1)]
    if part.model == STUDENT and len(told) != 1:
        raise RecordTrouble(f"{name}: it holds {len(told)} students, not one.")
    # The swing that others were found in comes before them.
    told.sort(key=lambda each: (each[1]["fields"].get("found_in") is not None, each[0]))
    return (row for _, row in told)


def _row(name: str, number: int, line: bytes, part: Part) -> dict[str, Any]:
    try:
        row = orjson.loads(line)
    except orjson.JSONDecodeError:
        raise RecordTrouble(f"{name}, line {number}: it is not JSON.") from None
    if not isinstance(row, dict) or not isinstance(row.get("fields"), dict):
        raise RecordTrouble(f"{name}, line {number}: it is no row.")
    fields = {key: value for key, value in row["fields"].items() if key not in part.left_out}
    return {"model": part.model, "pk": row.get("pk"), "fields": fields, "where": f"{name}, line {number}"}


def _bring(
    files: zipfile.ZipFile,
    part: Part,
    told: dict[str, Any],
    instructor: User,
    came: Came,
    written: list[str],
) -> None:
    where = told.pop("where")
    row = _as_row(part, told, where)
    numbered = isinstance(part.of._meta.pk, AutoField)
    above = part.of._meta.get_field(part.hangs_on).related_model if part.hangs_on else None
    parent = above._meta.label if above is not None and not isinstance(above, str) else ""
    parent_pk = getattr(row, f"{part.hangs_on}_id") if part.hangs_on else None
    if parent and not came.has(parent, parent_pk):
        raise RecordTrouble(f"{where}: {part.hangs_on} is not of this record.")
    if numbered:
        # Numbers are each machine's own: such rows come only with what they hang on.
        if parent_pk not in came.new[parent]:
            return
        row.pk = None
    elif (here := part.of._base_manager.filter(pk=row.pk).first()) is not None:
        _check_same(part, here, parent_pk, instructor, where)
        came.here[part.model].add(row.pk)
        return
    _fit(part, row, instructor, came)
    if not numbered:
        came.new[part.model].add(row.pk)  # its files go by its own id
    for name in _names(part, told, where):
        _bring_file(files, name, came, written, where)
    try:
        with transaction.atomic():
            row.save_base(raw=True, force_insert=True)
    except (Error, ValueError) as trouble:
        raise RecordTrouble(f"{where}: it does not fit here: {str(trouble).splitlines()[0]}") from trouble
    came.new[part.model].add(row.pk)


def _names(part: Part, told: dict[str, Any], where: str) -> list[str]:
    try:
        return [str(name) for name in names_in(part, told["fields"])]
    except (KeyError, TypeError):
        raise RecordTrouble(f"{where}: document: it is no sheet.") from None


def _bring_file(files: zipfile.ZipFile, name: str, came: Came, written: list[str], where: str) -> None:
    """Keep a file under the name it had, which the record's own rows and sheets know it by."""
    found = STORED.fullmatch(name)
    if found is None or not came.names(found["id"]):
        raise RecordTrouble(f"{where}: {name} is not a file of this record.")
    packed = files.NameToInfo.get(f"media/{name}")
    if packed is not None and packed.file_size > settings.MAX_CLIP_BYTES:
        raise RecordTrouble(f"media/{name}: it is too large.")
    if packed is None:
        return
    if default_storage.exists(name):
        if default_storage.size(name) == packed.file_size:
            return
        default_storage.delete(name)  # an import that was killed left the half of it
    written.append(name)
    with files.open(packed) as source:
        default_storage.save(name, File(source))


def _as_row(part: Part, told: dict[str, Any], where: str) -> Model:
    try:
        (found,) = serializers.deserialize("python", [told], ignorenonexistent=True)
        row: Model = found.object
        row.clean_fields(exclude=[each.name for each in row._meta.fields if _may_be_empty(part, row, each)])
    except (DeserializationError, ValidationError, ValueError, TypeError) as trouble:
        raise RecordTrouble(f"{where}: {str(trouble).splitlines()[0]}") from trouble
    return row


def _may_be_empty(part: Part, row: Model, field: Any) -> bool:
    """What is given here, what its own model checks, and what nobody has said."""
    if field.is_relation or field.name in part.left_out:
        return True
    return getattr(row, field.attname) in (None, "", [], {}, b"")


def _check_same(part: Part, here: Any, parent_pk: Any, instructor: User, where: str) -> None:
    """An id that is taken here must be taken by the same thing."""
    if part.model == STUDENT and here.instructor_id != instructor.pk:
        raise RecordTrouble(f"{where}: this student is another instructor's here.")
    if part.model == STUDENT and here.removed_at is not None:
        raise RecordTrouble(f"{where}: {here.name} lies in the bin here: take the card out of it first.")
    if part.hangs_on and getattr(here, f"{part.hangs_on}_id") != parent_pk:
        raise RecordTrouble(f"{where}: its id is something else's here.")


def _fit(part: Part, row: Any, instructor: User, came: Came) -> None:
    """Whose it is here; and what it names that is not here, or must be given anew, is left open."""
    names = {each.name: each for each in row._meta.fields}
    if "instructor" in names:
        row.instructor = instructor
    for name, each in names.items():
        if each.is_relation and name not in ("instructor", part.hangs_on) and name not in part.left_out:
            related = each.related_model._meta.label
            if getattr(row, f"{name}_id") is not None and not came.has(related, getattr(row, f"{name}_id")):
                setattr(row, f"{name}_id", None)
    if part.model == "lessons.Lesson" and row.sent_at is not None:
        row.revoked_at = (
            row.revoked_at or timezone.now()
        )  # its link leads nowhere here; a new one can be given
    if part.model == "clips.Clip" and row.state in ("waiting", "working"):
        row.state, row.trouble = "failed", NOT_READY
