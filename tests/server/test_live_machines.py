"""Two machines that serve the lines of one hour, and the Redis between them."""

from __future__ import annotations

import json
from typing import Any

from websockets.sync.client import ClientConnection

from tests.server.lines import AGO_S, Device, LineCase, soon
from tests.server.processes import LineServer, Redis
from tropometer.server.studio.models import Strike

PLATE = {"device": "plate"}
PATH = {"club_path_deg": {"value": 2, "unit": "deg"}}


def heard(page: ClientConnection, kind: str) -> dict[str, Any]:
    """The next of a kind that the page is told."""
    while True:
        told: dict[str, Any] = json.loads(page.recv(timeout=30))
        if told["kind"] == kind:
            return told


class TwoMachinesTests(LineCase):
    def setUp(self) -> None:
        super().setUp()
        self.redis = Redis()
        machines = [LineServer(self.redis.url) for _ in range(2)]
        for each in (self.redis, *machines):
            self.addCleanup(each.kill)
            each.start()
        self.lines = [f"ws://127.0.0.1:{each.port}/live" for each in machines]

    def at(self, machine: int) -> None:
        """Who comes next comes to this one."""
        self.base = self.lines[machine]

    def test_a_device_on_one_and_a_page_on_the_other_find_each_other_again_after_redis_was_away(self) -> None:
        self.at(0)
        plate, other = self.device(PLATE), self.device(PLATE)
        self.at(1)
        monitor = self.device({"device": "launch_monitor"})
        with self.page() as page:
            there: dict[str, str] = {}
            while len(there) < 3:
                told = heard(page, "device")
                there[told["id"]] = told["device"]
            self.assertEqual(sorted(there.values()), ["launch_monitor", "plate", "plate"])
            self.play(plate)
            self.assertTrue(0 <= heard(page, "tile")["lead_share"] <= 1)
            heard(page, "strike")
            monitor.send({"type": "shot", "t": monitor.now_s - AGO_S, "said": PATH})
            heard(page, "strike")
            both = Strike.objects.get()
            self.assertTrue(both.felt and both.said)
            self.redis.kill()
            self.play(other)  # kept though nobody can be told
            soon(lambda: Strike.objects.count() == 2)
            self.redis.start()
            soon(lambda: self.tells(monitor, page))

    def tells(self, monitor: Device, page: ClientConnection) -> bool:
        """Whether the page hears of a shot that is told of now."""
        monitor.send({"type": "shot", "t": monitor.now_s - 60, "said": PATH})
        try:
            return json.loads(page.recv(timeout=1))["kind"] == "strike"
        except TimeoutError:
            return False
