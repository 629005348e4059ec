"""Whose lesson it is: a look of the instructor's own, a student's own units, and what changed since then."""

from __future__ import annotations

import math
from datetime import timedelta
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from tests.server.test_lessons import LessonCase
from tests.server.test_showing import picture
from tests.server.test_talking import TalkingCase
from tropometer.server.bench.models import Swing
from tropometer.server.judging.models import Plan
from tropometer.server.lessons.models import Lesson, SentSheet
from tropometer.server.operations.sweep import sweep
from tropometer.server.people.models import Student, User, new_token
from tropometer.server.talking.then_and_now import then_and_now


class LookTests(LessonCase):
    def show(self, name: str, content: bytes, status: int = 200) -> Any:
        with self.captureOnCommitCallbacks(execute=True):
            answer = self.client.post("/api/me/portrait", {"file": SimpleUploadedFile(name, content)})
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def test_a_picture_a_name_and_a_colour_stand_over_what_students_read_until_they_are_taken_away(
        self,
    ) -> None:
        self.call("PATCH", "/api/me", {"practice": "Skerrow Range", "heading": "sea"})
        self.call("PATCH", "/api/me", {"heading": "crimson"}, 422)
        self.assertIn("notes.txt", self.show("notes.txt", b"no picture at all", 422)["detail"])
        first = self.show("me.jpg", picture(120))["look"]["portrait"]
        (kept,) = [name for name in self.files() if name.startswith("portraits/")]
        again = self.show("me2.jpg", picture(20))["look"]["portrait"]
        self.assertNotEqual(first, again)
        sweep()
        self.assertEqual(len([name for name in self.files() if name.startswith("portraits/")]), 1)
        self.assertNotIn(kept, self.files())  # one that was replaced is gone
        token = self.sent()["link"].rsplit("/", 1)[1]
        self.client.logout()
        sheet = self.call("GET", f"/api/sheets/{token}")
        look = sheet["look"]
        self.assertEqual((look["practice"], look["heading"]), ("Skerrow Range", "sea"))
        self.assertEqual(self.client.get(look["portrait"])["Content-Type"], "image/webp")
        self.assertEqual(self.client.get("/api/me/portrait.webp").status_code, 401)
        for base in ("sheets", "pages"):
            self.assertEqual(self.client.get(f"/api/{base}/{'x' * 43}/portrait.webp").status_code, 404)
        page = self.call("GET", f"/api/pages/{sheet['page']}")["look"]
        self.assertEqual(self.client.get(page["portrait"]).status_code, 200)
        self.client.force_login(self.owner)
        with self.captureOnCommitCallbacks(execute=True):
            self.call("DELETE", "/api/me/portrait", status=204)
        self.assertEqual([name for name in self.files() if name.startswith("portraits/")], [])
        self.assertIsNone(self.call("GET", f"/api/sheets/{token}")["look"]["portrait"])
        self.assertEqual(self.client.get(look["portrait"]).status_code, 404)

    def test_a_student_reads_in_units_of_their_own(self) -> None:
        student = Student.objects.get()
        about = {"name": student.name, "email": student.email, "hand": student.hand}
        self.call("PUT", f"/api/students/{student.pk}", about | {"units": "feet"}, 422)
        self.call("PUT", f"/api/students/{student.pk}", about | {"units": "in"})
        goal = {"reading": "pelvis_sway", "at": "top", "low": -0.06, "high": -0.005}
        self.call("PUT", f"/api/swings/{self.clip.swing_id}/decisions/sways", {"decision": "accepted"}, 204)
        plan = {"focus": [{"fault": "sways", "drills": [], "goal": goal}]}
        self.call("PUT", f"/api/swings/{self.clip.swing_id}/plan", {"plan": plan}, 204)
        self.add(5)
        token = self.post(f"{self.path}/send")["link"].rsplit("/", 1)[1]
        sheet = self.call("GET", f"/api/sheets/{token}")
        self.assertEqual(sheet["units"], "in")
        self.assertRegex(sheet["plan"]["focus"][0]["words"], r"\d in\b")
        self.assertEqual(User.objects.get().units, "cm")
        self.assertEqual(self.call("GET", f"/api/pages/{sheet['page']}")["units"], "in")

    def test_the_heading_comes_with_the_page_is_nothing_but_words_and_goes_with_the_link(self) -> None:
        self.call("PATCH", self.path, {"title": "Turn <b>then</b> post"})
        token = self.sent()["link"].rsplit("/", 1)[1]
        self.client.logout()
        page = self.client.get(f"/l/{token}")
        self.assertContains(page, "Turn &lt;b&gt;then&lt;/b&gt; post")
        self.assertContains(page, f'href="/api/sheets/{token}"')  # asked for with the scripts, not after them
        self.assertContains(page, 'rel="modulepreload"')
        self.assertIn("no-store", page["Cache-Control"])
        self.assertIsNone(Lesson.objects.get().first_read_at)  # a heading is no lesson
        Lesson.objects.update(revoked_at=timezone.now(), token=None)
        self.assertNotContains(self.client.get(f"/l/{token}"), "Turn")


