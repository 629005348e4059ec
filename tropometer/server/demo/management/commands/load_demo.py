"""Load the demo: a small practice on an invented island, with clips of made-up golfers."""

from __future__ import annotations

from datetime import timedelta
from typing import TYPE_CHECKING, Any

from django.core.files.base import ContentFile
from django.core.files.uploadedfile import UploadedFile
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from tropometer.server.bench.schemas import SwingIn, SwingKind
from tropometer.server.bench.services import keep_pressure, receive, receive_measured
from tropometer.server.clips.uploads import Sender
from tropometer.server.demo import hour, months, practice
from tropometer.server.demo.answers import Answer
from tropometer.server.demo.drawn import PRESSURE_FILE, arrived, mark, pressure_table, put_models_on_shelf
from tropometer.server.demo.hour import studio_hour
from tropometer.server.demo.replies import reply
from tropometer.server.demo.tasks import tell_more
from tropometer.server.judging.plans import sent_before as plan_sent_before
from tropometer.server.lessons.sending import sent_before
from tropometer.server.logbook.keeping import keep_measured
from tropometer.server.people import services as people
from tropometer.server.people.body import say_body
from tropometer.server.people.look import put_portrait
from tropometer.server.people.schemas import StudentNew

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.people.models import Student, User

ANSWERED_AFTER = timedelta(hours=20)


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        if people.has_account(practice.MAIL):
            self.stdout.write("The demo is already loaded; its data is kept.")
            return
        with transaction.atomic():
            instructor = people.make_account(practice.MAIL, practice.INSTRUCTOR, practice.PASSWORD)
            self._look(instructor)
            put_models_on_shelf(instructor)
            known = {student.name: self._student(instructor, student) for student in practice.STUDENTS}
            swings = [
                (swing, known[student.name]) for student in practice.STUDENTS for swing in student.swings
            ]
            for swing, student in sorted(swings, key=lambda pair: pair[0].days_ago):
                self._swing(instructor, student, swing)
            for name, past in months.MONTHS.items():
                self._months(known[name], past)
            studio_hour(known[hour.STUDENT])
            for student in known.values():
                reply(student)
        self.stdout.write("The demo is loaded; the worker is making its clips ready.")

    def _look(self, instructor: User) -> None:
        instructor.practice, instructor.heading = practice.PRACTICE, "sea"
        instructor.save(update_fields=["practice", "heading"])
        file = practice.PORTRAIT
        put_portrait(
            instructor, UploadedFile(ContentFile(file.read_bytes()), file.name, size=file.stat().st_size)
        )

    def _student(self, instructor: User, about: practice.DemoStudent) -> Student:
        data = StudentNew(
            name=about.name,
            email=about.mail,
            hand=about.hand,
            units=about.units,
            stature_m=about.stature_m,
            history=about.history,
            teaching_model=about.teaching_model,
            minor=bool(about.guardian),
            guardian=about.guardian,
            consent_on=about.consent_on,
        )
        student = people.add(instructor, data)
        if about.body is not None:
            say_body(student, about.body)
        return student

    def _swing(self, instructor: User, student: Student, about: practice.DemoSwing) -> None:
        data = SwingIn(
            club=about.club,
            club_class=practice.CLUBS[about.club],
            swing_length=about.swing_length,
            words=about.words,
            usual_miss=about.usual_miss,
            what_hurts=about.what_hurts,
            camera_place=about.camera_place,
            one_swing=about.one_swing,
            misses=list(about.misses),
            hurts=list(about.hurts),
            clips=[arrived(instructor, name) for name in about.clips],
        )
        received_at = timezone.now() - timedelta(days=about.days_ago)
        swing, _ = receive(Sender(instructor), student, data, received_at, about.drill)
        if about.marked:
            mark(swing, about.clips)
        if about.on_pressure_mat:
            keep_pressure(swing, PRESSURE_FILE, pressure_table(about.clips[0]), impact_s=0.0)
        if about.answer:
            self._answer(swing, about.answer)

    def _months(self, student: Student, past: months.Months) -> None:
        for days_ago, read in months.swings_of(student.name, past):
            received_at = timezone.now() - timedelta(days=days_ago)
            kind = SwingKind(club=past.club, club_class=practice.CLUBS[past.club], swing_length="full")
            swing = receive_measured(student, kind, months.NOT_KEPT, received_at)
            keep_measured(swing, read)
            if days_ago in past.lessons:
                self._sent(swing, past.lessons[days_ago])

    def _answer(self, swing: Swing, answer: Answer) -> None:
        self._sent(swing, answer)
        tell_more.defer(swing_id=str(swing.pk))

    def _sent(self, swing: Swing, answer: Answer) -> None:
        sent_at = swing.received_at + ANSWERED_AFTER
        plan_sent_before(swing, answer.plan(sent_at.date()), answer.values_then)
        sent_before(swing, answer.opening, sent_at, read_at=sent_at + timedelta(hours=3))
