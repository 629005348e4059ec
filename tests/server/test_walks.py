"""A walk is recorded in pieces, mended by its cut, made into one voice and score, and played by a link."""

from __future__ import annotations

import errno
import json
import tempfile
from base64 import b64encode
from datetime import timedelta
from pathlib import Path
from typing import Any
from unittest.mock import patch
from uuid import UUID, uuid4

import av
import numpy as np
from django.core.files.storage import FileSystemStorage
from jsonschema import validate

from tests.server import making
from tests.server.test_lessons import LessonCase
from tests.server.voices import RATE, Samples, counted, heard_pitch, pitch, recorded, tones
from tests.swings import ROOT
from tests.video import strip_clips
from tropometer.golfer import strip
from tropometer.server.operations.sweep import sweep
from tropometer.server.walks.filming import film
from tropometer.server.walks.making import make
from tropometer.server.walks.models import Walk
from tropometer.server.walks.tasks import make_walk
from tropometer.video.voice import read_voice

SHOWING = {"cx": 480.0, "cy": 180.0, "high": 360.0, "wide": 640.0, "mirrored": False}


class WalkCase(LessonCase):
    """A lesson whose walk is recorded in pieces."""

    piece_s = 2.0

    def setUp(self) -> None:
        super().setUp()
        self.walk = f"{self.path}/walk"
        self.clip.width, self.clip.height = strip_clips.SIZE
        self.clip.save(update_fields=["width", "height"])

    def events(self, *frames: tuple[int, int]) -> list[dict[str, Any]]:
        """The student's stage at frames, at times in ms."""
        shown = {"clip": str(self.clip.pk), "frame": 0, "showing": SHOWING}
        stage = {"at": 0, "kind": "stage", "side": "student", "shown": shown}
        return [stage, *({"at": at, "kind": "frame", "side": "student", "frame": f} for at, f in frames)]

    def begin(self, container: str = "webm", cut: Any = None) -> str:
        take = str(uuid4())
        cut = cut and [*cut[0], {"take": take, "from": 0, "to": None}, *cut[1]]
        self.post(f"{self.walk}/takes", {"id": take, "container": container, "cut": cut})
        return take

    def pieces(self, samples: Samples, score: list[dict[str, Any]], container: str = "webm") -> list[Any]:
        """A recording as it is sent: its bytes in equal parts, its events by their times."""
        data, count = recorded(samples, container), max(1, round(len(samples) / 48_000 / self.piece_s))
        ends = [round(len(data) * (i + 1) / count) for i in range(count)]
        times = [round(self.piece_s * 1000 * (i + 1)) for i in range(count)]
        return [
            {
                "number": i,
                "voice": b64encode(data[ends[i - 1] if i else 0 : ends[i]]).decode(),
                "score": [e for e in score if (times[i - 1] if i else -1) < e["at"] <= times[i]],
                "until_ms": times[i],
                "last": i == count - 1,
            }
            for i in range(count)
        ]

    def record(self, samples: Samples, score: list[dict[str, Any]], **begun: Any) -> str:
        take = self.begin(**begun)
        for piece in self.pieces(samples, score, begun.get("container", "webm")):
            self.post(f"{self.walk}/takes/{take}/pieces", piece, 204)
        return take

    def made(self, path: str = "") -> tuple[dict[str, Any], Samples]:
        make(Walk.objects.get().pk)
        return self.call("GET", f"{path or self.walk}/played"), self.heard(path or self.walk)

    def heard(self, path: str) -> Samples:
        answer = self.client.get(f"{path}/voice.m4a")
        self.assertEqual(answer["Content-Type"], "audio/mp4")
        with tempfile.NamedTemporaryFile(suffix=".m4a") as file:
            file.write(b"".join(answer.streaming_content))  # type: ignore[attr-defined]
            file.flush()
            return np.concatenate(list(read_voice(Path(file.name))))


