"""The log: what was read of every swing, kept as its marks change and as the core does."""

from __future__ import annotations

import csv
import io
import math
from datetime import timedelta
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.db import connection
from django.test import TestCase
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server.making import instructor, marked_swing, ready_clip, student
from tropometer.server.bench.edit_schemas import PegEdit
from tropometer.server.bench.editing import apply_edits
from tropometer.server.bench.models import Swing, SwingRequest
from tropometer.server.judging.models import Plan
from tropometer.server.lessons.models import Lesson, SentSheet
from tropometer.server.logbook import keeping
from tropometer.server.logbook.models import LoggedReading, LoggedSwing
from tropometer.server.people.models import Ache, MotionMeasured, Student, StudentNote
from tropometer.server.people.services import change
from tropometer.server.people.student_page import page_of
from tropometer.server.talking.models import Message, Practised


def asked_for() -> list[str]:
    """The swings that a worker is asked to log."""
    jobs = ProcrastinateJob.objects.filter(task_name__endswith="log_swing", status="todo")
    return [job.args["swing_id"] for job in jobs]


class LogTest(TestCase):
    def setUp(self) -> None:
        self.maren = instructor()
        self.clip = marked_swing(self.maren)
        self.swing = self.clip.swing

    def rows(self) -> dict[tuple[str, str], LoggedReading]:
        now = LoggedReading.objects.filter(swing=self.swing, replaced_at__isnull=True)
        return {(row.reading, row.at): row for row in now}

    def test_what_is_read_is_in_the_log_with_its_error(self) -> None:
        keeping.keep(self.swing.pk)
        keeping.keep(self.swing.pk)
        sway = self.rows()["pelvis_sway", "top"]
        self.assertGreater(sway.u95, 0)
        self.assertTrue(0 < sway.set_up_share <= 1)
        self.assertTrue(sway.worst)
        self.assertEqual(LoggedReading.objects.filter(swing=self.swing).count(), len(self.rows()))

    def test_a_changed_mark_asks_for_the_log_once_and_changes_its_rows(self) -> None:
        keeping.keep(self.swing.pk)
        before = self.rows()
        peg = self.clip.pegs.get(name="top")
        for frame in (peg.frame - 9, peg.frame - 8):
            apply_edits(self.clip, [PegEdit(id=uuid4(), kind="peg", name="top", frame=frame)])
        self.assertEqual(asked_for(), [str(self.swing.pk)])
        keeping.keep(self.swing.pk)
        self.assertEqual(LoggedReading.objects.filter(replaced_at__isnull=False).count(), 0)
        after = self.rows()
        self.assertNotEqual(before["tempo", "swing"].value, after["tempo", "swing"].value)
        apply_edits(self.clip, [PegEdit(id=uuid4(), kind="peg", name="top", frame=None)])
        keeping.keep(self.swing.pk)
        self.assertNotIn(("pelvis_sway", "top"), self.rows())

    def test_another_core_reads_anew_and_what_the_old_one_read_stays(self) -> None:
        keeping.keep(self.swing.pk)
        self.assertEqual(keeping.log_what_is_old(), 0)
        was = self.rows()["pelvis_sway", "top"]
        LoggedReading.objects.filter(pk=was.pk).update(value=was.value + 0.01)
        with patch.object(keeping, "core_version", return_value="another"):
            self.assertEqual(keeping.log_what_is_old(), 1)
            keeping.keep(self.swing.pk)
            self.assertEqual(keeping.log_what_is_old(), 0)
        old = LoggedReading.objects.get(replaced_at__isnull=False)
        self.assertEqual((old.pk, round(old.value - was.value, 6)), (was.pk, 0.01))
        now = self.rows()["pelvis_sway", "top"]
        self.assertEqual((now.value, now.core), (was.value, "another"))
        self.assertEqual({row.core for row in self.rows().values()}, {"another"})

    def test_a_student_s_height_asks_for_all_of_their_swings(self) -> None:
        tobin = self.swing.student
        assert tobin is not None
        said = {"name": tobin.name, "hand": "right", "teaching_model": tobin.teaching_model}
        change(tobin, said | {"stature_m": tobin.stature_m})
        self.assertEqual(asked_for(), [])
        change(tobin, said | {"stature_m": 1.9})
        self.assertEqual(asked_for(), [str(self.swing.pk)])

    def test_a_swing_in_the_bin_keeps_what_was_read_of_it(self) -> None:
        keeping.keep(self.swing.pk)
        before = len(self.rows())
        Swing.objects.filter(pk=self.swing.pk).update(removed_at=timezone.now())
        self.clip.pegs.all().delete()
        keeping.keep(self.swing.pk)
        self.assertEqual(len(self.rows()), before)

    def test_swings_of_nobody_and_without_pegs_are_left_alone(self) -> None:
        self.clip.pegs.all().delete()
        self.assertEqual(keeping.log_what_is_old(), 0)
        keeping.keep(self.swing.pk)
        self.assertEqual(LoggedSwing.objects.count(), 1)
        self.swing.delete()
        keeping.keep(self.swing.pk)
        self.assertFalse(LoggedReading.objects.exists())


