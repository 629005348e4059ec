"""A backup brings back every mark, file and link; what was erased since stays erased."""

import tempfile
from pathlib import Path
from typing import Any

from django.core.management import CommandError, call_command
from django.test import TransactionTestCase, override_settings

from tests.server import making
from tropometer.server.bench.models import BenchEdit, Mark, Swing
from tropometer.server.clips.models import Clip, Upload
from tropometer.server.lessons import sending, services
from tropometer.server.lessons.models import Lesson, LessonFrame
from tropometer.server.operations.bin import erase_now
from tropometer.server.people.models import Student


class BackupTests(TransactionTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.root = Path(folder.name)
        self.media, self.uploads, self.backup = (self.root / name for name in ("media", "uploads", "backup"))
        settings = override_settings(
            MEDIA_ROOT=str(self.media), UPLOAD_ROOT=str(self.uploads), SCRATCH_ROOT=str(self.root / "scratch")
        )
        settings.enable()
        self.addCleanup(settings.disable)
        self.owner = making.instructor()
        self.kept, self.link = self.practice("Tobin Farrow")
        self.erased, self.dead_link = self.practice("Jory Tennick")
        making.arrived(self.owner, b"half of it", "half.mp4")

    def practice(self, name: str) -> tuple[Clip, str]:
        """A student with a marked clip and a lesson that was sent."""
        student = making.student(self.owner, name=name)
        clip = making.with_picture(making.marked_swing(self.owner, student), self.root)
        BenchEdit.objects.create(pk=clip.pk, clip=clip, number=1, body={"kind": "mat"})
        lesson = Lesson.objects.create(instructor=self.owner, swing=clip.swing, opening=f"Well done, {name}.")
        services.add_frame(lesson, clip.pk, 3, "Look here.")
        sending.send(lesson)
        return clip, lesson.token or ""

    def run_command(self, *arguments: str) -> str:
        with tempfile.TemporaryFile("w+") as said:
            call_command(*arguments, stdout=said)
            said.seek(0)
            return said.read()

    def files(self) -> dict[str, bytes]:
        return {
            str(path.relative_to(self.root)): path.read_bytes()
            for folder in (self.media, self.uploads)
            for path in folder.rglob("*")
            if path.is_file()
        }

    def rows(self) -> dict[str, Any]:
        models = (Student, Swing, Clip, Mark, BenchEdit, Lesson, LessonFrame, Upload)
        return {model.__name__: sorted(model.objects.values_list(), key=repr) for model in models}

    def test_all_is_there_again_but_for_what_was_erased_meanwhile(self) -> None:
        self.assertIn("files and the database", self.run_command("backup", str(self.backup)))
        student = self.erased.swing.student
        assert student is not None
        Student.objects.filter(pk=student.pk).update(removed_at="2026-11-01T00:00Z")
        erase_now(self.owner, "student", student.pk)
        rows, files = self.rows(), self.files()
        # Then everything goes wrong, and something comes that the backup cannot know of.
        Mark.objects.all().delete()
        Student.objects.all().delete()
        Upload.objects.all().delete()
        self.practice("Late Comer")
        self.run_command("restore", str(self.backup))
        self.assertEqual(self.rows(), rows)
        self.assertEqual(self.files(), files)
        self.assertEqual(self.client.get(f"/api/sheets/{self.link}").status_code, 200)
        self.assertEqual(self.client.get(f"/api/sheets/{self.dead_link}").status_code, 404)
        frame = LessonFrame.objects.get()
        still = self.client.get(f"/api/sheets/{self.link}/{frame.pk}.jpg")
        self.assertEqual(b"".join(still.streaming_content)[:2], b"\xff\xd8")  # type: ignore[attr-defined]

    def test_what_is_no_backup_changes_nothing(self) -> None:
        before = self.rows()
        self.backup.mkdir()
        with self.assertRaisesRegex(CommandError, "no whole backup"):
            self.run_command("restore", str(self.backup))
        self.run_command("backup", str(self.backup))
        with self.assertRaisesRegex(CommandError, "is not empty"):
            self.run_command("backup", str(self.backup))
        (self.backup / "database.dump").write_bytes(b"torn")
        with self.assertRaisesRegex(CommandError, "pg_restore"):
            self.run_command("restore", str(self.backup))
        self.assertEqual(self.rows(), before)
