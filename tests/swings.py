"""Swing records for tests: from the made-up golfer's truth, and from a bare pinhole camera."""

import json
from pathlib import Path
from typing import Any

from tropometer.swing.record import Clip, KnownLength, Mark, SwingRecord

ROOT = Path(__file__).parents[1]
DEMO_CLIPS = ROOT / "demo" / "clips"
SWAY_MARKS = ("lead_hip", "trail_hip", "lead_hip_edge", "trail_hip_edge")


def truth(name: str) -> dict[str, Any]:
    """The truth file of a demo clip."""
    document: dict[str, Any] = json.loads((DEMO_CLIPS / f"{name}.truth.json").read_text())
    return document


def record_of(name: str) -> SwingRecord:
    """A swing record marked without error on a demo clip, scaled by the stick along the toes."""
    known = truth(name)
    portrait = name == "ilse"
    marks: dict[str, dict[int, Mark]] = {}
    for at, frame in known["checkpoints"].items():
        for mark in SWAY_MARKS + (("trail_foot_outer",) if at == "address" else ()):
            x, y = known["frames"][frame]["pixels"][mark]
            marks.setdefault(mark, {})[frame] = Mark(x, y, 1.5)
    a, b = known["stick"]["pixels"]
    clip = Clip(
        id=name,
        view="face_on",
        width=720 if portrait else 1280,
        height=1280 if portrait else 720,
        frame_times_s=tuple(i / known["capture_fps"] for i in range(len(known["frames"]))),
        checkpoints=known["checkpoints"],
        marks=marks,
        known_length=KnownLength(tuple(a), tuple(b), known["stick"]["length_m"], "toe_line"),
    )
    return SwingRecord(hand=known["hand"], clips=(clip,), stature_m=known["stature_m"])


def along_target(name: str, at: str, *marks: str) -> float:
    """True place along the target line, metres, of the middle of some marks at a checkpoint."""
    known = truth(name)
    frame = known["frames"][known["checkpoints"][at]]["tbu_m"]
    return sum(frame[mark][0] for mark in marks) / len(marks)
