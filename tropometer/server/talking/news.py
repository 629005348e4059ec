"""News of a thread by mail: at most once a day for each thread unless more, or none, is wanted."""

from __future__ import annotations

from contextlib import suppress
from datetime import timedelta
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.conf import settings
from django.core.mail import EmailMessage
from django.db import transaction
from django.db.models import QuerySet
from django.db.models.signals import post_save
from django.utils import timezone
from procrastinate.exceptions import AlreadyEnqueued

from tropometer.server.bench.services import sent_by_link_since
from tropometer.server.people.services import students_by_id
from tropometer.server.people.student_page import link_to, note_mailed, page_of
from tropometer.server.talking.models import Message, Practised, Side

if TYPE_CHECKING:
    from tropometer.server.people.models import Student, StudentPage

MOMENT = timedelta(seconds=60)  # who says one thing often says another
DAY = timedelta(days=1)


def tell_soon(student: Student, side: Side) -> None:
    """Have one side told by mail that something is new, when it is their time for it."""
    from tropometer.server.talking.tasks import tell

    wanted = _wish(page_of(student), side)
    if wanted == "off":
        return
    last = getattr(page_of(student), f"{side}_mailed_at")
    at = timezone.now() + MOMENT
    if wanted == "daily" and last is not None:
        at = max(at, last + DAY)
    job = tell.configure(schedule_at=at, queueing_lock=f"tell {side} {student.pk} {wanted}")
    with suppress(AlreadyEnqueued), transaction.atomic():  # what waits already is enough
        job.defer(student_id=str(student.pk), side=str(side))


def mail_news(student_id: UUID, side: Side) -> None:
    """Mail one side what it has not been told yet; nothing where it has seen all of it meanwhile.

    Raises OSError while the mail server does not take it.
    """
    student = students_by_id([student_id]).select_related("page", "instructor").first()
    if student is None or not student.links_hold:
        return
    page = page_of(student)
    with transaction.atomic():
        said = _untold(student, side)
        felt = Practised.objects.none()
        swings = 0
        if side == Side.INSTRUCTOR:
            felt = Practised.objects.filter(
                student=student, speaks_up=True, settled_at__isnull=True, mailed_at__isnull=True
            )
            swings = sent_by_link_since(student, page.instructor_mailed_at or page.made_at)
        messages, ticks = list(said.select_for_update()), list(felt.select_for_update())
        to = student.addresses if side == Side.STUDENT else [student.instructor.email]
        if not to or _wish(page, side) == "off" or not (messages or ticks or swings):
            return
        lines = [_line(each) for each in messages]
        lines += [f"Felt in {', '.join(_in_words(tick.places))}: {tick.name}, {tick.day}" for tick in ticks]
        lines += [f"{swings} new swing{'' if swings == 1 else 's'}"] if swings else []
        _mail(page, side, to, lines)
        now = timezone.now()
        Message.objects.filter(pk__in=[each.pk for each in messages]).update(mailed_at=now)
        Practised.objects.filter(pk__in=[each.pk for each in ticks]).update(mailed_at=now)
        note_mailed(page, side)


def _untold(student: Student, side: Side) -> QuerySet[Message]:
    others = Message.objects.filter(student=student, mailed_at__isnull=True, seen_at__isnull=True)
    return others.exclude(side=side)


def _wish(page: StudentPage, side: Side) -> str:
    return page.mail_wish if side == Side.STUDENT else page.student.instructor.mail_wish


def _line(message: Message) -> str:
    return message.words or f"(spoken, {round(message.voice_ms / 1000)} s: listen to it on the page)"


def _in_words(places: list[str]) -> list[str]:
    return [place.replace("_", " ") for place in places]


def _mail(page: StudentPage, side: Side, to: list[str], lines: list[str]) -> None:
    student = page.student
    if side == Side.STUDENT:
        subject, whom = f"{student.instructor.name} has answered", f"For {student.name}."
        address, wish = link_to(page), f"{link_to(page)}/mail"
        private = "The link is private: whoever has it can read all that is on this page.\n"
    else:
        subject, whom = f"{student.name} has news for you", f"From {student.name}."
        address, wish = f"{settings.SITE_URL}/students/{student.pk}", f"{settings.SITE_URL}/account"
        private = ""
    told = "\n\n".join(lines)
    EmailMessage(
        subject=" ".join(subject.split()),
        body=(
            f"{whom}\n\n{told}\n\nAnswer here, not by mail:\n\n{address}\n\n"
            f"{private}Less mail, or none: {wish}\n"
        ),
        to=to,
        headers={"List-Unsubscribe": f"<{wish}>"},
    ).send()


def _swing_came(instance: Any, created: bool, **_: Any) -> None:
    if created and instance.sent_by_id is not None and instance.student is not None:
        tell_soon(instance.student, Side.INSTRUCTOR)


post_save.connect(_swing_came, sender="bench.Swing", dispatch_uid="a swing that came by a link is news")
