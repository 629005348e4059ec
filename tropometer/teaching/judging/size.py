"""How large a fault is: how far past its limit, in half-widths of the band."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.teaching.judging.holding import is_asked, limit_of, value_of
from tropometer.teaching.judging.population import Population
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.knowledge.rule import AllOf, AnyOf, AnyRule, Condition, parts

PLAIN_CASE = 1.0


def size_of(
    rule: AnyRule, values: Mapping[Key, Array], bands: Mapping[Key, Band], population: Population | None
) -> float:
    """Of all that must hold the least past its limit, of alternatives the most; -inf if nothing is seen."""
    if isinstance(rule, Condition):
        return _past(rule, values, bands, population)
    sizes = [size_of(each, values, bands, population) for each in parts(rule) if is_asked(each, bands)]
    if isinstance(rule, AllOf):
        seen = [size for size in sizes if np.isfinite(size)]
        return min(seen, default=-np.inf)
    count = 1 if isinstance(rule, AnyOf) else rule.at_least
    return sorted(sizes, reverse=True)[count - 1] if len(sizes) >= count else -np.inf


def _past(
    condition: Condition,
    values: Mapping[Key, Array],
    bands: Mapping[Key, Band],
    population: Population | None,
) -> float:
    limit, value = limit_of(condition, bands), value_of(condition, values)
    if limit is None or value is None:
        return -np.inf
    return condition.way * (float(value.mean()) - limit) / _half(condition, bands, population)


def _half(condition: Condition, bands: Mapping[Key, Band], population: Population | None) -> float:
    """What a plain case is beyond the limit: as the rule says, half the band, or how golfers differ."""
    if condition.half is not None:
        return condition.half
    band = bands.get(condition.key) if len(condition.terms) == 1 else None
    if band is not None and band.half_width is not None:
        return band.half_width
    spread = population.spread(condition.terms) if population else None
    return spread or PLAIN_CASE
