"""What scatter is typical, before a golfer's own is known."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.readings.register import KINDS

SHIPPED = Path(__file__).parents[1] / "book" / "scatter.json"


@dataclass(frozen=True, kw_only=True)
class Typical:
    """Standard deviation of one golfer's swings within a day, in the reading's unit, and how far that is off.

    `wide` and `between_wide` are spreads of the logarithm; `between` is what days differ by, as a share of
    `within`.
    """

    within: float
    wide: float
    between: float
    between_wide: float

    def log_prior(self, within: Array, between: Array) -> Array:
        """Log-normal in the day's own scatter and in the ratio of the other to it; but for a constant."""
        own = np.log(within / self.within) / self.wide
        days = np.log(between / within / self.between) / self.between_wide
        return np.asarray(-0.5 * (own**2 + days**2))


def typical_scatter(reading: str) -> Typical:
    """That of a reading of the register; KeyError where it has none of that name."""
    shipped = _shipped()
    within = shipped["by_reading"].get(reading) or shipped["by_unit"][KINDS[reading].unit]
    return Typical(within=within, **{part: shipped[part] for part in ("wide", "between", "between_wide")})


@lru_cache
def _shipped() -> dict[str, Any]:
    found: dict[str, Any] = json.loads(SHIPPED.read_text("utf-8"))
    return found
