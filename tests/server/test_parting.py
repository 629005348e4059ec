"""Several swings in one clip become several swings; a swing's window can be said by hand."""

import json
import tempfile
from pathlib import Path
from typing import Any
from unittest.mock import patch

import numpy as np
from django.core.files.base import ContentFile
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tests.swings import truth
from tests.video.several_swings import SeveralSwings, write_several
from tropometer.server.bench.models import Mark, Swing
from tropometer.server.clips import services
from tropometer.server.clips.closer import look_closer
from tropometer.server.clips.models import Clip, Proposals, SeenBody
from tropometer.server.clips.proposing import look
from tropometer.server.clips.tasks import look_at
from tropometer.server.rooms import RoomFailed


class ShownPlayerTests(making.MediaCase):
    def test_who_plays_is_shown_by_hand_and_looked_for_anew(self) -> None:
        owner = making.instructor()
        clip = making.marked_swing(owner)
        self.client.force_login(owner)
        url = f"/api/clips/{clip.pk}/player"

        def say(at: dict[str, float] | None) -> Any:
            return self.client.put(url, {"at": at}, content_type="application/json")

        answer = say({"frame": 4, "x": 300.5, "y": 410})
        self.assertEqual(answer.json()["player_at"], {"frame": 4, "x": 300.5, "y": 410})
        clip.refresh_from_db()
        self.assertTrue(clip.looking)
        self.assertTrue(
            ProcrastinateJob.objects.filter(task_name=look_at.name, args__clip_id=str(clip.pk)).exists()
        )
        clip.proxy.save("proxy.mp4", ContentFile(b"pictures"))
        asked: list[Any] = []

        def room(*said: Any, **_: Any) -> Any:
            asked.append([str(each) for each in said])
            raise RoomFailed("enough")

        with patch("tropometer.server.clips.proposing.video", room), self.assertRaises(RoomFailed):
            look(clip.pk)
        self.assertIn("--shown 4 300.5 410", " ".join(asked[0]))
        for at, word in (
            ({"frame": 10**6, "x": 3, "y": 4}, "player.frame"),
            ({"frame": 1, "x": -3, "y": 4}, "outside"),
        ):
            self.assertIn(word, say(at).json()["detail"])
        self.assertIsNone(say(None).json()["player_at"])
        self.client.force_login(making.instructor("Odd Stranger"))
        self.assertEqual(say(None).status_code, 404)


