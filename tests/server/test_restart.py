"""A web server killed in the middle of an upload loses nothing: after a restart the sender goes on."""

import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from django.db import connection
from django.test import TransactionTestCase, override_settings

from tests.server import making
from tests.swings import ROOT
from tropometer.server.bench.models import SwingRequest
from tropometer.server.clips.models import Upload

DATA = os.urandom(3_000_000)
PATIENCE_S = 120  # a busy machine is slow, not wrong


class RestartTests(TransactionTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.uploads = f"{folder.name}/uploads"
        settings = override_settings(UPLOAD_ROOT=self.uploads)
        settings.enable()
        self.addCleanup(settings.disable)
        owner = making.instructor()
        asked = SwingRequest.objects.create(instructor=owner, student=making.student(owner))
        self.at = f"/api/sent/{asked.token}/uploads"
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]

    def start(self) -> "subprocess.Popen[bytes]":
        base = os.environ["DATABASE_URL"].rsplit("/", 1)[0]
        log = self.enterContext(tempfile.TemporaryFile())
        server = subprocess.Popen(
            [
                str(Path(sys.executable).parent / "gunicorn"),
                "tropometer.server.wsgi",
                "--bind",
                f"127.0.0.1:{self.port}",
            ],
            cwd=ROOT,
            env={
                **os.environ,
                "DATABASE_URL": f"{base}/{connection.settings_dict['NAME']}",
                "TROPO_UPLOADS": self.uploads,
                "TROPO_SECRET_KEY": "only for this test",
            },
            stderr=log,
            start_new_session=True,
        )
        self.addCleanup(server.wait)
        self.addCleanup(self.kill, server)
        end = time.monotonic() + PATIENCE_S
        while time.monotonic() < end:
            try:
                self.ask("GET", "/inbox")  # an answer, not only an open door
                return server
            except OSError:
                time.sleep(0.1)
        log.seek(0)
        raise AssertionError(f"The server did not start: {log.read().decode()}")

    def kill(self, server: "subprocess.Popen[bytes]") -> None:
        """Server and all its workers, at once, as when the power goes."""
        if server.poll() is None:
            os.killpg(server.pid, signal.SIGKILL)

    def ask(self, method: str, path: str, data: bytes | None = None, **headers: str) -> dict[str, str]:
        named = {name.replace("_", "-"): value for name, value in headers.items()}
        request = urllib.request.Request(
            f"http://127.0.0.1:{self.port}{path}", data=data, method=method, headers=named
        )
        with urllib.request.urlopen(request, timeout=10) as answer:
            return dict(answer.headers)

    def test_a_killed_server_keeps_what_has_arrived(self) -> None:
        server = self.start()
        begun = self.ask(
            "POST", self.at, b"", Upload_Length=str(len(DATA)), Upload_Metadata="filename YS5tcDQ="
        )
        address = begun["Location"]
        head = (
            f"PATCH {address} HTTP/1.1\r\nHost: 127.0.0.1\r\nUpload-Offset: 0\r\n"
            f"Content-Type: application/offset+octet-stream\r\nContent-Length: {len(DATA)}\r\n\r\n"
        )
        with socket.create_connection(("127.0.0.1", self.port), 5) as sender:
            sender.sendall(head.encode() + DATA[:1_500_000])  # half of it, and then the server is gone
            upload = Upload.objects.get()
            end = time.monotonic() + PATIENCE_S
            while upload.offset < 500_000 and time.monotonic() < end:
                time.sleep(0.05)
            self.kill(server)
            server.wait()
        self.start()
        arrived = int(self.ask("HEAD", address)["Upload-Offset"])
        self.assertTrue(500_000 <= arrived <= 1_500_000, arrived)
        rest = {"Upload_Offset": str(arrived), "Content_Type": "application/offset+octet-stream"}
        self.ask("PATCH", address, DATA[arrived:], **rest)
        self.assertEqual(upload.path.read_bytes(), DATA)
