"""Writes swing/usual_places.py: where made-up golfers' marks usually are, and how fast they move."""

from __future__ import annotations

import gzip
import json
from collections.abc import Iterable
from pathlib import Path
from typing import Any

import numpy as np

from tropometer.golfer.rotations import Floats
from tropometer.swing.names import CHECKPOINTS, MARKS

HEAD = '''"""Where each mark usually is at each checkpoint, and how fast it goes there.

Written by `./tropo golfer --usual` from the made-up golfers; common practice, no source. For each mark, at
the nine checkpoints in order: T, B, U from the middle between the heels at address, and their change a
second, all in shares of stature.
"""

Row = tuple[float, float, float, float, float, float]

# fmt: off
USUAL: dict[str, tuple[Row, ...]] = {
'''


def write_usual(clips: Path, target: Path) -> None:
    """Read the truth of all face-on demo clips and write the table."""
    truths = [
        json.loads(gzip.decompress(path.read_bytes())) for path in sorted(clips.glob("*_face.truth.json.gz"))
    ]
    lines = []
    for name in sorted(MARKS):
        rows = _mean(_at_checkpoints(truth, name) for truth in truths)
        text = ",\n".join("        (" + ", ".join(f"{each:.3f}" for each in row) + ")" for row in rows)
        lines.append(f'    "{name}": (\n{text},\n    ),\n')
    target.write_text(HEAD + "".join(lines) + "}\n")


def _mean(tables: Iterable[Floats]) -> Floats:
    return np.asarray(np.mean(list(tables), axis=0))


def _at_checkpoints(truth: dict[str, Any], name: str) -> Floats:
    """Place and velocity (9, 6) in statures."""
    places = np.array(truth["tbu_m"][name]) / truth["stature_m"]
    times = np.array(truth["times_s"]["frames"])
    speeds = np.gradient(places, times, axis=0)
    frames = [truth["checkpoints"][at] for at in CHECKPOINTS]
    return np.concatenate([places[frames], speeds[frames]], axis=1)
