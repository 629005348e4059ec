"""Private links by which students send swings without an account."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.conf import settings
from django.db import transaction
from django.db.models import Q, QuerySet
from django.http import Http404, HttpRequest
from django.utils import timezone

from tropometer.server.bench.models import SwingRequest
from tropometer.server.clips.uploads import Sender

if TYPE_CHECKING:
    from tropometer.server.people.models import Student, User


def open_requests() -> QuerySet[SwingRequest]:
    """Links that have not been closed and have not run out, of students who are not in the bin."""
    kept = SwingRequest.objects.filter(closed_at__isnull=True, student__removed_at__isnull=True)
    kept = kept.filter(Q(student__page__isnull=True) | Q(student__page__closed_at__isnull=True))
    return kept.filter(expires_at__gt=timezone.now())


def requests_of(instructor: User) -> QuerySet[SwingRequest]:
    """The instructor's open requests."""
    found = open_requests().filter(instructor=instructor)
    return found.select_related("student", "instructor")


def make(instructor: User, student: Student, note: str) -> SwingRequest:
    """A new link for a student; an older one of theirs leads nowhere from now on."""
    with transaction.atomic():
        now = timezone.now()
        SwingRequest.objects.filter(student=student, closed_at__isnull=True).update(closed_at=now)
        return SwingRequest.objects.create(instructor=instructor, student=student, note=note)


def open_for(student: Student) -> SwingRequest:
    """The student's open link, made where there is none: they want to send a swing."""
    found = open_requests().filter(student=student).first()
    return found or make(student.instructor, student, "")


def link_to(request: SwingRequest) -> str:
    """The link's address."""
    return f"{settings.SITE_URL}/s/{request.token}"


def close_all(student: Student) -> None:
    """Make all links by which this student sends swings lead nowhere."""
    SwingRequest.objects.filter(student=student, closed_at__isnull=True).update(closed_at=timezone.now())


def close(request: SwingRequest) -> None:
    """Make the link lead nowhere."""
    SwingRequest.objects.filter(pk=request.pk).update(closed_at=timezone.now())


def by_token(token: str) -> SwingRequest:
    """The request a link leads to, or Http404."""
    request = open_requests().filter(token=token).select_related("student", "instructor").first()
    if request is None:
        raise Http404("This link does not lead anywhere. It may have run out or been taken back.")
    return request


def sender(request: SwingRequest) -> Sender:
    """Who sends by this link."""
    return Sender(request.instructor, UUID(str(request.pk)), request.student)


def student_sends(request: HttpRequest, token: str) -> Sender:
    """The student behind a link, for uploads."""
    return sender(by_token(token))
