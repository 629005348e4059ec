"""The student answers: practice ticked, questions asked, news by mail, one lasting page and nobody else's."""

from __future__ import annotations

import re
from base64 import b64encode
from datetime import date, datetime, timedelta
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.conf import settings
from django.core import mail
from django.core.cache import cache
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tests.server.test_lessons import LessonCase
from tests.server.voices import counted, recorded
from tropometer.server.operations.sweep import sweep
from tropometer.server.people.models import Student, StudentPage
from tropometer.server.talking.models import Message, Practised, Side
from tropometer.server.talking.tasks import mail_code, tell

DRILL = "stick_by_the_hip"


class TalkingCase(LessonCase):
    """A student whose lesson was sent, holding the link to their page."""

    def setUp(self) -> None:
        super().setUp()
        cache.clear()
        link = self.sent()["link"].rsplit("/", 1)[1]
        self.client.logout()
        self.sheet = self.call("GET", f"/api/sheets/{link}")
        self.page = f"/api/pages/{self.sheet['page']}"
        self.student = Student.objects.get()
        self.thread = f"/api/students/{self.student.pk}"

    def ask(self, words: str = "Is it the hip?", status: int = 201, **more: Any) -> Any:
        return self.call(
            "POST", f"{self.page}/messages", {"id": str(uuid4()), "words": words, **more}, status
        )

    def tick(self, day: date | None = None, status: int = 200, id: str = "", **more: Any) -> Any:
        said = {"drill": DRILL, "day": str(day or timezone.localdate()), **more}
        return self.call("PUT", f"{self.page}/practised/{id or uuid4()}", said, status)

    def as_instructor(self) -> None:
        self.client.force_login(self.owner)

    def answer(self, words: str = "Yes.") -> Any:
        self.as_instructor()
        said = self.call("POST", f"{self.thread}/messages", {"id": str(uuid4()), "words": words}, 201)
        self.client.logout()
        return said

    def waiting(self) -> list[Any]:
        self.as_instructor()
        found: list[Any] = self.call("GET", "/api/waiting")
        self.client.logout()
        return found

    def run_news(self, at: datetime | None = None) -> int:
        """What the worker does until a time with the news that wait; returns how many mails went."""
        before = len(mail.outbox)
        due = ProcrastinateJob.objects.filter(task_name=tell.name, status="todo")
        for job in due.filter(scheduled_at__lte=at or timezone.now() + timedelta(minutes=2)):
            ProcrastinateJob.objects.filter(pk=job.pk)._raw_delete("default")  # type: ignore[attr-defined]
            tell(**job.args)
        return len(mail.outbox) - before


class PracticeTests(TalkingCase):
    def test_a_drill_is_ticked_once_a_day_from_however_many_phones(self) -> None:
        id = str(uuid4())
        self.tick(id=id)
        self.tick(id=id, words="Easier.")
        self.tick(words="From the other phone.")
        (kept,) = self.call("GET", self.page)["practised"]
        self.assertEqual((kept["id"], kept["words"]), (id, "From the other phone."))
        self.assertEqual(kept["name"], "Stick by the right (back) hip")
        self.tick(timezone.localdate() - timedelta(days=1))
        self.assertEqual(len(self.call("GET", self.page)["practised"]), 2)
        self.call("DELETE", f"{self.page}/practised/{id}", status=204)
        self.call("DELETE", f"{self.page}/practised/{id}", status=204)  # the answer was lost
        self.assertEqual(len(self.call("GET", self.page)["practised"]), 1)

    def test_what_is_felt_in_the_low_back_brings_a_caution_and_tells_the_instructor(self) -> None:
        self.assertEqual(self.tick(places=["trail_seat", "trail_thigh_inside"])["cautions"], [])
        self.assertEqual(self.waiting(), [])
        felt = self.tick(places=["trail_seat", "low_back"])
        self.assertTrue(felt["tick"]["speaks_up"])
        self.assertIn("low back", felt["cautions"][0].lower())
        (entry,) = self.waiting()
        self.assertEqual(entry["felt"][0]["places"], ["trail_seat", "low_back"])
        self.assertEqual(self.run_news(), 1)
        self.assertIn("low back", mail.outbox[-1].body)
        self.tick(places=["low_back"], words="Still.")  # known already
        self.assertEqual(self.run_news(timezone.now() + timedelta(days=3)), 0)
        self.tick(places=["low_back", "lead_knee"])
        self.assertEqual(self.run_news(timezone.now() + timedelta(days=3)), 1)

    def test_nonsense_is_named(self) -> None:
        for said, where in (
            ({"day": "2020-01-01"}, "day"),
            ({"places": ["third_elbow"]}, "places.0"),
            ({"words": "x" * 100_000}, "words"),
        ):
            with self.subTest(said=said):
                self.assertIn(where, self.tick(**{"status": 422, "day": None} | said)["detail"])  # type: ignore[arg-type]
        self.tick(drill="moonwalk", status=404)
        id = self.tick()["tick"]["id"]
        self.assertIn("id", self.tick(timezone.localdate() - timedelta(days=1), status=422, id=id)["detail"])
        self.call("DELETE", f"{self.page}/practised/{id}", status=204)
        self.assertEqual(Practised.objects.count(), 0)


