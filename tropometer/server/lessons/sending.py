"""A lesson goes out: frozen in one step, mailed by a job a little later, taken back while it still can be."""

from __future__ import annotations

import hashlib
from datetime import date, datetime, timedelta
from typing import TYPE_CHECKING
from uuid import UUID

from django.conf import settings
from django.core.mail import EmailMessage
from django.db import transaction
from django.db.models import Q
from django.http import Http404
from django.utils import timezone

from tropometer.server.bench.services import mark_answered
from tropometer.server.judging import plans
from tropometer.server.lessons import versions
from tropometer.server.lessons.models import Lesson, new_token
from tropometer.server.lessons.states import NotNow, must_be_draft
from tropometer.server.people.student_page import link_to, page_of
from tropometer.server.walks.services import has_walk
from tropometer.server.walks.tasks import make_soon
from tropometer.teaching.knowledge.book_error import BookError

LATEST = timedelta(days=60)  # so far ahead a lesson can be sent by itself

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.people.models import Student


def send(lesson: Lesson) -> None:
    """Freeze the lesson, make its link, and have it mailed once nobody has taken it back for a moment."""
    from tropometer.server.lessons.tasks import mail_lesson

    with transaction.atomic():
        now = _locked(lesson)
        must_be_draft(now)
        student = now.swing.student
        if student is None or not student.addresses:
            raise NotNow(f"{student} has no mail address yet; add it on the student's card.")
        if page_of(student).closed_at is not None:
            raise NotNow(f"{student.name}'s page is closed: renew its link on their page first.")
        if not student.links_hold:
            raise NotNow(
                f"{student.name} is under age: note a guardian's consent on the student's card first."
            )
        planned = plans.plan_for(now.swing) is not None
        walked = has_walk(now.pk)
        if not planned and not walked and not now.frames.exists() and not now.opening.strip():
            raise NotNow("This lesson is still empty: add a frame, some words, a walk, or a focus.")
        if now.expires_on is not None and now.expires_on < timezone.localdate():
            raise NotNow("The link's last day is past; choose a later one.")
        now.sent_at, now.token, now.mail_trouble = timezone.now(), now.token or new_token(), ""
        now.mailed_at = now.send_at = now.revoked_at = None
        now.correcting, now.send_trouble = False, ""
        now.save()
        try:
            plans.freeze(now.swing)
        except BookError as error:
            raise NotNow(f"{error.why}.") from None
        versions.keep(now)
        mark_answered(now.swing_id, now.sent_at)
        if walked:  # with what is known of its swings now
            make_soon(now.pk)
        wait = timedelta(seconds=settings.TAKE_BACK_SECONDS)
        mail_lesson.configure(schedule_at=now.sent_at + wait).defer(
            lesson_id=str(now.pk), sending=_sending(now)
        )
    lesson.refresh_from_db()


def take_back(lesson: Lesson) -> None:
    """Make a draft of a lesson again whose mail has not gone yet."""
    with transaction.atomic():
        now = _locked(lesson)
        if now.sent_at is None:
            raise NotNow("This lesson has not been sent.")
        if now.mailed_at is not None or _may_be_taken_back_until(now) < timezone.now():
            raise NotNow("The mail has gone. The link can still be taken back.")
        *before, _ = versions.versions_of(now)
        now.sheets.filter(number=len(before) + 1).delete()
        if before:  # its student still has the version before
            now.sent_at, now.mailed_at, now.correcting = before[-1].sent_at, before[-1].sent_at, True
            plans.reopen(now.swing)
        else:
            now.sent_at = now.token = None
            plans.thaw(now.swing)
            mark_answered(now.swing_id, None)
        now.save(update_fields=["sent_at", "mailed_at", "token", "correcting"])
    lesson.refresh_from_db()


def _may_be_taken_back_until(lesson: Lesson) -> datetime:
    assert lesson.sent_at is not None
    return lesson.sent_at + timedelta(seconds=settings.TAKE_BACK_SECONDS)