class PartingTests(making.MediaCase):
    several: SeveralSwings

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.several = write_several(Path(folder.name))

    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.client.force_login(self.owner)

    def call(self, method: str, path: str, body: Any) -> Any:
        with self.captureOnCommitCallbacks(execute=True):
            return self.client.generic(method, f"/api{path}", json.dumps(body), "application/json")

    def take_in(self, student: bool = True) -> Clip:
        clips = [making.arrived(self.owner, self.several.path.read_bytes())]
        if student:
            about = {"student_id": str(making.student(self.owner).pk), "words": "Which of the two?"}
            answer = self.call("POST", "/swings", {**about, "clips": clips})
        else:
            answer = self.call("POST", "/shelf", {"name": "Model", "hand": "right", "clips": clips})
        self.assertEqual(answer.status_code, 201, answer.content)
        clip = Clip.objects.get()
        services.process(clip.pk)
        clip.refresh_from_db()
        return clip

    def holds(self, clip: Clip, which: int) -> bool:
        first, last = clip.window
        return first <= self.several.address[which] and self.several.impact[which] + 30 <= last

    def test_each_struck_ball_is_a_swing_and_a_practice_swing_is_none(self) -> None:
        clip = self.take_in()
        services.process(clip.pk)  # a job that runs twice makes no more of them
        first, second = Swing.objects.order_by("part")
        self.assertEqual([(s.part, s.parts, s.words) for s in (first, second)], [
            (1, 2, "Which of the two?"), (2, 2, "Which of the two?")])  # fmt: skip
        self.assertTrue(self.holds(clip, 0))
        self.assertTrue(self.holds(second.clips.get(), 2))
        self.assertEqual(clip.window_from, "found")
        self.assertEqual(len(self.files()), 2)  # one original and one proxy, shared
        for swing, left in ((first, 2), (second, 0)):
            with self.captureOnCommitCallbacks(execute=True):
                swing.delete()
            self.assertEqual(len(self.files()), left)

    def test_a_reference_keeps_its_surest_swing(self) -> None:
        clip = self.take_in(student=False)
        self.assertEqual(Swing.objects.count(), 1)
        self.assertTrue(self.holds(clip, 0) or self.holds(clip, 2))

    def test_the_window_is_said_by_hand_and_a_stretch_becomes_a_swing(self) -> None:
        clip = self.take_in()
        wide = self.call("PUT", f"/clips/{clip.pk}/window", {}).json()
        self.assertEqual(
            (wide["window"], wide["window_from"]), ({"first": 0, "last": clip.frame_count - 1}, "hand")
        )
        practice = {"first": self.several.address[1] - 20, "last": self.several.impact[1] + 50}
        answer = self.call("POST", f"/clips/{clip.pk}/swings", practice)
        self.assertEqual(answer.status_code, 201)
        third = Swing.objects.get(pk=answer.json()["swing_id"])
        self.assertEqual((third.part, third.parts, third.clips.get().window_from), (3, 3, "hand"))
        for bad in ({"first": 5}, {"first": 9, "last": 9}, {"first": 0, "last": 10**5}):
            said = self.call("PUT", f"/clips/{clip.pk}/window", bad)
            self.assertEqual(said.status_code, 422, bad)
            self.assertIn("window", said.json()["detail"])

        self.check_said_for_all(clip)

    def check_said_for_all(self, clip: Clip) -> None:
        """What a file shows is said for all its swings at once."""
        body = {"view": "down_the_line", "capture_fps": 240}
        self.call("PUT", f"/clips/{clip.pk}/about", body)
        said = Clip.objects.values_list("view", "capture_fps")
        self.assertEqual(set(said), {("down_the_line", 240.0)})

    def check_looked_at_closely(self, clip: Clip) -> None:
        """From address to finish the body is seen again by the closer network, in the very same squares."""
        stored = Proposals.objects.get(clip=clip)
        self.assertEqual(stored.closer, 0)
        pegs = {peg["name"]: peg["frame"] for peg in stored.found["pegs"]}
        path = f"/api/clips/{clip.pk}/proposed-marks/{pegs['top']}"
        before = {mark["name"]: mark for mark in self.client.get(path).json()}
        look_closer(clip.pk)
        fast, close = SeenBody.objects.filter(clip=clip).order_by("-network")
        self.assertEqual(close.first_frame, max(pegs["address"] - 6, fast.first_frame))
        self.assertLess(len(close.landmarks), len(fast.landmarks))
        self.assertIsNone(Proposals.objects.get(clip=clip).closer)
        after = {mark["name"]: mark for mark in self.client.get(path).json()}
        for name in ("lead_knee", "trail_ankle", "lead_hip"):
            apart = np.hypot(after[name]["x"] - before[name]["x"], after[name]["y"] - before[name]["y"])
            self.assertTrue(0 < apart < 25, (name, apart))
            self.assertLess(after[name]["sd_px"], before[name]["sd_px"], name)
            self.assertTrue(0 < after[name]["shared_px"] < after[name]["sd_px"], name)
        look(clip.pk)  # whatever is said anew of the clip: what was seen closely was seen for that
        self.assertEqual(SeenBody.objects.get(clip=clip).network, "fast")

    def test_a_worker_proposes_what_the_swing_shows(self) -> None:
        clip = self.take_in()
        heard = Proposals.objects.filter(clip=clip)
        self.assertFalse(heard.exists())
        look(clip.pk)
        self.assertEqual(SeenBody.objects.get(clip=clip).first_frame, clip.window[0])
        self.check_looked_at_closely(clip)
        bench = self.client.get(f"/api/swings/{clip.swing_id}").json()
        found = bench["clips"][0]["proposals"]
        self.assertEqual((found["view"]["value"], found["hand"]["value"]), ("face_on", "right"))
        pegs = {peg["name"]: peg["frame"] for peg in found["pegs"]}
        self.assertAlmostEqual(pegs["impact"], self.several.impact[0], delta=1)
        self.assertAlmostEqual(pegs["address"], self.several.address[0], delta=5)
        self.assertLess(found["box"]["right"] - found["box"]["left"], clip.width / 2)
        self.check_marks(clip, pegs["top"])

    def check_marks(self, clip: Clip, frame: int) -> None:
        """Proposed marks lie near the true ones, and no reading counts them."""
        marks = self.client.get(f"/api/clips/{clip.pk}/proposed-marks/{frame}").json()
        found = {mark["name"]: mark for mark in marks}
        known = truth("tobin_first_face")
        half = clip.width / known["camera"]["width"]
        own = frame - self.several.impact[0] + known["checkpoints"]["impact"]
        for name in ("lead_knee", "trail_knee", "lead_ankle", "trail_ankle", "trail_hip"):
            x, y = (half * each for each in known["pixels"][name][own])
            with self.subTest(name):
                self.assertLess(abs(found[name]["x"] - x), 3 * found[name]["sd_px"])
                self.assertLess(abs(found[name]["y"] - y), 3 * found[name]["sd_px"])
        self.assertEqual(self.client.get(f"/api/clips/{clip.pk}/proposed-marks/0").json(), [])
        self.assertFalse(Mark.objects.filter(clip=clip).exists())
