"""Half-sent requests stop at the proxy: the server behind it goes on answering."""

import os
import shutil
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from django.db import connection
from django.test import TransactionTestCase

from ops.instance import free_port
from tests.swings import ROOT

HALF_SENT = 90
PATIENCE_S = 30
SOON_S = 5


class SlowClientTests(TransactionTestCase):
    """The proxy and the web server as ./tropo serve starts them, with fewer threads than slow senders."""

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        root = Path(folder.name)
        web, self.port = free_port(), free_port()
        (root / "ops").mkdir()
        shutil.copy(ROOT / "ops" / "proxy.sh", root / "ops")
        nobody = "127.0.0.1:9"
        ends = [f"127.0.0.1:{self.port}", f"127.0.0.1:{web}", nobody]
        subprocess.run(["bash", "ops/proxy.sh", *ends], cwd=root, check=True)
        base = os.environ["DATABASE_URL"].rsplit("/", 1)[0]
        environment = {
            **os.environ,
            "DATABASE_URL": f"{base}/{connection.settings_dict['NAME']}",
            "TROPO_SECRET_KEY": "only for this test",
            "TROPO_PROXIES": "1",
        }
        gunicorn = str(Path(sys.executable).parent / "gunicorn")
        self.run_it(
            [gunicorn, "tropometer.server.wsgi", "--bind", f"127.0.0.1:{web}", "--threads", "4"], environment
        )
        self.run_it(["nginx", "-p", f"{root}/var/nginx", "-c", f"{root}/var/nginx/nginx.conf"], environment)
        end = time.monotonic() + PATIENCE_S
        while time.monotonic() < end:
            try:
                self.ask()
                return
            except OSError:
                time.sleep(0.1)
        raise AssertionError("The server did not start.")

    def run_it(self, command: list[str], environment: dict[str, str]) -> None:
        started = subprocess.Popen(command, cwd=ROOT, env=environment, stderr=subprocess.DEVNULL)
        self.addCleanup(started.wait)
        self.addCleanup(started.terminate)

    def ask(self) -> float:
        """Seconds until a page is here."""
        began = time.monotonic()
        with urllib.request.urlopen(f"http://127.0.0.1:{self.port}/inbox", timeout=SOON_S) as answer:
            answer.read()
        return time.monotonic() - began

    def test_half_sent_requests_silence_nobody(self) -> None:
        senders = []
        for number in range(HALF_SENT):
            sender = socket.create_connection(("127.0.0.1", self.port), SOON_S)
            self.addCleanup(sender.close)
            senders.append(sender)
            head = (
                "POST /_allauth/browser/v1/auth/login HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 900\r\n"
            )
            # Half of them stop within the head, half within the body.
            sender.sendall(head.encode() + (b"X-Slow: " if number % 2 else b"\r\n{"))
        for _ in range(5):
            self.assertLess(self.ask(), SOON_S)

    def test_a_body_too_large_for_a_piece_is_refused_at_the_door(self) -> None:
        with socket.create_connection(("127.0.0.1", self.port), SOON_S) as sender:
            sender.sendall(
                b"PATCH /api/uploads/x HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 99999999\r\n\r\n"
            )
            self.assertIn(b" 413 ", sender.recv(200))