class OverTimeTest(TestCase):
    """A student whose swings are in the log: trends, changes, goals."""

    def setUp(self) -> None:
        self.maren = instructor()
        self.tobin = student(self.maren)
        self.client.force_login(self.maren)
        self.path = f"/api/students/{self.tobin.pk}"
        self.now = timezone.now()

    def swing(self, days_ago: float, *values: float, club_class: str = "iron", **more: Any) -> list[Swing]:
        """Swings of one day, each with what was read of its hips' turn at the top."""
        made = []
        for number, value in enumerate(values):
            at = self.now - timedelta(days=days_ago, minutes=-number)
            swing = Swing.objects.create(
                instructor=self.tobin.instructor,
                student=self.tobin,
                club="7 iron",
                club_class=club_class,
                received_at=at,
            )
            LoggedSwing.objects.create(swing=swing, core="x")
            row = {"u95": 2.0, "set_up_share": 0.2, "worst": "mark", "provisional": False, "core": "x"}
            LoggedReading.objects.create(
                swing=swing, reading="pelvis_turn", at="top", value=value, **row | more
            )
            made.append(swing)
        return made

    def lesson(self, swing: Swing, days_ago: float, **goal: Any) -> None:
        """A lesson on a swing that was sent, with a goal for the hips' turn."""
        asked = {"reading": "pelvis_turn", "at": "top", "low": 38.0, "high": 55.0, "by": None, "unit": "deg"}
        asked |= {"then": {"value": 26.0, "u95": 2.0}} | goal
        focus = {"fault": "restricted_turn", "name": "Your hips stop early", "drills": [], "goal": asked}
        Plan.objects.create(swing=swing, document={"focus": []}, as_sent={"focus": [focus]})
        Swing.objects.filter(pk=swing.pk).update(answered_at=self.now - timedelta(days=days_ago))

    def told(self, part: str) -> Any:
        return self.client.get(f"{self.path}/{part}").json()

    def test_a_trend_holds_the_swings_of_one_kind_in_time(self) -> None:
        (first,) = self.swing(40, 26.0)
        self.lesson(first, 39)
        self.swing(3, 44.0, 45.0)
        self.swing(2, 50.0, club_class="driver")
        found = self.told("trends")
        self.assertEqual(found["club_class"], "iron")
        self.assertEqual([kind["swings"] for kind in found["kinds"]], [3, 1])
        self.assertEqual([swing["stretch"] for swing in found["swings"]], [0, 1, 1])
        (trend,) = found["trends"]
        self.assertEqual((trend["value"], trend["swing"]), ([26.0, 44.0, 45.0], [0, 1, 2]))
        self.assertEqual((trend["low"], trend["high"]), (38.0, 55.0))
        self.assertEqual([lesson["about"] for lesson in found["lessons"]], [["Your hips stop early"]])
        driver = self.told("trends?club_class=driver")
        self.assertEqual([trend["value"] for trend in driver["trends"]], [[50.0]])

    def test_a_trend_is_as_many_queries_for_many_swings(self) -> None:
        self.swing(40, *[26.0] * 2)
        with CaptureQueriesContext(connection) as few:
            self.told("trends")
        self.swing(20, *[30.0] * 30)
        with self.assertNumQueries(len(few)):
            self.told("trends")

    def test_a_change_since_the_last_lesson_and_since_the_first(self) -> None:
        one = self.swing(60, 26.0, 26.4, 25.8)[-1]
        self.assertIsNone(self.told("change/pelvis_turn/top")["change"])
        self.lesson(one, 59)
        two = self.swing(30, 38.0, 38.6, 37.5)[-1]
        self.lesson(two, 29)
        self.swing(2, 38.4, 38.1, 38.0)
        last = self.told("change/pelvis_turn/top?club_class=iron")["change"]
        self.assertIn(last["moved"], ("not_shown", "unsure"))
        first = self.told("change/pelvis_turn/top?since_first=true")["change"]
        self.assertEqual((first["moved"], first["then_swings"], first["now_swings"]), ("toward", 3, 3))
        self.assertEqual(self.told("change/pelvis_turn/top")["together"]["unlike"], None)
        odd = self.swing(1, 38.4, 38.1, 12.0, 38.0)[2]
        day = self.told("change/pelvis_turn/top")["together"]
        self.assertEqual((day["swings"], day["unlike"], day["value"]), (4, str(odd.pk), 12.0))
        self.assertLess(day["low"], day["high"])
        self.assertEqual(self.client.get(f"{self.path}/change/x/top").status_code, 404)

    def test_how_far_a_reading_repeats_is_told_over_all_students(self) -> None:
        self.swing(9, 40.0, 42.0)
        self.assertIsNone(self.told("change/pelvis_turn/top")["repeats"])  # one student alone tells nothing
        tobin, self.tobin = self.tobin, student(self.maren, name="Ilse Marrin")
        self.swing(8, 50.0, 54.0)
        self.swing(8, 90.0, 10.0, club_class="driver")
        self.swing(7, 10.0, 90.0, provisional=True)
        self.tobin = student(instructor("Vilja Sund"))
        self.swing(8, 10.0, 90.0)
        self.tobin = tobin
        repeats = self.told("change/pelvis_turn/top")["repeats"]
        self.assertEqual((repeats["subjects"], repeats["swings"]), (2, 4))
        self.assertAlmostEqual(repeats["sem"], math.sqrt((2 + 8) / 2))  # by hand: squares within, over 2
        self.assertAlmostEqual(repeats["least_change"], 2.7718 * repeats["sem"], places=3)

    def test_a_goal_is_checked_by_every_later_swing_of_its_club(self) -> None:
        (first,) = self.swing(40, 26.0)
        self.lesson(first, 39, by=(self.now - timedelta(days=5)).date().isoformat())
        self.assertEqual(self.told("goals")[0]["state"], "no_swing_since")
        self.swing(20, 46.0, club_class="driver")
        self.swing(20, 46.0, provisional=True)
        self.assertEqual(self.told("goals")[0]["state"], "no_swing_since")
        self.swing(10, 26.4, 25.9, 26.2, 26.1)
        (goal,) = self.told("goals")
        self.assertEqual((goal["state"], goal["overdue"]), ("not_yet", True))
        self.assertEqual(goal["change"]["now_swings"], 4)
        Swing.objects.filter(received_at__gt=self.now - timedelta(days=11)).delete()
        self.swing(1, 46.0, 46.5, 45.8, 46.1)
        self.assertEqual([(g["state"], g["overdue"]) for g in self.told("goals")], [("reached", False)])

    def test_the_log_is_a_table_that_no_club_s_name_can_turn_into_a_formula(self) -> None:
        (swing,) = self.swing(4, 26.0)
        Swing.objects.filter(pk=swing.pk).update(club="=HYPERLINK(1)")
        lines = list(csv.reader(io.StringIO(self.client.get(f"{self.path}/log.csv").content.decode())))
        self.assertEqual(lines[0][-2:], ["unit", "provisional"])
        said = ["'=HYPERLINK(1)", "iron", "full", "pelvis_turn", "top", "26.0", "2.0", "deg", "False"]
        self.assertEqual(lines[1][2:], said)


