"""What a column of a launch table may be, told by the trade's words for it and by the units behind them."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

Positive = Literal["right", "left", "ball_side"]  # which side counts as positive in a column
Kind = Literal["speed", "length", "angle", "turns", "clock"]

# What one of a unit is in the core's own (SI; the pound and yard agreement of 1959).
UNITS: dict[Kind, dict[str, float]] = {
    "speed": {"m/s": 1.0, "km/h": 1 / 3.6, "mph": 0.44704, "ft/s": 0.3048},
    "length": {"m": 1.0, "yd": 0.9144, "ft": 0.3048, "cm": 0.01, "in": 0.0254},
    "angle": {"deg": 1.0, "rad": 57.29577951308232},
    "turns": {"rpm": 1.0},
    "clock": {"": 1.0},
}
_SPELT = {
    "mps": "m/s", "m/sec": "m/s", "ms-1": "m/s", "kmh": "km/h", "kph": "km/h", "mi/h": "mph",
    "miles/h": "mph", "fps": "ft/s", "metres": "m", "meters": "m", "metre": "m", "meter": "m", "yds": "yd",
    "yard": "yd", "yards": "yd", "y": "yd", "feet": "ft", "foot": "ft", "inch": "in", "inches": "in",
    "°": "deg", "degree": "deg", "degrees": "deg", "radians": "rad", "u/min": "rpm", "1/min": "rpm",
    "rev/min": "rpm", "r/min": "rpm",
}  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class Field:
    """A field of `Launch`, or the time of day: what it is called, how large it can be, in the core's units.

    A header has a word of each of `all_of` for it; one of `none_of` makes it another.
    """

    words: str
    kind: Kind
    least: float
    most: float
    all_of: tuple[tuple[str, ...], ...]
    none_of: tuple[str, ...] = ()
    sided: bool = False


CLUB, BALL = ("club", "head", "clubhead"), ("ball",)
DIRECTION = ("direction", "dir", "start", "azimuth", "horizontal")
FIELDS: dict[str, Field] = {
    "club_speed_m_s": Field(
        words="club speed", kind="speed", least=0, most=90, all_of=(CLUB, ("speed", "velocity")),
        none_of=("ball",),
    ),
    "ball_speed_m_s": Field(
        words="ball speed", kind="speed", least=0, most=120, all_of=(BALL, ("speed", "velocity"))
    ),
    "club_path_deg": Field(
        words="club path", kind="angle", least=-45, most=45, all_of=(("path",),), none_of=("face", "swing"),
        sided=True,
    ),
    "face_deg": Field(
        words="face angle", kind="angle", least=-45, most=45, all_of=(("face",),), none_of=("path", "impact"),
        sided=True,
    ),
    "attack_deg": Field(words="attack angle", kind="angle", least=-45, most=45, all_of=(("attack",),)),
    "start_deg": Field(
        words="start direction", kind="angle", least=-80, most=80, all_of=(DIRECTION,),
        none_of=("club", "spin", "path", "face", "speed", "time", "date", "swing"), sided=True,
    ),
    "launch_deg": Field(
        words="launch angle", kind="angle", least=-30, most=89, all_of=(("launch", "vertical"),),
        none_of=(*DIRECTION, "speed", "spin"),
    ),
    "spin_rpm": Field(
        words="spin", kind="turns", least=0, most=20_000, all_of=(("spin", "backspin"),),
        none_of=("axis", "side", "loft", "sidespin", "tilt"),
    ),
    "carry_m": Field(
        words="carry", kind="length", least=0, most=420, all_of=(("carry",),),
        none_of=("side", "offline", "aside", "deviation", "lateral", "time", "speed", "land", "angle"),
    ),
    "aside_m": Field(
        words="distance aside", kind="length", least=-200, most=200,
        all_of=(("offline", "aside", "side", "deviation", "lateral"),), none_of=("spin", "angle"), sided=True,
    ),
    "low_point_m": Field(
        words="low point", kind="length", least=-0.5, most=0.5, all_of=(("low",), ("point",)),
        none_of=("height", "depth"),
    ),
    "time": Field(
        words="time of day", kind="clock", least=0, most=0, all_of=(("time", "clock", "timestamp", "hit"),),
        none_of=("impact", "flight", "hang", "carry", "air", "swing", "back"),
    ),
}  # fmt: skip
USUAL_UNIT: dict[Kind, str] = {"speed": "m/s", "length": "m", "angle": "deg", "turns": "rpm", "clock": ""}


@dataclass(frozen=True, kw_only=True)
class Use:
    """What a column is said to be; `positive` counts only for what lies to a side and bears no letter."""

    field: str
    unit: str
    positive: Positive = "right"
    unit_said: bool = False  # the header itself names the unit


def use_of(name: str) -> Use | None:
    """What a header's name seems to say; None where it says nothing known."""
    head, unit = _parted(name)
    words = set(re.findall(r"[a-z]+", re.sub(r"(?<=[a-z])(?=[A-Z])", " ", head).lower()))
    for id, field in FIELDS.items():
        if words & set(field.none_of) or not all(words & set(likes) for likes in field.all_of):
            continue
        said = unit_of(unit, field.kind) or next(
            (found for word in re.split(r"[\s_]+", head)[::-1] if (found := unit_of(word, field.kind))), None
        )
        return Use(field=id, unit=said or USUAL_UNIT[field.kind], unit_said=said is not None)
    return None


def unit_of(text: str, kind: Kind) -> str | None:
    """A unit as it is spelt in a table, as one of `UNITS`; None for one that is not of the kind."""
    plain = text.strip(" .").lower().replace(" ", "")
    plain = _SPELT.get(plain, plain)
    return plain if plain and plain in UNITS[kind] else None


def _parted(name: str) -> tuple[str, str]:
    """A header's name, and the unit in brackets or behind a comma."""
    found = re.match(r"^(.*?)\s*[\[(]\s*([^\])]*?)\s*[\])]\s*$", name) or re.match(r"^(.*),\s*([^,]+)$", name)
    return (found[1], found[2]) if found else (name, "")
