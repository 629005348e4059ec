"""Frame N of what came in is frame N of the proxy, at its true time; what is no video is refused."""

import json
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

import av
import cv2
import numpy as np

from tests.swings import ROOT
from tests.video import strip_clips
from tests.video.strip_clips import SIZE
from tropometer.golfer import strip
from tropometer.video.opening import NotAClip
from tropometer.video.probe import probe
from tropometer.video.proxy import make_proxy, upright_frames
from tropometer.video.stills import still_jpeg
from tropometer.video.timing import real_times_s

COUNT = 50


class FormatTests(TestCase):
    folder: Path
    frames: Any

    @classmethod
    def setUpClass(cls) -> None:
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.folder = Path(folder.name)
        cls.frames = strip_clips.numbered_frames(COUNT)

    def test_every_frame_of_every_format_keeps_its_number(self) -> None:
        for name in strip_clips.FORMATS:
            with self.subTest(name=name):
                source = strip_clips.write(self.folder, name, self.frames)
                target = self.folder / f"{name}.proxy.mp4"
                found = probe(source)
                self.assertEqual((found.width, found.height), strip_clips.FORMATS[name].get("size", SIZE))
                first = strip_clips.first_number(name)
                proxy = make_proxy(source, target, found)
                self.assertEqual(
                    [strip.read(p) for p, _ in upright_frames(target)], list(range(first, COUNT))
                )
                self.assertEqual(len(proxy.played_times_s), COUNT - first)
                expected = strip_clips.uneven_ms if "variable" in name else lambda n: n * 1000 / 60
                for number, time_s in enumerate(proxy.played_times_s):
                    self.assertAlmostEqual(time_s * 1000, expected(number), delta=1.1)
                self.check_proxy_stream(target, COUNT - first)

    def check_proxy_stream(self, path: Path, count: int) -> None:
        with av.open(str(path)) as container:
            stream = container.streams.video[0]
            packets = [packet for packet in container.demux(stream) if packet.pts is not None]
            self.assertTrue(all(packet.is_keyframe for packet in packets))
            assert stream.time_base is not None
            per_frame = 1 / (30 * stream.time_base)
            self.assertEqual([packet.pts for packet in packets], [round(n * per_frame) for n in range(count)])
            self.assertEqual([packet.dts for packet in packets], [packet.pts for packet in packets])

    def test_a_still_is_the_frame_it_is_named_for(self) -> None:
        source = strip_clips.write(self.folder, "h264_b_frames.mp4", self.frames)
        target = self.folder / "for_stills.mp4"
        make_proxy(source, target, probe(source))
        for number in (0, 7, 23, COUNT - 1):
            data = np.frombuffer(still_jpeg(target, number), np.uint8)
            picture = np.asarray(cv2.imdecode(data, cv2.IMREAD_COLOR), dtype=np.uint8)
            self.assertEqual(strip.read(picture), number)
        with self.assertRaises(IndexError):
            still_jpeg(target, COUNT)

    def test_slow_motion_runs_in_real_time(self) -> None:
        self.assertEqual(real_times_s([0, 1, 2], 30, 240), [0, 0.125, 0.25])
        self.assertEqual(real_times_s([0, 1, 2], 30, None), [0, 1, 2])


class RefusalTests(TestCase):
    def refuse(self, name: str, data: bytes) -> str:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / name
            path.write_bytes(data)
            with self.assertRaises(NotAClip) as caught:
                make_proxy(path, Path(folder) / "out.mp4", probe(path))
        return str(caught.exception)

    def test_what_is_no_video_is_refused_in_words(self) -> None:
        png = cv2.imencode(".png", np.zeros((200, 300, 3), np.uint8))[1].tobytes()
        for name, data in {
            "text.mp4": b"not a film\n" * 500,
            "zero.mov": bytes(4096),
            "still.mp4": png,
        }.items():
            with self.subTest(name=name):
                self.assertRegex(self.refuse(name, data), r"^This (file|video) .+\.$")

    def test_a_truncated_clip_is_refused(self) -> None:
        whole = (ROOT / "demo" / "clips" / "tobin_first_face.mp4").read_bytes()
        self.assertIn("damaged", self.refuse("cut.mp4", whole[: len(whole) // 2]))

    def test_the_process_of_its_own_answers_in_json(self) -> None:
        command = [sys.executable, "-m", "tropometer.video", "probe", "README.md"]
        done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 3)
        self.assertEqual(json.loads(done.stdout), {"refused": "This file is not a video, or it is damaged."})
