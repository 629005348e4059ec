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
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.findings import keys_of
from tropometer.teaching.judging.population import SHIPPED
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.pages import shipped

GOLFERS = 240
MASS_INDEX = 24.0
WIDENED = 2.0
# Arms and club are drawn with manners of 8° off their plane and more, as wide as people are already.
WIDENED_CLUB = 1.0
# One standard deviation where teachers know better than drawings, whose arms go where few people's do: a club
# head a forearm's length (20 cm) outside or inside the hands is rare. Common practice, no source.
KNOWN: dict[Key, float] = {("club_inside", "shaft_back"): 0.10}
# Fewer golfers than so many tell nothing of a reading: some have none that a lead heel comes back, say.
LEAST = 60
ORIGIN = (
    f"{GOLFERS} made-up golfers of every school, fault and club, their spread times {WIDENED:g}, "
    f"of arms and club times {WIDENED_CLUB:g}: "
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
    rows = []
    for reading, at in keys:
        values = np.array([each[reading, at] for each in golfers if (reading, at) in each])
        if values.std() > 1e-6:  # what is the same for all tells golfers nothing apart
            sd = KNOWN.get((reading, at), float(values.std()))
            row = {"mean": round(float(values.mean()), 4), "sd": round(sd, 4)}
            if KINDS[reading].group == "club":
                row["widened"] = WIDENED_CLUB
            rows.append(json.dumps({"reading": reading, "at": at, **row}))
    told = ",\n".join(f"  {row}" for row in rows)
    head = f'{{"origin": {json.dumps(ORIGIN)},\n"widened": {WIDENED},\n"readings": [\n'
    SHIPPED.write_text(f"{head}{told}\n]}}\n", "utf-8")


def _readings(number: int) -> dict[Key, float]:
    stature, man, motion, when = drawn(number)
    felt = partial(pressure, motion, man=man, mass_kg=MASS_INDEX * stature**2)
    found = true_readings(motion, when, felt)
    return {(each.reading, each.at): each.value for each in found if isinstance(each.value, float)}


if __name__ == "__main__":
    main()
