"""What other apps may ask about people."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any
from uuid import UUID

from django.db.models import Exists, OuterRef, QuerySet
from django.dispatch import Signal
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.people.models import Student, StudentPage, User
from tropometer.server.people.schemas import StudentNew
from tropometer.server.teaching.services import model_of

# What all of a student's swings are read and judged by was said anew: height, hand, model; `student_id`.
student_changed = Signal()


def has_account(email: str) -> bool:
    """Whether somebody signs in with this address."""
    return User.objects.filter(email=email.strip().lower()).exists()


def make_account(email: str, name: str, password: str) -> User:
    """A new instructor."""
    return User.objects.create_user(email, name, password)


def add(instructor: User, data: StudentNew) -> Student:
    """Somebody new to teach; sent again, because the answer was lost, it says what was sent last."""
    fields = data.dict()
    model_of(instructor, data.teaching_model)
    student, added = Student.objects.get_or_create(
        pk=fields.pop("id"), defaults={"instructor": instructor, **fields}
    )
    if not added:
        student = student_of(instructor, student.pk)
        change(student, fields)
    return student


def change(student: Student, fields: dict[str, Any]) -> None:
    """Say anew who a student is; BookError where there is no such teaching model."""
    model_of(student.instructor, fields["teaching_model"])
    before = student.addresses
    judged_by = student.stature_m, student.hand, student.teaching_model
    for field, value in fields.items():
        setattr(student, field, value)
    student.save(update_fields=list(fields))
    if (student.stature_m, student.hand, student.teaching_model) != judged_by:
        student_changed.send(None, student_id=student.pk)
    if student.addresses != before:  # what came back came from elsewhere
        StudentPage.objects.filter(student=student).update(mail_trouble="")


def students_of(instructor: User) -> QuerySet[Student]:
    """The instructor's students, but for those in the bin."""
    return Student.objects.filter(instructor=instructor, removed_at__isnull=True)


def has_swing(**like: Any) -> Exists:
    """That a student has such a swing, which is not in the bin."""
    swings = Student._meta.get_field("swings").related_model._default_manager
    return Exists(swings.filter(student=OuterRef("pk"), removed_at__isnull=True, **like))


def student_of(instructor: User, id: UUID) -> Student:
    """One of the instructor's students, or Http404."""
    return owned(students_of(instructor), id)


def archive(student: Student, archived: bool) -> None:
    """Take a student off the lists of those who are taught, or bring them back; all that is theirs stays."""
    since = (student.archived_at or timezone.now()) if archived else None
    Student.objects.filter(pk=student.pk).update(archived_at=since)


def remove(student: Student) -> None:
    """Put a student into the bin, to be taken back for a while; their links close at once."""
    Student.objects.filter(pk=student.pk).update(removed_at=timezone.now())


def removed_students() -> QuerySet[Student]:
    """All students in bins, whoever's they are."""
    return Student.objects.filter(removed_at__isnull=False)


def accounts_by_id(ids: Iterable[UUID]) -> QuerySet[User]:
    """Instructors, for the upkeep."""
    return User.objects.filter(pk__in=ids)


def account_of(email: str) -> User | None:
    """Who signs in with this address."""
    return User.objects.filter(email=email.strip().lower()).first()


def students_by_id(ids: Iterable[UUID]) -> QuerySet[Student]:
    """Students whoever's they are, for the upkeep."""
    return Student.objects.filter(pk__in=ids)
