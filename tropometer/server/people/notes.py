"""What an instructor notes of a student."""

from uuid import UUID

from django.db.models import QuerySet
from django.http import Http404

from tropometer.server.people.models import Student, StudentNote
from tropometer.server.people.schemas import NoteIn


def notes_of(student: Student) -> QuerySet[StudentNote]:
    """The latest day first."""
    return StudentNote.objects.filter(student=student)


def note(student: Student, id: UUID, said: NoteIn) -> StudentNote:
    """Keep a note, or put it otherwise; `id` is the sender's name for it. Http404 for somebody else's."""
    found = StudentNote.objects.filter(pk=id).first() or StudentNote(pk=id, student=student)
    if found.student_id != student.pk:
        raise Http404("There is no such note here.")
    found.day, found.words = said.day, said.words.strip()
    found.save()
    return found


def forget(student: Student, id: UUID) -> None:
    """Take a note away; one that is not there any more is no trouble."""
    StudentNote.objects.filter(student=student, pk=id).delete()
