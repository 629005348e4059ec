"""Readings of a few demo swings as the core gives them: what a change that is to change none is held against.

`python -m tests.swing.golden` writes them anew, after a change that is meant to change them.
"""

import json
from dataclasses import replace
from pathlib import Path

from tests.outside.test_common_practice import clip_of
from tests.swings import record_of, truth
from tropometer.swing.read import read
from tropometer.swing.record.swing import SwingRecord

FILE = Path(__file__).with_name("golden_readings.json")
Given = dict[
    str, list[float] | str
]  # value and half-width, or what is said in words, by reading and checkpoint


def records() -> dict[str, SwingRecord]:
    """Both views by the mat, right- and left-handed; two swings; a side of either by mat and by stick."""
    pairs = {
        "both views": ("sunniva_square_face", "sunniva_square_line"),
        "left-handed": ("model_lead_face", "model_lead_line"),
        "two swings": ("dag_month_face", "dag_again_line"),
        "face-on": ("wynn_face",),
        "down the line": ("petra_closed_line",),
    }
    found = {
        title: SwingRecord(
            hand=truth(names[0])["hand"],
            clips=tuple(map(clip_of, names)),
            stature_m=truth(names[0])["stature_m"],
        )
        for title, names in pairs.items()
    }
    found["two swings"] = replace(found["two swings"], one_swing=False)
    return {**found, "face-on, stick": record_of("tobin_first_face")}


def readings() -> dict[str, Given]:
    """What the core gives of each record now."""
    return {title: _given(record) for title, record in records().items()}


def _given(record: SwingRecord) -> Given:
    found: Given = {}
    for each in read(record, curves=True).readings:
        key = " ".join(part for part in (each.reading, each.at, each.said) if part)
        refused = each.value is None or each.u95 is None
        found[key] = f"refused: {each.reason}" if refused else [each.value or 0.0, each.u95 or 0.0]
    return found


def write() -> None:
    """Keep what the core gives now."""
    rows = {
        title: "{\n"
        + ",\n".join(f"  {json.dumps(key)}: {json.dumps(value)}" for key, value in given.items())
        + "\n}"
        for title, given in readings().items()
    }
    FILE.write_text(
        "{\n" + ",\n".join(f"{json.dumps(title)}: {row}" for title, row in rows.items()) + "\n}\n"
    )


if __name__ == "__main__":
    write()