def seconds_to_take_back(lesson: Lesson) -> float:
    """How long a sent lesson can still be made a draft again; 0 when it cannot."""
    if lesson.sent_at is None or lesson.mailed_at is not None:
        return 0.0
    return max(0.0, (_may_be_taken_back_until(lesson) - timezone.now()).total_seconds())


def mail(lesson_id: UUID, sending: str) -> None:
    """Mail a lesson's link, once for each sending. Raises OSError while the mail server does not take it."""
    with transaction.atomic():
        lesson = Lesson.objects.select_for_update(of=("self",)).filter(pk=lesson_id).first()
        if lesson is None or lesson.sent_at is None or _sending(lesson) != sending or lesson.mailed_at:
            return  # taken back, sent anew, or mailed before
        student = lesson.swing.student
        if student is None or not student.links_hold or lesson.token is None:
            return
        page = page_of(student)
        if page.mail_wish == "off":
            note_trouble(lesson_id, f"{student.name} wants no mails: give them the link yourself")
            return
        _mail(lesson, student.name, student.addresses, f"{link_to(page)}/mail")
        lesson.mailed_at, lesson.mail_trouble = timezone.now(), ""
        lesson.save(update_fields=["mailed_at", "mail_trouble"])


def note_trouble(lesson_id: UUID, trouble: str) -> None:
    """Why a lesson's mail has not gone yet."""
    Lesson.objects.filter(pk=lesson_id, mailed_at__isnull=True).update(mail_trouble=trouble[:300])


def mail_again(lesson: Lesson) -> None:
    """Try once more to mail a lesson whose mail did not go."""
    from tropometer.server.lessons.tasks import mail_lesson

    with transaction.atomic():
        now = _locked(lesson)
        if now.sent_at is None or now.mailed_at is not None:
            raise NotNow("There is no mail of this lesson that waits.")
        mail_lesson.defer(lesson_id=str(now.pk), sending=_sending(now))


def _sending(lesson: Lesson) -> str:
    """Names one sending, so that a job of an earlier one that was taken back does nothing."""
    return lesson.sent_at.isoformat() if lesson.sent_at else ""


def _mail(lesson: Lesson, name: str, addresses: list[str], wish: str) -> None:
    corrected = lesson.sheets.count() > 1
    done = "has corrected a lesson" if corrected else "has looked at your swing and written a lesson"
    text = (
        f"For {name}.\n\n{lesson.instructor.name} {done}.\n"
        f"Read it here, no password needed:\n\n{link(lesson)}\n\n"
        "The link is private: whoever has it can read the lesson, and all your others.\n"
        f"Less mail, or none: {wish}\n"
    )
    # The same mail sent twice, after a crash between sending and noting it, has the same name.
    name_of_mail = hashlib.sha256(f"{lesson.pk} {_sending(lesson)}".encode()).hexdigest()[:32]
    domain = settings.DEFAULT_FROM_EMAIL.rpartition("@")[2].rstrip(">") or "localhost"
    EmailMessage(
        subject=" ".join(f"{lesson.instructor.name}: {lesson.title}".split()),  # one line, whatever was typed
        body=text,
        to=addresses,
        reply_to=[lesson.instructor.email],
        headers={"Message-ID": f"<{name_of_mail}@{domain}>"},
    ).send()


def link(lesson: Lesson) -> str | None:
    """Where the student reads the lesson, while the link holds."""
    return f"{settings.SITE_URL}/l/{lesson.token}" if lesson.token else None


def revoke(lesson: Lesson) -> None:
    """Make the link lead nowhere."""
    with transaction.atomic():
        now = _locked(lesson)
        if now.token is None:
            raise NotNow("This lesson has no link to take back.")
        now.token, now.revoked_at = None, timezone.now()
        now.save(update_fields=["token", "revoked_at"])
    lesson.refresh_from_db()


