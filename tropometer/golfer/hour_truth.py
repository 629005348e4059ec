"""What is true of every swing of the studio hour, most of which nobody filmed."""

from __future__ import annotations

import gzip
import json
from dataclasses import asdict
from pathlib import Path
from typing import Any

from tropometer.golfer.cast import HOUR, SWINGS, hour_take
from tropometer.golfer.clips import body_of, frame_times_s, truth
from tropometer.golfer.delivery import delivery
from tropometer.golfer.motion import Motion

HOUR_FILE = "hour.json.gz"
KEPT = ("name", "hand", "club", "times_s", "readings", "mat")


def write_hour(path: Path) -> None:
    """Write the truth of each swing, in order, but for pictures; with how the club came to the ball."""
    count = sum(name.startswith(HOUR) for name in SWINGS)
    document = [_told(number) for number in range(1, count + 1)]
    with gzip.GzipFile(path, "wb", mtime=0) as file:
        file.write(json.dumps(document, separators=(",", ":")).encode())


def _told(number: int) -> dict[str, Any]:
    take = hour_take(number)
    motion = Motion(body_of(take.person), take.settings)
    found = truth(take, motion, frame_times_s(take, motion))
    came = delivery(motion, found["times_s"]["checkpoints"]["impact"])
    return {name: found[name] for name in KEPT} | {
        "delivery": {name: round(value, 4) for name, value in asdict(came).items()}
    }