class WalkTests(WalkCase):
    def test_voice_and_score_come_out_as_they_were_said_whatever_recorded_them(self) -> None:
        for container in ("webm", "mp4", "wav"):
            Walk.objects.all().delete()
            self.record(counted(6), self.events((1500, 4), (5000, 7)), container=container)
            played, voice = self.made()
            # AAC without an edit list brings its first 1024 samples and the rest of its last ones along
            self.assertAlmostEqual(played["length_ms"], 6000, delta=45)
            self.assertEqual([(e["at"], e.get("frame")) for e in played["score"]][1:], [(1500, 4), (5000, 7)])
            for second in range(6):
                self.assertAlmostEqual(
                    heard_pitch(voice, second + 0.5), pitch(second), delta=8, msg=container
                )

    def test_cutting_takes_voice_and_picture_out_together_and_back_again(self) -> None:
        take = self.record(counted(8), self.events((1000, 1), (3000, 3), (5000, 5), (7000, 7)))
        whole = [{"take": take, "from": 0, "to": None}]
        cut = [{"take": take, "from": 0, "to": 2000}, {"take": take, "from": 5000, "to": None}]
        self.call("PATCH", self.walk, {"cut": cut})
        played, voice = self.made()
        self.assertAlmostEqual(played["length_ms"], 5000, delta=30)
        self.assertEqual(
            [(e["at"], e["frame"]) for e in played["score"][1:]], [(1000, 1), (2000, 5), (4000, 7)]
        )
        for at, second in ((1.5, 1), (2.5, 5), (4.5, 7)):
            self.assertAlmostEqual(heard_pitch(voice, at), pitch(second), delta=8)
        self.call("PATCH", self.walk, {"cut": whole})
        self.assertAlmostEqual(self.made()[0]["length_ms"], 8000, delta=30)

    def test_a_stretch_is_said_anew_and_the_old_take_stays(self) -> None:
        first = self.record(counted(6), self.events((1000, 1)))
        around = ([{"take": first, "from": 0, "to": 2000}], [{"take": first, "from": 4000, "to": None}])
        self.record(counted(4)[2 * 48_000 :], self.events((500, 9)), cut=around)
        played, voice = self.made()
        self.assertAlmostEqual(played["length_ms"], 6000, delta=60)
        self.assertIn(("frame", 9, 2500), [(e["kind"], e.get("frame"), e["at"]) for e in played["score"]])
        self.assertAlmostEqual(heard_pitch(voice, 4.5), pitch(4), delta=8)
        self.assertEqual(len(self.call("GET", self.walk)["takes"]), 2)

    def test_what_breaks_off_costs_its_last_piece_only(self) -> None:
        take = self.begin()
        sent = self.pieces(counted(8), self.events((1000, 1), (5000, 5)))
        for piece in (
            sent[0],
            sent[2],
            sent[1],
            sent[1],
        ):  # out of order, and one twice; the last never comes
            self.post(f"{self.walk}/takes/{take}/pieces", piece, 204)
        played, voice = self.made()
        self.assertTrue(5000 < played["length_ms"] < 6500, played["length_ms"])
        self.assertAlmostEqual(heard_pitch(voice, 4.5), pitch(4), delta=8)
        self.assertEqual(played["score"][-1]["frame"], 5)
        self.post(f"{self.walk}/takes/{take}/pieces", sent[3], 204)  # the browser is back
        self.assertAlmostEqual(self.made()[0]["length_ms"], 8000, delta=30)

    def test_a_curve_and_a_tape_that_lay_open_go_along_as_they_were_measured(self) -> None:
        drawer = {"part": "curves", "reading": "pelvis_sway"}
        tape = {"reading": "pelvis_sway", "at": "impact"}
        opened = [
            {"at": 1400, "kind": "tape", "tape": tape},
            {"at": 1500, "kind": "drawer", "drawer": drawer},
        ]
        self.record(counted(3), [*self.events((1000, 5)), *opened])
        (clip,) = self.made()[0]["clips"]
        (curve,) = clip["curves"]
        self.assertEqual((curve["reading"], clip["starts"], clip["floor"]), ("pelvis_sway", [], []))
        given = [i for i, value in enumerate(curve["values"]) if value is not None]
        read = self.call("GET", f"/api/swings/{self.clip.swing_id}")["measured"]["readings"]
        sway = next(each for each in read if each["reading"] == "pelvis_sway")
        (told,) = clip["tapes"]
        self.assertEqual((told["reading"], told["at"]), ("pelvis_sway", "impact"))
        self.assertAlmostEqual(told["value"], sway["value"][sway["at"].index("impact")], places=6)
        at_impact = [curve["values"][i] for i in given if curve["at_s"][i] == 0]
        self.assertEqual(at_impact, [sway["value"][sway["at"].index("impact")]])

    def test_two_seconds_of_a_muted_microphone_are_silence(self) -> None:
        self.record(np.zeros(2 * RATE, np.float32), self.events((1000, 5)), container="wav")
        played, voice = self.made()
        self.assertAlmostEqual(played["length_ms"], 2000, delta=45)
        self.assertLess(np.abs(voice).max(), 1e-4)

    def test_a_full_disk_is_said_and_the_walk_is_made_once_there_is_room(self) -> None:
        self.record(counted(4), self.events((1000, 5)))
        full = OSError(errno.ENOSPC, "No space left on device")
        id = str(Walk.objects.get().pk)
        with patch.object(FileSystemStorage, "_save", side_effect=full), self.assertRaises(OSError):
            make_walk(id)
        self.assertIn("No space left", self.call("GET", self.walk)["trouble"])
        make_walk(id)
        told = self.call("GET", self.walk)
        self.assertEqual((told["trouble"], told["making"]), ("", False))
        self.assertAlmostEqual(told["length_ms"], 4000, delta=40)

    def test_voice_and_picture_are_together_after_twenty_minutes(self) -> None:
        minutes = [60 * n + 0.5 for n in range(20)]
        samples = np.zeros(1200 * RATE, np.float32)
        for at in minutes:
            samples[round(at * RATE) : round((at + 0.3) * RATE)] = counted(0.3)
        steps = [(round(at * 1000), 1 + n) for n, at in enumerate(minutes)]
        self.piece_s = 15.0
        self.record(samples, self.events(*steps))
        played, voice = self.made()
        shown = np.array([e["at"] / 1000 for e in played["score"] if e["kind"] == "frame"])
        self.assertEqual(len(shown), len(minutes))
        self.assertLess(np.abs(np.array(tones(voice)) - shown).max(), 0.04)

    def test_nonsense_is_named_and_nothing_is_lost(self) -> None:
        take = self.record(counted(2), self.events((1000, 1)))
        url, after = f"{self.walk}/takes/{take}/pieces", {"number": 1, "until_ms": 3000, "score": []}
        other = {"number": 0, "until_ms": 3000, "score": [], "voice": b64encode(b"other").decode()}
        wrong = {"at": 2500, "kind": "frame", "side": "student", "frame": self.clip.frame_count}
        drawn = {"at": 2500, "kind": "chalk", "stroke": {"tool": "spray"}}
        for body, words in (
            (other, "another piece 0"),
            (after | {"voice": "%%%"}, "not base64"),
            (after | {"voice": "", "score": [wrong]}, f"names frame {self.clip.frame_count} of a clip of"),
            (after | {"voice": "", "score": [drawn]}, "score"),
            (after | {"voice": "", "score": [{"at": 1, "kind": "script", "src": "x"}]}, "score"),
        ):
            self.assertIn(words, str(self.post(url, body, 422)))
        stranger = {"take": str(uuid4()), "from": 0, "to": None}
        self.assertIn("does not have", str(self.call("PATCH", self.walk, {"cut": [stranger]}, 422)))
        self.assertAlmostEqual(self.made()[0]["length_ms"], 2000, delta=30)

    def test_a_file_that_is_no_voice_is_said_to_be_none(self) -> None:
        take = self.begin()
        piece = {
            "number": 0,
            "voice": b64encode(b"<html>").decode() * 40,
            "score": [],
            "until_ms": 900,
            "last": True,
        }
        self.post(f"{self.walk}/takes/{take}/pieces", piece, 204)
        make(Walk.objects.get().pk)
        (told,) = self.call("GET", self.walk)["takes"]
        self.assertIn("no voice", told["trouble"])

    def test_the_link_plays_what_was_sent_whatever_happens_to_the_clip(self) -> None:
        self.record(counted(4), self.events((1000, 5)))
        self.call("PATCH", self.walk, {"captions": {"top": "Here."}})
        make(Walk.objects.get().pk)
        token = self.sent()["link"].rsplit("/", 1)[1]
        self.call("PATCH", self.walk, {"captions": {}}, 409)
        self.post(f"{self.walk}/takes", {"id": str(uuid4()), "container": "webm"}, 409)
        open_path = f"/api/sheets/{token}/walk"
        before, _ = self.made(open_path)
        self.assertEqual([clip["pegs"][0]["name"] for clip in before["clips"]], ["top"])
        self.clip.delete()
        self.client.logout()
        self.assertEqual(self.call("GET", f"{open_path}/played"), before)
        self.assertGreater(len(self.heard(open_path)), 0)
        shown = self.client.get(f"{open_path}/clips/{before['clips'][0]['id']}.mp4")
        self.assertIn(b"ftyp", b"".join(shown.streaming_content)[:16])  # type: ignore[attr-defined]
        self.assertEqual(self.client.get("/api/sheets/wrong/walk/voice.m4a").status_code, 404)

    def test_the_hourly_sweep_leaves_a_walk_as_it_is(self) -> None:
        self.record(counted(3), self.events((1000, 4)))
        self.made()
        film(UUID(self.lesson["id"]))
        before = [name for name in self.files() if name.startswith("walks/")]
        self.assertEqual(len(before), 4)  # the take, the whole voice, the film, the clip as it was shown
        sweep(grace=timedelta(0))
        self.assertEqual([name for name in self.files() if name.startswith("walks/")], before)

    def test_captions_are_words_and_nothing_else(self) -> None:
        self.record(counted(3), self.events((100, 5)))
        bad = "<script>alert(1)</script>\n\n00:00:00.000 --> 00:00:09.000\nElse & more"
        self.call("PATCH", self.walk, {"captions": {"top": bad}})
        self.made()
        answer = self.client.get(f"{self.walk}/captions.vtt")
        text = answer.content.decode()
        self.assertTrue(text.startswith("WEBVTT\n\n00:00:00.000 --> 00:00:03.0"), text)
        self.assertEqual(text.count("-->"), 1)
        self.assertNotIn("<", text)
        self.assertIn("Else &amp; more", text)
        self.call("PATCH", self.walk, {"captions": {"top": "x" * 1001}}, 422)

    def test_a_stranger_finds_nothing_and_erasing_leaves_nothing(self) -> None:
        take = self.record(counted(2), self.events((1000, 1)))
        made, _ = self.made()
        validate(made, json.loads((ROOT / "docs/formats/walk.schema.json").read_text()))
        clip = made["clips"][0]["id"]
        own = [
            f"{self.walk}{end}"
            for end in (
                "",
                "/played",
                "/voice.m4a",
                "/captions.vtt",
                f"/clips/{clip}.mp4",
                f"/takes/{take}.m4a",
            )
        ]
        files = [path for path in (self.media / "walks").rglob("*") if path.is_file()]
        self.assertEqual(len(files), 3)
        self.client.force_login(making.instructor("other@skerrow.example"))
        for path in own:
            self.call("GET", path, status=404)
        self.post(f"{self.walk}/takes", {"id": str(uuid4()), "container": "webm"}, 404)
        self.post(
            f"{self.walk}/takes/{take}/pieces", {"number": 9, "voice": "", "score": [], "until_ms": 1}, 404
        )
        self.call("PATCH", self.walk, {"cut": []}, 404)
        with self.captureOnCommitCallbacks(execute=True):
            self.clip.swing.delete()
        self.assertEqual([path for path in files if path.exists()], [])

    def test_the_film_shows_at_each_moment_the_frame_that_the_score_names(self) -> None:
        score = self.events((500, 3), (1000, 4), (1033, 5), (1800, 9), (2500, 0))
        ring = {"id": str(uuid4()), "clip": str(self.clip.pk), "frame": 9, "tool": "ring"}
        middle, rim = {"x": 480.0, "y": 250.0}, {"x": 540.0, "y": 250.0}
        score.append({"at": 1800, "kind": "chalk", "stroke": ring | {"points": [middle, rim]}})
        self.record(counted(4), score)
        self.call("PATCH", self.walk, {"captions": {"top": "Here the hip has gone past the shoe."}})
        played, _ = self.made()
        film(Walk.objects.get().pk)
        walk = Walk.objects.get()
        with av.open(walk.film.path) as container:
            pictures = [frame.to_ndarray(format="rgb24") for frame in container.decode(video=0)]
            sound = container.streams.audio[0]
            assert sound.duration and sound.time_base
            self.assertAlmostEqual(float(sound.duration * sound.time_base), 4, delta=0.1)
        self.assertEqual(len(pictures), 120)
        self.assertEqual(pictures[0].shape, (1080, 720, 3))
        view = walkview(played["score"][0]["shown"]["showing"], self.clip)
        for number, picture in enumerate(pictures):
            ms = number * 1000 / 30
            named = [e for e in played["score"] if e["kind"] in ("stage", "frame") and e["at"] <= ms][-1]
            wanted = named["shown"]["frame"] if named["kind"] == "stage" else named["frame"]
            self.assertEqual(read_strip(picture, view), wanted, number)
        still, drawn = pictures[53], pictures[54]  # the ring is drawn with frame 9, and goes with it
        on_ring = place(view, rim["x"], rim["y"])
        self.assertGreater(int(drawn[on_ring].min()), 200)
        self.assertLess(int(pictures[76][on_ring].min()), 200)
        self.assertLess(int(still[on_ring].min()), 200)
        words = slice(960, 1060)
        self.assertGreater(int((pictures[40][words] > 200).sum()), 1000)


