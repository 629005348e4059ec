"""A student's whole record: packed, wiped, brought back; and files that somebody has meddled with."""

from __future__ import annotations

import json
import shutil
import zipfile
from collections.abc import Callable
from io import BytesIO, StringIO
from pathlib import Path
from typing import Any
from uuid import uuid4

from django.apps import apps
from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from django.core.management import call_command
from django.test import TestCase

from tests.server.making import MediaFolders, instructor, marked_swing, ready_clip, student, with_picture
from tests.server.seen import put_proposals
from tropometer.server.bench.models import Mark, Peg, Swing
from tropometer.server.drill_checks.answering import answer
from tropometer.server.judging.models import Plan
from tropometer.server.lessons.models import Lesson, LessonFrame, SentSheet
from tropometer.server.lessons.sending import send
from tropometer.server.lessons.services import add_frame
from tropometer.server.logbook import keeping
from tropometer.server.operations.record.packing import pack, rows_of
from tropometer.server.operations.record.register import PARTS, STAY_BEHIND, STUDENT
from tropometer.server.operations.record.unpacking import RecordTrouble, unpack
from tropometer.server.people.models import Ache, Student, StudentNote, User
from tropometer.server.people.student_page import page_of
from tropometer.server.talking.models import Message, Practised, Side

SEEN = "tobin_first_face"


