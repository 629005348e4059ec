"""The live line: what a device sends while a student hits balls, one JSON object a line.

docs/formats/live.md is the contract, docs/formats/live.schema.json its schema.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal, cast

from tropometer.swing.formats.launch_columns import FIELDS, UNITS, Positive
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.schema import check_shape
from tropometer.swing.live.frames import Frame
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


@dataclass(frozen=True, kw_only=True)
class ClockAnswer:
    """What a device's clock said when it was asked."""

    asked: int
    theirs_s: float


@dataclass(frozen=True, kw_only=True)
class Pressure:
    """A pressure plate's frames."""

    frames: tuple[Frame, ...]


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


Message = Hello | ClockAnswer | Pressure | Shot


def read_line(line: str) -> Message:
    """A device's message; RecordError names what is wrong with it."""
    if len(line) > LONGEST_LINE:
        raise RecordError("line", f"longer than {LONGEST_LINE} characters: send fewer frames at a time")
    try:
        document = json.loads(line)
    except (ValueError, RecursionError) as error:  # a number of thousands of digits is a ValueError, too
        raise RecordError("line", "not JSON") from error
    kind = document.get("type") if isinstance(document, dict) else None
    if kind not in ("hello", "clock", "pressure", "shot"):
        raise RecordError("type", "one of hello, clock, pressure and shot")
    check_shape(document, kind, SCHEMA)
    return _READ[kind](document)


def _hello(document: dict[str, Any]) -> Hello:
    words = "".join(each if each.isprintable() else " " for each in document.get("name", ""))
    return Hello(device=document["device"], name=" ".join(words.split()))


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
