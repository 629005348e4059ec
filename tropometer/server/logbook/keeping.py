"""Keeping the log: readings of a swing whose marks changed, or of one that an older core had read."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db import transaction
from django.db.models import Q
from django.dispatch import Signal, receiver
from django.utils import timezone
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued

from tropometer.server.bench.changed import swing_changed
from tropometer.server.bench.record import ready_clips, record_of
from tropometer.server.bench.services import pegged_swings, swings_by_id
from tropometer.server.clips.proposing import clip_ready
from tropometer.server.logbook.core_version import core_version
from tropometer.server.logbook.models import LoggedReading, LoggedSwing
from tropometer.server.logbook.services import as_logged
from tropometer.server.people.services import student_changed
from tropometer.swing.read import read
from tropometer.swing.readings.reading import Reading
from tropometer.teaching.knowledge.band import Key

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.clips.models import Clip

AT_REST_S = 15  # marks come in one after another: the swing is read when its instructor pauses
ANEW_PRIORITY = -2000  # behind all that anybody waits for
ELSEWHERE = "elsewhere"  # in place of a core
AT_ONCE = 500  # swings that the upkeep asks for at a time


# What is read of a swing is in the log: `swing`.
swing_logged = Signal()


def keep(swing_id: UUID) -> None:
    """Read a swing and put its readings into the log. Safe to run twice, and beside itself."""
    swing = swings_by_id([swing_id]).select_related("student", "instructor").first()
    if swing is None or swing.student is None or swing.removed_at is not None or swing.drill:
        return
    clips = ready_clips(swing, whole=False)
    if not clips:  # they are being made anew, or nobody kept them: what was read of them stays
        return
    core = core_version()
    with transaction.atomic():
        LoggedSwing.objects.get_or_create(swing=swing, defaults={"core": core})
        logged = LoggedSwing.objects.select_for_update().get(swing=swing)
        # Read behind the lock: of two that come at once the later one sees the later marks.
        clips = ready_clips(swing, whole=False)
        found = read(record_of(swing, clips, whole=False)).readings
        rows = {(each.reading, each.at): _row(swing_id, each) for each in found if each.status == "ok"}
        before = {
            (row.reading, row.at): row
            for row in LoggedReading.objects.filter(swing=swing, replaced_at__isnull=True)
        }
        gone = [row.pk for key, row in before.items() if key not in rows]
        changed = [
            row
            for key, row in before.items()
            if key in rows and (_said(row) != rows[key] or row.core != core)
        ]
        _take_over(core, changed, rows, gone)
        LoggedReading.objects.bulk_create(
            LoggedReading(swing=swing, reading=key[0], at=key[1], core=core, **row)
            for key, row in rows.items()
            if key not in before or before[key].replaced_at is not None
        )
        logged.core = core
        logged.save()
    swing_logged.send(None, swing=swing)


def _row(swing_id: UUID, reading: Reading) -> dict[str, Any]:
    row = asdict(as_logged(swing_id, reading))
    del row["swing"]
    return row


def _said(row: LoggedReading) -> dict[str, Any]:
    return {name: getattr(row, name) for name in ("value", "u95", "set_up_share", "worst", "provisional")}


def _take_over(
    core: str, changed: list[LoggedReading], rows: dict[tuple[str, str], dict[str, Any]], gone: list[int]
) -> None:
    """What other marks read replaces what was there; what another core reads stands after it."""
    LoggedReading.objects.filter(pk__in=gone).delete()
    for row in changed:
        said = rows[row.reading, row.at]
        if row.core != core and (row.value, row.u95) != (said["value"], said["u95"]):
            row.replaced_at = timezone.now()
            row.save(update_fields=["replaced_at"])
            continue
        for name, value in said.items():
            setattr(row, name, value)
        row.core = core
        row.save()


def keep_measured(swing: Swing, read: Mapping[Key, tuple[float, float]]) -> None:
    """Put values with their u95 into the log of a swing that has no clip: somebody measured them before."""
    LoggedSwing.objects.get_or_create(swing=swing, defaults={"core": ELSEWHERE})
    LoggedReading.objects.bulk_create(
        LoggedReading(
            swing=swing,
            reading=reading,
            at=at,
            value=value,
            u95=u95,
            set_up_share=0.5,
            provisional=False,
            core=ELSEWHERE,
        )
        for (reading, at), (value, u95) in read.items()
    )


@receiver(swing_changed)
def keep_soon(sender: object, swing_id: UUID, **_: object) -> None:
    """Have a changed swing read for the log once it rests."""
    keep_later(swing_id, schedule_in={"seconds": AT_REST_S})


@receiver(clip_ready)
def keep_once_ready(sender: object, clip: Clip, **_: object) -> None:
    """Marks may have been there before the clip was: a practice brings its past along."""
    keep_soon(sender, clip.swing_id)


@receiver(student_changed)
def keep_all_soon(sender: object, student_id: UUID, **_: object) -> None:
    """A student's height or hand is part of every reading."""
    for swing_id in pegged_swings().filter(student=student_id).values_list("pk", flat=True):
        keep_later(swing_id, priority=ANEW_PRIORITY)


def keep_later(swing_id: UUID, **how: Any) -> None:
    """Have a worker log a swing; once, however often it is asked for before it begins."""
    task = app.configure_task(
        "tropometer.server.logbook.tasks.log_swing", queueing_lock=f"log {swing_id}", **how
    )
    try:
        with transaction.atomic():
            task.defer(swing_id=str(swing_id))
    except AlreadyEnqueued:
        pass  # it will read these marks too


def log_what_is_old() -> int:
    """Ask for swings that were never logged, or by another core; returns for how many."""
    other = Q(logged__isnull=True) | ~Q(logged__core=core_version())
    ids = list(pegged_swings().filter(other).values_list("pk", flat=True)[:AT_ONCE])
    for swing_id in ids:
        keep_later(swing_id, priority=ANEW_PRIORITY)
    return len(ids)
