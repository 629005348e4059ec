"""A student's own lasting page: its link, made, renewed and closed."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.conf import settings
from django.db.models import QuerySet
from django.http import Http404
from django.utils import timezone

from tropometer.server.people.models import Student, StudentPage, new_token

if TYPE_CHECKING:
    from tropometer.server.people.models import User


def page_of(student: Student) -> StudentPage:
    """A student's page, made when it is asked for first."""
    page, _ = StudentPage.objects.get_or_create(student=student)
    return page


def link_to(page: StudentPage) -> str:
    """The page's address."""
    return f"{settings.SITE_URL}/p/{page.token}"


def page_by_token(token: str) -> StudentPage:
    """The page a link leads to, or Http404."""
    found = StudentPage.objects.select_related("student__instructor").filter(token=token).first()
    if found is None or not found.student.links_hold:
        raise Http404("This link does not lead to a page. It may have been closed or renewed.")
    return found


def open_pages_at(address: str) -> list[StudentPage]:
    """The open pages of all whom, or whose guardian, mail reaches there; siblings may share an address."""
    at = address.strip().lower()
    if not at:  # many have none
        return []
    students = Student.objects.filter(removed_at__isnull=True).select_related("page", "instructor")
    theirs = students.filter(email__iexact=at) | students.filter(guardian_email__iexact=at, minor=True)
    return [page_of(each) for each in theirs.order_by("name", "pk") if each.links_hold]


def opened(page: StudentPage) -> None:
    """Note that whoever holds the link has opened it."""
    StudentPage.objects.filter(pk=page.pk).update(opened_at=timezone.now())


def wish(page: StudentPage, mail_wish: str) -> None:
    """Keep how often this student is told of news by mail."""
    StudentPage.objects.filter(pk=page.pk).update(mail_wish=mail_wish)
    page.mail_wish = mail_wish


def renew(page: StudentPage) -> None:
    """A new link; the old one leads nowhere from now on, a closed page is open again."""
    page.token, page.closed_at, page.made_at = new_token(), None, timezone.now()
    page.save(update_fields=["token", "closed_at", "made_at"])


def close(page: StudentPage) -> None:
    """Nothing of this student can be opened by a link until the page is renewed."""
    StudentPage.objects.filter(pk=page.pk).update(closed_at=timezone.now())


def pages_of(instructor: User) -> QuerySet[StudentPage]:
    """The pages of an instructor's students, but for those in the bin."""
    return StudentPage.objects.filter(student__instructor=instructor, student__removed_at__isnull=True)


def note_mailed(page: StudentPage, side: str) -> None:
    """That news of the thread went to one side just now."""
    StudentPage.objects.filter(pk=page.pk).update(**{f"{side}_mailed_at": timezone.now()})


def note_trouble(address: str, why: str) -> int:
    """That mail to an address does not arrive; returns at how many students' pages it is shown."""
    at = address.strip().lower()
    if not at:
        return 0
    theirs = Student.objects.filter(email__iexact=at) | Student.objects.filter(guardian_email__iexact=at)
    pages = [page_of(each) for each in theirs]
    StudentPage.objects.filter(pk__in=[page.pk for page in pages]).update(mail_trouble=why[:300])
    return len(pages)