class CardTest(TestCase):
    """The student's card: notes, and being taught no more."""

    def setUp(self) -> None:
        self.maren = instructor()
        self.tobin = student(self.maren)
        self.client.force_login(self.maren)
        self.path = f"/api/students/{self.tobin.pk}"

    def put(self, path: str, body: dict[str, Any], status: int = 200) -> Any:
        answer = self.client.put(path, body, content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def test_a_note_is_kept_once_changed_and_taken_away(self) -> None:
        id = uuid4()
        for words in ("Grip first.", "Grip first, then the feet."):
            self.put(f"{self.path}/notes/{id}", {"day": "2026-11-02", "words": words})
        self.put(f"{self.path}/notes/{uuid4()}", {"day": "2026-11-20", "words": "Knee is better."})
        said = [note["words"] for note in self.client.get(f"{self.path}/notes").json()]
        self.assertEqual(said, ["Knee is better.", "Grip first, then the feet."])
        refused = self.put(f"{self.path}/notes/{uuid4()}", {"day": "2026-11-02", "words": " "}, 422)
        self.assertEqual(refused["fields"][0]["field"], "words")
        other = student(self.maren, name="Ilse Marrin")
        self.put(f"/api/students/{other.pk}/notes/{id}", {"day": "2026-11-02", "words": "X"}, 404)
        self.client.delete(f"{self.path}/notes/{id}")
        self.assertEqual(len(self.client.get(f"{self.path}/notes").json()), 1)

    def found(self, path: str) -> list[str]:
        rows = self.client.get(f"/api/{path}").json()["items"]
        return [row["name"] if "name" in row else row["student"]["name"] for row in rows]

    def test_who_is_not_taught_any_more_is_off_the_list_and_comes_back(self) -> None:
        self.put(f"{self.path}/archived", {"archived": True})
        self.assertEqual(self.found("students"), [])
        self.assertEqual(self.found("students?show=archived"), ["Tobin Farrow"])
        self.put(f"{self.path}/archived", {"archived": False})
        self.assertEqual(self.found("students"), ["Tobin Farrow"])

    def test_lists_are_searched_by_hand_club_finding_day_and_who_waits(self) -> None:
        ilse = student(self.maren, name="Ilse Marrin", hand="left")
        clip = marked_swing(self.maren, self.tobin, whole=True)
        keeping.keep(clip.swing.pk)
        Swing.objects.filter(pk=clip.swing.pk).update(received_at=timezone.now() - timedelta(days=9))
        driver = Swing.objects.create(instructor=self.maren, student=ilse, club_class="driver")
        ready_clip(self.maren, driver)
        self.assertEqual(self.found("students?hand=left"), ["Ilse Marrin"])
        self.assertEqual(self.found("students?club_class=driver"), ["Ilse Marrin"])
        self.assertEqual(self.found("students?show=waiting&order=newest"), ["Ilse Marrin", "Tobin Farrow"])
        Swing.objects.filter(pk=driver.pk).update(answered_at=timezone.now())
        self.assertEqual(self.found("students?show=waiting"), ["Tobin Farrow"])
        self.assertEqual(self.found("swings?finding=sways"), ["Tobin Farrow"])  # judged when it was logged
        self.assertEqual(self.found("swings?finding=hooks"), [])
        day = timezone.localdate() - timedelta(days=9)
        self.assertEqual(self.found(f"swings?since={day}&until={day}"), ["Tobin Farrow"])
        self.assertEqual(self.found(f"swings?until={day - timedelta(days=1)}"), [])
        self.assertEqual(self.found(f"swings?student={ilse.pk}"), ["Ilse Marrin"])
        self.assertEqual(self.found("swings?q=TOBIN%20iron"), ["Tobin Farrow"])
        self.assertEqual(self.found("swings?q=Farrow7"), [])  # no word goes from one field to the next


class MergeTest(TestCase):
    """Two cards of one person become one, and nothing of either is lost."""

    def setUp(self) -> None:
        self.maren = instructor()
        self.kept = student(self.maren, email="")
        self.other = student(self.maren, name="T. Farrow", history="Plays after the last boat.")
        self.client.force_login(self.maren)

    def merge(self, other: Student, status: int = 200) -> Any:
        path = f"/api/students/{self.kept.pk}/merge"
        answer = self.client.post(path, {"other": other.pk}, content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def test_all_that_hung_on_the_other_card_hangs_on_the_one_that_is_kept(self) -> None:
        clip = marked_swing(self.maren, self.other)
        lesson = Lesson.objects.create(instructor=self.maren, swing=clip.swing, sent_at=timezone.now())
        seen = {"frames": [{"id": "x", "still": "x.jpg", "student_id": str(self.other.pk)}], "plan": None}
        sheet = SentSheet.objects.create(lesson=lesson, number=1, sent_at=timezone.now(), document=seen)
        day = timezone.localdate()
        for who, words, step in ((self.kept, "Easy.", 1), (self.other, "Tight.", 3)):
            SwingRequest.objects.create(instructor=self.maren, student=who)
            Ache.objects.create(student=who, part="trail_knee", trouble="pain")
            Practised.objects.create(student=who, drill="x", name="X", day=day, words=words, step=step)
            Message.objects.create(student=who, side="student", words=words)
            page_of(who)
        self.other.aches.update(agreed_by="Dr Holm", agreed_on=day)
        MotionMeasured.objects.create(student=self.other, motion="trunk_turn", degrees=40, measured_on=day)
        told = self.merge(self.other)
        self.assertEqual((told["name"], told["email"]), ("Tobin Farrow", "tobin@skerrow.example"))
        self.assertEqual(told["history"], "Plays after the last boat.")
        self.assertFalse(Student.objects.filter(pk=self.other.pk).exists())
        self.assertEqual(Message.objects.filter(student=self.kept).count(), 2)
        (tick,) = Practised.objects.all()
        self.assertEqual((tick.step, tick.words), (3, "Easy. Tight."))
        self.assertEqual([ache.agreed_by for ache in Ache.objects.all()], ["Dr Holm"])
        self.assertEqual(MotionMeasured.objects.get().student, self.kept)
        self.assertEqual(SwingRequest.objects.filter(closed_at__isnull=True).count(), 1)
        self.assertEqual(Swing.objects.get().student, self.kept)
        sheet.refresh_from_db()
        self.assertEqual(sheet.document["frames"][0]["student_id"], str(self.kept.pk))

    def test_what_has_no_room_on_the_card_becomes_a_note(self) -> None:
        Student.objects.filter(pk=self.kept.pk).update(history="a" * 1200)
        Student.objects.filter(pk=self.other.pk).update(history="b" * 1200)
        self.assertEqual(self.merge(self.other)["history"], "a" * 1200)
        self.assertEqual(StudentNote.objects.get(student=self.kept).words, "b" * 1200)

    def test_another_player_s_card_is_not_merged(self) -> None:
        self.assertIn("itself", self.merge(self.kept, 422)["detail"])
        lefty = student(self.maren, name="Ilse Marrin", hand="left")
        self.assertIn("left-handed", self.merge(lefty, 422)["detail"])
        self.merge(student(instructor("Vilja Sund")), 404)
        self.assertEqual(Student.objects.count(), 4)
