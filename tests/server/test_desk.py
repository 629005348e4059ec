"""The desk: a draft begun from what was found, checked before it goes, sent later, corrected as a version."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.core import mail
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tests.server.test_lessons import LessonCase
from tropometer.server.bench.models import Mark
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.tasks import send_lesson
from tropometer.server.operations.sweep import sweep
from tropometer.server.people.models import Ache, Student
from tropometer.server.rooms import RoomFailed

FOCUS: dict[str, Any] = {"fault": "sways", "drills": [{"drill": "stick_by_the_hip", "dose": "ten"}]}
GOAL = {"reading": "pelvis_sway", "at": "top", "low": -0.06, "high": -0.005}


class DeskCase(LessonCase):
    def plan(self, **more: Any) -> None:
        swing = f"/api/swings/{self.clip.swing_id}"
        self.call("PUT", f"{swing}/decisions/sways", {"decision": "accepted"}, 204)
        self.call("PUT", f"{swing}/plan", {"plan": {"focus": [FOCUS | more]}}, 204)

    def remarks(self, kind: str = "") -> list[str]:
        found = self.call("GET", f"{self.path}/remarks")
        return [each["words"] for each in found if not kind or each["kind"] == kind]


class PrefillTests(DeskCase):
    def test_a_draft_is_begun_from_the_one_thing_and_never_over_what_was_written(self) -> None:
        self.assertEqual(self.post(f"{self.path}/prefill")["frames"], [])  # nothing was chosen yet
        self.plan(goal=GOAL)
        begun = self.post(f"{self.path}/prefill")
        self.assertEqual(begun["title"], "Turn without knocking the stick over")
        self.assertIn("Tobin, thank you for your 7 iron.", begun["opening"])
        (frame,) = begun["frames"]  # there is no reference on the shelf
        self.assertEqual((frame["frame"], frame["drawn"]["checkpoint"]), (5, "top"))
        self.assertIn("trail_plumb", {gauge["id"] for gauge in frame["drawn"]["gauges"]})
        self.assertIn("pelvis_sway", {value["reading"] for value in frame["drawn"]["values"]})
        self.call("DELETE", f"{self.path}/frames/{frame['id']}")
        self.call("PATCH", self.path, {"opening": ""})
        again = self.post(f"{self.path}/prefill")
        self.assertEqual((again["frames"], again["opening"]), ([], ""))

    def test_what_breaks_off_while_it_is_begun_is_finished_the_next_time(self) -> None:
        self.plan(goal=GOAL)
        with patch("tropometer.server.lessons.services.still", side_effect=RoomFailed("the disk is full")):
            self.post(f"{self.path}/prefill", status=503)
        self.assertEqual(len(self.post(f"{self.path}/prefill")["frames"]), 1)

    def test_what_is_written_already_stays(self) -> None:
        self.call("PATCH", self.path, {"title": "Mine", "opening": "My words."})
        self.add(3)
        self.plan()
        begun = self.post(f"{self.path}/prefill")
        self.assertEqual((begun["title"], begun["opening"], len(begun["frames"])), ("Mine", "My words.", 1))

    def test_lessons_begin_with_the_instructor_s_own_words(self) -> None:
        first, second = uuid4(), uuid4()
        for id, used in ((first, True), (second, True)):
            words = {"name": f"T{used}", "text": f"{{name}}, about the {{club}} ({id}).", "used_first": used}
            self.call("PUT", f"/api/templates/{id}", words)
        self.assertEqual([each["used_first"] for each in self.call("GET", "/api/templates")], [True, False])
        self.plan()
        self.assertEqual(self.post(f"{self.path}/prefill")["opening"], f"Tobin, about the 7 iron ({second}).")
        self.client.force_login(making.instructor("Odd Stranger"))
        self.assertEqual(self.call("GET", "/api/templates"), [])
        self.call("PUT", f"/api/templates/{first}", {"name": "X", "text": "X"}, 404)
        self.call("DELETE", f"/api/templates/{first}", status=404)


class RemarkTests(DeskCase):
    def test_what_is_missing_is_said_and_what_stops_it_first(self) -> None:
        Student.objects.update(email="")
        found = self.call("GET", f"{self.path}/remarks")
        self.assertIn("no mail address", found[0]["words"])
        self.assertEqual([each["stops"] for each in found], sorted((e["stops"] for e in found), reverse=True))
        self.assertTrue(any("No focus" in each["words"] for each in found))

    def test_what_is_uncertain_is_named_with_its_frame(self) -> None:
        Mark.objects.update(source="proposed")
        self.add(5)
        found = self.call("GET", self.path)["frames"][0]
        self.assertTrue(found["left_out"])
        self.assertEqual(self.remarks("uncertain"), [])
        self.call("PATCH", f"{self.path}/frames/{found['id']}", {"left_out": []})
        self.assertTrue(any("Frame 5" in words and "nobody" in words for words in self.remarks("uncertain")))

    def test_a_drill_that_loads_what_hurts_is_named_until_somebody_agreed(self) -> None:
        student = Student.objects.get()
        ache = Ache.objects.create(student=student, part="trail_hip", trouble="stiff")
        self.plan()
        self.assertTrue(any("trail hip" in words for words in self.remarks("hurts")))
        ache.agreed_by, ache.agreed_on = "Dr. Skerry", timezone.localdate()
        ache.save()
        self.assertEqual(self.remarks("hurts"), [])

    def test_sides_typed_by_hand_are_pointed_out_in_the_student_s_own(self) -> None:
        Student.objects.update(hand="left")
        self.call("PATCH", self.path, {"opening": "Let the lead hip go.", "title": "Right away"})
        (words,) = self.remarks("side")
        self.assertIn("lead is their right", words)


class LaterTests(DeskCase):
    def run_planned(self) -> None:
        for job in ProcrastinateJob.objects.filter(task_name=send_lesson.name):
            send_lesson(**job.args)

    def test_a_draft_goes_at_its_time_and_can_be_written_in_until_then(self) -> None:
        self.add(5)
        at = timezone.now() + timedelta(hours=8)
        self.call("PUT", f"{self.path}/send-later", {"at": at.isoformat()})
        self.call("PATCH", self.path, {"opening": "Written since."})
        self.run_planned()
        lesson = Lesson.objects.get()
        self.assertIsNotNone(lesson.sent_at)
        self.assertIsNone(lesson.send_at)
        self.run_planned()
        self.assertEqual(lesson.sheets.count(), 1)

    def test_what_was_put_off_or_given_up_does_not_go(self) -> None:
        self.add(5)
        for hours in (8, 9):
            at = (timezone.now() + timedelta(hours=hours)).isoformat()
            self.call("PUT", f"{self.path}/send-later", {"at": at})
        self.call("DELETE", f"{self.path}/send-later")
        self.run_planned()
        self.assertIsNone(Lesson.objects.get().sent_at)
        self.assertIn(
            "next 60 days",
            self.call("PUT", f"{self.path}/send-later", {"at": "2020-01-01T00:00Z"}, 409)["detail"],
        )

    def test_what_is_in_the_way_then_is_said_on_the_desk(self) -> None:
        self.add(5)
        at = timezone.now() + timedelta(hours=8)
        self.call("PUT", f"{self.path}/send-later", {"at": at.isoformat()})
        Student.objects.update(email="")
        self.run_planned()
        told = self.call("GET", self.path)
        self.assertIn("no mail address", told["send_trouble"])
        self.assertIsNone(told["sent_at"])


class VersionTests(DeskCase):
    def setUp(self) -> None:
        super().setUp()
        self.token = self.sent()["link"].rsplit("/", 1)[1]
        self.run_mail()
        self.address = f"/api/sheets/{self.token}"

    def sheet(self, version: str = "") -> Any:
        return self.call("GET", self.address + version)

    def still(self, frame: str) -> int:
        return self.client.get(f"{self.address}/{frame}.jpg").status_code

    def test_the_student_keeps_what_was_sent_until_the_correction_goes_and_sees_both_then(self) -> None:
        old = self.sheet()["frames"][0]["id"]
        self.post(f"{self.path}/correction")
        self.call("PATCH", self.path, {"opening": "Better posture."})
        self.call("DELETE", f"{self.path}/frames/{old}")
        new = self.add(4)["frames"][0]["id"]
        self.call("PUT", f"/api/swings/{self.clip.swing_id}/plan", {"plan": None}, 204)
        before = self.sheet()
        self.assertEqual(
            (before["opening"], before["frames"][0]["id"], before["version"]), ("Good posture.", old, 1)
        )
        self.assertEqual(before["plan"]["focus"][0]["fault"], "sways")
        self.assertEqual((self.still(old), self.still(new)), (200, 404))
        self.post(f"{self.path}/send")
        self.run_mail()
        self.assertIn("has corrected a lesson", mail.outbox[-1].body)
        after = self.sheet()
        self.assertEqual((after["opening"], after["version"], after["plan"]), ("Better posture.", 2, None))
        self.assertEqual(self.sheet("?version=1")["opening"], "Good posture.")
        self.call("GET", f"{self.address}?version=3", status=404)
        sweep(timedelta(0))
        self.assertEqual((self.still(old), self.still(new)), (200, 200))

    def test_a_correction_that_is_left_puts_everything_back(self) -> None:
        before = self.call("GET", self.path)
        frame = before["frames"][0]["id"]
        self.post(f"{self.path}/correction")
        self.call("PATCH", self.path, {"title": "Other", "opening": "Other"})
        self.call("DELETE", f"{self.path}/frames/{frame}")
        self.call("PUT", f"/api/swings/{self.clip.swing_id}/plan", {"plan": None}, 204)
        with self.captureOnCommitCallbacks(execute=True):
            after = self.call("DELETE", f"{self.path}/correction")
        for field in ("title", "opening", "frames", "sent_at", "correcting"):
            self.assertEqual(after[field], before[field], field)
        self.assertEqual(
            self.call("GET", f"/api/swings/{self.clip.swing_id}/plan")["focus"][0]["fault"], "sways"
        )
        self.call("PATCH", self.path, {"title": "Other"}, 409)
        self.assertEqual(self.still(frame), 200)

    def test_a_correction_is_left_also_where_a_clip_was_deleted_since(self) -> None:
        self.post(f"{self.path}/correction")
        self.clip.delete()
        after = self.call("DELETE", f"{self.path}/correction")
        self.assertEqual([frame["clip_id"] for frame in after["frames"]], [None])
        self.assertEqual(self.still(after["frames"][0]["id"]), 200)

    def test_a_correction_can_be_taken_back_and_the_first_version_stands_meanwhile(self) -> None:
        self.post(f"{self.path}/correction")
        self.call("PATCH", self.path, {"opening": "Too fast."})
        self.post(f"{self.path}/send")
        self.post(f"{self.path}/take-back")
        self.assertEqual((self.sheet()["opening"], self.sheet()["version"]), ("Good posture.", 1))
        self.call("PATCH", self.path, {"opening": "Now."})
        self.post(f"{self.path}/send")
        self.assertEqual((self.sheet()["opening"], self.sheet()["version"]), ("Now.", 2))

    def test_who_is_erased_is_seen_in_nobody_else_s_lesson_and_is_not_named_there(self) -> None:
        other = making.with_picture(
            making.marked_swing(self.owner, making.student(self.owner, name="Ilse Marrin")), self.media
        )
        self.post(f"{self.path}/correction")
        self.post(f"{self.path}/frames", {"clip_id": str(other.pk), "frame": 3})
        self.post(f"{self.path}/send")
        frames = self.sheet()["frames"]
        self.assertEqual([each["drawn"]["name"] for each in frames], ["Tobin Farrow", "another player"])
        self.assertEqual(frames[1]["drawn"]["whose"], "reference")
        assert other.swing.student is not None
        with self.captureOnCommitCallbacks(execute=True):
            other.swing.student.delete()
        self.assertEqual([each["id"] for each in self.sheet()["frames"]], [frames[0]["id"]])
        self.assertEqual(self.still(frames[1]["id"]), 404)
        self.assertEqual(len([name for name in self.files() if name.startswith("lessons/")]), 1)

    def test_erasing_the_swing_takes_all_versions_and_their_pictures(self) -> None:
        self.post(f"{self.path}/correction")
        self.add(4)
        self.post(f"{self.path}/send")
        self.assertEqual(len([name for name in self.files() if name.startswith("lessons/")]), 2)
        with self.captureOnCommitCallbacks(execute=True):
            self.clip.swing.delete()
        self.assertEqual([name for name in self.files() if name.startswith("lessons/")], [])
