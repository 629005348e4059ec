"""Balls that cameras of an hour see struck: whose each is, and what is read of one while somebody waits."""

from __future__ import annotations

from base64 import b64encode
from datetime import timedelta
from typing import Any

from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tests.swings import truth
from tropometer.server.bench.first_look import look_anew
from tropometer.server.bench.glance import glance
from tropometer.server.bench.models import FirstLook, Mat, Shot, Swing
from tropometer.server.studio.live import strikes
from tropometer.server.studio.models import Strike, StudioHour, Try
from tropometer.swing.formats.launch import launch_from
from tropometer.swing.names import View

FACE, LINE = "dag_first_face", "dag_first_line"
STANCE = "stance_ratio.address"


class FilmedTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.client.force_login(self.owner)
        self.student = making.student(self.owner)
        self.hour = StudioHour.objects.create(student=self.student, columns=[STANCE])
        self.path = f"/api/hours/{self.hour.pk}/filmed"

    def film(self, name: str, ago_s: float, view: View = "face_on", status: int = 200) -> Any:
        clip = making.arrived(self.owner, making.demo_file(f"{name}.mp4"), view=view)
        return self.send(clip, name, ago_s, status)

    def send(
        self, clip: dict[str, Any], name: str, ago_s: float, status: int = 200, club: str = "7 iron"
    ) -> Any:
        known = truth(name)
        struck_s = known["checkpoints"]["impact"] / known["played_fps"]
        body = {"clip": clip, "ago_s": ago_s, "struck_s": struck_s, "struck_by": "motion", "club": club}
        with self.captureOnCommitCallbacks(execute=True):
            answer = self.client.post(self.path, body, content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def test_two_cameras_that_see_one_ball_make_one_try_of_one_swing_and_what_is_sent_twice_is_one(
        self,
    ) -> None:
        first = making.arrived(self.owner, making.demo_file(f"{FACE}.mp4"))
        self.send(first, FACE, 3.0, club="")
        self.send(first, FACE, 9.0, club="")  # its answer was lost
        told = self.film(LINE, 3.4, "down_the_line")
        self.assertEqual(told["tries"][0]["club"], "7 iron")  # which the first camera did not know
        self.assertEqual([film["view"] for film in told["tries"][0]["films"]], ["face_on", "down_the_line"])
        tried = Try.objects.get()
        self.assertTrue(tried.swing.one_swing)
        assert tried.struck_at is not None
        self.assertLess(abs(timezone.now() - tried.struck_at - timedelta(seconds=3)).total_seconds(), 2)
        # The same side again, or another ball, is another try.
        self.film("petra_closed_face", 3.2)
        told = self.film("jory_top_line", 40.0, "down_the_line")
        self.assertEqual(len(told["tries"]), 3)
        self.assertEqual(ProcrastinateJob.objects.filter(queue_name="at_once").count(), 4)

    def test_a_ball_goes_to_the_try_that_was_filmed_when_it_was_struck_however_late_that_comes(self) -> None:
        now, launch = timezone.now(), launch_from({"carry_m": 141.0})
        for ago_s in (300, 200, 4):
            strikes.said(self.hour, "", now - timedelta(seconds=ago_s), 0.02, launch)
        told = self.film(FACE, 200.6)
        self.assertTrue(told["tries"][0]["has_shot"])
        strike = Strike.objects.get(tried__isnull=False)
        self.assertEqual(round((now - strike.struck_at).total_seconds()), 200)
        # One that a device tells of after the try has come, and one that nobody filmed.
        told = self.film(LINE, 30.0, "down_the_line")
        self.assertFalse(told["tries"][1]["has_shot"])
        strikes.said(self.hour, "", now - timedelta(seconds=60), 0.02, launch)
        self.assertEqual(Shot.objects.count(), 1)
        strikes.said(self.hour, "", now - timedelta(seconds=29), 0.02, launch)
        self.assertEqual(Shot.objects.count(), 2)

    def test_a_file_that_is_no_clip_is_said_and_makes_no_try(self) -> None:
        told = self.send(making.arrived(self.owner, b"no clip"), FACE, 3.0, 422)
        self.assertIn("swing.mp4", told["detail"])
        self.assertEqual((Try.objects.count(), Swing.objects.count()), (0, 0))

    def test_a_glance_reads_what_is_true_to_its_error_shows_it_as_provisional_and_gives_way(self) -> None:
        told = self.film(FACE, 3.0)
        (rung,) = told["tries"]
        self.assertEqual((rung["looking"], rung["values"]), (True, []))
        job = ProcrastinateJob.objects.get(queue_name="at_once")
        glance(**job.args)
        with self.assertNumQueries(7):
            told = self.client.get(f"/api/hours/{self.hour.pk}").json()
        (rung,) = told["tries"]
        (value,) = rung["values"]
        true = {(each["reading"], each["at"]): each["value"] for each in truth(FACE)["readings"]}
        self.assertTrue(value["provisional"])
        self.assertLess(abs(value["value"] - true["stance_ratio", "address"]), 1.5 * value["u95"])
        self.assertLess(value["u95"], 0.5)
        self.assertIn("shoulder_turn.top", [each["column"] for each in told["offered"]])
        self.assertEqual(told["steps"], [])  # what nobody looked at is held against nothing
        # The gates stand about the hips' true places at address.
        known = truth(FACE)
        at, width = known["checkpoints"]["address"], known["camera"]["width"]
        for name, gate in zip(("trail_hip", "lead_hip"), rung["films"][0]["gates"], strict=True):
            self.assertLess(abs(gate - known["pixels"][name][at][0] / width), 0.03)
        swing = Swing.objects.get()
        FirstLook.objects.filter(swing=swing).update(
            read=[{"reading": "stance_ratio", "at": "address", "value": 1.25, "u95": 0.1}]
        )
        (rung,) = self.client.get(f"/api/hours/{self.hour.pk}").json()["tries"]
        self.assertEqual([each["value"] for each in rung["values"]], [1.25])
        look_anew([swing.pk])  # something else is said of the swing: what was read before counts no more
        (rung,) = self.client.get(f"/api/hours/{self.hour.pk}").json()["tries"]
        self.assertEqual(rung["values"], [])

    def test_a_phone_films_by_the_code_of_an_open_line_for_its_student_alone(self) -> None:
        strikes.open_line(self.hour)
        self.client.logout()
        token = self.hour.line_token
        self.path = f"/api/film/{token}"
        asked = self.client.get(self.path).json()
        self.assertEqual(asked, {"instructor": "Maren Thole", "views": []})
        other = making.arrived(self.owner, making.demo_file())  # another student's, or nobody's
        self.assertEqual(self.client.head(f"{self.path}/uploads/{other['upload_id']}").status_code, 404)
        named = b64encode(b"try-1.mp4").decode()
        data = making.demo_file(f"{LINE}.mp4")
        about = {"Upload-Length": str(len(data)), "Upload-Metadata": f"filename {named}"}
        begun = self.client.post(f"{self.path}/uploads", headers=about)
        self.assertEqual(begun.status_code, 201, begun.content)
        piece = {"content_type": "application/offset+octet-stream", "headers": {"Upload-Offset": "0"}}
        sent = self.client.patch(begun["Location"], data, **piece)
        self.assertEqual(sent.status_code, 204, sent.content)
        clip = {"upload_id": begun["Location"].rsplit("/", 1)[1], "view": "down_the_line"}
        self.send(other, FACE, 3.0, 404)
        self.assertEqual(self.send(clip, LINE, 3.0), {"tries": 1})
        self.assertEqual(Try.objects.get().swing.student, self.student)
        strikes.close_line(self.hour)
        self.assertIn("code is closed", self.client.get(self.path).json()["detail"])
        self.send(clip, LINE, 3.0, 404)

    def test_a_mat_that_does_not_lie_where_it_was_laid_is_told_of_its_try(self) -> None:
        corners = [{"x": x, "y": y} for x, y in ((400, 600), (800, 600), (800, 700), (400, 700))]
        for name, ago_s in ((FACE, 90.0), ("petra_closed_face", 60.0), ("jory_heel_face", 30.0)):
            self.film(name, ago_s)
        first, found, moved = (each.swing for each in Try.objects.order_by("position"))
        Mat.objects.create(clip=first.clips.get(), corners=corners, along_m=1.5, across_m=1.0)
        FirstLook.objects.create(swing=found, read=[], mats={str(found.clips.get().pk): {}})
        FirstLook.objects.create(swing=moved, read=[])
        told = self.client.get(f"/api/hours/{self.hour.pk}").json()
        self.assertEqual(
            [film["mat"] for rung in told["tries"] for film in rung["films"]], ["laid", "found", "moved"]
        )

    def test_a_glance_at_what_is_no_swing_says_nothing(self) -> None:
        self.film(FACE, 3.0)
        job = ProcrastinateJob.objects.get(queue_name="at_once")
        glance(**{**job.args, "struck_s": 50.0})
        self.assertFalse(FirstLook.objects.exists())
