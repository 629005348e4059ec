"""Clips kept in an S3-compatible store: a moto server on loopback stands in for it."""

import os
import tempfile
from datetime import timedelta
from typing import Any
from unittest.mock import patch

import boto3
from django.test import TestCase, override_settings
from moto.server import ThreadedMotoServer

from tests.server import making
from tropometer.server.bench.models import Swing
from tropometer.server.bench.services import add_clips, remove
from tropometer.server.clips.models import Clip, State
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.clips.services import process
from tropometer.server.operations.bin import erase_now
from tropometer.server.operations.sweep import sweep
from tropometer.server.settings import BUCKET

KEYS = {"AWS_ACCESS_KEY_ID": "made-up", "AWS_SECRET_ACCESS_KEY": "made-up", "AWS_DEFAULT_REGION": "us-east-1"}


class BucketTests(TestCase):
    def setUp(self) -> None:
        server = ThreadedMotoServer(ip_address="127.0.0.1", port=0, verbose=False)
        server.start()
        self.addCleanup(server.stop)
        host, port = server.get_host_and_port()
        endpoint = f"http://{host}:{port}"
        keys = patch.dict(os.environ, KEYS)
        keys.start()
        self.addCleanup(keys.stop)
        self.bucket = boto3.resource("s3", endpoint_url=endpoint).Bucket("clips")
        self.bucket.create()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        store = {**BUCKET, "OPTIONS": {**BUCKET["OPTIONS"], "bucket_name": "clips", "endpoint_url": endpoint}}
        settings = override_settings(
            STORAGES={**self.other(), "default": store},
            UPLOAD_ROOT=f"{folder.name}/uploads",
            SCRATCH_ROOT=f"{folder.name}/scratch",
        )
        settings.enable()
        self.addCleanup(settings.disable)
        self.owner = making.instructor()
        self.client.force_login(self.owner)

    def other(self) -> dict[str, Any]:
        from django.conf import settings

        return dict(settings.STORAGES)

    def names(self) -> list[str]:
        return sorted(item.key for item in self.bucket.objects.all())

    def test_a_clip_lives_and_dies_in_a_bucket(self) -> None:
        swing = Swing.objects.create(instructor=self.owner, student=making.student(self.owner))
        with self.captureOnCommitCallbacks(execute=True):
            add_clips(swing, [ClipIn(**making.arrived(self.owner, making.demo_file()))])
        clip = Clip.objects.get()
        process(clip.pk)
        clip.refresh_from_db()
        self.assertEqual((clip.state, clip.frame_count), (State.READY, making.FRAMES))
        self.assertEqual(self.names(), [f"clips/{clip.pk}/original", f"clips/{clip.pk}/proxy.mp4"])
        whole = self.bucket.Object(f"clips/{clip.pk}/proxy.mp4").get()["Body"].read()
        answer = self.client.get(f"/api/clips/{clip.pk}/proxy.mp4", headers={"Range": "bytes=100-299"})
        self.assertEqual(answer.status_code, 206)
        self.assertEqual(b"".join(answer.streaming_content), whole[100:300])  # type: ignore[attr-defined]
        self.assertEqual(answer["Content-Range"], f"bytes 100-299/{len(whole)}")
        self.assertEqual(self.client.get(f"/api/clips/{clip.pk}/stills/5.jpg").status_code, 200)
        remove(swing)
        self.assertEqual(len(self.names()), 2)  # in the bin it keeps its files
        with self.captureOnCommitCallbacks(execute=True):
            erase_now(self.owner, "swing", swing.pk)
        self.assertEqual(self.names(), [f"erased/swing.{swing.pk}"])
        self.bucket.put_object(Key="clips/nobodys/proxy.mp4", Body=b"left over")
        self.assertEqual(sweep(grace=timedelta(0)), 1)
        self.assertEqual(self.names(), [f"erased/swing.{swing.pk}"])