class ThenAndNowTests(TalkingCase):
    def read_in(self, value: float, days_ago: int) -> Lesson:
        """A lesson that was sent with a reading of the hips at the top, 1.3 cm sure."""
        at = timezone.now() - timedelta(days=days_ago)
        swing = Swing.objects.create(instructor=self.owner, student=self.student)
        Swing.objects.filter(pk=swing.pk).update(received_at=at, answered_at=at)
        swing.refresh_from_db()
        lesson = Lesson.objects.create(instructor=self.owner, swing=swing, sent_at=at, token=new_token())
        key = {"reading": "pelvis_sway", "at": "top", "low": -0.06, "high": -0.005}
        read = {"value": value, "u95": 0.013}
        focus = {"name": "Sways", "goal": {**key, "by": None, "unit": "m", "then": read}}
        row = {**key, "unit": "m", **read}
        plan = {"focus": [focus], "measured": [row, {**row, "reading": "tempo", "at": "swing"}]}
        SentSheet.objects.create(lesson=lesson, number=1, sent_at=at, document={"plan": plan, "frames": []})
        return lesson

    def test_a_goal_is_told_then_and_now_and_a_change_only_where_it_is_one(self) -> None:
        """The least change that shows: Weir 2005, J Strength Cond Res 19:231, of two errors of 1.3 cm."""
        error = math.hypot(0.013, 0.013)
        first, middle = self.read_in(-0.124, 30), self.read_in(-0.09, 15)
        (row,) = then_and_now(self.student, [self.read_in(-0.05, 2), middle, first])
        self.assertEqual(row["goal"]["reading"], "pelvis_sway")  # a measure that was no goal is not told
        self.assertEqual((row["then_on"], row["change"]["then"]), (first.swing.received_at, -0.124))
        self.assertAlmostEqual(row["change"]["now"], -0.05)
        self.assertEqual(row["change"]["moved"], "toward")
        self.assertGreater(row["change"]["u95"], error)  # the golfer's own scatter comes on top
        (row,) = then_and_now(self.student, [self.read_in(-0.124 + error, 1), first])
        self.assertEqual(row["change"]["moved"], "unsure")
        self.assertEqual(then_and_now(self.student, [first]), [])
        told = self.call("GET", self.page)["then_and_now"]
        self.assertEqual([each["name"] for each in told], ["Sways"])

    def test_a_goal_is_told_while_a_link_leads_to_its_lesson(self) -> None:
        lesson = self.read_in(-0.124, 30)
        goal = {"reading": "pelvis_sway", "at": "top", "low": -0.06, "high": -0.005, "by": None, "unit": "m"}
        focus = {"fault": "sways", "name": "Sways", "words": "", "drills": [], "cautions": []}
        as_sent = {"model": "x", "focus": [focus | {"goal": goal | {"then": None}}]}
        Plan.objects.create(swing=lesson.swing, document={"focus": []}, as_sent=as_sent)
        (told,) = self.call("GET", self.page)["goals"]
        self.assertEqual((told["name"], told["state"]), ("Sways", "no_swing_since"))
        Lesson.objects.update(token=None)
        self.assertEqual(self.call("GET", self.page)["goals"], [])
