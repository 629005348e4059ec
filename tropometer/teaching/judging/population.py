"""How readings lie among golfers, before one is looked at: the prior of every certainty."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from math import sqrt
from pathlib import Path

from tropometer.swing.record.swing import POST_M
from tropometer.teaching.knowledge.band import Key

SHIPPED = Path(__file__).parents[1] / "book" / "population.json"


@dataclass(frozen=True)
class Usual:
    """Mean and standard deviation of a reading over golfers, in its unit."""

    mean: float
    sd: float


@dataclass(frozen=True, kw_only=True)
class Population:
    """Readings over golfers, each by itself, and where they are from.

    How readings hang together in other golfers is not used: on strangers it made verdicts worse, since they
    move by other rules (docs/method/judging.md).
    """

    origin: str
    readings: Mapping[Key, Usual]

    def with_post_mark(self, post_m: float) -> Population:
        """The same golfers held against a post mark that stands elsewhere than usual."""
        moved = {
            key: replace(usual, mean=usual.mean + post_m - POST_M) if key[0] == "post_gap" else usual
            for key, usual in self.readings.items()
        }
        return replace(self, readings=moved)

    def spread(self, terms: Sequence[tuple[Key, float]]) -> float | None:
        """One standard deviation of a sum of readings with signs; None where it does not know one of them."""
        if not all(key in self.readings for key, _ in terms):
            return None
        return sqrt(sum((sign * self.readings[key].sd) ** 2 for key, sign in terms))


@lru_cache
def shipped_population() -> Population:
    """The one that comes with the book."""
    document = json.loads(SHIPPED.read_text("utf-8"))
    return Population(
        origin=document["origin"],
        readings={
            (each["reading"], each["at"]): Usual(
                each["mean"], each["sd"] * each.get("widened", document["widened"])
            )
            for each in document["readings"]
        },
    )
