"""How soon a page of a long list is there. Run by ./tropo bench lists."""

import random
import time
from collections.abc import Iterator
from datetime import timedelta

import numpy as np
from django.db import connection
from django.test import TestCase, tag
from django.utils import timezone

from tests.server import making
from tropometer.server.bench.models import Swing
from tropometer.server.judging.models import FoundFault
from tropometer.server.lessons.models import Lesson
from tropometer.server.logbook.models import LoggedReading
from tropometer.server.people.models import Student, User
from tropometer.swing.readings.register import KINDS

STUDENTS, SWINGS_EACH, TIMES = 5000, 10, 7
LONG_LOG = 300  # swings of one student
LISTS = (
    ("students", "students?limit=24&offset=0"),
    ("the last page of them", "students?limit=24&offset=4968"),
    ("students by a name", "students?q=Farrow%204711"),
    ("students whose swings wait", "students?show=waiting"),
    ("students with a driver, left-handed", "students?club_class=driver&hand=left"),
    ("swings that wait", "swings?waiting=true&limit=24&offset=0"),
    ("all swings by student", "swings?order=name&limit=24&offset=24000"),
    ("swings by words that one in seven has", "swings?q=ground%20first"),
    ("swings by words that few have", "swings?q=ground%20471"),
    ("swings with a finding", "swings?finding=sways"),
    ("swings of some days with a club", "swings?club_class=iron&since=2026-01-01&until=2026-03-31"),
    ("lessons", "lessons?limit=24&offset=0"),
    ("lessons not read yet, by student", "lessons?stands=unread&order=name"),
)


def swings_of(owner: User, students: list[Student]) -> Iterator[Swing]:
    """Ten swings a student over a year and a half, four fifths of them answered."""
    luck = random.Random(21)
    now = timezone.now()
    for student in students:
        for number in range(SWINGS_EACH):
            at = now - timedelta(days=luck.uniform(0, 540))
            yield Swing(
                instructor=owner,
                student=student,
                club="7 iron",
                club_class=luck.choice(["iron", "driver", "wedge"]),
                words="I keep hitting the ground first." if number % 7 == 0 else "It felt long.",
                received_at=at,
                answered_at=None if luck.random() < 0.2 else at + timedelta(days=1),
            )


@tag("bench")
class ListsBench(TestCase):
    def test_lists(self) -> None:
        owner = making.instructor()
        students = Student.objects.bulk_create(
            Student(instructor=owner, name=f"Tobin Farrow {n}", hand="left" if n % 8 == 0 else "right")
            for n in range(STUDENTS)
        )
        swings = Swing.objects.bulk_create(swings_of(owner, students), batch_size=2000)
        FoundFault.objects.bulk_create(
            (
                FoundFault(swing=swing, fault=fault, certainty=0.9)
                for n, swing in enumerate(swings)
                for fault in ("sways", "hangs_back", "stands_up")[: n % 4]
            ),
            batch_size=5000,
        )
        answered = [swing for swing in swings if swing.answered_at]
        Lesson.objects.bulk_create(
            (
                Lesson(instructor=owner, swing=swing, title="Your 7 iron", sent_at=swing.answered_at)
                for swing in answered
            ),
            batch_size=2000,
        )
        with connection.cursor() as cursor:
            cursor.execute("ANALYZE")
        self.client.force_login(owner)
        counts = f"{STUDENTS} students, {len(swings)} swings, {len(answered)} lessons"
        print(f"\n{counts}: ms (median, worst of {TIMES})")
        for words, path in LISTS:
            self._time(words, path)
        self._one_long_log(owner, students[0])

    def _one_long_log(self, owner: User, student: Student) -> None:
        """A student of 300 swings with 60 readings each."""
        now = timezone.now()
        swings = Swing.objects.bulk_create(
            Swing(instructor=owner, student=student, club_class="iron", received_at=now - timedelta(days=n))
            for n in range(LONG_LOG)
        )
        keys = [(kind.id, at) for kind in KINDS.values() for at in kind.at][:60]
        LoggedReading.objects.bulk_create(
            (
                LoggedReading(
                    swing=swing, reading=reading, at=at, value=n % 7, u95=1.0, set_up_share=0.2,
                    worst="mark", provisional=False, core="x",
                )
                for n, swing in enumerate(swings)
                for reading, at in keys
            ),
            batch_size=5000,
        )  # fmt: skip
        print(f"\none student, {LONG_LOG} swings of {len(keys)} readings")
        self._time("trends", f"students/{student.pk}/trends?club_class=iron")
        reading, at = keys[0]
        self._time(
            "one change, by its scatter",
            f"students/{student.pk}/change/{reading}/{at}?club_class=iron&since_first=true",
        )

    def _time(self, words: str, path: str) -> None:
        took, size = [], 0
        for _ in range(TIMES):
            began = time.perf_counter()
            answer = self.client.get(f"/api/{path}")
            took.append((time.perf_counter() - began) * 1000)
            self.assertEqual(answer.status_code, 200, answer.content)
            size = len(answer.content)
        print(f"  {words:<44}{np.median(took):7.0f}{max(took):7.0f}{size / 1000:9.0f} kB")
