"""Devices on the line of a studio hour, over the very server that serves it."""

from __future__ import annotations

import contextlib
import json
import threading
import time
import urllib.error
import urllib.request
from datetime import timedelta
from typing import Any
from unittest import mock

import numpy as np
from django.test import Client, SimpleTestCase
from django.utils import timezone
from websockets.exceptions import ConnectionClosed, InvalidStatus
from websockets.sync.client import ClientConnection, connect

from tests.server import making
from tests.server.lines import AGO_S, PATIENCE_S, LineCase, soon
from tropometer.server.bench.models import Pressure, Shot
from tropometer.server.studio.models import Strike, StudioHour
from tropometer.standins.bay import Bay
from tropometer.standins.bay_page import BayPage, serve_page
from tropometer.teaching.trials.outcomes import outcomes

PLATE = {"device": "plate", "name": "Mat in\x00 bay 2"}
SHOT = {"club_path_deg": {"value": 3.0, "unit": "deg"}, "carry_m": {"value": 150, "unit": "yd", "error": 2}}


class LiveTests(LineCase):
    def ends(self, line: ClientConnection, within_s: float = 3.0) -> bool:
        """Whether the server ends a line; it is ended after that."""
        until = time.monotonic() + within_s
        try:
            while time.monotonic() < until:
                with contextlib.suppress(TimeoutError):
                    line.recv(timeout=0.2)
        except ConnectionClosed:
            return True
        line.close()
        return False

    def strike(self) -> Strike:
        return soon(lambda: Strike.objects.filter(hour=self.hour).first())

    def test_what_a_plate_felt_and_a_shot_become_one_strike_and_then_the_next_swing_s(self) -> None:
        plate = self.device(PLATE, clock_s=1e6)
        struck, struck_s = timezone.now() - timedelta(seconds=AGO_S), time.monotonic() - AGO_S
        self.play(plate)
        strike = self.strike()
        self.assertLess(abs((strike.struck_at - struck).total_seconds()), 0.05 + 3 * strike.sd_s)
        self.assertLess(strike.sd_s, 0.05)
        self.assertEqual(strike.felt_by, "Mat in bay 2")
        monitor = self.device({"device": "launch_monitor"}, clock_s=-50.0)
        monitor.send({"type": "shot", "t": struck_s - 50.4, "positive": "left", "said": SHOT})
        soon(lambda: Strike.objects.filter(hour=self.hour, said__isnull=False).exists())
        both = Strike.objects.get(hour=self.hour)
        self.assertEqual(both.said_by, "Launch monitor")
        self.assertAlmostEqual(both.said["club_path_deg"], -3.0)  # positive toward a right-hander's ball
        self.assertAlmostEqual(both.said["carry_m"], 137.16)
        self.assertEqual(list(both.said["sd"]), ["carry_m"])  # of the path it says none
        told = self.client.get(f"{self.path}/line").json()
        self.assertEqual([each["column"] for each in told["columns"]], ["club_path.shot", "carry.shot"])
        u95 = {each["column"]: each["u95"] for each in told["strikes"][0]["values"]}
        self.assertAlmostEqual(u95["carry.shot"], 1.96 * 2 * 0.9144, places=3)
        self.assertEqual(u95["club_path.shot"], outcomes()["club_path"].u95)
        # The swing that comes in next is the one that was struck.
        clip = making.marked_swing(self.owner)
        swing = clip.swing
        type(swing).objects.filter(pk=swing.pk).update(student=self.student, received_at=timezone.now())
        tries = self.post(f"{self.path}/tries", swing_id=str(swing.pk))["tries"]
        self.assertTrue(tries[0]["has_shot"])
        self.assertEqual(Pressure.objects.get(swing=swing).file_name, "Mat in bay 2")
        self.assertEqual(Shot.objects.get(swing=swing).said, both.said)
        # The same swing told of again is the same try; another strike does not become its.
        self.play(self.device(PLATE))
        soon(lambda: Strike.objects.count() == 2)
        self.post(f"{self.path}/tries", swing_id=str(swing.pk))
        self.assertEqual(Strike.objects.filter(tried__isnull=False).get(), both)
        # A hand says otherwise, and nothing that the swing has is lost by that.
        put = {"path": f"{self.path}/strikes/{both.pk}", "content_type": "application/json"}
        self.client.put(data={"try_id": None}, **put)
        self.assertIsNone(Strike.objects.get(pk=both.pk).tried)
        self.client.put(data={"try_id": tries[0]["id"]}, **put)
        self.assertEqual(str(Strike.objects.get(pk=both.pk).tried_id), tries[0]["id"])

    def test_the_page_hears_how_the_student_stands_who_is_there_and_that_a_ball_was_struck(
        self,
    ) -> None:
        with self.page() as page:
            plate = self.device(PLATE)
            self.play(plate, lost=0.05)
            heard: list[dict[str, Any]] = []
            while not any(each["kind"] == "strike" for each in heard):
                heard.append(json.loads(page.recv(timeout=30)))
            tiles = [each for each in heard if each["kind"] == "tile"]
            self.assertTrue(all(0 <= each["lead_share"] <= 1 for each in tiles))
            self.assertTrue(tiles[0]["trail"])
            plate.line.close()
            device = heard[-1]
            while not (device["kind"] == "device" and not device["there"]):
                device = json.loads(page.recv(timeout=30))
            self.assertEqual((device["device"], device["name"]), ("plate", "Mat in bay 2"))
            self.assertGreater(device["counts"]["taken"], 1000)
            self.assertGreater(device["counts"]["lost"], 10)
            self.assertLess(device["clock_u95_s"], 0.2)

    def test_nonsense_is_named_dropped_and_counted_and_the_line_goes_on(self) -> None:
        with self.page() as page:
            plate = self.device(PLATE)
            plate.send('{"type": "pressure", "t": [1, 2], "left_n": [1], "right_n": [1, 2]}')
            (trouble,) = soon(lambda: [each for each in plate.told if each["type"] == "trouble"])
            self.assertEqual(trouble["field"], "pressure.left_n")
            self.assertIn("it has 1 values, t has 2", trouble["why"])
            in_miles = {"type": "shot", "t": 1, "said": {"carry_m": {"value": 1, "unit": "mile"}}}
            long_ago = {"type": "shot", "t": 1e12, "said": SHOT}
            endless = '{"t": ' + "9" * 5000 + "}"
            for line in ("{", "[]", in_miles, endless, long_ago):
                plate.send(line)
            plate.line.send(b"\x00\x01")
            self.play(plate)
            self.strike()
            counts: dict[str, int] = {}
            while counts.get("nonsense") != 7:
                told = json.loads(page.recv(timeout=30))
                counts = told["counts"] if told["kind"] == "device" else counts

    def test_a_mat_of_cells_is_read_as_two_feet(self) -> None:
        grid = {"across": 60, "along": 30, "cell_mm": [10, 10]}
        felt = np.zeros((30, 60))
        felt[2:28, 10:18], felt[2:28, 40:48] = 2.0, 1.0  # twice as much on the left foot
        with self.page() as page:
            plate = self.device(PLATE)
            cells = {"type": "cells", "cells": [felt.ravel().tolist()]}
            plate.send({**cells, "t": [0.5]})
            (trouble,) = soon(lambda: [each for each in plate.told if each["type"] == "trouble"])
            self.assertEqual(trouble["why"], "this mat has said a grid in its hello")
            plate.send({"type": "hello", "version": 1, **PLATE, "grid": grid})
            for number in range(60):
                plate.send({**cells, "t": [1 + number / 100]})
                time.sleep(0.01)
            tile: dict[str, Any] = {}
            while not tile.get("lead"):
                told = json.loads(page.recv(timeout=30))
                tile = told if told["kind"] == "tile" else tile
            self.assertAlmostEqual(tile["lead_share"], 2 / 3, places=2)  # of a right-hander
            self.assertTrue(np.allclose([*tile["lead"], *tile["trail"]], 0.5, atol=0.02))

    def test_the_line_is_refused_to_strangers_and_closed_and_a_page_of_another_site(self) -> None:
        address = f"{self.base}/devices/{self.address.rsplit('/', 1)[1]}"
        stranger = Client()
        stranger.force_login(making.instructor("Strange Rover"))
        for client in (stranger, Client()):
            with self.assertRaises(InvalidStatus):
                self.page(client)
        cookie = f"sessionid={self.client.cookies['sessionid'].value}"
        with self.assertRaises(InvalidStatus):
            elsewhere = {"Cookie": cookie, "Origin": "https://elsewhere.example"}
            connect(f"{self.base}/hours/{self.hour.pk}", additional_headers=elsewhere)
        for wrong in (f"{self.base}/devices/none", f"{self.base}/devices/", f"{self.base}/nowhere"):
            with self.assertRaises(InvalidStatus):
                connect(wrong)
        self.assertFalse(self.ends(connect(address)))
        StudioHour.objects.update(line_open_until=timezone.now() - timedelta(seconds=1))
        with self.assertRaises(InvalidStatus):
            connect(address)
        self.assertIsNone(self.client.get(f"{self.path}/line").json()["address"])
        again = self.post(f"{self.path}/line")["address"]
        self.assertNotEqual(again, self.address)
        with mock.patch("tropometer.server.studio.live.device.CHECKED_S", 0.2):
            there = connect(f"{self.base}/devices/{again.rsplit('/', 1)[1]}")
            self.client.delete(f"{self.path}/line")
            self.assertTrue(self.ends(there))
        with self.assertRaises(InvalidStatus):
            connect(f"{self.base}/devices/{again.rsplit('/', 1)[1]}")


class BayPageTests(SimpleTestCase):
    """The page of the bay that is not there."""

    def test_only_its_own_page_may_send_it_to_a_line(self) -> None:
        server = serve_page(BayPage(Bay([])), 0)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        own = f"http://127.0.0.1:{server.server_port}"

        def status(path: str, data: bytes | None = None, **headers: str) -> int:
            asked = urllib.request.Request(f"{own}{path}", data=data, headers=headers)
            try:
                with urllib.request.urlopen(asked, timeout=PATIENCE_S) as answer:
                    return int(answer.status)
            except urllib.error.HTTPError as error:
                return error.code

        self.assertEqual(status("/"), 200)
        self.assertEqual(status("/", Host="elsewhere.example"), 403)
        address = b"address=ws://127.0.0.1:1/"
        self.assertEqual(status("/on", address), 403)
        self.assertEqual(status("/on", address, Origin="http://elsewhere.example"), 403)
        self.assertEqual(status("/on", address, Origin=own), 200)  # it says there that nobody answers
