"""The bin: what was removed, until it is taken back, erased by hand, or old enough to go by itself."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import TYPE_CHECKING, Literal
from uuid import UUID

from django.conf import settings
from django.db.models import Count, Q
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.bench.services import removed_swings
from tropometer.server.clips.uploads import quarantined, quarantined_by_all
from tropometer.server.operations import ledger
from tropometer.server.people.services import removed_students

if TYPE_CHECKING:
    from django.db.models import Model, QuerySet

    from tropometer.server.clips.models import Upload
    from tropometer.server.people.models import User

Kind = Literal["student", "swing", "file"]


@dataclass(frozen=True)
class Binned:
    """A thing in the bin: what it is, since when, and when it goes by itself."""

    kind: Kind
    id: UUID
    title: str
    about: str
    removed_at: datetime
    goes_at: datetime


def binned(instructor: User) -> list[Binned]:
    """All that lies in an instructor's bin, the latest first. A student's swings go with the student."""
    keep, quarantine = timedelta(days=settings.BIN_DAYS), timedelta(days=settings.QUARANTINE_DAYS)
    found: list[Binned] = []
    for student in removed_students().filter(instructor=instructor).annotate(count=Count("swings")):
        about = f"student, {counted(student.count, 'swing')}"
        at = student.removed_at
        assert at is not None
        found.append(Binned("student", student.pk, student.name, about, at, at + keep))
    alone = Q(student__isnull=True) | Q(student__removed_at__isnull=True)
    swings = removed_swings().filter(alone, instructor=instructor)
    for swing in swings.select_related("student", "reference").prefetch_related("clips"):
        whose = swing.student.name if swing.student else swing.reference.name
        about = f"{'swing' if swing.student else 'reference'}, {swing.club or 'club not named'}, "
        about += counted(len(swing.clips.all()), "clip")
        at = swing.removed_at
        assert at is not None
        found.append(Binned("swing", swing.pk, whose, about, at, at + keep))
    for upload in quarantined(instructor):
        at = upload.refused_at
        assert at is not None
        why = upload.refusal.removeprefix(f"{upload.name}: ")
        found.append(Binned("file", upload.pk, upload.name, why, at, at + quarantine))
    return sorted(found, key=lambda each: each.removed_at, reverse=True)


def counted(count: int, what: str) -> str:
    """How many of a thing, in words."""
    return f"{count} {what}{'' if count == 1 else 's'}"


def _things(kind: Kind) -> QuerySet[Model]:
    things: dict[str, QuerySet[Model]] = {
        "student": removed_students(),
        "swing": removed_swings(),
        "file": quarantined_by_all(),
    }
    return things[kind]


def refused_file(instructor: User, id: UUID) -> Upload:
    """A file in quarantine; Http404 when it is not there."""
    return owned(quarantined(instructor), id)


def take_back(instructor: User, kind: Literal["student", "swing"], id: UUID) -> None:
    """Take a thing out of the bin again; Http404 when it is not there."""
    thing = owned(_things(kind).filter(instructor=instructor), id)
    thing.removed_at = None  # type: ignore[attr-defined]  # students and swings have it
    thing.save(update_fields=["removed_at"])


def erase_now(instructor: User, kind: Kind, id: UUID) -> None:
    """Erase a thing that lies in the bin; Http404 when it does not."""
    erase(kind, owned(_things(kind).filter(instructor=instructor), id))


def erase(kind: Kind, thing: Model) -> None:
    """Erase a thing with all that hangs on it: rows, files, stills, uploads, links."""
    if kind != "file":  # a refused file was never in the practice
        ledger.note(kind, thing.pk)
    thing.delete()


def erase_account(account: User) -> None:
    """Erase an instructor with all that is theirs: students, swings, lessons, files, links, sessions."""
    ledger.note("account", account.pk)
    account.delete()


def erase_old() -> int:
    """Erase what has lain in the bin long enough; returns how many things."""
    before = timezone.now() - timedelta(days=settings.BIN_DAYS)
    kinds: Iterable[Kind] = ("student", "swing")
    old = [(kind, thing) for kind in kinds for thing in _things(kind).filter(removed_at__lt=before)]
    for kind, thing in old:
        erase(kind, thing)
    return len(old)
