"""A server of studio lines in a thread of the test's own process, and devices and pages that talk to it."""

from __future__ import annotations

import json
import os
import threading
import time
from collections.abc import Callable
from typing import Any
from unittest import mock

import uvicorn
from django.db import connection
from django.test import TransactionTestCase
from websockets.exceptions import ConnectionClosed
from websockets.sync.client import ClientConnection, connect

from tests.server import making
from tropometer.server.studio.models import StudioHour

PATIENCE_S = 30.0


class LineCase(TransactionTestCase):
    """An instructor's hour whose line is open."""

    server: uvicorn.Server
    base: str
    thread: threading.Thread

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        # What the server's own thread opens it closes at once: nobody else could.
        aged = mock.patch.dict(connection.settings_dict, {"CONN_MAX_AGE": 0})
        aged.start()
        cls.addClassCleanup(aged.stop)
        os.environ.setdefault("TROPO_SECRET_KEY", "only for tests")
        from tropometer.server.asgi import application

        config = uvicorn.Config(
            application, host="127.0.0.1", port=0, ws="websockets-sansio", lifespan="off", log_level="warning"
        )
        cls.server = uvicorn.Server(config)
        cls.thread = threading.Thread(target=cls.server.run, daemon=True)
        cls.thread.start()
        soon(lambda: cls.server.started)
        port = cls.server.servers[0].sockets[0].getsockname()[1]
        cls.base = f"ws://127.0.0.1:{port}/live"

    @classmethod
    def tearDownClass(cls) -> None:
        cls.server.should_exit = True
        cls.thread.join(PATIENCE_S)
        super().tearDownClass()

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
