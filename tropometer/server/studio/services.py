"""Studio hours: begun, filled with tries, put in order, done with."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date, datetime, timedelta
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db import transaction
from django.db.models import Count, QuerySet
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.bench.glance import glance_later
from tropometer.server.bench.schemas import SwingIn, SwingKind
from tropometer.server.bench.services import add_clips, receive, swings_sent
from tropometer.server.clips import uploads
from tropometer.server.clips.uploads import Sender
from tropometer.server.lists import between
from tropometer.server.people.services import student_of
from tropometer.server.rooms import RefusedClip
from tropometer.server.studio.models import MOST_TRIES, StudioHour, TakenWords, Try
from tropometer.server.text import once

if TYPE_CHECKING:
    from tropometer.server.people.models import Student, User
    from tropometer.server.studio.schemas import FilmedIn, HourChange, RungIn
    from tropometer.swing.names import View

ONE_BALL_S = 1.5  # two cameras tell of one ball within this; nobody strikes two so soon


class BadTry(ValueError):
    """A try that cannot be of this hour; the text says why."""


def hours_of(instructor: User, student_id: UUID) -> QuerySet[StudioHour]:
    """A student's hours, the latest first, with how many tries each has."""
    return StudioHour.objects.filter(student=student_of(instructor, student_id)).annotate(
        count=Count("tries")
    )


def hour_of(instructor: User, id: UUID) -> StudioHour:
    """One of the instructor's hours, or Http404."""
    own = StudioHour.objects.filter(student__instructor=instructor, student__removed_at__isnull=True)
    return owned(own, id)


@transaction.atomic
def change(hour: StudioHour, said: HourChange) -> None:
    """What an hour is for, what is watched and how its tries stand, as far as it is said. Raises BadTry."""
    if not _is_new(hour, said.id):
        return
    if said.about is not None:
        hour.about = said.about
        hour.save(update_fields=["about"])
    if said.columns is not None:
        watch(hour, said.columns)
    if said.order is not None:
        put_in_order(hour, said.order)


@transaction.atomic
def say_of(hour: StudioHour, tried: Try, said: dict[str, Any], id: UUID | None) -> None:
    """What is said of a try, field by field; `id` is the sender's name for the change."""
    if _is_new(hour, id):
        for name, value in said.items():
            setattr(tried, name, value)
        tried.save(update_fields=list(said))


def _is_new(hour: StudioHour, id: UUID | None) -> bool:
    """Note a change as made; False when it was made before."""
    return id is None or TakenWords.objects.get_or_create(pk=id, defaults={"hour": hour})[1]


def begin(instructor: User, student_id: UUID, day: date, about: str) -> StudioHour:
    """An hour of a day, with the swings of that day that are of no hour yet as its tries."""
    student = student_of(instructor, student_id)
    swings = between(swings_sent(student).filter(tried__isnull=True), "received_at", day, day)
    with transaction.atomic():
        hour = StudioHour.objects.create(
            student=student, day=day, about=about, columns=_watched_before(student)
        )
        first = swings.order_by("received_at", "part", "pk")[:MOST_TRIES]
        Try.objects.bulk_create(
            Try(hour=hour, swing=swing, position=position) for position, swing in enumerate(first)
        )
    return hour


def _watched_before(student: Student) -> list[str]:
    """What was watched in the student's latest hour, else in the instructor's latest."""
    watching = StudioHour.objects.exclude(columns=[]).order_by("-begun_at")
    own = watching.filter(student=student).first()
    latest = own or watching.filter(student__instructor=student.instructor_id).first()
    return latest.columns if latest else []


def add(hour: StudioHour, data: RungIn) -> Try:
    """One of the student's swings as a try; Http404 for another's, BadTry for one of another hour."""
    swing = owned(swings_sent(hour.student), data.swing_id)
    with transaction.atomic():
        tries = _locked(hour)
        if len(tries) >= MOST_TRIES:
            raise BadTry(f"An hour holds {MOST_TRIES} tries.")
        before = Try.objects.filter(swing=swing).first()
        if before is not None and before.hour_id != hour.pk:
            raise BadTry("This swing is a try of another hour.")
        if before is not None:
            return before
        order = list(tries_of(hour).values_list("pk", flat=True))
        said = data.dict(exclude={"swing_id", "place"})
        made = Try.objects.create(hour=hour, swing=swing, position=len(tries), **said)
        if data.place is not None:
            put_in_order(hour, [*order[: data.place], made.pk, *order[data.place :]])
        return made


