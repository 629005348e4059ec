"""What arrives is hostile until proven: only films are opened, and nothing breaks or hangs the server."""

import random
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase

import av
import numpy as np

from tests.swings import ROOT
from tests.video import strip_clips
from tropometer.golfer.formats import Recording, write
from tropometer.video.opening import NotAClip, check_amount, check_size
from tropometer.video.probe import MAX_FRAMES, probe
from tropometer.video.proxy import make_proxy

FUZZED = 6
ENDS_WITHIN_S = 60


def write_film(path: Path, size: tuple[int, int], count: int, rate: int = 30, **tags: str) -> Path:
    """A film of one grey, small however long."""
    with av.open(str(path), "w", options={"movflags": "use_metadata_tags"}) as out:
        out.metadata.update(tags)
        stream = out.add_stream("libx264", rate=rate, options={"preset": "ultrafast"})
        stream.width, stream.height, stream.pix_fmt = *size, "yuv420p"
        grey = np.full((size[1], size[0], 3), 90, np.uint8)
        for number in range(count):
            frame = av.VideoFrame.from_ndarray(grey, format="rgb24")
            frame.pts = number
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    return path


class HostileTests(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def refused(self, path: Path) -> str:
        with self.assertRaises(NotAClip) as caught:
            make_proxy(path, self.folder / "out.mp4", probe(path))
        return str(caught.exception)

    def test_playlists_and_scripts_open_no_other_file(self) -> None:
        film = write_film(self.folder / "film.mp4", (128, 128), 5)
        lists = {
            "hls.mp4": f"#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\n{film}\n#EXT-X-ENDLIST\n",
            "concat.mp4": f"ffconcat version 1.0\nfile '{film}'\n",
            "sdp.mov": "v=0\no=- 0 0 IN IP4 127.0.0.1\nm=video 5004 RTP/AVP 96\n",
        }
        for name, text in lists.items():
            with self.subTest(name):
                path = self.folder / name
                path.write_text(text)
                self.assertEqual(self.refused(path), "This file is not a video, or it is damaged.")

    def test_sound_alone_is_no_clip(self) -> None:
        path = self.folder / "song.mp4"
        with av.open(str(path), "w") as out:
            stream = out.add_stream("aac", rate=44100, layout="mono")
            frame = av.AudioFrame.from_ndarray(np.zeros((1, 1024), np.float32), format="fltp", layout="mono")
            frame.sample_rate = 44100
            for number in range(20):
                frame.pts = number * 1024
                out.mux(stream.encode(frame))
            out.mux(stream.encode(None))
        self.assertEqual(self.refused(path), "This file holds no video.")

    def test_absurd_sizes_and_lengths_are_refused(self) -> None:
        wide = write_film(self.folder / "wide.mp4", (4608, 64), 3)
        self.assertIn("A picture of 4608 x 64", self.refused(wide))
        bomb = write_film(self.folder / "bomb.mp4", (128, 128), MAX_FRAMES + 200, rate=120)
        self.assertLess(bomb.stat().st_size, 400_000)  # small on the disk, a lot of frames
        self.assertIn("longer than 60 s", self.refused(bomb))
        long = write_film(self.folder / "long.mp4", (128, 128), 700, rate=10)
        self.assertIn("longer than 60 s", self.refused(long))

    def test_a_picture_or_a_film_beyond_what_a_swing_needs_is_refused_before_it_is_decoded(self) -> None:
        for width, height in ((4096, 4096), (4096, 2400)):
            with self.assertRaisesRegex(NotAClip, "too large"):
                check_size(width, height)
        check_size(2160, 3840)
        with self.assertRaisesRegex(NotAClip, "too much"):
            check_amount(3840 * 2160 * 60 * 60)  # a minute of 2160 lines at 60 a second
        check_amount(1920 * 1080 * 240 * 10)

    def test_odd_sizes_are_taken(self) -> None:
        source = self.folder / "odd.mkv"
        with av.open(str(source), "w") as out:
            stream = out.add_stream("libx264rgb", rate=30, options={"preset": "ultrafast"})
            stream.width, stream.height, stream.pix_fmt = 333, 187, "rgb24"
            for number in range(6):
                frame = av.VideoFrame.from_ndarray(
                    np.full((187, 333, 3), 40 * number, np.uint8), format="rgb24"
                )
                frame.pts = number
                out.mux(stream.encode(frame))
            out.mux(stream.encode(None))
        made = make_proxy(source, self.folder / "odd.mp4", probe(source))
        self.assertEqual((len(made.played_times_s), made.width % 2, made.height % 2), (6, 0, 0))

    def test_fuzzed_files_never_hang_or_escape_their_process(self) -> None:
        source = strip_clips.write(self.folder, "h264_b_frames.mp4", strip_clips.numbered_frames(12))
        whole = source.read_bytes()
        for seed in range(FUZZED):
            dice = random.Random(seed)
            data = bytearray(whole)
            for _ in range(dice.choice((3, 40, 400))):
                data[dice.randrange(len(data))] = dice.randrange(256)
            path = self.folder / f"fuzz{seed}.mp4"
            path.write_bytes(bytes(data))
            target = self.folder / "fuzz_out.mp4"
            command = [sys.executable, "-m", "tropometer.video", "proxy", str(path), str(target)]
            done = subprocess.run(command, cwd=ROOT, capture_output=True, timeout=ENDS_WITHIN_S, check=False)
            with self.subTest(seed=seed):
                self.assertIn(done.returncode, (0, 1, 3, -6, -11))  # whatever it is, it has ended by itself
                if done.returncode == 3:
                    self.assertIn(b"refused", done.stdout)

    def test_a_phone_s_own_word_on_the_capture_rate_is_read(self) -> None:
        tagged = write_film(self.folder / "slow.mp4", (128, 128), 30, **{"com.android.capture.fps": "240.0"})
        self.assertEqual(probe(tagged).capture_fps, 240)
        for text in ("30", "nonsense", "-5", "9e9", "nan"):
            with self.subTest(text):
                path = write_film(self.folder / "x.mp4", (128, 128), 30, **{"com.android.capture.fps": text})
                self.assertIsNone(probe(path).capture_fps)

    def test_the_golfer_s_own_recordings_are_read_as_they_were_written(self) -> None:
        pictures = [np.full((96, 160, 3), 20 * n, np.uint8) for n in range(8)]
        for recording in (
            Recording(codec="libx265", container="mov", rotation=90),
            Recording(rotation=270),
            Recording(variable_rate=True),
            Recording(capture_fps=240, played_fps=30, sound=False),
        ):
            with self.subTest(recording=recording):
                path = self.folder / f"r.{recording.container}"
                write(path, pictures, len(pictures), recording, [0.05])
                found = probe(path)
                self.assertEqual((found.width, found.height), (160, 96))
                made = make_proxy(path, self.folder / "r_proxy.mp4", found)
                np.testing.assert_allclose(made.played_times_s, recording.played_s(8), atol=2e-4)
