"""Edits: each once, all or none, in order; and what follows from them."""

import csv
import io
import json
import uuid
from typing import Any

from django.db import IntegrityError, transaction
from django.test import TestCase
from django.utils import timezone

from tests.server import making
from tests.swings import truth
from tropometer.server.bench.models import BenchEdit, Calibration, Mark, Mat, Peg, Swing
from tropometer.server.clips.models import Clip
from tropometer.server.lessons.models import Lesson
from tropometer.server.shelf.models import ReferenceSwing


def edit(kind: str, **about: Any) -> dict[str, Any]:
    return {"id": str(uuid.uuid4()), "kind": kind, **about}


def mark(name: str, frame: int, x: float = 100.0) -> dict[str, Any]:
    return edit("mark", name=name, frame=frame, place={"x": x, "y": 50.0, "sd_px": 1.5})


def patched(held: list[Any], changed: list[Any], name: str) -> list[Any]:
    """What is held, with what has changed in its place."""
    by_name = {each[name]: each for each in changed}
    return [by_name.get(each[name], each) for each in held]


class ViewsTests(TestCase):
    """Two views are measured together only once somebody has said that they are one swing."""

    def setUp(self) -> None:
        self.owner = making.instructor()
        self.client.force_login(self.owner)

    def opened(self, face: str, line: str) -> tuple[Any, str]:
        swing = making.seen_from_both(self.owner, face, line)
        path = f"/api/swings/{swing.pk}"
        return self.client.get(path).json()["measured"], path

    def say(self, path: str, one_swing: bool) -> Any:
        body = json.dumps({"one_swing": one_swing})
        return self.client.put(f"{path}/views", body, content_type="application/json").json()

    def given(self, found: Any) -> bool:
        return self.hip(found)["value"] is not None

    def hip(self, found: Any) -> Any:
        return next(r for r in making.rows(found["readings"]) if r["reading"] == "hip_travel_clock")

    def test_until_it_is_said_each_view_is_read_by_itself(self) -> None:
        found, path = self.opened("tobin_first_face", "tobin_first_line")
        self.assertEqual(found["pairing"], {"one_swing": None, "unlike": None})
        self.assertIn("these are two swings", self.hip(found)["reason"])
        found = self.say(path, True)
        self.assertEqual((found["pairing"]["one_swing"], self.given(found)), (True, True))
        self.assertEqual(self.client.get(path).json()["measured"]["readings"], found["readings"])
        found = self.say(path, False)
        self.assertEqual((found["pairing"]["one_swing"], self.given(found)), (False, False))
        self.assertFalse(self.client.get(f"{path}/record").json()["one_swing"])

    def test_views_that_take_differently_long_are_told_apart(self) -> None:
        found, path = self.opened("tobin_first_face", "tobin_first_line")
        line = Clip.objects.get(view="down_the_line")
        line.played_times_s = [time * 1.2 for time in line.played_times_s]
        line.save()
        found = self.client.get(path).json()["measured"]
        unlike = self.say(path, True)["pairing"]["unlike"]
        self.assertGreater(abs(unlike["a_s"] - unlike["b_s"]), 0.05)
        self.assertEqual(found["pairing"]["unlike"], unlike)