class ThreadTests(TalkingCase):
    def test_a_question_waits_until_it_is_answered_or_needs_no_answer(self) -> None:
        self.ask("Is it the hip?", lesson_id=self.sheet["lesson_id"])
        (entry,) = self.waiting()
        self.assertEqual([q["words"] for q in entry["questions"]], ["Is it the hip?"])
        self.answer()
        self.assertEqual(self.waiting(), [])
        self.ask("Thanks!")
        self.as_instructor()
        settled = self.call("POST", f"{self.thread}/thread/settled")
        self.assertEqual(self.call("GET", "/api/waiting"), [])
        self.call("POST", f"{self.thread}/thread/unsettled", settled, 204)
        self.assertEqual(len(self.call("GET", "/api/waiting")), 1)
        said = self.call("GET", f"{self.thread}/thread")["messages"]
        self.assertEqual([each["side"] for each in said], ["student", "instructor", "student"])

    def test_a_question_is_spoken_evened_out_and_heard_by_both_only(self) -> None:
        voice = b64encode(recorded(counted(2))).decode()
        said = self.ask("", voice=voice)
        self.assertAlmostEqual(said["voice_ms"], 2000, delta=60)
        heard = self.client.get(f"{self.page}/messages/{said['id']}/voice.m4a")
        self.assertEqual((heard.status_code, heard["Content-Type"]), (200, "audio/mp4"))
        address = f"{self.thread}/messages/{said['id']}/voice.m4a"
        self.assertEqual(self.client.get(address).status_code, 401)
        self.client.force_login(making.instructor("Odd Stranger"))
        self.assertEqual(self.client.get(address).status_code, 404)
        self.as_instructor()
        self.assertEqual(self.client.get(address).status_code, 200)
        stored = [name for name in self.files() if name.startswith("talking/")]
        sweep(timedelta(0))
        self.assertEqual(len([name for name in self.files() if name in stored]), 1)
        with self.captureOnCommitCallbacks(execute=True):
            self.student.delete()
        self.assertEqual([name for name in self.files() if name.startswith("talking/")], [])

    def test_what_is_no_question_is_refused_and_what_comes_twice_is_there_once(self) -> None:
        id = str(uuid4())
        for _ in range(2):
            self.call("POST", f"{self.page}/messages", {"id": id, "words": "Once?"}, 201)
        self.assertIn("words", self.ask("  ", 422)["detail"])
        self.assertIn("words", self.ask("x" * 100_000, 422)["detail"])
        self.assertIn("voice", self.ask("", 422, voice="no base64!")["detail"])
        self.assertIn("voice", self.ask("", 422, voice=b64encode(b"<script>").decode())["detail"])
        self.assertEqual(Message.objects.count(), 1)
        self.answer()
        theirs = str(Message.objects.get(side=Side.INSTRUCTOR).pk)
        self.call("POST", f"{self.page}/messages", {"id": theirs, "words": "Taken over"}, 404)

    def test_the_instructor_who_looks_at_the_page_leaves_no_trace_on_it(self) -> None:
        StudentPage.objects.update(opened_at=None)
        self.answer("Look.")
        self.as_instructor()
        self.call("GET", self.page)
        self.call("PUT", f"{self.page}/seen", {"until": str(timezone.now())}, 204)
        self.ask("Me?", 409)
        self.assertEqual(StudentPage.objects.filter(opened_at__isnull=False).count(), 0)
        self.assertIsNone(Message.objects.get().seen_at)
        self.client.logout()
        self.call("GET", self.page)
        self.call("PUT", f"{self.page}/seen", {"until": str(timezone.now())}, 204)
        self.assertEqual(StudentPage.objects.filter(opened_at__isnull=False).count(), 1)
        self.assertIsNotNone(Message.objects.get().seen_at)


