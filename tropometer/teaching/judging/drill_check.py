"""Whether a drill was done as its camera check says: told by a machine alone, before anybody has looked."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from tropometer.swing.error.value import NORMAL_95_ONE_SIDED
from tropometer.swing.read import SwingRead
from tropometer.swing.readings.reading import Reading
from tropometer.teaching.knowledge.rule import Condition

Answer = Literal["inside", "outside", "unsure", "not_read"]


@dataclass(frozen=True, kw_only=True)
class DrillCheck:
    """What is told of one try at a drill.

    `beyond` is how far what the check looks at lies past its limit, in its unit, positive where the check
    holds; `give_or_take` how far off that may be on the limit's side, with 95 %: either answer is about one
    side alone. Where the limit is no farther away than that it is `unsure`; where a reading is refused,
    `not_read` with its `reason`.
    """

    answer: Answer
    beyond: float | None = None
    give_or_take: float | None = None
    reason: str = ""


def drill_check(holds: Condition, found: SwingRead) -> DrillCheck:
    """Check a swing by a drill's condition; one whose limit is an end of a band is for instructors alone."""
    limit = holds.limit
    if isinstance(limit, str):
        return DrillCheck(answer="not_read", reason="It depends on the teaching model.")
    keys = [key for key, _ in holds.terms]
    given = [found.given(*key) for key in keys]
    if None in given:
        return DrillCheck(answer="not_read", reason=_refusal(found, keys[given.index(None)]))
    signs = np.array([sign for _, sign in holds.terms])
    values = np.array([_value(each) for each in given])
    # What two readings of one swing share goes out of their difference.
    sd = float(np.sqrt(max(signs @ found.covariance(keys) @ signs, 0.0)))
    beyond, give_or_take = holds.way * (float(signs @ values) - limit), NORMAL_95_ONE_SIDED * sd
    answer: Answer = "unsure" if abs(beyond) <= give_or_take else "inside" if beyond > 0 else "outside"
    return DrillCheck(answer=answer, beyond=beyond, give_or_take=give_or_take)


def _value(reading: Reading | None) -> float:
    assert reading is not None and reading.value is not None
    return reading.value


def _refusal(found: SwingRead, key: tuple[str, str]) -> str:
    refused = (each for each in found.readings if (each.reading, each.at) == key)
    return next((each.reason for each in refused), "The moment was not found in the swing.")