class EditTests(TestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        self.clip = making.marked_swing(self.owner)
        self.client.force_login(self.owner)

    def send(self, *edits: dict[str, Any]) -> Any:
        body = json.dumps({"edits": edits})
        return self.client.post(f"/api/clips/{self.clip.pk}/edits", body, content_type="application/json")

    def sway(self, answer: Any) -> Any:
        readings = making.rows(answer.json()["readings"])
        return next(r for r in readings if (r["reading"], r["at"]) == ("pelvis_sway", "top"))

    def test_a_moved_mark_changes_the_value_at_once(self) -> None:
        before = self.sway(self.send())
        self.assertEqual(before["standing"], "below")
        top = making.PEGGED["top"]
        hip = Mark.objects.get(clip=self.clip, name="lead_hip", frame=top)
        after = self.sway(self.send(mark("lead_hip", top, hip.x + 20)))
        self.assertGreater(after["value"], before["value"] + 0.02)
        self.assertEqual(after["frames"], [top, making.PEGGED["address"]])

    def test_an_edit_answers_with_what_differs(self) -> None:
        path = f"/api/swings/{self.clip.swing_id}"
        opened = self.client.get(path).json()["measured"]
        top = making.PEGGED["top"]
        answer = self.change(opened["state"], mark("lead_knee", top, 300.0))
        self.assertEqual(answer["since"], opened["state"])
        self.assertLess(len(answer["readings"]), len(opened["readings"]) / 2)
        self.assertIsNone(answer["floor"])
        now = self.client.get(path).json()["measured"]
        self.assertEqual(answer["state"], now["state"])
        # What was held with what differs in its place is what there is now.
        self.assertEqual(patched(opened["readings"], answer["readings"], "reading"), now["readings"])
        before, drawn, after = (each["clips"][0]["gauges"] for each in (opened, answer, now))
        self.assertLess(len(drawn), len(before))
        self.assertEqual(patched(before, drawn, "id"), after)
        # A state that nobody here knows, and one with other readings: then all is told.
        self.assertEqual(self.change("nobody's")["readings"], now["readings"])
        gone = self.change(now["state"], *[edit("peg", name=name, frame=None) for name in making.PEGGED])
        self.assertEqual((gone["since"], gone["floor"]["marks"]), (None, []))
        self.assertEqual(self.client.get(path).json()["measured"]["readings"], gone["readings"])

    def change(self, since: str, *edits: dict[str, Any]) -> Any:
        body = json.dumps({"edits": edits, "since": since})
        address = f"/api/clips/{self.clip.pk}/edits"
        return self.client.post(address, body, content_type="application/json").json()

    def test_where_an_interval_comes_from_is_told_when_it_is_asked(self) -> None:
        path = f"/api/swings/{self.clip.swing_id}/budgets"
        found = self.client.get(f"{path}?reading=pelvis_sway&reading=knee_height_difference").json()
        self.assertEqual({each["reading"] for each in found}, {"pelvis_sway", "knee_height_difference"})
        for each in found:
            self.assertAlmostEqual(sum(share["share"] for share in each["budget"]), 1, places=2)
        self.assertIn("face-on", found[0]["largest_error"])
        self.assertEqual(self.client.get(f"{path}?reading=nothing").json(), [])

    def test_an_edit_sent_twice_is_done_once(self) -> None:
        first, undo = mark("ball", 3), edit("mark", name="ball", frame=3, place=None)
        self.send(first)
        self.send(undo)
        self.send(first)  # the answer was lost and the browser sent it again
        self.assertFalse(Mark.objects.filter(clip=self.clip, name="ball").exists())
        self.assertEqual(BenchEdit.objects.count(), 2)

    def test_edits_are_done_all_or_none_and_the_bad_one_is_named(self) -> None:
        bad = [
            (mark("ball", 999), f"frame 999 is outside the clip (0 to {making.FRAMES - 1})"),
            (mark("elbow_patch", 3), "there is no mark called elbow_patch"),
            (edit("peg", name="top", frame=9, between=True), "only impact can lie between"),
            (edit("peg", name="impact", frame=making.FRAMES - 1, between=True), "outside the clip"),
            (edit("peg", name="top", frame=making.FRAMES), f"peg top: frame {making.FRAMES}"),
            (edit("peg", name="lunch", frame=1), "name"),
            (edit("mark", name="ball", frame=1, place={"x": "inf", "y": 1, "sd_px": 1}), "place.x"),
            (self.length(bx=10.0), "both ends are the same point"),
            (self.length(length_m=-1), "length_m"),
        ]
        for wrong, said in bad:
            with self.subTest(said=said):
                answer = self.send(mark("ball", 3), wrong)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(said, answer.json()["detail"])
        self.assertFalse(Mark.objects.filter(clip=self.clip, name="ball").exists())

    def length(self, **change: Any) -> dict[str, Any]:
        value = {"ax": 10.0, "ay": 10.0, "bx": 400.0, "by": 10.0, "length_m": 1.2, "place": "toe_line"}
        return edit("calibration", value={**value, **change})

    def test_pegs_and_the_known_length_move_and_go(self) -> None:
        self.send(edit("peg", name="top", frame=71), self.length())
        self.assertEqual(Peg.objects.get(clip=self.clip, name="top").frame, 71)
        self.assertEqual(Calibration.objects.get(clip=self.clip).length_m, 1.2)
        answer = self.send(self.length(length_m=None))  # drawn, but nobody has said how long it is
        self.assertIn("Set a known length in the picture", self.sway(answer)["reason"])
        self.assertEqual(answer.json()["clips"][0]["calibration"]["bx"], 400.0)
        answer = self.send(edit("peg", name="top", frame=None), edit("calibration", value=None))
        refused = self.sway(answer)
        self.assertIn("Set a known length in the picture, or the corners of the mat.", refused["reason"])
        self.assertEqual([need["kind"] for need in refused["needs"]], ["known_length", "peg"])
        self.assertFalse(Peg.objects.filter(clip=self.clip, name="top").exists())

    def test_the_camera_follows_from_the_mat_and_turns_round_with_the_clip(self) -> None:
        known = truth(making.TOBIN)
        corners = [{"x": x, "y": y} for x, y in known["mat_corners"]["pixels"]]
        value = {"corners": corners, "along_m": 1.56, "across_m": 1.56}
        answer = self.send(edit("mat", value=value)).json()
        camera = answer["clips"][0]["camera"]
        self.assertAlmostEqual(camera["off_square"]["value"], known["camera"]["off_square_deg"], delta=0.3)
        self.assertAlmostEqual(camera["height"]["value"], known["camera"]["height_m"], delta=0.05)
        self.assertLess(abs(camera["distance"]["value"] - 4.6), camera["distance"]["u95"])
        gap = next(
            r for r in making.rows(answer["readings"]) if (r["reading"], r["at"]) == ("trail_hip_gap", "top")
        )
        self.assertLess(gap["u95"], 0.03)  # wider by the stick alone
        bad = self.send(edit("mat", value={**value, "along_m": 0.2})).json()["clips"][0]
        self.assertEqual(bad["camera"], None)
        self.assertIn("size", bad["camera_trouble"])
        for wrong in ({**value, "corners": corners[:3]}, {**value, "across_m": 0}):
            self.assertEqual(self.send(edit("mat", value=wrong)).status_code, 422)
        body = json.dumps({"view": "face_on", "flipped": True})
        self.client.put(f"/api/clips/{self.clip.pk}/about", body, content_type="application/json")
        self.assertAlmostEqual(Mat.objects.get().corners[0]["x"], self.clip.width - corners[0]["x"])
        self.send(edit("mat", value=None))
        self.assertFalse(Mat.objects.exists())

    def test_the_database_holds_the_line_by_itself(self) -> None:
        for wrong in (
            lambda: Mark.objects.create(clip=self.clip, name="elbow_patch", frame=1, x=1, y=1, sd_px=1),
            lambda: Mark.objects.create(clip=self.clip, name="ball", frame=1, x=1, y=1, sd_px=0),
            lambda: Peg.objects.create(clip=self.clip, name="top", frame=1),
            lambda: making.student(self.owner, hand="both"),
            lambda: making.student(self.owner, stature_m=17.8),
        ):
            with self.assertRaises(IntegrityError), transaction.atomic():
                wrong()

    def test_gauges_stand_on_the_marks_and_measure(self) -> None:
        clip = self.send().json()["clips"][0]
        gauges = {gauge["id"]: gauge for gauge in clip["gauges"]}
        standing = {name for name, gauge in gauges.items() if gauge["lines"]}
        self.assertEqual(standing, {"trail_plumb", "lead_hip_gate", "trail_hip_gate", "post_mark"})
        self.assertLessEqual({"belt_line", "kneecap_level", "lead_leg"}, set(gauges))
        foot = Mark.objects.get(clip=self.clip, name="trail_foot_outer")
        plumb = gauges["trail_plumb"]
        self.assertAlmostEqual(plumb["lines"][0]["a"]["x"], foot.x, delta=0.01)
        at_top = plumb["frame"].index(making.PEGGED["top"])
        self.assertEqual(plumb["reading"], "trail_hip_gap")
        self.assertLess(plumb["value"][at_top], 0)  # the hip is outside the foot …
        start, end = plumb["points"][at_top][0], plumb["points"][at_top][2]
        self.assertGreater(start, end)  # … and is drawn there: trail is left in the picture

    def test_the_exported_record_reads_as_the_bench_does(self) -> None:
        from tropometer.swing.formats.swing_record import from_document
        from tropometer.swing.read import read

        document = self.client.get(f"/api/swings/{self.clip.swing_id}/record").json()
        found = {(r.reading, r.at): r.value for r in read(from_document(document)).readings}
        self.assertAlmostEqual(found["pelvis_sway", "top"], self.sway(self.send())["value"], places=5)

    def test_readings_and_curves_go_out_as_tables(self) -> None:
        path = f"/api/swings/{self.clip.swing_id}"
        lines = csv.DictReader(io.StringIO(self.client.get(f"{path}/readings.csv").content.decode()))
        rows = {(row["reading"], row["at"]): row for row in lines}
        self.assertAlmostEqual(
            float(rows["pelvis_sway", "top"]["value"]), self.sway(self.send())["value"], places=6
        )
        self.assertIn("down-the-line", rows["pelvis_depth", "top"]["reason"])
        curves = csv.DictReader(io.StringIO(self.client.get(f"{path}/curves.csv").content.decode()))
        sway = [row for row in curves if row["reading"] == "pelvis_sway"]
        self.assertGreater(len(sway), 1)
        self.assertLess(float(sway[0]["time_from_impact_s"]), 0)
        one_view = self.client.get(f"{path}/marks.trc")
        self.assertEqual(one_view.status_code, 422)
        self.assertIn("from the front and along the line", one_view.json()["detail"])
        swing = making.seen_from_both(self.owner, "tobin_first_face", "tobin_first_line")
        table = self.client.get(f"/api/swings/{swing.pk}/marks.trc").content.decode().splitlines()
        self.assertIn("lead_knee", table[3].split("\t"))
        self.client.force_login(making.instructor("Odd Stranger"))
        for name in ("readings.csv", "curves.csv"):
            self.assertEqual(self.client.get(f"{path}/{name}").status_code, 404)


LISTS = ("/api/swings", "/api/lessons", "/api/shelf", "/api/students", "/api/bin")


class ListTests(TestCase):
    def test_lists_ask_the_database_a_fixed_number_of_times(self) -> None:
        owner = making.instructor()
        self.client.force_login(owner)
        self.client.get("/api/me")
        counts: dict[str, list[int]] = {path: [] for path in LISTS}
        for rows in (3, 6):
            for number in range(3):
                swing = making.marked_swing(owner).swing
                Lesson.objects.create(instructor=owner, swing=swing)
                model = Swing.objects.create(instructor=owner, reference_hand="right")
                making.ready_clip(owner, model)
                ReferenceSwing.objects.create(instructor=owner, swing=model, name=f"Model {number}")
                gone = making.student(owner, name="Gone", removed_at=timezone.now())
                Swing.objects.create(instructor=owner, student=gone)
            for path in LISTS:
                found = self.client.get(path).json()
                self.assertEqual(len(found if path == "/api/bin" else found["items"]), rows, path)
                counts[path].append(len(self.queries(path)))
        for path, (few, many) in counts.items():
            self.assertEqual(few, many, path)
            self.assertLessEqual(many, 6, path)

    def queries(self, path: str) -> list[Any]:
        from django.db import connection
        from django.test.utils import CaptureQueriesContext

        with CaptureQueriesContext(
            connection,
        ) as seen:
            self.client.get(path)
        return list(seen)

    def test_the_inbox_shows_the_newest_unanswered_first(self) -> None:
        owner = making.instructor()
        old, answered, new = (making.marked_swing(owner).swing for _ in range(3))
        from tropometer.server.bench.services import mark_answered

        mark_answered(answered.pk, timezone.now())
        self.client.force_login(owner)
        waiting = self.client.get("/api/swings?waiting=true").json()["items"]
        self.assertEqual([row["id"] for row in waiting], [str(new.pk), str(old.pk)])
        self.assertEqual(self.client.get("/api/swings").json()["count"], 3)

    def test_lists_are_found_by_words_put_in_order_and_given_in_pages(self) -> None:
        owner = making.instructor()
        names = ("Tobin Farrow", "Ilse Marrin", "Petra Vance")
        swings = []
        for name in names:
            swing = Swing.objects.create(
                instructor=owner,
                student=making.student(owner, name=name),
                club="Pitching wedge" if name == "Petra Vance" else "7 iron",
                what_hurts="left hip" if name == "Ilse Marrin" else "",
            )
            swings.append(swing)
            Lesson.objects.create(instructor=owner, swing=swing, title=f"For {name}")
        Lesson.objects.filter(swing=swings[1]).update(sent_at=timezone.now(), token="known")
        stranger = making.instructor("Odd Stranger")
        Swing.objects.create(instructor=stranger, student=making.student(stranger, name="Tobin Other"))
        self.client.force_login(owner)

        def found(path: str) -> list[str]:
            rows = self.client.get(path).json()["items"]
            return [(row.get("student") or row)["name"].split()[0] for row in rows]

        for path, expected in [
            ("/api/swings?q=tobin", ["Tobin"]),
            ("/api/swings?q=wedge van", ["Petra"]),
            ("/api/swings?q=wedge tobin", []),
            ("/api/swings?order=name", ["Ilse", "Petra", "Tobin"]),
            ("/api/swings?order=oldest", ["Tobin", "Ilse", "Petra"]),
            ("/api/swings?hurting=true", ["Ilse"]),
            ("/api/swings?limit=2&offset=2", ["Tobin"]),
            ("/api/students?q=MARRIN", ["Ilse"]),
            ("/api/students?q=%25", []),  # no wildcard
            ("/api/lessons?stands=unread", ["Ilse"]),
            ("/api/lessons?stands=draft&order=name", ["Petra", "Tobin"]),
        ]:
            with self.subTest(path):
                self.assertEqual(found(path), expected)
        page = self.client.get("/api/swings?limit=1").json()
        self.assertEqual((len(page["items"]), page["count"]), (1, 3))
        for wrong in (
            "limit=0",
            "limit=501",
            "offset=-1",
            f"offset={10**20}",
            "order=prettiest",
            f"q={'x' * 101}",
        ):
            self.assertEqual(self.client.get(f"/api/swings?{wrong}").status_code, 422, wrong)
