"""A server of studio lines in a thread of the test's own process, and devices and pages that talk to it."""

from __future__ import annotations

import contextlib
import json
import os
import socket
import threading
import time
from collections.abc import Callable, Iterator
from typing import Any
from unittest import mock

import numpy as np
import uvicorn
from django.db import connection
from django.test import TransactionTestCase
from websockets.exceptions import ConnectionClosed
from websockets.sync.client import ClientConnection, connect

from tests.server import making
from tests.swings import DEMO_CLIPS
from tropometer.server.studio.models import StudioHour
from tropometer.standins.plate import Line, PlayedSwing, swings
from tropometer.swing.formats.live import pressure_line

PATIENCE_S = 30.0
AGO_S = 4.0  # the strike that is played lies so far back
CHUNK = 65536


@contextlib.contextmanager
def serve_lines() -> Iterator[str]:
    """A server of lines in a thread while this is entered; gives its host and port."""
    # What the server's own thread opens it closes at once: nobody else could.
    with mock.patch.dict(connection.settings_dict, {"CONN_MAX_AGE": 0}):
        os.environ.setdefault("TROPO_SECRET_KEY", "only for tests")
        from tropometer.server.asgi import application

        config = uvicorn.Config(
            application, host="127.0.0.1", port=0, ws="websockets-sansio", lifespan="off", log_level="warning"
        )
        server = uvicorn.Server(config)
        thread = threading.Thread(target=server.run, daemon=True)
        thread.start()
        soon(lambda: server.started)
        yield f"127.0.0.1:{server.servers[0].sockets[0].getsockname()[1]}"
        server.should_exit = True
        thread.join(PATIENCE_S)


class Splice:
    """One address for a web server and a server of lines, as the proxy makes it; its lines can be cut.

    What a browser calls offline does not reach its workers.
    """

    def __init__(self, web: str, lines: str | None = None) -> None:
        """`web`: its URL; `lines`: host and port; without them all is cut that goes to the web server."""
        self._all = lines is None
        self._to = {False: web.removeprefix("http://"), True: lines or web.removeprefix("http://")}
        self._socket = socket.create_server(("127.0.0.1", 0))
        self.url = f"http://localhost:{self._socket.getsockname()[1]}"
        self._is_cut = False
        self._open: list[socket.socket] = []

    def __enter__(self) -> Splice:
        threading.Thread(target=self._accept, daemon=True).start()
        return self

    def __exit__(self, *_: object) -> None:
        self.cut()
        self._socket.close()

    def cut(self) -> None:
        """Break all lines, and let no new one through."""
        self._is_cut = True
        for each in self._open:
            with contextlib.suppress(OSError):
                each.shutdown(socket.SHUT_RDWR)

    def mend(self) -> None:
        """Let lines through again."""
        self._is_cut = False

    def _accept(self) -> None:
        while True:
            try:
                near, _ = self._socket.accept()
            except OSError:  # closed
                return
            threading.Thread(target=self._join, args=(near,), daemon=True).start()

    def _join(self, near: socket.socket) -> None:
        """By its first request: a browser has lines and requests on connections of their own."""
        with contextlib.suppress(OSError), near:
            begun = near.recv(CHUNK)
            is_line = self._all or begun.startswith(b"GET /live/")
            if is_line and self._is_cut:
                return
            host, _, port = self._to[is_line].partition(":")
            with socket.create_connection((host, int(port))) as far:
                if is_line:
                    self._open += [near, far]
                far.sendall(begun)
                back = threading.Thread(target=_pour, args=(far, near), daemon=True)
                back.start()
                _pour(near, far)
                back.join()


def _pour(source: socket.socket, into: socket.socket) -> None:
    with contextlib.suppress(OSError):
        while data := source.recv(CHUNK):
            into.sendall(data)
    with contextlib.suppress(OSError):
        into.shutdown(socket.SHUT_WR)


class LineCase(TransactionTestCase):
    """An instructor's hour whose line is open."""

    base: str

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.base = f"ws://{cls.enterClassContext(serve_lines())}/live"

    def setUp(self) -> None:
        self.owner = making.instructor()
        self.student = making.student(self.owner)
        self.client.force_login(self.owner)
        begun = self.post(f"/api/students/{self.student.pk}/hours")
        self.hour = StudioHour.objects.get(pk=begun["id"])
        self.path = f"/api/hours/{self.hour.pk}"
        self.address: str = self.post(f"{self.path}/line")["address"]

    def post(self, path: str, **data: Any) -> Any:
        """What the server answers."""
        return self.client.post(path, data, content_type="application/json").json()

    def device(self, hello: dict[str, Any], clock_s: float = 0.0) -> Device:
        """A device on the hour's line, whose clock is known to the server by now."""
        found = Device(f"{self.base}/devices/{self.address.rsplit('/', 1)[1]}", clock_s)
        self.addCleanup(found.line.close)
        found.send({"type": "hello", "version": 1, **hello})
        soon(lambda: found.asked >= 6)
        return found

    def play(self, device: Device, **line: Any) -> None:
        """A swing whose strike lies AGO_S back on the device's clock, all at once."""
        sends = Line(clock_s=device.now_s - AGO_S, **line)
        for packet in PlayedSwing(swings(DEMO_CLIPS.parent / "hour.json.gz")[0]).packets(
            -5.0, AGO_S - 0.2, sends, np.random.default_rng(1)
        ):
            device.send(pressure_line(packet.frames))

    def page(self, client: Any = None) -> ClientConnection:
        """The hour's page of who is signed in."""
        session = (client or self.client).cookies
        cookies = "; ".join(f"{name}={morsel.value}" for name, morsel in session.items())
        found = connect(
            f"{self.base}/hours/{self.hour.pk}",
            additional_headers={"Cookie": cookies, "Origin": "http://localhost"},
        )
        self.addCleanup(found.close)
        return found


class Device:
    """One end of a line: answers questions for its time by itself, and keeps what else it is told."""

    def __init__(self, address: str, clock_s: float) -> None:
        self.line = connect(address)
        self.clock_s = clock_s
        self.asked = 0
        self.told: list[dict[str, Any]] = []
        threading.Thread(target=self._listen, daemon=True).start()

    @property
    def now_s(self) -> float:
        """Its own clock."""
        return time.monotonic() + self.clock_s

    def send(self, message: dict[str, Any] | str) -> None:
        """One line, as it is or as JSON."""
        self.line.send(message if isinstance(message, str) else json.dumps(message))

    def _listen(self) -> None:
        try:
            for text in self.line:
                message = json.loads(text)
                if message["type"] == "clock":
                    self.asked += 1
                    self.send({"type": "clock", "asked": message["asked"], "t": self.now_s})
                else:
                    self.told.append(message)
        except ConnectionClosed:
            return


def soon(wanted: Callable[[], Any]) -> Any:
    """What is wanted, once it is there."""
    until = time.monotonic() + PATIENCE_S
    while not (found := wanted()):
        if time.monotonic() > until:
            raise AssertionError("it did not come")
        time.sleep(0.05)
    return found
