"""What other apps may ask about people."""

from uuid import UUID

from tropometer.server.access import owned
from tropometer.server.people.models import Student, User


def student_of(instructor: User, id: UUID) -> Student:
    """One of the instructor's students, or Http404."""
    return owned(instructor.students.all(), id)
