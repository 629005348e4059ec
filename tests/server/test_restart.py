"""A web server killed in the middle of an upload loses nothing: after a restart the sender goes on."""

import os
import socket
import tempfile
import time
import urllib.request

from django.test import TransactionTestCase, override_settings

from tests.server import making
from tests.server.processes import PATIENCE_S, WebServer
from tropometer.server.bench.models import SwingRequest
from tropometer.server.clips.models import Upload

DATA = os.urandom(3_000_000)


class RestartTests(TransactionTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        settings = override_settings(UPLOAD_ROOT=f"{folder.name}/uploads")
        settings.enable()
        self.addCleanup(settings.disable)
        owner = making.instructor()
        asked = SwingRequest.objects.create(instructor=owner, student=making.student(owner))
        self.at = f"/api/sent/{asked.token}/uploads"
        self.server = WebServer()
        self.addCleanup(self.server.kill)

    def ask(self, method: str, path: str, data: bytes | None = None, **headers: str) -> dict[str, str]:
        named = {name.replace("_", "-"): value for name, value in headers.items()}
        request = urllib.request.Request(
            f"http://127.0.0.1:{self.server.port}{path}", data=data, method=method, headers=named
        )
        with urllib.request.urlopen(request, timeout=10) as answer:
            return dict(answer.headers)

    def test_a_killed_server_keeps_what_has_arrived(self) -> None:
        self.server.start()
        begun = self.ask(
            "POST", self.at, b"", Upload_Length=str(len(DATA)), Upload_Metadata="filename YS5tcDQ="
        )
        address = begun["Location"]
        head = (
            f"PATCH {address} HTTP/1.1\r\nHost: 127.0.0.1\r\nUpload-Offset: 0\r\n"
            f"Content-Type: application/offset+octet-stream\r\nContent-Length: {len(DATA)}\r\n\r\n"
        )
        with socket.create_connection(("127.0.0.1", self.server.port), 5) as sender:
            sender.sendall(head.encode() + DATA[:1_500_000])  # half of it, and then the server is gone
            upload = Upload.objects.get()
            end = time.monotonic() + PATIENCE_S
            while upload.offset < 500_000 and time.monotonic() < end:
                time.sleep(0.05)
            self.server.kill()
        self.server.start()
        arrived = int(self.ask("HEAD", address)["Upload-Offset"])
        self.assertTrue(500_000 <= arrived <= 1_500_000, arrived)
        rest = {"Upload_Offset": str(arrived), "Content_Type": "application/offset+octet-stream"}
        self.ask("PATCH", address, DATA[arrived:], **rest)
        self.assertEqual(upload.path.read_bytes(), DATA)
