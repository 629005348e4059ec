"""Looks for what nothing names any more: files without rows, scratch of the dead, erasures cut short."""

from __future__ import annotations

import shutil
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import partial
from pathlib import Path
from typing import Any

from django.apps import apps
from django.conf import settings
from django.core.files.storage import default_storage
from django.db.models import FileField
from django.utils import timezone

from tropometer.server.bench.services import swings_by_id
from tropometer.server.clips.uploads import kept_names as upload_files
from tropometer.server.judging.plans import pictures_in_sent_plans
from tropometer.server.lessons.versions import pictures_sent, stills_sent
from tropometer.server.operations import ledger
from tropometer.server.people.services import accounts_by_id, students_by_id
from tropometer.server.rooms import abandoned_scratch
from tropometer.server.teaching.showing import put_aside_before

GRACE = timedelta(hours=1)  # a file is stored a moment before its row is
ROOMS = ("clips", "lessons", "walks", "drills", "talking")


@dataclass(frozen=True)
class Orphan:
    """Something that nothing names, and how to be rid of it."""

    what: str
    forget: Callable[[], Any]


def orphans(grace: timedelta = GRACE) -> Iterator[Orphan]:
    """All that nothing names any more and that is older than `grace`."""
    yield from _unfinished_erasures()
    yield from _replaced_pictures(grace)
    yield from _stored_files(grace)
    yield from _uploads(grace)
    yield from _scratch(grace)


def sweep(grace: timedelta = GRACE) -> int:
    """Forget all orphans; returns how many there were."""
    found = list(orphans(grace))
    for each in found:
        each.forget()
    return len(found)


def _unfinished_erasures() -> Iterator[Orphan]:
    """What the ledger says is erased and is still, or again, there: a crash, or an older backup."""
    things = {"account": accounts_by_id, "student": students_by_id, "swing": swings_by_id}
    erased: dict[str, list[Any]] = {kind: [] for kind in things}
    for kind, id in ledger.noted():
        erased[kind].append(id)
    for kind, by_id in things.items():
        for thing in by_id(erased[kind]):
            yield Orphan(f"{kind} {thing.pk}, erased before", thing.delete)


def _replaced_pictures(grace: timedelta) -> Iterator[Orphan]:
    """What showed a drill before something else did, and no sent lesson shows."""
    named = pictures_in_sent_plans() | pictures_sent()
    for each in put_aside_before(timezone.now() - grace):
        if str(each.pk) not in named:
            yield Orphan(f"replaced {each} {each.pk}", each.delete)


def _stored_files(grace: timedelta) -> Iterator[Orphan]:
    named = named_by_rows() | stills_sent()
    for name in _walk(ROOMS):
        if name not in named and _stored_before(name, timezone.now() - grace):
            yield Orphan(f"stored file {name}", partial(default_storage.delete, name))
    for folder in _empty_folders():
        yield Orphan(f"empty folder {folder.name}", folder.rmdir)


def named_by_rows() -> set[str]:
    """The names of all stored files that any row names: an app that is added is not forgotten."""
    return {
        name
        for model in apps.get_models()
        for field in model._meta.get_fields()
        if isinstance(field, FileField)
        for name in model._default_manager.order_by().values_list(field.name, flat=True).iterator()
        if name
    }


def _walk(folders: tuple[str, ...]) -> Iterator[str]:
    for folder in folders:
        try:
            inner, names = default_storage.listdir(folder)
        except FileNotFoundError:
            continue
        yield from (f"{folder}/{name}" for name in names if name)
        yield from _walk(tuple(f"{folder}/{each}" for each in inner))


def _stored_before(name: str, before: datetime) -> bool:
    try:
        return default_storage.get_modified_time(name) < before
    except FileNotFoundError:
        return False


def _empty_folders() -> Iterator[Path]:
    root = Path(getattr(default_storage, "location", "") or "/nowhere")
    for room in ROOMS:
        for folder in root.glob(f"{room}/*/"):
            if not any(folder.iterdir()) and folder.stat().st_mtime < time.time() - GRACE.total_seconds():
                yield folder


def _uploads(grace: timedelta) -> Iterator[Orphan]:
    named = upload_files()
    for path in Path(settings.UPLOAD_ROOT).glob("*.part"):
        if path.name not in named and path.stat().st_mtime < time.time() - grace.total_seconds():
            yield Orphan(f"upload {path.name}", partial(path.unlink, missing_ok=True))


def _scratch(grace: timedelta) -> Iterator[Orphan]:
    for folder in abandoned_scratch(grace):
        yield Orphan(f"scratch {folder.name}", partial(shutil.rmtree, folder, ignore_errors=True))
