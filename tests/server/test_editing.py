"""The log of edits: taken back after a reload, told apart when two tabs change the same, never lost."""

import uuid
from typing import Any

from django.test import TestCase

from tests.server import making
from tropometer.server.bench.models import BenchEdit, HiddenMark, Mark, Peg


class HistoryTests(TestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        self.clip = making.marked_swing(self.owner)
        self.client.force_login(self.owner)

    def send(self, *edits: dict[str, Any], seen: int | None = None) -> Any:
        body = {"edits": edits, "seen": seen}
        url = f"/api/clips/{self.clip.pk}/edits"
        return self.client.post(url, body, content_type="application/json").json()

    def history(self) -> Any:
        return self.client.get(f"/api/swings/{self.clip.swing_id}/history").json()

    def version(self, answer: Any) -> int:
        return int(answer["clips"][0]["version"])

    def mark(self, x: float, gesture: str | None = None, way: str = "do", frame: int = 30) -> dict[str, Any]:
        place = {"x": x, "y": 300.0, "sd_px": 1.5, "source": "hand"}
        return {
            "id": str(uuid.uuid4()), "gesture": gesture or str(uuid.uuid4()), "way": way,
            "kind": "mark", "name": "trail_hip", "frame": frame, "place": place,
        }  # fmt: skip

    def test_everything_is_taken_back_to_the_start_after_a_reload(self) -> None:
        before = {(m.name, m.frame, m.x) for m in Mark.objects.all()}
        pegs = {(p.name, p.frame) for p in Peg.objects.all()}
        drag = str(uuid.uuid4())
        self.send(self.mark(500.0, drag))
        self.send(self.mark(510.0, drag), self.mark(520.0, drag))
        gesture = str(uuid.uuid4())
        common = {"gesture": gesture, "id": str(uuid.uuid4()), "frame": 31, "between": False}
        self.send({**common, "kind": "peg", "name": "top"})
        hide = {"id": str(uuid.uuid4()), "gesture": str(uuid.uuid4()), "kind": "hidden", "frame": 30}
        self.send({**hide, "name": "trail_hip", "hidden": True})
        done = self.history()
        self.assertEqual([each["redo"]["kind"] for each in done], ["mark", "peg", "hidden"])
        self.assertEqual(done[0]["redo"]["place"]["x"], 520.0)  # a drag is one step
        for each in reversed(done):
            undo = {**each["undo"], "id": str(uuid.uuid4()), "gesture": each["gesture"], "way": "undo"}
            self.send(undo)
        self.assertEqual(self.history(), [])
        self.assertEqual({(m.name, m.frame, m.x) for m in Mark.objects.all()}, before)
        self.assertEqual({(p.name, p.frame) for p in Peg.objects.all()}, pegs)
        self.assertFalse(HiddenMark.objects.exists())

    def test_done_again_it_can_be_taken_back_again(self) -> None:
        gesture = str(uuid.uuid4())
        self.send(self.mark(500.0, gesture))
        (done,) = self.history()
        self.send({**done["undo"], "id": str(uuid.uuid4()), "gesture": gesture, "way": "undo"})
        self.send({**done["redo"], "id": str(uuid.uuid4()), "gesture": gesture, "way": "redo"})
        self.assertEqual(self.history(), [done])
        self.assertEqual(Mark.objects.get(name="trail_hip", frame=30).x, 500.0)

    def test_two_tabs_changing_the_same_mark_are_told_and_others_merge(self) -> None:
        seen = self.version(self.send())
        self.send(self.mark(500.0), seen=seen)
        other = self.send(self.mark(600.0), self.mark(610.0, frame=31), seen=seen)
        self.assertEqual(other["met"], ["the trail hip on frame 30"])
        self.assertEqual(Mark.objects.get(name="trail_hip", frame=30).x, 600.0)
        again = self.send(self.mark(620.0), seen=self.version(other))
        self.assertEqual(again["met"], [])

    def test_an_answer_that_was_lost_meets_nobody_when_it_is_sent_again(self) -> None:
        seen = self.version(self.send())
        edit = self.mark(500.0)
        self.send(edit, seen=seen)
        self.assertEqual(self.send(edit, seen=seen)["met"], [])
        self.assertEqual(BenchEdit.objects.count(), 1)

    def test_a_mark_is_placed_or_hidden_never_both(self) -> None:
        hide = {"kind": "hidden", "name": "trail_hip", "frame": 30, "hidden": True}
        self.send(self.mark(500.0), {"id": str(uuid.uuid4()), **hide})
        self.assertFalse(Mark.objects.filter(name="trail_hip", frame=30).exists())
        self.send(self.mark(505.0))
        self.assertFalse(HiddenMark.objects.exists())
        wrong = self.client.post(
            f"/api/clips/{self.clip.pk}/edits",
            {"edits": [{"id": str(uuid.uuid4()), **hide, "frame": 9999}]},
            content_type="application/json",
        )
        self.assertContains(wrong, "frame 9999 is outside the clip", status_code=422)

    def test_what_is_known_of_the_camera_is_kept_and_checked(self) -> None:
        plumb = {"ax": 100.0, "ay": 50.0, "bx": 104.0, "by": 600.0}
        facts = {"distance_m": 4.2, "height_m": 1.1, "squared": True, "plumb": plumb}
        answer = self.send({"id": str(uuid.uuid4()), "kind": "facts", "value": facts})
        self.assertEqual(answer["clips"][0]["facts"], facts)
        same = {**facts, "plumb": {**plumb, "bx": 100.0, "by": 50.0}}
        refused = self.client.post(
            f"/api/clips/{self.clip.pk}/edits",
            {"edits": [{"id": str(uuid.uuid4()), "kind": "facts", "value": same}]},
            content_type="application/json",
        )
        self.assertContains(refused, "both ends are the same point", status_code=422)


class HandTests(TestCase):
    def test_a_hand_is_as_steady_as_it_was_seen_to_be(self) -> None:
        owner = making.instructor()
        self.client.force_login(owner)
        marks = [{"dx": dx, "dy": -dx} for dx in (1, -2, 1.5, -1, 2, -1.5, 1, 2, -1, 60)]
        answer = self.client.put("/api/me/hand", {"marks": marks}, content_type="application/json").json()
        self.assertEqual((answer["pairs"], answer["slips"]), (9, 1))
        mean_square = sum(m["dx"] ** 2 for m in marks[:9]) / 9
        self.assertAlmostEqual(answer["sd"], (mean_square / 2) ** 0.5)
        self.assertEqual(self.client.get("/api/me").json()["hand_sd_px"], answer["sd"])
        few = self.client.put("/api/me/hand", {"marks": marks[:3]}, content_type="application/json")
        self.assertContains(few, "It takes 5 marks", status_code=422)
        self.client.delete("/api/me/hand")
        self.assertIsNone(self.client.get("/api/me").json()["hand_sd_px"])