def renew(lesson: Lesson) -> None:
    """A new link after the old one was taken back."""
    with transaction.atomic():
        now = _locked(lesson)
        if now.sent_at is None or now.token is not None:
            raise NotNow("Only a lesson whose link was taken back gets a new one.")
        now.token, now.revoked_at = new_token(), None
        now.save(update_fields=["token", "revoked_at"])
    lesson.refresh_from_db()


def set_expiry(lesson: Lesson, last_day: date | None) -> None:
    """Say on which day the link holds for the last time; None: until it is taken back."""
    Lesson.objects.filter(pk=lesson.pk).update(expires_on=last_day)
    lesson.expires_on = last_day


def by_token(token: str) -> Lesson:
    """The lesson a link leads to, or Http404."""
    found = Lesson.objects.select_related("swing__student__page", "instructor").filter(token=token).first()
    if found is None or not _link_holds(found):
        raise Http404("This link does not lead to a lesson. It may have run out or been taken back.")
    return found


def plan_later(lesson: Lesson, at: datetime) -> None:
    """Have a draft sent by itself at a time; it can be written in until then."""
    from tropometer.server.lessons.tasks import send_lesson

    if not timezone.now() < at < timezone.now() + LATEST:
        raise NotNow(f"It can be sent within the next {LATEST.days} days.")
    with transaction.atomic():
        now = _locked(lesson)
        must_be_draft(now)
        now.send_at, now.send_trouble = at, ""
        now.save(update_fields=["send_at", "send_trouble"])
        send_lesson.configure(schedule_at=at).defer(lesson_id=str(now.pk), at=at.isoformat())
    lesson.refresh_from_db()


def plan_no_more(lesson: Lesson) -> None:
    """A draft is not sent by itself any more."""
    Lesson.objects.filter(pk=lesson.pk).update(send_at=None, send_trouble="")
    lesson.refresh_from_db()


def send_planned(lesson_id: UUID, at: str) -> None:
    """Send a draft at its time; what is in the way is said on the desk."""
    lesson = Lesson.objects.filter(pk=lesson_id, send_at__isnull=False).first()
    if lesson is None or not lesson.is_draft or lesson.send_at != datetime.fromisoformat(at):
        return  # put off, or sent by hand
    try:
        send(lesson)
    except NotNow as trouble:
        Lesson.objects.filter(pk=lesson_id).update(send_at=None, send_trouble=str(trouble)[:300])


def links_of(student: Student) -> list[Lesson]:
    """The sent lessons of a student that a link still leads to, the latest first."""
    sent = Lesson.objects.filter(swing__student=student, swing__removed_at__isnull=True, token__isnull=False)
    holding = sent.filter(Q(expires_on__isnull=True) | Q(expires_on__gte=timezone.localdate()))
    return list(holding.select_related("swing__plan").prefetch_related("sheets").order_by("-sent_at", "id"))


def renew_all(student: Student) -> None:
    """New links in place of all that led to this student's lessons."""
    with transaction.atomic():
        for each in Lesson.objects.select_for_update().filter(swing__student=student, token__isnull=False):
            each.token = new_token()
            each.save(update_fields=["token"])


def _link_holds(lesson: Lesson) -> bool:
    student = lesson.swing.student
    if lesson.swing.removed_at is not None or student is None or not student.links_hold:
        return False
    return lesson.expires_on is None or timezone.localdate() <= lesson.expires_on


def sent_before(swing: Swing, opening: str, sent_at: datetime, read_at: datetime) -> Lesson:
    """A lesson that was sent and read some time ago, for a practice that brings its past along."""
    lesson = Lesson.objects.create(
        instructor=swing.instructor,
        swing=swing,
        title=f"Your {swing.club}",
        opening=opening,
        sent_at=sent_at,
        mailed_at=sent_at,
        token=new_token(),
        first_read_at=read_at,
    )
    mark_answered(swing.pk, sent_at)
    return lesson


def _locked(lesson: Lesson) -> Lesson:
    """The lesson as it is now; nobody else changes it before the transaction ends."""
    return (
        Lesson.objects.select_for_update(of=("self",))
        .select_related("swing__student", "instructor")
        .get(pk=lesson.pk)
    )
