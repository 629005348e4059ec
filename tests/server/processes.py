"""What a test takes away and brings back: a web server in processes of its own, and its database."""

from __future__ import annotations

import contextlib
import os
import signal
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import psycopg
from django.conf import settings
from django.db import connection

from ops.instance import free_port
from tests.swings import ROOT

PATIENCE_S = 120  # a busy machine is slow, not wrong


class WebServer:
    """A web server on the test's database and folders, and always on the same port."""

    def __init__(self) -> None:
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.public = self.url  # another where something stands before it
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Start it and wait for an answer, not only an open door."""
        base = os.environ["DATABASE_URL"].rsplit("/", 1)[0]
        with tempfile.TemporaryFile() as log:
            self._process = subprocess.Popen(
                [
                    str(Path(sys.executable).parent / "gunicorn"),
                    "tropometer.server.wsgi",
                    "--bind",
                    f"127.0.0.1:{self.port}",
                    "--threads",
                    "4",
                ],
                cwd=ROOT,
                env={
                    **os.environ,
                    "DATABASE_URL": f"{base}/{connection.settings_dict['NAME']}",
                    "TROPO_URL": self.public,
                    "TROPO_STATIC": str(settings.WEB_BUILD),
                    "TROPO_UPLOADS": str(settings.UPLOAD_ROOT),
                    "TROPO_MEDIA": str(settings.MEDIA_ROOT),
                    "TROPO_SECRET_KEY": settings.SECRET_KEY,
                },
                stderr=log,
                start_new_session=True,
            )
            end = time.monotonic() + PATIENCE_S
            while time.monotonic() < end:
                try:
                    urllib.request.urlopen(f"{self.url}/inbox", timeout=10).close()
                    return
                except OSError:
                    time.sleep(0.1)
            log.seek(0)
            raise AssertionError(f"The server did not start: {log.read().decode()}")

    def kill(self) -> None:
        """Server and all its workers, at once, as when the power goes."""
        if self._process is not None and self._process.poll() is None:
            os.killpg(self._process.pid, signal.SIGKILL)
            self._process.wait()


@contextlib.contextmanager
def database_away() -> Iterator[None]:
    """Nobody comes into the test's database while this is entered; who is in already stays."""
    base = os.environ["DATABASE_URL"].rsplit("/", 1)[0]
    name = connection.settings_dict["NAME"]
    with psycopg.connect(f"{base}/postgres", autocommit=True) as beside:
        beside.execute(f'ALTER DATABASE "{name}" ALLOW_CONNECTIONS false')
        try:
            yield
        finally:
            beside.execute(f'ALTER DATABASE "{name}" ALLOW_CONNECTIONS true')