class MailTests(TalkingCase):
    def test_news_come_once_a_day_a_thread_unless_more_is_asked_for(self) -> None:
        self.ask("First?")
        self.ask("Second?")
        self.assertEqual(self.run_news(), 1)
        (told,) = mail.outbox[-1:]
        self.assertEqual(told.to, [self.owner.email])
        self.assertIn("First?\n\nSecond?", told.body)
        self.assertIn("/account", told.extra_headers["List-Unsubscribe"])
        self.ask("Third?")
        self.assertEqual(self.run_news(), 0)
        self.assertEqual(self.run_news(timezone.now() + timedelta(hours=25)), 1)
        self.owner.mail_wish = "each"
        self.owner.save()
        self.ask("Fourth?")
        self.assertEqual(self.run_news(), 1)

    def test_what_was_seen_meanwhile_is_not_told(self) -> None:
        self.answer("Turn around it.")
        self.call("PUT", f"{self.page}/seen", {"until": str(timezone.now())}, 204)
        self.assertEqual(self.run_news(), 0)

    def test_every_mail_can_be_turned_off_and_the_desk_says_so(self) -> None:
        self.call("PUT", f"{self.page}/mail", {"mail_wish": "off"}, 204)
        self.answer()
        self.run_mail()
        self.assertEqual((self.run_news(), mail.outbox), (0, []))
        self.as_instructor()
        self.assertIn("wants no mails", self.call("GET", self.path)["mail_trouble"])
        self.call("PATCH", "/api/me", {"mail_wish": "off"})
        self.client.logout()
        self.ask()
        self.assertEqual(self.run_news(), 0)

    def test_a_minor_s_guardian_gets_the_mails_too(self) -> None:
        about = {"minor": True, "guardian": "Liv", "guardian_email": "liv@skerrow.example"}
        Student.objects.update(**about, consent_on="2026-01-01")
        self.run_mail()
        self.assertEqual(mail.outbox[-1].to, ["tobin@skerrow.example", "liv@skerrow.example"])
        self.answer()
        self.run_news()
        self.assertEqual(mail.outbox[-1].to, ["tobin@skerrow.example", "liv@skerrow.example"])

    def test_a_swing_that_came_by_a_link_is_news(self) -> None:
        token = self.call("POST", f"{self.page}/sending")["token"]
        self.assertEqual(self.call("POST", f"{self.page}/sending")["token"], token)
        self.assertEqual(self.call("GET", f"/api/sent/{token}")["student"], "Tobin Farrow")
        swing = self.clip.swing.__class__
        swing.objects.create(instructor=self.owner, student=self.student, sent_by=self.student.requests.get())
        self.assertEqual(self.run_news(), 1)
        self.assertIn("1 new swing", mail.outbox[-1].body)


