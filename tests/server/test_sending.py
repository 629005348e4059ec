"""A lesson goes out once, whoever sends it how often, and can be taken back for a moment."""

import json
import smtplib
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.core import mail
from django.test import TestCase, TransactionTestCase, override_settings
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tropometer.server.bench.models import Swing
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.tasks import mail_lesson


def run_mail() -> None:
    """What the worker does with the jobs that wait."""
    for job in ProcrastinateJob.objects.filter(task_name=mail_lesson.name).order_by("id"):
        mail_lesson(**job.args)


class RaceTests(TransactionTestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        swing = Swing.objects.create(instructor=self.owner, student=making.student(self.owner))
        self.lesson = Lesson.objects.create(instructor=self.owner, swing=swing, opening="Good posture.")
        self.path = f"/api/lessons/{self.lesson.pk}"

    def at_once(self, *calls: tuple[str, str, Any]) -> list[int]:
        return [answer.status_code for answer in making.at_once(self.owner, *calls)]

    def test_four_sends_at_once_are_one_mail_with_a_link_that_leads_there(self) -> None:
        answers = self.at_once(*[("POST", f"{self.path}/send", {})] * 4)
        self.assertEqual(sorted(answers), [200, 409, 409, 409])
        run_mail()
        run_mail()  # a job that runs twice
        self.assertEqual(len(mail.outbox), 1)
        link = next(line for line in mail.outbox[0].body.splitlines() if "/l/" in line)
        self.assertEqual(self.client.get(f"/api/sheets/{link.rsplit('/', 1)[1]}").status_code, 200)

    def test_a_change_that_comes_with_the_sending_neither_unsends_nor_slips_in(self) -> None:
        for number in range(4):
            Lesson.objects.update(sent_at=None, token=None)
            change = {"opening": f"Change {number}"}
            sent, changed = self.at_once(("POST", f"{self.path}/send", {}), ("PATCH", self.path, change))
            self.assertEqual(sent, 200)
            lesson = Lesson.objects.get()
            self.assertIsNotNone(lesson.token)
            self.assertEqual(lesson.opening == change["opening"], changed == 200)


class SendingTests(TestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        self.swing = Swing.objects.create(instructor=self.owner, student=making.student(self.owner))
        self.lesson = Lesson.objects.create(instructor=self.owner, swing=self.swing, opening="Good posture.")
        self.path = f"/api/lessons/{self.lesson.pk}"
        self.client.force_login(self.owner)

    def call(self, method: str, path: str = "", body: Any = None, status: int = 200) -> Any:
        answer = self.client.generic(
            method, self.path + path, json.dumps(body or {}), content_type="application/json"
        )
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json()

    def test_a_sent_lesson_is_a_draft_again_within_half_a_minute(self) -> None:
        sent = self.call("POST", "/send")
        self.assertAlmostEqual(sent["seconds_to_take_back"], 30, delta=5)
        scheduled = ProcrastinateJob.objects.get(task_name=mail_lesson.name).scheduled_at
        assert scheduled is not None
        self.assertAlmostEqual((scheduled - timezone.now()).total_seconds(), 30, delta=5)
        back = self.call("POST", "/take-back")
        self.assertEqual((back["sent_at"], back["link"]), (None, None))
        self.swing.refresh_from_db()
        self.assertIsNone(self.swing.answered_at)
        run_mail()  # the job of the sending that was taken back
        self.assertEqual(mail.outbox, [])
        self.call("PATCH", body={"opening": "Better words."})
        self.call("POST", "/send")
        run_mail()  # both jobs
        self.assertEqual(len(mail.outbox), 1)
        self.assertIn("The mail has gone", self.call("POST", "/take-back", status=409)["detail"])

    def test_after_that_it_is_too_late(self) -> None:
        self.call("POST", "/send")
        Lesson.objects.update(sent_at=timezone.now() - timedelta(seconds=31))
        self.call("POST", "/take-back", status=409)

    def test_a_mail_server_that_is_away_is_said_and_tried_again(self) -> None:
        self.call("POST", "/send")
        away = patch("django.core.mail.EmailMessage.send", side_effect=smtplib.SMTPServerDisconnected("away"))
        with away, self.assertRaises(OSError):
            run_mail()
        self.assertEqual(self.call("GET")["mail_trouble"], "away")
        self.call("POST", "/mail")
        run_mail()
        found = self.call("GET")
        self.assertEqual((found["mail_trouble"], len(mail.outbox)), ("", 1))
        self.assertIsNotNone(found["mailed_at"])

    def test_a_title_of_two_lines_is_refused_and_an_old_one_does_not_stop_the_mail(self) -> None:
        refused = self.call("PATCH", body={"title": "Two\nlines"}, status=422)
        self.assertEqual(refused["fields"], [{"field": "title", "message": "it must be one line"}])
        Lesson.objects.update(title="Two\nlines")
        self.call("POST", "/send")
        run_mail()
        self.assertEqual(mail.outbox[0].subject, "Maren Thole: Two lines")

    def test_a_frame_sent_twice_is_put_in_once(self) -> None:
        with override_settings():
            clip = making.ready_clip(self.owner, self.swing)
            body = {"id": "11111111-1111-4111-8111-111111111111", "clip_id": str(clip.pk), "frame": 3}
            with patch("tropometer.server.lessons.services.still", return_value=b"\xff\xd8"):
                for _ in range(2):
                    frames = self.call("POST", "/frames", body)["frames"]
            self.assertEqual([frame["id"] for frame in frames], [body["id"]])
