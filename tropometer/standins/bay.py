"""A bay that is not there: a pressure plate and a launch monitor on the line of a studio hour.

Somebody who is made up stands on the plate, and hits a ball when told to.
"""

from __future__ import annotations

import json
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from websockets.exceptions import ConnectionClosed
from websockets.sync.client import ClientConnection, connect

from tropometer.standins.launch_monitor import Came, shot
from tropometer.standins.plate import Line, PlayedSwing
from tropometer.swing.formats.launch import launch_document
from tropometer.swing.formats.launch_columns import FIELDS, UNITS
from tropometer.swing.formats.live import pressure_line

SEGMENT_S = 0.5  # of the plate's frames that are reckoned at once
LONG_BEFORE_S = -100.0  # of any impact: the golfer stands at address
SWING_BEGINS_S, BACK_AT_ADDRESS_S = 2.5, 4.0  # before and after impact
FLIES_S = 0.8  # until the launch monitor has seen enough of the ball
UNWATCHED_S = 60.0  # then the plate is silent
GOOD_LINE = Line(at_a_time=4, clock_s=8100.0, drift=20e-6, latest_s=0.01)
BAD_LINE = Line(at_a_time=4, clock_s=8100.0, drift=60e-6, latest_s=0.15, lost=0.03, doubled=0.03)


@dataclass(frozen=True, kw_only=True)
class State:
    """What of the bay is on the line, and what went wrong."""

    plate: bool
    launch_monitor: bool
    watched: bool
    hits: int
    trouble: str


class Device:
    """One end of a line: says hello, and answers questions for its time by itself."""

    def __init__(self, address: str, device: str, name: str, clock: Callable[[float], float]) -> None:
        """`clock` says its own time by the monotonic one. Raises OSError or ValueError: no such line."""
        self._line: ClientConnection = connect(address, open_timeout=10)
        self._clock = clock
        self.watched_s = time.monotonic()  # somebody has just put it on the line
        self.trouble = ""
        self.there = True
        self.send(json.dumps({"type": "hello", "version": 1, "device": device, "name": name}))
        threading.Thread(target=self._listen, daemon=True).start()

    def send(self, line: str) -> None:
        """One line; nothing once the line has ended."""
        try:
            self._line.send(line)
        except ConnectionClosed:
            self.there = False

    def end(self) -> None:
        """Hang up."""
        self.there = False
        self._line.close()

    def _listen(self) -> None:
        try:
            for text in self._line:
                message = json.loads(text)
                if message["type"] == "clock":
                    theirs_s = self._clock(time.monotonic())
                    self.send(json.dumps({"type": "clock", "asked": message["asked"], "t": theirs_s}))
                elif message["type"] == "watched":
                    self.watched_s = time.monotonic()
                elif message["type"] == "trouble":
                    self.trouble = f"{message['field']}: {message['why']}"
        except ConnectionClosed:
            pass
        self.there = False


class Bay:
    """Both devices of a bay, and who stands in it."""

    def __init__(self, known: list[dict[str, Any]], seed: int = 3) -> None:
        """`known`: the truth of swings as demo/hour.json.gz keeps it; they are hit one after the other."""
        self._known = known
        self._played = [PlayedSwing(each) for each in known]
        self._random = np.random.default_rng(seed)
        self._devices: list[Device] = []
        self._impact_s: float | None = None  # on the monotonic clock
        self._swing = 0
        self._hits = 0

    def go_on(self, address: str, line: Line) -> None:
        """Put both devices on the line of that address. Raises OSError or ValueError: there is none."""
        self.go_off()
        began = time.monotonic()

        def plates(now_s: float) -> float:
            return line.clock_s + (now_s - began) * (1 + line.drift)

        def monitors(now_s: float) -> float:
            return now_s - began

        plate = Device(address, "plate", "Plate that is not there", plates)
        try:
            monitor = Device(address, "launch_monitor", "Launch monitor that is not there", monitors)
        except (OSError, ValueError):
            plate.end()
            raise
        self._devices = [plate, monitor]
        self._impact_s = None
        play = (plate, monitor, line, plates, monitors)
        threading.Thread(target=self._play, args=play, daemon=True).start()

    def go_off(self) -> None:
        """Take both off the line."""
        for device in self._devices:
            device.end()
        self._devices = []

    def hit(self) -> None:
        """Let the golfer hit a ball; nothing while one is being hit."""
        if self._impact_s is None and self._devices:
            self._impact_s = time.monotonic() + SWING_BEGINS_S

    @property
    def state(self) -> State:
        """How it is now."""
        there = [device.there for device in self._devices] or [False, False]
        since = [time.monotonic() - device.watched_s for device in self._devices]
        return State(
            plate=there[0],
            launch_monitor=there[1],
            watched=any(each < UNWATCHED_S for each in since),
            hits=self._hits,
            trouble=next((device.trouble for device in self._devices if device.trouble), ""),
        )

    def _play(
        self,
        plate: Device,
        monitor: Device,
        line: Line,
        plates: Callable[[float], float],
        monitors: Callable[[float], float],
    ) -> None:
        """Send what is felt as time goes, and each shot once."""
        sent_s = time.monotonic()
        step = 1 / line.rate_hz
        while plate.there:
            number = self._swing % len(self._known)
            impact_s = self._impact_s
            origin_s = sent_s - LONG_BEFORE_S if impact_s is None else impact_s
            until_s = sent_s + SEGMENT_S
            if impact_s is None and time.monotonic() - plate.watched_s > UNWATCHED_S:
                time.sleep(SEGMENT_S)
                sent_s = time.monotonic()
                continue
            times = np.arange(sent_s, until_s - step / 2, step) - origin_s
            sends = replace(line, clock_s=plates(origin_s))
            for packet in self._played[number].packets_at(times, sends, self._random):
                time.sleep(max(0.0, origin_s + packet.comes_s - time.monotonic()))
                plate.send(pressure_line(packet.frames))
            sent_s = until_s
            if impact_s is not None and sent_s > impact_s + BACK_AT_ADDRESS_S:
                self._impact_s = None
                self._swing += 1
            elif impact_s is not None and sent_s - SEGMENT_S <= impact_s + FLIES_S < sent_s:
                monitor.send(self._shot(self._known[number], monitors(impact_s)))
                self._hits += 1

    def _shot(self, known: dict[str, Any], t_s: float) -> str:
        said = launch_document(shot(Came(**known["delivery"]), known["club"], self._random))
        return json.dumps(
            {
                "type": "shot",
                "t": t_s,
                "positive": known["hand"],  # the ball lies to that side of somebody who plays so
                "said": {name: {"value": value, "unit": _unit(name)} for name, value in said.items()},
            }
        )


def _unit(field: str) -> str:
    """The core's own."""
    return next(unit for unit, factor in UNITS[FIELDS[field].kind].items() if factor == 1.0)