def walkview(showing: dict[str, float], clip: Any) -> tuple[float, float, float]:
    """Scale and middle with which a stage of 720 by 900 shows a picture, as the player's own rule has it."""
    wanted = min(900 / showing["high"], 720 / (0.62 * showing["wide"]))
    scale = max(wanted, min(900 / clip.height, 900 / showing["high"]))

    def held(at: float, half: float, full: float) -> float:
        return full / 2 if 2 * half >= full else min(max(at, half), full - half)

    return (
        scale,
        held(showing["cx"], 360 / scale, clip.width),
        held(showing["cy"], 450 / scale, clip.height),
    )


def place(view: tuple[float, float, float], x: float, y: float) -> tuple[int, int]:
    """Row and column of a picture's point in the film."""
    scale, cx, cy = view
    return round(450 + (y - cy) * scale), round(360 + (x - cx) * scale)


def read_strip(picture: Any, view: tuple[float, float, float]) -> int:
    """The number in the frame's strip, as far as the stage shows it."""
    number = 0
    for bit in range(strip.BITS):
        middle = strip.MARGIN_PX + strip.BLOCK_PX // 2
        row, column = place(view, middle + bit * strip.BLOCK_PX, middle)
        seen = 0 <= column < 720 and 0 <= row < 900
        number = number * 2 + int(seen and picture[row, column].mean() > 128)
    return number


