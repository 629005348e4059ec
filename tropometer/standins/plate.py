"""A pressure plate that is not there: what it would send while somebody hits balls on it.

It plays the forces of the made-up golfer's swings, with quiet standing before and after and a shake at the
strike, on a clock of its own and over a line that is as bad as is asked for.
"""

from __future__ import annotations

import gzip
import json
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
from scipy.interpolate import CubicSpline
from scipy.signal import butter, filtfilt

from tropometer.swing.arrays import Array
from tropometer.swing.live.frames import Frame

BODY_HZ = 15.0  # nothing above is a body's: joints that are drawn start and stop at once
SHAKE_N, SHAKE_HZ, SHAKE_S = 450.0, 70.0, 0.006  # how the strike shakes it; common practice, no source
SWAY_N, SWAY_S = 18.0, 1.7  # somebody who stands still moves from foot to foot by so much
FORCE_SD_N, PLACE_SD = 6.0, 0.01
COLUMNS = ("lead_force_n", "trail_force_n", "lead_toe", "lead_outer", "trail_toe", "trail_outer")


@dataclass(frozen=True, kw_only=True)
class Line:
    """How it sends: frames a second, several at a time, and what goes wrong with a share of them."""

    rate_hz: float = 200.0
    at_a_time: int = 10
    clock_s: float = 0.0  # what its clock says at our 0
    drift: float = 0.0  # seconds a second that it goes too fast
    latest_s: float = 0.0  # by which a packet comes late, at most
    lost: float = 0.0  # shares of packets
    doubled: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Packet:
    """Frames that come together, and when."""

    comes_s: float
    frames: tuple[Frame, ...]


class PlayedSwing:
    """One swing of the made-up golfer as a plate feels it; impact is at 0 s."""

    def __init__(self, known: dict[str, Any]) -> None:
        """`known` is the truth of a swing as demo/hour.json.gz keeps it."""
        self.left_leads: bool = known["hand"] == "right"
        times = np.array(known["times_s"]["frames"]) - known["times_s"]["checkpoints"]["impact"]
        mat = known["mat"]
        columns = [mat["lead_force_n"], mat["trail_force_n"], *zip(*mat["lead_place"], strict=True)]
        columns += zip(*mat["trail_place"], strict=True)
        self._ends = float(times[0]), float(times[-1])
        weights = butter(2, BODY_HZ, fs=1 / float(np.median(np.diff(times))))
        self._courses = CubicSpline(times, filtfilt(*weights, np.array(columns, float), axis=1), axis=1)

    def at(self, times_s: Array, random: np.random.Generator) -> dict[str, Array]:
        """All COLUMNS at times from impact (n,): beyond the swing the golfer stands as at its ends."""
        felt = dict(zip(COLUMNS, self._courses(np.clip(times_s, *self._ends)), strict=True))
        sway = SWAY_N * np.sin(2 * np.pi * times_s / SWAY_S)
        since = np.maximum(times_s, 0)
        shake = SHAKE_N * np.exp(-since / SHAKE_S) * np.cos(2 * np.pi * SHAKE_HZ * since) * (times_s >= 0)
        for name in COLUMNS:
            if name.endswith("_n"):
                own = sway if name.startswith("lead") else -sway
                felt[name] = felt[name] + own + shake / 2 + random.normal(0, FORCE_SD_N, len(times_s))
            else:
                felt[name] = felt[name] + random.normal(0, PLACE_SD, len(times_s))
        return felt

    def packets(
        self, from_s: float, to_s: float, line: Line, random: np.random.Generator
    ) -> Iterator[Packet]:
        """What comes over the line from one time to another, in the order of its coming."""
        times = np.arange(from_s, to_s, 1 / line.rate_hz) + random.uniform(0, 1 / line.rate_hz)
        yield from self.packets_at(times, line, random)

    def packets_at(self, times: Array, line: Line, random: np.random.Generator) -> Iterator[Packet]:
        """The same for the times of the frames (n,), in seconds from impact."""
        felt = self.at(times, random)
        left, right = ("lead", "trail") if self.left_leads else ("trail", "lead")
        clock = line.clock_s + times * (1 + line.drift)
        frames = [
            Frame(
                t_s=float(clock[i]),
                left_n=float(felt[f"{left}_force_n"][i]),
                right_n=float(felt[f"{right}_force_n"][i]),
                left=(float(felt[f"{left}_toe"][i]), float(felt[f"{left}_outer"][i])),
                right=(float(felt[f"{right}_toe"][i]), float(felt[f"{right}_outer"][i])),
            )
            for i in range(len(times))
        ]
        packets = []
        for first in range(0, len(frames), line.at_a_time):
            if random.random() < line.lost:
                continue
            part = tuple(frames[first : first + line.at_a_time])
            sent = float(times[min(first + line.at_a_time, len(times)) - 1])
            for _ in range(1 + (random.random() < line.doubled)):
                packets.append(Packet(comes_s=sent + random.uniform(0, line.latest_s), frames=part))
        yield from sorted(packets, key=lambda packet: packet.comes_s)


def swings(path: Path) -> list[dict[str, Any]]:
    """The truth of the swings that it can play."""
    found: list[dict[str, Any]] = json.loads(gzip.decompress(path.read_bytes()))
    return found
