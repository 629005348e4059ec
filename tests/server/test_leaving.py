"""What a person deletes is gone everywhere, and can be taken back for a while; links close at once."""

import json
from datetime import timedelta
from io import StringIO
from typing import Any

from django.core.files.storage import default_storage
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import CommandError, call_command
from django.utils import timezone

from tests.server import making
from tests.server.test_showing import picture
from tropometer.server.bench.models import BenchEdit, Mark, Swing, SwingRequest
from tropometer.server.clips import services
from tropometer.server.clips.models import Clip, Proposals, SeenBody, Upload
from tropometer.server.lessons.models import Lesson, LessonFrame
from tropometer.server.operations import ledger
from tropometer.server.operations.bin import erase_old
from tropometer.server.operations.sweep import sweep
from tropometer.server.people.models import Student


class LeavingTests(making.MediaCase):
    """A minor with a marked, answered swing, a lesson, a link and a file that is half here."""

    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.student = making.student(
            self.owner, name="Jory Tennick", minor=True, guardian="Keren Tennick", consent_on="2026-09-02"
        )
        self.client.force_login(self.owner)
        clips = [making.arrived(self.owner, making.demo_file())]
        self.call("POST", "/api/swings", {"student_id": str(self.student.pk), "clips": clips}, 201)
        self.swing = Swing.objects.get()
        self.clip = Clip.objects.get()
        services.process(self.clip.pk)
        mark = {"id": "11111111-1111-4111-8111-111111111111", "kind": "mark", "name": "ball", "frame": 3}
        place = {"x": 9, "y": 9, "sd_px": 1}
        self.call("POST", f"/api/clips/{self.clip.pk}/edits", {"edits": [{**mark, "place": place}]})
        lesson = self.call("POST", f"/api/swings/{self.swing.pk}/lesson")
        self.lesson = f"/api/lessons/{lesson['id']}"
        self.call("POST", f"{self.lesson}/frames", {"clip_id": str(self.clip.pk), "frame": 5})
        self.token = self.call("POST", f"{self.lesson}/send")["link"].rsplit("/", 1)[1]
        asked = self.call("POST", "/api/requests", {"student_id": str(self.student.pk)}, 201)
        self.link = asked["link"].rsplit("/", 1)[1]
        self.client.post(f"/api/sent/{self.link}/uploads", headers={"Upload-Length": "9"})

    def call(self, method: str, path: str, body: Any = None, status: int = 200) -> Any:
        with self.captureOnCommitCallbacks(execute=True):
            answer = self.client.generic(
                method, path, json.dumps(body or {}), content_type="application/json"
            )
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json() if answer.content else None

    def status(self, path: str) -> int:
        return self.client.get(path).status_code

    def left(self) -> dict[str, int]:
        """Rows of all that hung on the student."""
        models = (
            Student,
            Swing,
            Clip,
            Mark,
            BenchEdit,
            Proposals,
            SeenBody,
            Lesson,
            LessonFrame,
            SwingRequest,
            Upload,
        )
        return {model.__name__: count for model in models if (count := model.objects.count())}

    def test_a_removed_student_can_be_taken_back_whole(self) -> None:
        before, files = self.left(), self.files()
        self.call("DELETE", f"/api/students/{self.student.pk}", status=204)
        for path in ("/api/students", "/api/swings", "/api/lessons"):
            self.assertEqual(self.client.get(path).json()["items"], [], path)
        self.assertEqual(self.client.get("/api/requests").json(), [])
        still = f"/api/clips/{self.clip.pk}/stills/0.jpg"
        for path in (f"/api/swings/{self.swing.pk}", self.lesson, still, f"/api/sheets/{self.token}"):
            self.assertEqual(self.status(path), 404, path)
        self.assertEqual(self.status(f"/api/sent/{self.link}"), 404)
        (binned,) = self.client.get("/api/bin").json()
        self.assertEqual((binned["title"], binned["about"]), ("Jory Tennick", "student, 1 swing"))
        self.call("POST", f"/api/bin/student/{binned['id']}/take-back", status=204)
        self.assertEqual((self.left(), self.files()), (before, files))
        for path in (
            f"/api/swings/{self.swing.pk}",
            still,
            f"/api/sheets/{self.token}",
            f"/api/sent/{self.link}",
        ):
            self.assertEqual(self.status(path), 200, path)

    def test_erasing_takes_rows_files_stills_and_what_is_half_here(self) -> None:
        self.assertEqual((len(self.files()), len(self.waiting())), (3, 1))
        self.call("DELETE", f"/api/bin/student/{self.student.pk}", status=404)  # not in the bin yet
        self.call("DELETE", f"/api/students/{self.student.pk}", status=204)
        self.call("DELETE", f"/api/bin/student/{self.student.pk}", status=204)
        self.assertEqual((self.left(), self.waiting()), ({}, []))
        self.assertEqual(self.files(), [f"erased/student.{self.student.pk}"])
        self.assertEqual(sweep(grace=timedelta(0)), 0)

    def test_an_account_is_erased_with_all_that_is_its_and_nothing_of_another_s(self) -> None:
        other = making.marked_swing(making.instructor("Odd Stranger"))
        with self.assertRaisesMessage(CommandError, "Nobody signs in with"):
            call_command("remove_instructor", "nobody@skerrow.example", "--yes")
        said, mine = StringIO(), SimpleUploadedFile("me.jpg", picture(90))
        self.assertEqual(self.client.post("/api/me/portrait", {"file": mine}).status_code, 200)
        with self.captureOnCommitCallbacks(execute=True):
            call_command("remove_instructor", self.owner.email.upper(), "--yes", stdout=said)
        self.assertIn("1 student, 1 swing, 1 lesson", said.getvalue())
        self.assertEqual((Clip.objects.get(), Student.objects.get()), (other, other.swing.student))
        self.assertEqual((self.waiting(), self.files()), ([], [f"erased/account.{self.owner.pk}"]))
        self.assertEqual(self.status("/api/me"), 401)
        self.assertEqual(sweep(grace=timedelta(0)), 0)

    def test_a_removed_swing_goes_by_itself_after_its_time(self) -> None:
        self.call("DELETE", f"/api/swings/{self.swing.pk}", status=204)
        Swing.objects.update(removed_at=timezone.now() - timedelta(days=29))
        self.assertEqual(erase_old(), 0)
        Swing.objects.update(removed_at=timezone.now() - timedelta(days=31))
        with self.captureOnCommitCallbacks(execute=True):
            self.assertEqual(erase_old(), 1)
        self.assertEqual(self.left(), {"Student": 1, "SwingRequest": 1, "Upload": 1})
        self.assertEqual(self.files(), [f"erased/swing.{self.swing.pk}"])

    def test_an_erasure_that_was_cut_short_or_undone_by_a_backup_is_finished(self) -> None:
        ledger.note("student", self.student.pk)  # and then the server died
        with self.captureOnCommitCallbacks(execute=True):
            self.assertEqual(sweep(), 1)
        self.assertEqual(self.left(), {})
        self.assertEqual(default_storage.listdir("clips")[1], [])

    def test_withdrawn_consent_closes_every_link_at_once(self) -> None:
        body = {"name": "Jory Tennick", "hand": "right", "minor": True}
        self.call("PUT", f"/api/students/{self.student.pk}", body)
        self.assertEqual(self.status(f"/api/sheets/{self.token}"), 404)
        frame = LessonFrame.objects.get().pk
        self.assertEqual(self.status(f"/api/sheets/{self.token}/{frame}.jpg"), 404)
        begun = self.client.post(f"/api/sent/{self.link}/uploads", headers={"Upload-Length": "9"})
        self.assertEqual(begun.status_code, 403)

    def test_a_lesson_s_link_can_run_out(self) -> None:
        today = timezone.localdate()
        self.call("PUT", f"{self.lesson}/expiry", {"last_day": str(today)})
        self.assertEqual(self.status(f"/api/sheets/{self.token}"), 200)
        self.call("PUT", f"{self.lesson}/expiry", {"last_day": str(today - timedelta(days=1))})
        self.assertEqual(self.status(f"/api/sheets/{self.token}"), 404)

    def test_a_stranger_neither_sees_nor_empties_the_bin(self) -> None:
        self.call("DELETE", f"/api/swings/{self.swing.pk}", status=204)
        self.client.force_login(making.instructor("Odd Stranger"))
        self.assertEqual(self.client.get("/api/bin").json(), [])
        self.call("POST", f"/api/bin/swing/{self.swing.pk}/take-back", status=404)
        self.call("DELETE", f"/api/bin/swing/{self.swing.pk}", status=404)
        self.assertTrue(Swing.objects.filter(removed_at__isnull=False).exists())
