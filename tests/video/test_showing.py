"""Pictures and clips that only are shown: proven by drawing them anew; what is neither is refused."""

import json
import subprocess
import sys
from fractions import Fraction
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import av
import cv2
import numpy as np
from django.test import SimpleTestCase

from tests.swings import ROOT
from tropometer.video.opening import NotAClip
from tropometer.video.showing import LONGEST_S, make_shown

# EXIF 2.3: one entry, orientation 6: the picture is to be turned a quarter clockwise.
TURNED = (
    b"\xff\xe1\x00\x22Exif\x00\x00MM\x00\x2a\x00\x00\x00\x08\x00\x01"
    b"\x01\x12\x00\x03\x00\x00\x00\x01\x00\x06\x00\x00\x00\x00\x00\x00"
)


def red_above_blue(height: int, width: int) -> Any:
    picture = np.zeros((height, width, 3), np.uint8)
    picture[: height // 2, :, 2] = 220
    picture[height // 2 :, :, 0] = 220
    return picture


def write_clip(path: Path, seconds: float, fps: int = 25, size: tuple[int, int] = (1280, 720)) -> None:
    with av.open(str(path), "w") as out:
        video: Any = out.add_stream("libx264", rate=fps, options={"preset": "ultrafast"})
        video.width, video.height, video.pix_fmt = *size, "yuv420p"
        sound: Any = out.add_stream("aac", rate=44100)
        sound.layout = "mono"
        for number in range(round(seconds * fps)):
            picture = np.full((size[1], size[0], 3), number % 255, np.uint8)
            frame = av.VideoFrame.from_ndarray(picture, format="rgb24")
            frame.pts, frame.time_base = number, Fraction(1, fps)
            out.mux(video.encode(frame))
        out.mux(video.encode(None))
        heard = av.AudioFrame.from_ndarray(np.zeros((1, 1024), np.float32), format="fltp", layout="mono")
        heard.sample_rate, heard.pts = 44100, 0
        out.mux(sound.encode(heard))
        out.mux(sound.encode(None))


class ShowingTests(SimpleTestCase):
    def setUp(self) -> None:
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.source, self.target = self.folder / "sent", self.folder / "made"

    def test_a_phone_s_picture_becomes_a_smaller_one_without_its_notes_upright(self) -> None:
        jpeg = cv2.imencode(".jpg", red_above_blue(1200, 1600))[1].tobytes()
        self.source.write_bytes(jpeg[:2] + TURNED + jpeg[2:])
        self.assertEqual(make_shown(self.source, self.target), "picture")
        made = np.asarray(cv2.imread(str(self.target)))
        self.assertEqual(made.shape[:2], (1024, 768))
        # A quarter clockwise: what was above is on the right.
        self.assertGreater(int(made[500, 700, 2]), 150)
        self.assertGreater(int(made[500, 60, 0]), 150)
        self.assertNotIn(b"Exif", self.target.read_bytes())

    def test_png_and_webp_are_pictures_too(self) -> None:
        for ending in (".png", ".webp"):
            self.source.write_bytes(cv2.imencode(ending, red_above_blue(300, 200))[1].tobytes())
            self.assertEqual(make_shown(self.source, self.target), "picture", ending)
            self.assertEqual(np.asarray(cv2.imread(str(self.target))).shape, (300, 200, 3))

    def test_a_clip_becomes_a_smaller_silent_one_of_the_same_length(self) -> None:
        clip = self.folder / "clip.mp4"
        write_clip(clip, 2.0)
        self.assertEqual(make_shown(clip, self.target), "clip")
        with av.open(str(self.target)) as made:
            stream = made.streams.video[0]
            self.assertEqual((stream.width, stream.height), (720, 404))
            self.assertFalse(made.streams.audio)
            frames = list(made.decode(stream))
        self.assertAlmostEqual(float(frames[-1].time or 0), 49 / 25, delta=0.04)
        brightness = [float(frame.to_ndarray(format="gray").mean()) for frame in frames]
        self.assertEqual(brightness, sorted(brightness))
        content = self.target.read_bytes()
        self.assertLess(content.index(b"moov"), content.index(b"mdat"))  # it can be shown while it arrives

    def test_what_is_neither_is_refused_in_words(self) -> None:
        outside = self.folder / "secret.png"
        cv2.imwrite(str(outside), red_above_blue(100, 100))
        for content, words in (
            (b"not a picture", "video"),
            (f"#EXTM3U\n#EXTINF:1,\n{outside}\n".encode(), "video"),
            (f"ffconcat version 1.0\nfile {outside}\n".encode(), "video"),
            (b'<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>', "video"),
            (cv2.imencode(".png", red_above_blue(20, 20))[1].tobytes(), "20 x 20"),
            (cv2.imencode(".png", np.zeros((8, 5000, 3), np.uint8))[1].tobytes(), "5000 x 8"),
            (b"\x89PNG\r\n\x1a\n" + b"\x00" * 64, ""),
        ):
            self.source.write_bytes(content)
            with self.subTest(content[:12]), self.assertRaises(NotAClip) as refused:
                make_shown(self.source, self.target)
            self.assertIn(words, str(refused.exception))

    def test_a_long_clip_is_refused(self) -> None:
        clip = self.folder / "clip.mp4"
        write_clip(clip, LONGEST_S + 0.5, size=(320, 180))
        with self.assertRaisesMessage(NotAClip, "longer than 12 s"):
            make_shown(clip, self.target)

    def test_the_process_of_its_own_says_what_it_is(self) -> None:
        self.source.write_bytes(cv2.imencode(".jpg", red_above_blue(200, 300))[1].tobytes())
        command = [sys.executable, "-m", "tropometer.video", "show", str(self.source), str(self.target)]
        said = subprocess.run(command, capture_output=True, text=True, cwd=ROOT, check=True)
        self.assertEqual(json.loads(said.stdout), {"kind": "picture"})
