"""Private links by which students send swings without an account."""

from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404, HttpRequest
from django.utils import timezone

from tropometer.server.bench.models import SwingRequest
from tropometer.server.clips.uploads import Sender
from tropometer.server.people.models import Student, User


def requests_of(instructor: User) -> QuerySet[SwingRequest]:
    """The instructor's open requests."""
    found = SwingRequest.objects.filter(instructor=instructor, closed_at__isnull=True)
    return found.select_related("student", "instructor")


def make(instructor: User, student: Student, note: str) -> SwingRequest:
    """A new link for a student; an older one of theirs leads nowhere from now on."""
    with transaction.atomic():
        requests_of(instructor).filter(student=student).update(closed_at=timezone.now())
        return SwingRequest.objects.create(instructor=instructor, student=student, note=note)


def close(request: SwingRequest) -> None:
    """Make the link lead nowhere."""
    SwingRequest.objects.filter(pk=request.pk).update(closed_at=timezone.now())


def by_token(token: str) -> SwingRequest:
    """The request a link leads to, or Http404."""
    found = SwingRequest.objects.filter(token=token, closed_at__isnull=True)
    request = found.select_related("student", "instructor").first()
    if request is None:
        raise Http404("This link does not lead anywhere. It may have been taken back.")
    return request


def sender(request: SwingRequest) -> Sender:
    """Who sends by this link."""
    return Sender(request.instructor, UUID(str(request.pk)))


def student_sends(request: HttpRequest, token: str) -> Sender:
    """The student behind a link, for uploads."""
    return sender(by_token(token))