class SilentWalkTests(WalkCase):
    def test_frames_and_words_become_a_walk_as_long_as_they_take_to_read(self) -> None:
        self.assertIn("put one in first", self.post(f"{self.walk}/silent", status=409)["detail"])
        self.add(2)
        words = " ".join(["slowly"] * 20)
        frame = self.add(5)["frames"][1]
        self.call("PATCH", f"{self.path}/frames/{frame['id']}", {"words": words})
        self.post(f"{self.walk}/silent", status=204)
        walk, voice = self.made()
        self.assertTrue(walk["silent"])
        stages = [
            (e["at"], e["shown"]["frame"]) for e in walk["score"] if e["kind"] == "stage" and e["shown"]
        ]
        self.assertEqual([frame for _, frame in stages], [2, 5])
        reading_s = (walk["length_ms"] - stages[1][0]) / 1000
        self.assertGreater(20 / (reading_s / 60), 100)  # words a minute: not slower than anybody reads
        self.assertLess(20 / (reading_s / 60), 238)  # nor faster than people do (Brysbaert, 2019)
        self.assertEqual(walk["captions"], {"top": words})
        self.assertAlmostEqual(len(voice) / RATE, walk["length_ms"] / 1000, delta=0.05)
        self.assertLess(float(np.abs(voice).max()), 1e-3)
        self.assertIn("has a walk already", self.post(f"{self.walk}/silent", status=409)["detail"])