class RecordTests(MediaFolders, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.maren = instructor()
        self.tobin = student(self.maren, stature_m=1.81)
        self.clip = marked_swing(self.maren, self.tobin, whole=True)
        self.swing = self.clip.swing
        with_picture(self.clip, self.uploads.parent)
        self.clip.original.save("original", ContentFile(b"as it came"))
        put_proposals(self.clip, SEEN)
        keeping.keep(self.swing.pk)
        Plan.objects.create(swing=self.swing, document={"focus": []})
        self.lesson = Lesson.objects.create(instructor=self.maren, swing=self.swing)
        add_frame(self.lesson, self.clip.pk, 5, "Look here.")
        self.other = marked_swing(self.maren, student(self.maren, name="Wynn Osk", email=""))
        with_picture(self.other, self.uploads.parent)
        add_frame(self.lesson, self.other.pk, 6, "Beside another.")
        send(self.lesson)
        self.still = LessonFrame.objects.get(student=self.tobin).still.read()
        Message.objects.create(student=self.tobin, side=Side.STUDENT, words="Do I go on?", lesson=self.lesson)
        Practised.objects.create(
            student=self.tobin, drill="x", name="X", day="2026-11-01", lesson=self.lesson
        )
        StudentNote.objects.create(pk=uuid4(), student=self.tobin, day="2026-11-01", words="Tall.")
        Ache.objects.create(student=self.tobin, part="trail_knee", trouble="pain")
        tried = Swing.objects.create(instructor=self.maren, student=self.tobin, drill="lines_on_a_mirror")
        put_proposals(ready_clip(self.maren, tried), SEEN)
        answer(tried.pk)
        page_of(self.tobin)
        self.zip = Path(self.uploads.parent) / "tobin.zip"

    def packed(self) -> Path:
        if not self.zip.exists():
            pack(self.tobin, self.zip)
        return self.zip

    def wiped(self) -> None:
        """As on another machine: no row of it, and no file."""
        Student.objects.get(pk=self.tobin.pk).delete()
        for folder in self.media.iterdir():
            shutil.rmtree(folder)

    def state(self) -> dict[str, list[dict[str, Any]]]:
        """All rows of the record but for the numbers that each machine counts by itself."""
        found = {}
        for part in PARTS:
            rows = list(rows_of(part, self.tobin).values())
            for row in rows:
                if part.of._meta.pk.get_internal_type() == "BigAutoField":
                    row.pop("id")
                for name in ("revoked_at", *part.left_out):
                    row.pop(name, None)
                if part.model == "lessons.SentSheet":
                    frames = row["document"]["frames"]
                    row["document"]["frames"] = [f for f in frames if f["student_id"] == str(self.tobin.pk)]
            found[part.model] = sorted(rows, key=str)
        return found

    def meddled(self, name: str, change: Callable[[list[dict[str, Any]]], None]) -> Path:
        target = self.zip.with_name("meddled.zip")
        with zipfile.ZipFile(self.packed()) as source, zipfile.ZipFile(target, "w") as into:
            for each in source.namelist():
                content = source.read(each)
                if each == f"rows/{name}.jsonl":
                    rows = [json.loads(line) for line in content.splitlines()]
                    change(rows)
                    content = b"\n".join(json.dumps(row).encode() for row in rows)
                into.writestr(each, content)
        return target

    def test_every_row_that_hangs_on_a_student_is_taken_along_or_said_to_stay(self) -> None:
        hanging, todo = set(), [apps.get_model(STUDENT)]
        while todo:
            for relation in todo.pop()._meta.related_objects:
                model = relation.related_model
                if model._meta.label not in hanging:
                    hanging.add(model._meta.label)
                    todo.append(model)
        self.assertEqual(hanging, ({part.model for part in PARTS} - {STUDENT}) | STAY_BEHIND)

    def test_what_was_wiped_comes_back_with_its_ids_its_marks_and_its_files(self) -> None:
        before = self.state()
        came = unpack(self.packed(), self.maren)  # all of it is here
        self.assertFalse(any(came.new.values()))
        self.assertEqual(self.state(), before)
        self.wiped()
        self.assertFalse(Swing.objects.filter(student=self.tobin.pk).exists())
        unpack(self.zip, self.maren)
        self.tobin = Student.objects.get(name="Tobin Farrow")
        self.assertEqual(self.state(), before)
        clip = Swing.objects.get(pk=self.swing.pk).clips.get()
        self.assertEqual(clip.original.read(), b"as it came")
        self.assertEqual(LessonFrame.objects.get(lesson=self.lesson.pk).still.read(), self.still)
        (sheet,) = SentSheet.objects.filter(lesson=self.lesson.pk)
        (sent,) = sheet.document["frames"]
        self.assertTrue(default_storage.exists(sent["still"]))
        unpack(self.zip, self.maren)
        self.assertEqual(self.state(), before)  # no doubles

    def test_only_what_is_missing_comes_and_what_was_changed_here_stands(self) -> None:
        path, lesson = self.packed(), self.lesson.pk
        self.lesson.delete()
        Peg.objects.filter(clip=self.clip, name="top").update(frame=1)
        Student.objects.filter(pk=self.tobin.pk).update(name="Tobin Farrow the elder")
        came = unpack(path, self.maren)
        self.assertEqual(came.new["lessons.Lesson"], {lesson})
        self.assertEqual(Peg.objects.get(clip=self.clip, name="top").frame, 1)
        self.assertEqual(Student.objects.get(pk=self.tobin.pk).name, "Tobin Farrow the elder")
        self.assertEqual(Lesson.objects.get().frames.count(), 1)

    def test_links_and_other_people_s_pictures_stay_behind(self) -> None:
        theirs = LessonFrame.objects.get(student=self.other.swing.student_id).still.read()
        self.assertTrue(theirs)
        link, page = Lesson.objects.get().token or "", page_of(self.tobin).token
        with zipfile.ZipFile(self.packed()) as files:
            held = b"".join(
                files.read(name) for name in files.namelist() if name.startswith(("rows", "media"))
            )
        for secret in (link.encode(), page.encode(), theirs[200:], str(self.other.pk).encode(), b"Beside"):
            self.assertNotIn(secret, held)
        self.assertIn(self.still[200:], held)

    def test_half_a_file_of_a_killed_import_is_no_file(self) -> None:
        path, name = self.packed(), self.clip.original.name
        self.wiped()
        default_storage.save(name, ContentFile(b"as it"))
        unpack(path, self.maren)
        with default_storage.open(name) as content:
            self.assertEqual(content.read(), b"as it came")

    def test_another_instructor_s_student_is_refused_and_nothing_comes(self) -> None:
        path = self.packed()
        with self.assertRaisesRegex(RecordTrouble, "another instructor's here"):
            unpack(path, instructor("Odd Stranger"))

    def test_a_row_of_something_else_is_named_and_nothing_comes(self) -> None:
        stranger = instructor("Odd Stranger")
        theirs = marked_swing(stranger, student(stranger, name="Somebody", email=""))
        marked = theirs.marks.count()

        def to(field: str, pk: object) -> Callable[[list[dict[str, Any]]], None]:
            return lambda rows: rows[0]["fields"].__setitem__(field, str(pk))

        cases = (
            ("bench.Mark", to("clip", theirs.pk), "clip is not of this record"),
            ("bench.Swing", to("student", theirs.swing.student_id), "student is not of this record"),
            ("bench.Mark", to("x", "far"), "bench.Mark.jsonl, line 1"),
            ("people.Student", lambda rows: rows.clear(), "0 students"),
            ("bench.Swing", to("part", "first"), "bench.Swing.jsonl, line 1"),
            ("bench.Swing", to("words", "a\0b"), "bench.Swing.jsonl, line 1"),
            ("clips.Clip", to("original", f"clips/{theirs.pk}/original"), "not a file of this record"),
            ("clips.Clip", to("original", "../../secret"), "not a file of this record"),
            (
                "bench.Swing",
                lambda rows: rows[0].__setitem__("pk", str(theirs.swing_id)),
                "something else's here",
            ),
        )
        for name, change, words in cases:
            with self.subTest(words):
                path = self.meddled(name, change)
                kept = User.objects.get(pk=self.maren.pk)
                self.wiped()
                with self.assertRaisesRegex(RecordTrouble, words):
                    unpack(path, kept)
                self.assertFalse(Student.objects.filter(instructor=kept, name="Tobin Farrow").exists())
                self.assertEqual(Mark.objects.filter(clip__instructor=stranger).count(), marked)
                self.assertEqual([each for each in self.media.rglob("*") if each.is_file()], [])
                unpack(self.zip, kept)
                self.tobin = Student.objects.get(name="Tobin Farrow")
        self.zip.write_bytes(self.zip.read_bytes()[:-200])
        with self.assertRaisesRegex(RecordTrouble, "cannot be read"):
            unpack(self.zip, self.maren)

    def test_by_command_from_one_machine_to_another(self) -> None:
        self.packed()
        said, folder = StringIO(), self.uploads.parent / "out"
        call_command("export_record", self.maren.email, str(folder), "tob", stdout=said)
        (made,) = folder.iterdir()
        self.assertIn(made.name, said.getvalue())
        with zipfile.ZipFile(made) as files:
            self.assertIn("log.csv", files.namelist())
            self.assertTrue(any(name.endswith("swing.json") for name in files.namelist()))
        self.client.force_login(self.maren)
        got = self.client.get(f"/api/students/{self.tobin.pk}/record.zip")
        self.assertEqual(
            sorted(zipfile.ZipFile(BytesIO(got.getvalue())).namelist()),
            sorted(zipfile.ZipFile(made).namelist()),
        )
        self.wiped()
        call_command("import_record", self.maren.email, str(made), stdout=said)
        self.assertIn("Tobin Farrow came with 2 swings and 1 lessons", said.getvalue())
