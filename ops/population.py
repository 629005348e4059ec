"""Writes how the book's readings lie among made-up golfers: teaching/book/population.json.

Every school, with up to three faults of any degree and manners of its own, with every club: common practice,
no source. The spread is widened, since people differ more than golfers that one team drew.
"""

from __future__ import annotations

import json
import os
from concurrent.futures import ProcessPoolExecutor
from functools import partial

import numpy as np

from tropometer.golfer.forces import pressure
from tropometer.golfer.true_readings import true_readings
from tropometer.golfer.usual import drawn
from tropometer.teaching.judging.findings import keys_of
from tropometer.teaching.judging.population import SHIPPED
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.pages import shipped

GOLFERS = 240
MASS_INDEX = 24.0
WIDENED = 2.0
# Fewer golfers than so many tell nothing of a reading: some have none that a lead heel comes back, say.
LEAST = 60
ORIGIN = (
    f"{GOLFERS} made-up golfers of every school, fault and club, their spread times {WIDENED:g}: "
    "common practice, no source; not people."
)


def main() -> None:
    """Draw the golfers and write the file."""
    book = shipped()
    bands = [band for each in book.standards.values() for band in each.bands]
    bands += [b for each in book.disputes.values() for option in each.options for b in option.bands]
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        golfers = list(pool.map(_readings, range(GOLFERS)))
    keys = [key for key in sorted(keys_of(book, bands)) if sum(key in each for each in golfers) >= LEAST]
    table = np.array([[each.get(key, np.nan) for key in keys] for each in golfers])
    mean, sd = np.nanmean(table, axis=0), np.nanstd(table, axis=0)
    kept = [i for i in range(len(keys)) if sd[i] > 1e-6]
    # What one golfer lacks counts as usual in how readings hang together.
    whole = np.where(np.isnan(table), mean, table)[:, kept]
    correlation = np.corrcoef(whole.T)
    document = {
        "origin": ORIGIN,
        "widened": WIDENED,
        "readings": [
            {
                "reading": keys[i][0],
                "at": keys[i][1],
                "mean": round(float(mean[i]), 4),
                "sd": round(float(sd[i]), 4),
            }
            for i in kept
        ],
        "correlation": [[round(100 * float(r)) for r in row[:i]] for i, row in enumerate(correlation)],
    }
    SHIPPED.write_text(_text(document), "utf-8")


def _readings(number: int) -> dict[Key, float]:
    stature, man, motion, when = drawn(number)
    felt = partial(pressure, motion, man=man, mass_kg=MASS_INDEX * stature**2)
    found = true_readings(motion, when, felt)
    return {(each.reading, each.at): each.value for each in found if isinstance(each.value, float)}


def _text(document: dict[str, object]) -> str:
    """JSON with a line a row."""
    fields = []
    for name, value in document.items():
        if isinstance(value, list):
            rows = ",\n".join("  " + json.dumps(row) for row in value)
            fields.append(f'"{name}": [\n{rows}\n]')
        else:
            fields.append(f'"{name}": {json.dumps(value)}')
    return "{" + ",\n".join(fields) + "}\n"


if __name__ == "__main__":
    main()
