"""A lesson is written, sent once, read by its link only, and taken back."""

import json
from typing import Any
from uuid import uuid4

from django.core import mail
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tropometer.server.bench.models import Mark, Peg
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.tasks import mail_lesson


class LessonCase(making.MediaCase):
    """A swing whose lesson is begun."""

    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.clip = making.with_picture(making.marked_swing(self.owner), self.media)
        shift = Peg.objects.get(clip=self.clip, name="top").frame - 5  # the small picture has ten frames
        Peg.objects.filter(clip=self.clip, name="top").update(frame=5)
        Mark.objects.filter(clip=self.clip, frame=5 + shift).update(frame=5)
        self.client.force_login(self.owner)
        self.lesson = self.post(f"/api/swings/{self.clip.swing_id}/lesson")

    def call(self, method: str, path: str, body: Any = None, status: int = 200) -> Any:
        answer = self.client.generic(method, path, json.dumps(body or {}), content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json() if answer.content else None

    def post(self, path: str, body: Any = None, status: int = 200) -> Any:
        return self.call("POST", path, body, status)

    @property
    def path(self) -> str:
        return f"/api/lessons/{self.lesson['id']}"

    def add(self, frame: int) -> Any:
        body = {"clip_id": str(self.clip.pk), "frame": frame, "words": f"See frame {frame}"}
        return self.post(f"{self.path}/frames", body)

    def run_mail(self) -> None:
        """What the worker does with the jobs that wait."""
        for job in ProcrastinateJob.objects.filter(task_name=mail_lesson.name):
            mail_lesson(**job.args)

    def sent(self) -> Any:
        self.add(5)
        self.call("PATCH", self.path, {"opening": "Good posture."})
        plan = {"focus": [{"fault": "sways", "drills": [{"drill": "stick_by_the_hip", "dose": "ten"}]}]}
        swing = f"/api/swings/{self.clip.swing_id}"
        self.call("PUT", f"{swing}/decisions/sways", {"decision": "accepted"}, 204)
        self.call("PUT", f"{swing}/plan", {"plan": plan}, 204)
        return self.post(f"{self.path}/send")


class LessonTests(LessonCase):
    def test_a_frame_carries_what_was_drawn_even_when_marks_move_later(self) -> None:
        drawn = self.add(5)["frames"][0]["drawn"]
        values = {value["reading"]: value["value"] for value in drawn["values"]}
        self.assertEqual(drawn["checkpoint"], "top")
        self.assertLess(values["pelvis_sway"], -0.1)
        self.assertEqual({shape["frame"] for g in drawn["gauges"] for shape in g["shapes"]}, {5})
        Mark.objects.filter(clip=self.clip, frame=5).delete()
        self.assertEqual(self.call("GET", self.path)["frames"][0]["drawn"], drawn)

    def test_only_the_gauges_that_were_shown_are_drawn(self) -> None:
        body = {"clip_id": str(self.clip.pk), "frame": 5, "gauges": ["belt_line", "trail_plumb"]}
        drawn = self.post(f"{self.path}/frames", body)["frames"][0]["drawn"]
        self.assertEqual({gauge["id"] for gauge in drawn["gauges"]}, {"belt_line", "trail_plumb"})

    def test_chalk_goes_with_the_frame_on_which_it_was_drawn(self) -> None:
        ends = [{"x": 10.0, "y": 20.0}, {"x": 60.0, "y": 20.0}]
        stroke = {"clip": str(self.clip.pk), "tool": "arrow", "points": ends, "text": None}
        here, elsewhere = ({**stroke, "id": str(uuid4()), "frame": frame} for frame in (5, 6))
        body = {"clip_id": str(self.clip.pk), "frame": 5, "chalk": [here, elsewhere]}
        (frame,) = self.post(f"{self.path}/frames", body)["frames"]
        self.assertEqual(frame["drawn"]["chalk"], [here])
        endless = {**here, "points": ends * 3000}
        self.post(f"{self.path}/frames", body | {"chalk": [endless]}, 422)

    def test_what_a_killed_browser_sends_again_is_not_done_again(self) -> None:
        """Each change is taken once by its id, and stays undone when it was undone since."""
        first, second = ({"id": str(uuid4()), "opening": words} for words in ("First.", "Second."))
        for change in (first, second, first):
            self.call("PATCH", self.path, change)
        self.assertEqual(self.call("GET", self.path)["opening"], "Second.")
        pick = {"id": str(uuid4()), "clip_id": str(self.clip.pk), "frame": 3}
        frame = self.call("POST", f"{self.path}/frames", pick)["frames"][0]
        under = f"{self.path}/frames/{frame['id']}"
        first, second = ({"id": str(uuid4()), "words": words} for words in ("First.", "Second."))
        for change in (first, second, first):
            found = self.call("PATCH", under, change)
        self.assertEqual(found["frames"][0]["words"], "Second.")
        self.call("DELETE", under)
        self.assertEqual(self.call("POST", f"{self.path}/frames", pick)["frames"], [])

    def test_frames_can_be_put_in_another_order(self) -> None:
        for number in (1, 2, 3):
            lesson = self.add(number)
        last = lesson["frames"][2]["id"]
        moved = self.call("PATCH", f"{self.path}/frames/{last}", {"position": 0})
        self.assertEqual([frame["frame"] for frame in moved["frames"]], [3, 1, 2])
        shorter = self.call("DELETE", f"{self.path}/frames/{last}")
        self.assertEqual([frame["frame"] for frame in shorter["frames"]], [1, 2])

    def test_sending_mails_a_link_that_needs_no_password(self) -> None:
        lesson = self.sent()
        self.assertEqual(mail.outbox, [])  # it can still be taken back
        self.run_mail()
        self.assertEqual([m.to for m in mail.outbox], [["tobin@skerrow.example"]])
        self.assertIn(lesson["link"], mail.outbox[0].body)
        token = lesson["link"].rsplit("/", 1)[1]
        self.assertGreaterEqual(len(token), 43)  # 256 bits
        self.client.logout()
        sheet = self.call("GET", f"/api/sheets/{token}")
        (focus,) = sheet["plan"]["focus"]
        (drill,) = focus["drills"]
        self.assertEqual((drill["name"], drill["dose"]), ("Stick by the right (back) hip", "ten"))
        still = self.client.get(f"/api/sheets/{token}/{sheet['frames'][0]['id']}.jpg")
        self.assertEqual(b"".join(still.streaming_content)[:2], b"\xff\xd8")  # type: ignore[attr-defined]
        self.assertIsNotNone(Lesson.objects.get().first_read_at)
        self.assertEqual(self.client.get("/api/swings").status_code, 401)

    def test_a_link_taken_back_leads_nowhere_and_a_new_one_differs(self) -> None:
        token = self.sent()["link"].rsplit("/", 1)[1]
        self.assertIsNone(self.post(f"{self.path}/revoke")["link"])
        self.call("GET", f"/api/sheets/{token}", status=404)
        renewed = self.post(f"{self.path}/renew")["link"].rsplit("/", 1)[1]
        self.assertNotEqual(renewed, token)
        self.call("GET", f"/api/sheets/{token}", status=404)
        self.call("GET", f"/api/sheets/{renewed}")

    def test_a_sent_lesson_is_frozen(self) -> None:
        frame = self.sent()["frames"][0]["id"]
        for method, path, body in [
            ("PATCH", self.path, {"title": "Other"}),
            ("POST", f"{self.path}/frames", {"clip_id": str(self.clip.pk), "frame": 1}),
            ("PATCH", f"{self.path}/frames/{frame}", {"words": "Other"}),
            ("DELETE", f"{self.path}/frames/{frame}", None),
            ("POST", f"{self.path}/send", None),
        ]:
            with self.subTest(path=path, method=method):
                self.assertIn("has been sent", self.call(method, path, body, 409)["detail"])
        self.assertIsNotNone(self.clip.swing.__class__.objects.get(pk=self.clip.swing_id).answered_at)

    def test_what_cannot_be_sent_says_why_and_stays_a_draft(self) -> None:
        self.assertIn("empty", self.post(f"{self.path}/send", status=409)["detail"])
        student = self.clip.swing.student
        assert student is not None
        student.email = ""
        student.save()
        self.add(5)
        self.assertIn("no mail address", self.post(f"{self.path}/send", status=409)["detail"])
        self.assertEqual((len(mail.outbox), Lesson.objects.get().token), (0, None))

    def test_another_lesson_s_still_is_not_reached_through_a_link(self) -> None:
        token = self.sent()["link"].rsplit("/", 1)[1]
        other = making.with_picture(making.marked_swing(self.owner), self.media)
        lesson = self.post(f"/api/swings/{other.swing_id}/lesson")
        body = {"clip_id": str(other.pk), "frame": 2}
        frame = self.post(f"/api/lessons/{lesson['id']}/frames", body)["frames"][0]["id"]
        self.assertEqual(self.client.get(f"/api/sheets/{token}/{frame}.jpg").status_code, 404)
