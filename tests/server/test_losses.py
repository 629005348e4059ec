"""A machine's fault never destroys what a person sent; and what a killed one leaves behind is found."""

import os
import resource
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from unittest.mock import patch

from tests.server import making
from tests.swings import ROOT
from tropometer.server import rooms
from tropometer.server.bench.models import Swing
from tropometer.server.bench.services import add_clips
from tropometer.server.clips import services
from tropometer.server.clips.models import MOST_TRIES, Clip, State
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.operations.sweep import orphans, sweep
from tropometer.server.rooms import RoomFailed, scratch


def decoders(of: Path) -> list[int]:
    """Video processes that run on this machine for files in a folder."""
    found = subprocess.run(
        ["pgrep", "-f", f"tropometer.video proxy {of}"], capture_output=True, text=True, check=False
    )
    return [int(each) for each in found.stdout.split()]


class KilledDecoderTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.client.force_login(self.owner)
        swing = Swing.objects.create(instructor=self.owner, student=making.student(self.owner))
        self.data = making.demo_file("ilse_face.mov")
        add_clips(swing, [ClipIn(**making.arrived(self.owner, self.data, "ilse_face.mov"))])
        self.clip = Clip.objects.get()

    def process_in_vain(self, harm: Callable[[], None]) -> None:  # type: ignore[override]
        """Process the clip while something is done to its decoder."""
        harmed = threading.Thread(target=harm)
        harmed.start()
        with self.assertRaises(RoomFailed):
            services.process(self.clip.pk)
        harmed.join()
        self.clip.refresh_from_db()

    def kill(self, how: signal.Signals) -> Callable[[], None]:
        def when_it_runs() -> None:
            for _ in range(600):
                for pid in decoders(self.media):
                    os.kill(pid, how)
                    return
                time.sleep(0.02)

        return when_it_runs

    def check_kept(self) -> None:
        self.assertEqual(self.clip.state, State.WAITING)
        self.assertEqual(self.clip.original.read(), self.data)
        self.assertEqual(self.files(), [f"clips/{self.clip.pk}/original"])
        self.assertEqual(list(self.scratch.iterdir()), [])

    def test_a_decoder_that_is_killed_or_told_to_stop_costs_nothing(self) -> None:
        for how in (signal.SIGKILL, signal.SIGTERM):
            self.process_in_vain(self.kill(how))
            self.assertEqual(self.clip.trouble, f"it was stopped by {how.name}")
            self.check_kept()
        services.process(self.clip.pk)
        self.clip.refresh_from_db()
        self.assertEqual((self.clip.state, self.clip.trouble), (State.READY, ""))

    def test_a_decoder_without_memory_computing_time_or_disk_says_so(self) -> None:
        starved = {
            "MemoryError": "resource.setrlimit = lambda which, limit, real=resource.setrlimit:"
            " real(which, (500 * 2**20,) * 2 if which == resource.RLIMIT_AS else limit)",
            "computing time": "resource.setrlimit = lambda which, limit, real=resource.setrlimit:"
            " real(which, (1, 3) if which == resource.RLIMIT_CPU else limit)",
            "too large": "resource.setrlimit = lambda which, limit, real=resource.setrlimit:"
            " real(which, (20_000,) * 2 if which == resource.RLIMIT_FSIZE else limit)",
        }
        for said, change in starved.items():
            with self.subTest(said), tempfile.TemporaryDirectory() as folder:
                Path(folder, "sitecustomize.py").write_text(f"import resource\n{change}\n")
                with (
                    patch.dict(os.environ, {"PYTHONPATH": f"{folder}:{ROOT}"}),
                    self.assertRaises(RoomFailed),
                ):
                    services.process(self.clip.pk)
                self.clip.refresh_from_db()
                self.assertRegex(self.clip.trouble, f"{said}|memory|map segment|SIGSEGV|File too large")
                self.check_kept()

    def test_after_enough_tries_a_person_is_asked_and_can_have_it_tried_again(self) -> None:
        with patch.object(services, "video", side_effect=RoomFailed("the disk is full")):
            for _ in range(MOST_TRIES - 1):
                with self.assertRaises(RoomFailed):
                    services.process(self.clip.pk)
            services.process(self.clip.pk)
        told = self.client.get(f"/api/clips/{self.clip.pk}").json()
        self.assertEqual((told["state"], told["trouble"]), ("failed", "the disk is full"))
        services.process(self.clip.pk)  # a job that comes late changes nothing
        self.assertEqual(self.client.get(f"/api/clips/{self.clip.pk}").json()["state"], "failed")
        again = self.client.post(
            f"/api/clips/{self.clip.pk}/try-again", content_type="application/json"
        ).json()
        self.assertEqual((again["state"], again["trouble"]), ("waiting", ""))
        services.process(self.clip.pk)
        self.assertEqual(Clip.objects.get().state, State.READY)

    def test_a_clip_that_kills_its_worker_each_time_is_not_tried_for_ever(self) -> None:
        Clip.objects.update(tries=MOST_TRIES, state=State.WORKING)
        services.process(self.clip.pk)
        self.assertEqual(Clip.objects.get().state, State.FAILED)

    def test_a_missing_original_is_the_machine_s_fault(self) -> None:
        away = self.media / "away"
        (self.media / "clips").rename(away)
        with self.assertRaises(RoomFailed):
            services.process(self.clip.pk)
        away.rename(self.media / "clips")
        services.process(self.clip.pk)
        self.assertEqual(Clip.objects.get().state, State.READY)

    def test_a_file_that_cannot_be_looked_at_now_waits(self) -> None:
        arrived = making.arrived(self.owner, making.demo_file())
        body = {"student_id": str(self.clip.swing.student_id), "clips": [arrived]}
        with patch.object(services, "video", side_effect=RoomFailed("it was stopped by SIGKILL")):
            answer = self.client.post("/api/swings", body, content_type="application/json")
        self.assertEqual(answer.status_code, 503)
        self.assertIn("Nothing is lost", answer.json()["detail"])
        self.assertEqual(
            self.client.post("/api/swings", body, content_type="application/json").status_code, 201
        )