class PageTests(TalkingCase):
    def code_for(self, address: str) -> str | None:
        self.call("POST", "/api/pages/code", {"email": address}, 204)
        before = len(mail.outbox)
        for job in ProcrastinateJob.objects.filter(task_name=mail_code.name):
            ProcrastinateJob.objects.filter(pk=job.pk)._raw_delete("default")  # type: ignore[attr-defined]
            mail_code(**job.args)
        if len(mail.outbox) == before:
            return None
        return mail.outbox[-1].body.split()[0]

    def enter(self, address: str, code: str, status: int = 200) -> Any:
        return self.call("POST", "/api/pages/enter", {"email": address, "code": code}, status)

    def test_the_page_holds_all_of_one_student_and_nothing_of_another(self) -> None:
        other = making.student(self.owner, name="Ilse Marrin", email="ilse@skerrow.example")
        making.marked_swing(self.owner, other)
        Message.objects.create(student=other, side=Side.STUDENT, words="Mine alone")
        page = self.call("GET", self.page)
        self.assertEqual([each["id"] for each in page["lessons"]], [self.sheet["lesson_id"]])
        self.assertEqual([focus["fault"] for focus in page["focus"]], ["sways"])
        self.assertEqual(page["swings"][0]["clips"], [str(self.clip.pk)])
        self.assertEqual((page["messages"], len(page["swings"])), ([], 1))
        for path in (f"clips/{self.clip.pk}.mp4", f"clips/{self.clip.pk}.jpg"):
            self.assertEqual(self.client.get(f"{self.page}/{path}").status_code, 200, path)
        theirs = StudentPage.objects.create(student=other)
        self.assertEqual(
            self.client.get(f"/api/pages/{theirs.token}/clips/{self.clip.pk}.mp4").status_code, 404
        )

    def test_renewing_and_closing_shut_every_way_in(self) -> None:
        lesson = self.call("GET", self.page)["lessons"][0]["token"]
        sending = self.call("POST", f"{self.page}/sending")["token"]
        old = [self.page, f"/api/sheets/{lesson}", f"/api/sent/{sending}"]
        self.as_instructor()
        link = self.call("POST", f"{self.thread}/page")["link"]
        self.client.logout()
        for path in old:
            self.call("GET", path, status=404)
        self.page = f"/api/pages/{link.rsplit('/', 1)[1]}"
        lesson = self.call("GET", self.page)["lessons"][0]["token"]
        self.call("GET", f"/api/sheets/{lesson}")
        self.as_instructor()
        self.assertIsNone(self.call("DELETE", f"{self.thread}/page")["link"])
        self.client.logout()
        for path in (self.page, f"/api/sheets/{lesson}"):
            self.call("GET", path, status=404)
        self.assertIsNone(self.code_for("tobin@skerrow.example"))

    def test_a_code_by_mail_opens_the_pages_of_that_address_once(self) -> None:
        making.student(self.owner, name="Ada Farrow", email="Tobin@skerrow.example")
        code = self.code_for("TOBIN@skerrow.example")
        assert code is not None
        self.assertIn("Ada Farrow, Tobin Farrow", mail.outbox[-1].body)
        self.assertIn("code", self.enter("tobin@skerrow.example", "WRONG-1", 422)["detail"])
        found = self.enter("tobin@skerrow.example", code.lower())
        self.assertEqual([each["student"] for each in found], ["Ada Farrow", "Tobin Farrow"])
        self.enter("tobin@skerrow.example", code, 422)  # it opens once

    def test_codes_tell_nobody_who_has_a_page_and_bear_no_guessing(self) -> None:
        self.assertIsNone(self.code_for("nobody@skerrow.example"))  # with the same answer
        code = self.code_for("tobin@skerrow.example")
        assert code is not None
        for _ in range(5):
            self.enter("tobin@skerrow.example", "AAAA-AAAA", 422)
        self.enter("tobin@skerrow.example", code, 422)
        for _ in range(4):
            self.code_for("tobin@skerrow.example")
        self.call("POST", "/api/pages/code", {"email": "tobin@skerrow.example"}, 429)

    def test_a_code_that_was_asked_for_long_ago_goes_to_nobody(self) -> None:
        making.student(self.owner, name="Wynn Osk", email="")
        self.call("POST", "/api/pages/code", {"email": "tobin@skerrow.example"}, 204)
        cache.clear()
        for job in ProcrastinateJob.objects.filter(task_name=mail_code.name):
            self.assertNotIn("tobin", str(job.args))
            mail_code(**job.args)
        self.assertEqual(mail.outbox, [])

    def test_a_code_runs_out(self) -> None:
        code = self.code_for("tobin@skerrow.example")
        assert code is not None
        with (
            patch("time.time", return_value=timezone.now().timestamp() + 16 * 60),
            patch(
                "django.core.cache.backends.db.tz_now", return_value=timezone.now() + timedelta(minutes=16)
            ),
        ):
            self.enter("tobin@skerrow.example", code, 422)

    def test_the_page_asks_for_few_queries_however_much_is_on_it(self) -> None:
        def asked() -> int:
            from django.db import connection
            from django.test.utils import CaptureQueriesContext

            with CaptureQueriesContext(connection) as seen:
                self.call("GET", self.page)
            return len(seen)

        few = asked()
        for days in range(1, 8):
            self.tick(timezone.localdate() - timedelta(days=days))
            self.ask(f"Question {days}?")
            making.marked_swing(self.owner, self.student)
        self.assertEqual(asked(), few)

    def test_mails_name_the_site_s_own_address_only(self) -> None:
        self.ask()
        self.run_news()
        links = re.findall(r"https?://\S+", mail.outbox[-1].body)
        self.assertTrue(links and all(link.startswith(settings.SITE_URL) for link in links))
