"""Drills that a student films at home: answered by the machine alone, corrected by the instructor."""

from __future__ import annotations

import json
from datetime import timedelta
from typing import Any

from django.test import TestCase
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server.making import MediaFolders, arrived, demo_file, instructor, ready_clip, student
from tests.server.seen import put_proposals
from tests.swings import truth
from tropometer.server.bench import requests
from tropometer.server.bench.models import Swing
from tropometer.server.bench.services import swings_sent
from tropometer.server.clips.closer import clip_looked_at_closely
from tropometer.server.clips.models import Clip, Proposals, Upload
from tropometer.server.clips.proposing import clip_looked_at
from tropometer.server.demo.drawn import put_on
from tropometer.server.drill_checks.answering import answer
from tropometer.server.drill_checks.models import CheckedDrill
from tropometer.server.logbook import keeping
from tropometer.server.logbook.models import LoggedSwing
from tropometer.server.people.models import Student
from tropometer.server.people.student_page import page_of

MIRROR = "lines_on_a_mirror"  # the pelvis no more than 6 cm away from the target at the top


class DrillCheckTests(MediaFolders, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.maren = instructor()
        self.tobin = student(self.maren)
        self.page = page_of(self.tobin).token

    def tried(self, name: str, drill: str = MIRROR, seen: bool = True, **about: Any) -> Clip:
        """A try at a drill as a demo clip shows it, looked at by the machine."""
        swing = Swing.objects.create(instructor=self.maren, student=self.tobin, drill=drill)
        clip = ready_clip(self.maren, swing)
        known = truth(name)
        times = known["times_s"]["frames"]
        camera = known["camera"]
        clip.width, clip.height, clip.view = camera["width"], camera["height"], known["view"]
        clip.played_times_s = [time - times[0] for time in times]
        for field, value in about.items():
            setattr(clip, field, value)
        clip.save()
        if seen:
            put_proposals(clip, name)
        return clip

    def told(self) -> list[dict[str, Any]]:
        found: list[dict[str, Any]] = self.client.get(f"/api/pages/{self.page}/tries").json()
        return found

    def answered(self, name: str, **about: Any) -> dict[str, Any]:
        answer(self.tried(name, **about).swing_id)
        found: dict[str, Any] = self.told()[0]["answer"]
        return found

    def test_it_says_inside_outside_or_that_it_cannot_tell(self) -> None:
        # Their pelves are 12 cm away, 1 cm away, and 5.7 cm away at the top.
        far, near, close = (
            self.answered(name) for name in ("tobin_first_face", "dag_first_face", "tobin_month_face")
        )
        self.assertEqual(far["answer"], "outside")
        self.assertAlmostEqual(far["beyond"], -0.063, delta=0.02)
        self.assertEqual(near["answer"], "inside")
        self.assertGreater(near["beyond"], near["give_or_take"])
        self.assertEqual(close["answer"], "unsure")
        self.assertLess(abs(close["beyond"]), close["give_or_take"])

    def test_its_picture_shows_the_moment_with_what_was_measured_and_where_it_should_be(self) -> None:
        found = self.answered("tobin_first_face")
        self.assertEqual(found["frame"], truth("tobin_first_face")["checkpoints"]["top"])
        shapes = [shape for gauge in found["drawn"]["gauges"] for shape in gauge["shapes"]]
        self.assertTrue(shapes)
        self.assertTrue(any(shape["target"] for shape in shapes if shape["reading"] == "pelvis_sway"))

    def test_it_says_what_to_change_where_nothing_can_be_read(self) -> None:
        line = self.answered("tobin_first_line")
        self.assertEqual((line["answer"], line["why"]), ("not_read", "other_view"))
        unseen = self.tried("tobin_first_face", seen=False)
        answer(unseen.swing_id)
        self.assertEqual(self.told()[0]["answer"]["why"], "no_swing")
        for change, why in (
            ({"pegs": [], "capture_fps": 240.0}, "slowed"),
            ({"pegs": []}, "no_swing"),
            ({"hand": {"value": "left", "confidence": 0.9}}, "mirrored"),
            ({"box": {"left": 300, "top": 100, "right": 700, "bottom": 719}}, "cut_off"),
            ({"view": {"value": "down_the_line", "confidence": 0.95}}, "other_view"),
        ):
            with self.subTest(why):
                clip = self.tried("tobin_first_face")
                Proposals.objects.filter(clip=clip).update(found=clip.proposals.found | change)
                answer(clip.swing_id)
                self.assertEqual(self.told()[0]["answer"]["why"], why)

    def test_what_was_said_first_is_what_it_is_counted_by(self) -> None:
        clip = self.tried("tobin_first_face")
        answer(clip.swing_id)
        clip.pegs.create(name="top", frame=3)
        answer(clip.swing_id)
        self.assertEqual(CheckedDrill.objects.get().answer, "outside")

    def test_the_worker_is_asked_once_the_close_look_is_done(self) -> None:
        def asked() -> int:
            return ProcrastinateJob.objects.filter(task_name__endswith="answer_drill").count()

        clip = self.tried("tobin_first_face")
        clip.bodies.filter(network="close").delete()
        clip_looked_at.send(None, clip=clip)
        self.assertEqual(asked(), 0)
        put_close(clip)
        clip_looked_at_closely.send(None, clip=clip)
        clip_looked_at_closely.send(None, clip=clip)
        self.assertEqual(asked(), 1)

    def test_a_try_is_no_swing_that_waits_for_an_answer_or_goes_into_the_log(self) -> None:
        link = requests.open_for(self.tobin)
        clip = arrived(self.maren, demo_file())
        upload = {"upload_id": clip["upload_id"], "view": "face_on"}
        Upload.objects.filter(pk=clip["upload_id"]).update(asked_by_id=link.pk)
        sent = self.client.post(
            f"/api/sent/{link.token}",
            json.dumps({"clips": [upload], "drill": MIRROR}),
            content_type="application/json",
        )
        self.assertEqual(sent.status_code, 201, sent.content)
        self.assertEqual(Swing.objects.get().drill, MIRROR)
        self.assertEqual([(each["drill"], each["state"]) for each in self.told()], [(MIRROR, "waiting")])
        self.assertFalse(swings_sent(self.tobin).exists())
        self.client.force_login(self.maren)
        self.assertEqual(self.client.get("/api/swings").json()["items"], [])
        self.assertEqual(self.client.get("/api/students?show=waiting").json()["items"], [])
        marked = self.tried("tobin_first_face")
        put_on(marked, "tobin_first_face", whole=False)
        keeping.keep(marked.swing_id)
        self.assertFalse(LoggedSwing.objects.exists())

    def test_nobody_waits_for_ever(self) -> None:
        clip = self.tried("tobin_first_face", seen=False)
        self.assertEqual(self.told()[0]["state"], "looking")
        Clip.objects.filter(pk=clip.pk).update(added_at=timezone.now() - timedelta(hours=2))
        self.assertEqual(self.told()[0]["state"], "failed")

    def test_the_instructor_corrects_it_and_it_is_counted(self) -> None:
        for name in ("tobin_first_face", "dag_first_face", "tobin_month_face"):
            self.answered(name)
        tries = {each["answer"]["answer"]: each["id"] for each in self.told()}
        self.client.force_login(self.maren)

        def say(which: str, said: str | None) -> dict[str, Any]:
            path = f"/api/swings/{tries[which]}/try"
            put = self.client.put(path, json.dumps({"said": said}), content_type="application/json")
            self.assertEqual(put.status_code, 204)
            found: dict[str, Any] = self.client.get(f"/api/students/{self.tobin.pk}/tries").json()
            return found

        self.assertEqual(say("outside", "outside")["right"], 1)
        found = say("inside", "outside")
        self.assertEqual((found["looked_at"], found["right"]), (2, 1))
        found = say("unsure", "inside")  # nothing was claimed of it
        self.assertEqual((found["looked_at"], found["right"]), (2, 1))
        self.assertEqual(say("inside", None)["looked_at"], 1)

    def test_another_student_s_page_shows_none_of_it(self) -> None:
        self.answered("tobin_first_face")
        other: Student = student(self.maren, name="Ilse Marrin", email="ilse@skerrow.example", hand="left")
        token = page_of(other).token
        self.assertEqual(self.client.get(f"/api/pages/{token}/tries").json(), [])
        path = f"/tries/{self.told()[0]['id']}.jpg"
        self.assertEqual(self.client.get(f"/api/pages/{token}{path}").status_code, 404)


def put_close(clip: Clip) -> None:
    fast = clip.bodies.get(network="fast")
    fast.pk, fast.network = None, "close"
    fast._state.adding = True
    fast.save()
