"""What a test takes away and brings back: servers in processes of their own, and its database."""

from __future__ import annotations

import contextlib
import os
import signal
import socket
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


class Server:
    """A program that serves, always on the same port of this machine, in processes of its own."""

    def __init__(self) -> None:
        self.port = free_port()
        self._process: subprocess.Popen[bytes] | None = None

    def command(self) -> list[str]:
        """What is started."""
        raise NotImplementedError

    def environment(self) -> dict[str, str]:
        """What it is told besides."""
        return {}

    def answers(self) -> None:
        """Whether it does, not only has an open door; an OSError where not yet."""
        socket.create_connection(("127.0.0.1", self.port), timeout=10).close()

    def start(self) -> None:
        """Start it and wait for an answer."""
        with tempfile.TemporaryFile() as log:
            self._process = subprocess.Popen(
                self.command(),
                cwd=ROOT,
                env={**os.environ, **self.environment()},
                stdout=log,
                stderr=log,
                start_new_session=True,
            )
            end = time.monotonic() + PATIENCE_S
            while time.monotonic() < end:
                try:
                    self.answers()
                    return
                except OSError:
                    time.sleep(0.1)
            log.seek(0)
            raise AssertionError(f"It did not start: {log.read().decode()}")

    def kill(self) -> None:
        """It and all its workers, at once, as when the power goes."""
        if self._process is not None and self._process.poll() is None:
            os.killpg(self._process.pid, signal.SIGKILL)
            self._process.wait()


class WebServer(Server):
    """A web server on the test's database and folders."""

    def __init__(self) -> None:
        super().__init__()
        self.url = f"http://127.0.0.1:{self.port}"
        self.public = self.url  # another where something stands before it

    def command(self) -> list[str]:
        """Gunicorn, as it is served."""
        bind = ["--bind", f"127.0.0.1:{self.port}", "--threads", "4"]
        return [_beside_python("gunicorn"), "tropometer.server.wsgi", *bind]

    def environment(self) -> dict[str, str]:
        """What is the test's."""
        return {
            **_test_database(),
            "TROPO_URL": self.public,
            "TROPO_STATIC": str(settings.WEB_BUILD),
            "TROPO_UPLOADS": str(settings.UPLOAD_ROOT),
            "TROPO_MEDIA": str(settings.MEDIA_ROOT),
        }

    def answers(self) -> None:
        """A page."""
        urllib.request.urlopen(f"{self.url}/inbox", timeout=10).close()


class LineServer(Server):
    """A server of studio lines on the test's database, one of several over one Redis."""

    def __init__(self, redis: str) -> None:
        super().__init__()
        self.redis = redis

    def command(self) -> list[str]:
        """As `./tropo live` does."""
        return ["./tropo", "live"]

    def environment(self) -> dict[str, str]:
        """What is the test's."""
        return {
            **_test_database(),
            "TROPO_LIVE_BIND": f"127.0.0.1:{self.port}",
            "TROPO_REDIS": self.redis,
            "TROPO_URL": "http://localhost",
        }


class Redis(Server):
    """A Redis that keeps nothing."""

    @property
    def url(self) -> str:
        """Where it is."""
        return f"redis://127.0.0.1:{self.port}"

    def command(self) -> list[str]:
        """On loopback."""
        return ["redis-server", "--bind", "127.0.0.1", "--port", str(self.port), "--save", ""]


def _beside_python(program: str) -> str:
    return str(Path(sys.executable).parent / program)


def _test_database() -> dict[str, str]:
    base = os.environ["DATABASE_URL"].rsplit("/", 1)[0]
    name = connection.settings_dict["NAME"]
    return {"DATABASE_URL": f"{base}/{name}", "TROPO_SECRET_KEY": settings.SECRET_KEY}


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
