"""What shows a drill: drawings of the shipped ones, a picture of one's own; sent, replaced and deleted."""

import errno
import json
from typing import Any
from unittest.mock import patch
from uuid import uuid4

import cv2
import numpy as np
from django.core.files.storage import default_storage
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.server import making
from tropometer.server.judging.models import Plan
from tropometer.server.lessons.models import Lesson
from tropometer.server.operations.sweep import sweep
from tropometer.server.storage import DurableStorage
from tropometer.server.teaching.models import Shown
from tropometer.teaching.knowledge.pages import document_of, shipped

OWN = document_of(shipped().drills["stick_by_the_hip"]) | {"id": "my_stick", "name": "My stick"}
SHOWN = "/api/book/drills/my_stick/shown"


def picture(shade: int) -> bytes:
    return bytes(cv2.imencode(".jpg", np.full((240, 320, 3), shade, np.uint8))[1])


class ShowingTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.client.force_login(self.owner)
        self.call("POST", "/api/book/pages", {"document": OWN}, 201)

    def call(self, method: str, path: str, body: Any = None, status: int = 200) -> Any:
        answer = self.client.generic(
            method, path, json.dumps(body) if body is not None else "", content_type="application/json"
        )
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json() if answer.content else None

    def show(self, content: bytes, name: str = "mine.jpg", status: int = 201) -> Any:
        answer = self.client.post(SHOWN, {"file": SimpleUploadedFile(name, content)})
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def sweep_later(self) -> None:
        """The sweep of some weeks later."""
        Shown.objects.filter(replaced_at__isnull=False).update(replaced_at="2026-01-01T00:00Z")
        with self.captureOnCommitCallbacks(execute=True):
            sweep()

    def shown(self, drill: str) -> list[dict[str, str]]:
        found: list[dict[str, str]] = self.call("GET", "/api/book")["shown"][drill]
        return found

    def shade(self, url: str) -> int:
        answer = self.client.get(url)
        self.assertEqual(answer.status_code, 200)
        self.assertEqual(answer["Content-Type"], "image/webp")
        self.assertIn("private", answer["Cache-Control"])
        content = b"".join(answer.streaming_content)  # type: ignore[attr-defined]
        return int(np.asarray(cv2.imdecode(np.frombuffer(content, np.uint8), cv2.IMREAD_GRAYSCALE)).mean())

    def sent_lesson(self) -> tuple[Lesson, str]:
        """A sent lesson with the drill in its plan, and its student's token."""
        swing = making.marked_swing(self.owner, whole=True).swing
        lesson = self.call("POST", f"/api/swings/{swing.pk}/lesson", status=200)
        under = f"/api/swings/{swing.pk}"
        self.call("PUT", f"{under}/decisions/sways", {"decision": "accepted"}, 204)
        plan = {"focus": [{"fault": "sways", "drills": [{"drill": "my_stick", "dose": "ten"}]}]}
        self.call("PUT", f"{under}/plan", {"plan": plan}, 204)
        self.call("PATCH", f"/api/lessons/{lesson['id']}", {"opening": "Good."})
        sent = self.call("POST", f"/api/lessons/{lesson['id']}/send")
        return Lesson.objects.get(pk=lesson["id"]), sent["link"].rsplit("/", 1)[1]

    def on_sheet(self, token: str) -> list[dict[str, str]]:
        (focus,) = self.call("GET", f"/api/sheets/{token}")["plan"]["focus"]
        found: list[dict[str, str]] = focus["drills"][0]["shown"]
        return found

    def test_a_shipped_drill_is_drawn_and_a_copy_of_it_keeps_the_drawings(self) -> None:
        drawn = self.shown("stick_by_the_hip")
        self.assertEqual(
            [(each["what"], each["kind"]) for each in drawn],
            [("start", "picture"), ("end", "picture"), ("right", "clip"), ("wrong", "clip")],
        )
        self.assertEqual(self.shown("my_stick"), [])
        self.call("POST", "/api/book/pages", {"document": OWN | {"drawn_as": "stick_by_the_hip"}}, 201)
        self.assertEqual(self.shown("my_stick"), drawn)
        refused = self.call("POST", "/api/book/pages", {"document": OWN | {"drawn_as": "nothing"}}, 422)
        self.assertIn("drawn_as: there is no drill nothing", refused["detail"])

    def test_one_s_own_picture_takes_the_place_of_the_one_before(self) -> None:
        first = self.show(picture(40))["url"]
        self.assertAlmostEqual(self.shade(first), 40, delta=3)
        second = self.show(picture(200))["url"]
        self.assertEqual([each["url"] for each in self.shown("my_stick")], [second])
        self.assertAlmostEqual(self.shade(second), 200, delta=3)
        self.sweep_later()
        self.assertEqual(self.client.get(first).status_code, 404)
        self.assertEqual(self.client.get(second).status_code, 200)
        self.assertEqual(len(default_storage.listdir("drills")[1]), 1)

    def test_what_is_neither_picture_nor_clip_is_refused_by_its_name_and_the_one_before_stays(self) -> None:
        self.show(picture(40))
        refused = self.show(b"no picture", "notes.txt", 422)
        self.assertIn("notes.txt: ", refused["detail"])
        self.assertEqual(len(self.shown("my_stick")), 1)
        self.assertEqual(self.client.post(SHOWN, {"other": "x"}).json()["fields"][0]["field"], "file")
        self.call("POST", SHOWN, {"file": "x"}, 422)
        refused = self.show(b"\0" * (15 * 1024 * 1024 + 1), "film.mov", 422)
        self.assertIn("film.mov: larger than 15 MB", refused["detail"])

    def test_a_form_that_is_far_too_long_is_refused_unread_and_a_full_disk_costs_nothing(self) -> None:
        self.show(picture(40))
        length = {"CONTENT_LENGTH": str(10**9)}
        refused = self.client.generic("POST", SHOWN, b"--x", "multipart/form-data; boundary=x", **length)
        self.assertEqual(refused.status_code, 413)
        full = OSError(errno.ENOSPC, "No space left on device")
        with patch.object(DurableStorage, "_save", side_effect=full):
            said = self.show(picture(200), status=503)
        self.assertIn("disk is full", said["detail"])
        (kept,) = self.shown("my_stick")
        self.assertAlmostEqual(self.shade(kept["url"]), 40, delta=3)

    def test_a_sent_lesson_keeps_its_picture_until_it_is_deleted_everywhere(self) -> None:
        self.show(picture(40))
        _, token = self.sent_lesson()
        (old,) = self.on_sheet(token)
        self.show(picture(200))
        self.sweep_later()
        self.client.logout()
        self.assertEqual(self.on_sheet(token), [old])
        self.assertAlmostEqual(self.shade(old["url"]), 40, delta=3)
        new = Shown.objects.get(replaced_at=None).pk
        for other in (uuid4(), new):  # only what the lesson shows
            self.assertEqual(self.client.get(f"/api/sheets/{token}/shown/{other}").status_code, 404)
        self.client.force_login(self.owner)
        with self.captureOnCommitCallbacks(execute=True):
            self.call("DELETE", SHOWN, status=204)
        self.assertEqual(self.on_sheet(token), [])
        self.assertEqual(self.client.get(old["url"]).status_code, 404)
        self.assertEqual(default_storage.listdir("drills")[1], [])

    def test_a_drill_taken_out_of_the_book_stays_in_the_lesson_as_it_was_sent(self) -> None:
        self.show(picture(40))
        _, token = self.sent_lesson()
        self.call("DELETE", "/api/book/pages/drill/my_stick", status=204)
        self.assertEqual(len(self.on_sheet(token)), 1)
        self.call("DELETE", SHOWN, status=204)
        self.assertEqual(self.on_sheet(token), [])
        self.assertFalse(Shown.objects.exists())

    def test_what_no_lesson_shows_any_more_is_swept(self) -> None:
        self.show(picture(40))
        lesson, _ = self.sent_lesson()
        self.call("DELETE", "/api/book/pages/drill/my_stick", status=204)
        self.sweep_later()
        self.assertTrue(Shown.objects.exists())
        Plan.objects.filter(swing=lesson.swing).delete()
        lesson.delete()
        self.sweep_later()
        self.assertFalse(Shown.objects.exists())

    def test_a_plan_that_was_sent_before_there_were_pictures_is_shown_by_the_drawings(self) -> None:
        lesson, token = self.sent_lesson()
        plan = Plan.objects.get(swing=lesson.swing)
        drill = plan.as_sent["focus"][0]["drills"][0]
        del drill["picture"], drill["drawn_as"]
        drill["id"] = "stick_by_the_hip"
        plan.save()
        lesson.sheets.all().delete()  # it was sent before sheets were kept
        self.assertEqual([each["what"] for each in self.on_sheet(token)], ["start", "end", "right", "wrong"])

    def test_a_stranger_neither_sees_nor_changes_it(self) -> None:
        url = self.show(picture(40))["url"]
        self.client.force_login(making.instructor("Odd Stranger"))
        self.assertEqual(self.client.get(url).status_code, 404)
        self.show(picture(9), status=404)
        self.call("DELETE", SHOWN, status=404)
        self.client.logout()
        self.assertEqual(self.client.get(url).status_code, 401)
        self.assertEqual(Shown.objects.count(), 1)