def filmed(hour: StudioHour, sender: Sender, data: FilmedIn) -> Try:
    """A ball that a camera saw struck, as the next try, or as another view of the one that it is of.

    What is sent twice is taken once. Raises BadTry, RefusedClip, Http404 for a file that is not the sender's,
    and what `receive` raises.
    """
    struck_at = timezone.now() - timedelta(seconds=data.ago_s)
    with transaction.atomic():
        tries = _locked(hour)
        sent = Try.objects.filter(hour=hour, swing__clips=data.clip.upload_id).first()
        if sent is not None:
            return sent
        owned(uploads.of(sender), data.clip.upload_id)
        seen = _same_ball(tries, struck_at, data.clip.view)
        if seen is None and len(tries) >= MOST_TRIES:
            raise BadTry(f"An hour holds {MOST_TRIES} tries.")
        try:
            if seen is not None:
                refused = add_clips(seen.swing, [data.clip], one_swing=True)
                _say_what_nobody_said(seen, data)
            else:
                kind = data.dict(include=set(SwingKind.model_fields))
                swing, refused = receive(sender, hour.student, SwingIn(**kind, clips=[data.clip]))
                seen = Try.objects.create(
                    hour=hour, swing=swing, position=len(tries), changed=data.changed, struck_at=struck_at
                )
        except RefusedClip as refusal:  # said once it is kept in quarantine
            refused = [str(refusal)]
        if not refused:
            glance_later(data.clip.upload_id, data.struck_s, data.struck_by)
    if seen is None or refused:
        raise RefusedClip(" ".join(refused))
    return seen


def _say_what_nobody_said(tried: Try, data: FilmedIn) -> None:
    """What the camera that came first did not know of a try: a phone knows of no club."""
    swing = tried.swing
    said = {name: value for name, value in data.dict(include=set(SwingKind.model_fields)).items() if value}
    new = {name: value for name, value in said.items() if not getattr(swing, name)}
    for name, value in new.items():
        setattr(swing, name, value)
    swing.save(update_fields=list(new))  # what was glanced at stays, until a closer look
    if data.changed and not tried.changed:
        tried.changed = data.changed
        tried.save(update_fields=["changed"])


def _same_ball(tries: Iterable[Try], struck_at: datetime, view: View) -> Try | None:
    """The try of which another camera has seen the same ball struck from another side."""
    near = [
        each
        for each in tries
        if each.struck_at is not None
        and abs((each.struck_at - struck_at).total_seconds()) <= ONE_BALL_S
        and each.swing.removed_at is None
        and not each.swing.clips.filter(view=view).exists()
    ]
    return near[-1] if near else None


def put_in_order(hour: StudioHour, ids: Sequence[UUID]) -> None:
    """Put all of an hour's tries in this order; BadTry where others are named."""
    with transaction.atomic():
        tries = {each.pk: each for each in _locked(hour)}
        shown = set(tries_of(hour).values_list("pk", flat=True))
        if len(ids) != len(shown) or set(ids) != shown:
            raise BadTry("order: this hour has other tries by now; look at it anew.")
        in_the_bin = [id for id in tries if id not in shown]
        for position, id in enumerate([*ids, *in_the_bin]):
            tries[id].position = position
        Try.objects.bulk_update(tries.values(), ["position"])


def tries_of(hour: StudioHour) -> QuerySet[Try]:
    """An hour's tries in their order, but for those whose swing lies in the bin."""
    shown = hour.tries.filter(swing__removed_at__isnull=True)
    return shown.select_related("swing__shot", "swing__first_look").prefetch_related("swing__clips__mat")


def watch(hour: StudioHour, columns: Sequence[str]) -> None:
    """Watch these readings at its tries."""
    hour.columns = once(columns)
    hour.save(update_fields=["columns"])


def take_out(hour: StudioHour, try_id: UUID) -> None:
    """A try is of this hour no more; its swing stays."""
    with transaction.atomic():
        tries = _locked(hour)
        owned(hour.tries.all(), try_id).delete()
        left = [each for each in tries if each.pk != try_id]
        for position, each in enumerate(left):
            each.position = position
        Try.objects.bulk_update(left, ["position"])


def _locked(hour: StudioHour) -> list[Try]:
    """The hour's tries, which nobody else changes until the transaction ends."""
    StudioHour.objects.select_for_update().get(pk=hour.pk)
    return list(hour.tries.select_related("swing"))