class LeftBehindTests(making.MediaCase):
    def test_the_decoder_dies_with_its_worker_and_its_scratch_is_swept(self) -> None:
        """A worker killed in the middle leaves no process and, after a sweep, no copy of what was sent."""
        original = self.media / "original.mov"
        original.write_bytes(making.demo_file("ilse_face.mov"))
        worker = subprocess.Popen(
            [sys.executable, "-c", WORKER, str(original)],
            cwd=ROOT,
            env={**os.environ, "TROPO_SCRATCH": str(self.scratch), "PYTHONPATH": "."},
            stdout=subprocess.PIPE,
        )
        assert worker.stdout is not None
        self.addCleanup(worker.stdout.close)
        self.assertTrue(worker.stdout.readline())  # it decodes
        (decoder,) = [
            pid for pid in decoders(self.media) if str(original) in Path(f"/proc/{pid}/cmdline").read_text()
        ]
        self.assertEqual(sweep(), 0)  # what is in use is left alone
        worker.kill()
        worker.wait()
        for _ in range(100):
            if decoder not in decoders(self.media):
                break
            time.sleep(0.05)
        self.assertNotIn(decoder, decoders(self.media))
        self.assertEqual([each.what.split()[0] for each in orphans()], ["scratch"])
        self.assertEqual(sweep(), 1)
        self.assertEqual(list(self.scratch.iterdir()), [])

    def test_files_that_nothing_names_are_found_once_they_are_old_enough(self) -> None:
        owner = making.instructor()
        clip = making.with_picture(making.marked_swing(owner), self.media)
        for name in ("clips/nobodys/original", "lessons/nobodys/x.jpg"):
            path = self.media / name
            path.parent.mkdir(parents=True)
            path.write_bytes(b"left over")
        self.uploads.mkdir()
        (self.uploads / "11111111-1111-4111-8111-111111111111.part").write_bytes(b"left over")
        self.assertEqual(sweep(), 0)  # they may be about to get their row
        self.assertEqual(sweep(grace=timedelta(0)), 3)
        self.assertEqual(self.files(), ["proxy.mp4", f"clips/{clip.pk}/proxy.mp4"][1:] + self.own_files())
        self.assertEqual(self.waiting(), [])

    def own_files(self) -> list[str]:
        """What the test itself laid there."""
        return [name for name in self.files() if not name.startswith(("clips/", "lessons/"))]

    def test_scratch_is_gone_after_an_error(self) -> None:
        with self.assertRaises(ValueError), scratch() as folder:
            (folder / "copy").write_bytes(b"x")
            raise ValueError
        self.assertEqual(list(self.scratch.iterdir()), [])
        shutil.rmtree(self.scratch)
        self.assertEqual(list(rooms.abandoned_scratch(timedelta(0))), [])


WORKER = """
import sys, django
from pathlib import Path
django.setup()
from tropometer.server.rooms import scratch, video
with scratch() as folder:
    copy = folder / "original"
    copy.write_bytes(Path(sys.argv[1]).read_bytes())
    for line in video("proxy", Path(sys.argv[1]), folder / "proxy.mp4", seconds=60):
        print(line, flush=True)
"""


class BombTests(making.MediaCase):
    def test_a_sound_without_end_is_not_heard_to_its_end(self) -> None:
        import av
        import numpy as np

        from tropometer.video.strike import MOST_SAMPLES, hear_strikes

        path = self.media / "bomb.mkv"
        with av.open(str(path), "w") as out:
            picture = out.add_stream("libx264", rate=1, options={"preset": "ultrafast"})
            picture.width, picture.height, picture.pix_fmt = 64, 64, "yuv420p"
            sound = out.add_stream("flac", rate=16_000, layout="mono")
            out.mux(
                picture.encode(av.VideoFrame.from_ndarray(np.zeros((64, 64, 3), np.uint8), format="rgb24"))
            )
            second = np.zeros((1, 16_000), np.int16)
            for number in range(3 * 3600):  # three hours of silence, small on the disk
                frame = av.AudioFrame.from_ndarray(second, format="s16", layout="mono")
                frame.sample_rate, frame.pts = 16_000, number * 16_000
                out.mux(sound.encode(frame))
            out.mux(picture.encode(None))
            out.mux(sound.encode(None))
        before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
        hear_strikes(path)
        grown = 1024 * (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before)
        self.assertLess(grown, 12 * 8 * MOST_SAMPLES)  # a dozen rows of one minute, not of three hours
