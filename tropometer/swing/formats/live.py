"""The live line: what a device sends while a student hits balls, one JSON object a line.

docs/formats/live.md is the contract, docs/formats/live.schema.json its schema.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal, cast

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.formats.launch_columns import FIELDS, UNITS, Positive
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.schema import check_shape
from tropometer.swing.live.cells import Grid
from tropometer.swing.live.frames import MOST_N, Frame
from tropometer.swing.names import Hand
from tropometer.swing.record.launch import Launch

SCHEMA = "live"
LONGEST_LINE = 60_000  # characters
COLUMNS = ("left_n", "right_n", "left", "right")

Device = Literal["plate", "launch_monitor"]
DEVICES: tuple[Device, ...] = ("plate", "launch_monitor")


@dataclass(frozen=True, kw_only=True)
class Hello:
    """What is on the line."""

    device: Device
    name: str
    grid: Grid | None = None


@dataclass(frozen=True, kw_only=True)
class ClockAnswer:
    """What a device's clock said when it was asked."""

    asked: int
    theirs_s: float


@dataclass(frozen=True, kw_only=True)
class Pressure:
    """A pressure plate's frames."""

    frames: tuple[Frame, ...]


@dataclass(frozen=True, kw_only=True, eq=False)
class Cells:
    """A mat's cells (n, cells) in newtons, at times of its clock."""

    times_s: list[float]
    felt: Array


@dataclass(frozen=True, kw_only=True)
class Shot:
    """What a launch monitor said of the ball that was struck at `t_s` of its clock."""

    t_s: float
    positive: Positive
    said: dict[str, float]  # in the core's units, sides as the device counts them
    sd: dict[str, float]  # of some of them, as the device says it

    def launch(self, hand: Hand) -> Launch:
        """The same with sides as the core counts them: positive toward the ball's side."""
        ball_side = "right" if hand == "right" else "left"
        turned = self.positive not in ("ball_side", ball_side)
        return Launch(
            **{name: -value if turned and FIELDS[name].sided else value for name, value in self.said.items()},
            sd=self.sd,
        )


Message = Hello | ClockAnswer | Pressure | Cells | Shot


def read_line(line: str) -> Message:
    """A device's message; RecordError names what is wrong with it."""
    if len(line) > LONGEST_LINE:
        raise RecordError("line", f"longer than {LONGEST_LINE} characters: send fewer frames at a time")
    try:
        document = json.loads(line)
    except (ValueError, RecursionError) as error:  # a number of thousands of digits is a ValueError, too
        raise RecordError("line", "not JSON") from error
    kind = document.get("type") if isinstance(document, dict) else None
    if not isinstance(kind, str) or kind not in _READ:
        raise RecordError("type", "one of hello, clock, pressure, cells and shot")
    # Many thousand cells come a second: they are looked at all at once.
    check_shape(document if kind != "cells" else {**document, "cells": []}, kind, SCHEMA)
    return _READ[kind](document)


def _hello(document: dict[str, Any]) -> Hello:
    words = "".join(each if each.isprintable() else " " for each in document.get("name", ""))
    grid = None
    if "grid" in document:
        told = document["grid"]
        wide_mm, long_mm = told["cell_mm"]
        try:
            grid = Grid(
                across=int(told["across"]), along=int(told["along"]), cell_m=(wide_mm / 1000, long_mm / 1000)
            )
        except ValueError as error:
            raise RecordError("hello.grid", str(error)) from error
    return Hello(device=document["device"], name=" ".join(words.split()), grid=grid)


def _clock(document: dict[str, Any]) -> ClockAnswer:
    return ClockAnswer(asked=int(document["asked"]), theirs_s=float(document["t"]))


def _pressure(document: dict[str, Any]) -> Pressure:
    times = document["t"]
    for name in COLUMNS:
        if name in document and len(document[name]) != len(times):
            raise RecordError(f"pressure.{name}", f"it has {len(document[name])} values, t has {len(times)}")
    places = {
        side: [(float(toe), float(outer)) for toe, outer in document[side]] if side in document else None
        for side in ("left", "right")
    }
    left, right = places["left"], places["right"]
    return Pressure(
        frames=tuple(
            Frame(
                t_s=float(times[i]),
                left_n=float(document["left_n"][i]),
                right_n=float(document["right_n"][i]),
                left=left[i] if left else None,
                right=right[i] if right else None,
            )
            for i in range(len(times))
        )
    )


def _cells(document: dict[str, Any]) -> Cells:
    times, rows = document["t"], document.get("cells")
    if not isinstance(rows, list) or len(rows) != len(times):
        raise RecordError("cells.cells", f"t has {len(times)} values, and here is no list of as many")
    try:
        felt = np.array(rows)
    except ValueError as error:
        raise RecordError("cells.cells", "not every frame has as many cells") from error
    if felt.ndim != 2 or felt.dtype.kind not in "if":
        raise RecordError("cells.cells", "each frame is a list of newtons, of as many cells")
    felt = felt.astype(float)
    if not (np.abs(felt) <= MOST_N).all():
        raise RecordError("cells.cells", f"no cell feels more than {MOST_N:.0f} N")
    return Cells(times_s=[float(each) for each in times], felt=felt)


def _shot(document: dict[str, Any]) -> Shot:
    said, sd = {}, {}
    for name, each in document["said"].items():
        field = FIELDS[name]
        unit = UNITS[field.kind][each["unit"]]
        value = each["value"] * unit
        if not field.least <= value <= field.most:
            raise RecordError(f"shot.said.{name}", f"no {field.words} is {each['value']:g} {each['unit']}")
        said[name] = value
        if each.get("error"):  # nothing is known without one
            sd[name] = each["error"] * unit
    positive = cast(Positive, document.get("positive", "right"))
    return Shot(t_s=float(document["t"]), positive=positive, said=said, sd=sd)


_READ: dict[str, Callable[[dict[str, Any]], Message]] = {
    "hello": _hello,
    "clock": _clock,
    "pressure": _pressure,
    "cells": _cells,
    "shot": _shot,
}


def pressure_line(frames: tuple[Frame, ...]) -> str:
    """Frames as a line; places only where every frame tells them."""
    document: dict[str, Any] = {
        "type": "pressure",
        "t": [each.t_s for each in frames],
        "left_n": [each.left_n for each in frames],
        "right_n": [each.right_n for each in frames],
    }
    for side in ("left", "right"):
        places = [getattr(each, side) for each in frames]
        if all(place is not None for place in places):
            document[side] = places
    return json.dumps(document, separators=(",", ":"))
