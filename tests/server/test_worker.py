"""Workers may be killed at any moment, and several may work at once; every clip still becomes ready, once."""

import os
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import cast
from unittest.mock import patch

from asgiref.sync import async_to_sync
from django.db import connection
from django.test import SimpleTestCase, TransactionTestCase, override_settings
from procrastinate.contrib.django import app
from procrastinate.contrib.django.django_connector import DjangoConnector
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tests.swings import ROOT
from tropometer.server import rooms
from tropometer.server.bench.models import Swing
from tropometer.server.bench.services import add_clips
from tropometer.server.clips import services
from tropometer.server.clips.models import Clip, State
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.clips.tasks import make_ready, retry_stalled
from tropometer.server.rooms import RoomFailed
from tropometer.video.proxy import upright_frames

PATIENCE_S = 240  # a busy machine is slow, not wrong


def until(true: Callable[[], bool]) -> None:
    end = time.monotonic() + PATIENCE_S
    while not true():
        if time.monotonic() > end:
            raise AssertionError("It did not come to that in time.")
        time.sleep(0.05)


class WorkerTests(TransactionTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.media = Path(folder.name) / "media"
        self.scratch = Path(folder.name) / "scratch"
        settings = override_settings(
            MEDIA_ROOT=str(self.media), UPLOAD_ROOT=f"{folder.name}/uploads", SCRATCH_ROOT=str(self.scratch)
        )
        settings.enable()
        self.addCleanup(settings.disable)
        self.owner = making.instructor()
        self.swing = Swing.objects.create(instructor=self.owner, student=making.student(self.owner))

    def take_in(self, name: str) -> Clip:
        before = set(Clip.objects.values_list("pk", flat=True))
        add_clips(self.swing, [ClipIn(**making.arrived(self.owner, making.demo_file(name), name))])
        return Clip.objects.exclude(pk__in=before).get()

    def start_worker(self, *options: str) -> "subprocess.Popen[bytes]":
        base = os.environ["DATABASE_URL"].rsplit("/", 1)[0]
        worker = subprocess.Popen(
            [
                sys.executable,
                "manage.py",
                "procrastinate",
                "worker",
                "--fetch-job-polling-interval=0.2",
                *options,
            ],
            cwd=ROOT,
            env={
                **os.environ,
                "DATABASE_URL": f"{base}/{connection.settings_dict['NAME']}",
                "TROPO_MEDIA": str(self.media),
                "TROPO_SCRATCH": str(self.scratch),
            },
            stderr=subprocess.DEVNULL,
            start_new_session=True,
        )
        self.addCleanup(worker.wait)
        self.addCleanup(worker.kill)
        return worker

    def state(self, clip: Clip) -> str:
        return Clip.objects.values_list("state", flat=True).get(pk=clip.pk)

    def check_ready(self, clip: Clip, frames: int) -> None:
        clip.refresh_from_db()
        self.assertEqual((clip.state, clip.frame_count), (State.READY, frames))
        self.assertEqual(sum(1 for _ in upright_frames(Path(clip.proxy.path))), frames)

    def test_a_killed_worker_s_clip_is_made_ready_by_another(self) -> None:
        clip = self.take_in("ilse_face.mov")
        worker = self.start_worker()
        until(lambda: self.state(clip) == State.WORKING)
        time.sleep(1)  # in the middle of it
        worker.kill()
        worker.wait()
        self.assertEqual(self.state(clip), State.WORKING)
        with connection.cursor() as cursor:  # half a minute later
            cursor.execute("UPDATE procrastinate_workers SET last_heartbeat = now() - interval '1 minute'")
            # What it also had in hand, and what is asked for again since, may wait only once.
            for status, whose in (("doing", "(SELECT max(id) FROM procrastinate_workers)"), ("todo", "NULL")):
                cursor.execute(
                    "INSERT INTO procrastinate_jobs (queue_name, task_name, queueing_lock, status, worker_id)"
                    f" VALUES ('upkeep', 'once', 'once', '{status}', {whose})"
                )
        async_to_sync(self.retry)()
        self.assertEqual([job.status for job in ProcrastinateJob.objects.filter(task_name="once")], ["todo"])
        self.start_worker("--one-shot")
        until(lambda: self.state(clip) == State.READY)
        self.check_ready(clip, making.frames_of("ilse_face"))
        stored = sorted(p.name for p in (self.media / "clips" / str(clip.pk)).iterdir())
        self.assertEqual(stored, ["original", "proxy.mp4"])

    def test_a_worker_that_is_told_to_stop_refuses_nothing(self) -> None:
        clip = self.take_in("ilse_face.mov")
        worker = self.start_worker()
        until(lambda: self.state(clip) == State.WORKING)
        time.sleep(1)
        os.killpg(worker.pid, signal.SIGTERM)  # as a shell or a service manager stops it
        worker.wait(PATIENCE_S)
        self.check_ready(clip, making.frames_of("ilse_face"))

    async def retry(self) -> None:
        """What every worker does once a minute."""
        connector = cast(DjangoConnector, app.connector).get_worker_connector()
        with app.replace_connector(connector) as worker_app:
            async with worker_app.open_async():
                await retry_stalled(0)

    def test_several_workers_share_the_clips(self) -> None:
        clips = [self.take_in(f"{name}.mp4") for name in ("tobin_first_face", "dag_first_face", "wynn_line")]
        for _ in range(2):
            self.start_worker()
        until(lambda: all(self.state(clip) == State.READY for clip in clips))
        self.check_ready(clips[0], making.FRAMES)
        done = ProcrastinateJob.objects.filter(
            task_name=make_ready.name, args__clip_id__in=[str(clip.pk) for clip in clips]
        )
        until(lambda: not done.exclude(status="succeeded").exists())
        self.assertEqual([job.attempts for job in done], [1, 1, 1])


class HangingTests(SimpleTestCase):
    def test_a_decoder_that_hangs_is_ended_by_the_clock(self) -> None:
        with tempfile.TemporaryDirectory() as folder, patch.object(services, "PROBE_SECONDS", 1):
            pipe = Path(folder) / "endless.mp4"
            os.mkfifo(pipe)  # opening it waits for ever
            began = time.monotonic()
            with self.assertRaisesRegex(RoomFailed, "longer than 1 s"):
                next(rooms.video("probe", pipe, seconds=services.PROBE_SECONDS))
            self.assertLess(time.monotonic() - began, 10)
