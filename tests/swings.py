"""Swing records for tests, from the made-up golfer's truth."""

import gzip
import json
from functools import lru_cache
from pathlib import Path
from typing import Any

from tropometer.swing.record.clip import Clip, KnownLength, Mark
from tropometer.swing.record.swing import SwingRecord

ROOT = Path(__file__).parents[1]
DEMO_CLIPS = ROOT / "demo" / "clips"
SWAY_MARKS = ("lead_hip", "trail_hip", "lead_hip_edge", "trail_hip_edge")
PEGS = ("address", "top", "impact")


@lru_cache(maxsize=8)
def truth(name: str) -> dict[str, Any]:
    """The truth file of a demo clip (docs/formats/golfer-truth.md)."""
    document: dict[str, Any] = json.loads(
        gzip.decompress((DEMO_CLIPS / f"{name}.truth.json.gz").read_bytes())
    )
    return document


def true_reading(name: str, reading: str, at: str) -> Any:
    """The true value of a reading of a demo clip."""
    rows = truth(name)["readings"]
    return next(row["value"] for row in rows if (row["reading"], row["at"]) == (reading, at))


def record_of(name: str) -> SwingRecord:
    """A swing record marked without error on a demo clip, scaled by the stick along the toes."""
    known = truth(name)
    marks: dict[str, dict[int, Mark]] = {}
    for at in PEGS:
        frame = known["checkpoints"][at]
        for mark in SWAY_MARKS + (("trail_foot_outer",) if at == "address" else ()):
            x, y = known["pixels"][mark][frame]
            marks.setdefault(mark, {})[frame] = Mark(x, y, 1.5)
    a, b = known["stick"]["pixels"]
    first = known["times_s"]["frames"][0]
    clip = Clip(
        id=name,
        view="face_on",
        width=known["camera"]["width"],
        height=known["camera"]["height"],
        frame_times_s=tuple(t - first for t in known["times_s"]["frames"]),
        checkpoints={at: known["checkpoints"][at] for at in PEGS},
        marks=marks,
        known_length=KnownLength(
            a=tuple(a), b=tuple(b), length_m=known["stick"]["length_m"], place="toe_line"
        ),
    )
    return SwingRecord(hand=known["hand"], clips=(clip,), stature_m=known["stature_m"])


def along_target(name: str, at: str, *marks: str) -> float:
    """True place along the target line, metres, of the middle of some marks on a checkpoint's frame."""
    known = truth(name)
    frame = known["checkpoints"][at]
    return sum(known["tbu_m"][mark][frame][0] for mark in marks) / len(marks)
