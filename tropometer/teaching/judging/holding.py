"""In which of the drawn sets of true values a rule holds."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.knowledge.rule import AllOf, AnyOf, AnyRule, AtLeast, Condition, parts


@dataclass(frozen=True, eq=False)
class Holds:
    """In which draws a rule holds for sure (`least`) and in which it may (`most`): the unseen parts them."""

    least: Flags
    most: Flags

    @property
    def seen(self) -> bool:
        """Whether nothing that was not seen could change it."""
        return bool((self.least == self.most).all())


def limit_of(condition: Condition, bands: Mapping[Key, Band]) -> float | None:
    """The number that a condition's reading must pass; None where the model has no such end of a band."""
    if not isinstance(condition.limit, str):
        return condition.limit
    band = bands.get(condition.key)
    end = getattr(band, condition.limit) if band else None
    return None if end is None else end + condition.way * condition.by


def is_asked(rule: AnyRule, bands: Mapping[Key, Band]) -> bool:
    """Whether a model asks what a rule needs to be judged."""
    if isinstance(rule, Condition):
        return limit_of(rule, bands) is not None
    asked = [is_asked(each, bands) for each in parts(rule)]
    if isinstance(rule, AllOf):
        return all(asked)
    return any(asked) if isinstance(rule, AnyOf) else sum(asked) >= rule.at_least


def value_of(condition: Condition, values: Mapping[Key, Array]) -> Array | None:
    """The reading, change or difference that a condition is of; None where a reading of it is not there."""
    if not all(key in values for key, _ in condition.terms):
        return None
    (first, _), *others = condition.terms
    total = values[first]
    for key, sign in others:
        total = total + sign * values[key]
    return total


def holds(rule: AnyRule, values: Mapping[Key, Array], bands: Mapping[Key, Band]) -> Holds:
    """Whether a rule holds, for each of some sets of values (n,).

    Of alternatives (`any`) those that are not seen are left out while one is seen: each tells the same thing
    by another sign. What a model does not ask never holds.
    """
    count = len(next(iter(values.values()), np.zeros(1)))
    if isinstance(rule, Condition):
        return _condition(rule, values, bands, count)
    of = [holds(each, values, bands) for each in parts(rule) if is_asked(each, bands)]
    if isinstance(rule, AnyOf):
        seen = [each for each in of if each.seen]
        return _joined(seen or of, 1, count)
    if isinstance(rule, AtLeast):
        return _joined(of, rule.at_least, count)
    return _joined(of, len(rule.all), count)


def _joined(of: list[Holds], at_least: int, count: int) -> Holds:
    least, most = np.zeros(count, int), np.zeros(count, int)
    for each in of:
        least += each.least
        most += each.most
    return Holds(least >= at_least, most >= at_least)


def _condition(
    condition: Condition, values: Mapping[Key, Array], bands: Mapping[Key, Band], count: int
) -> Holds:
    limit, value = limit_of(condition, bands), value_of(condition, values)
    none = np.zeros(count, bool)
    if limit is None:
        return Holds(none, none)
    if value is None:
        return Holds(none, ~none)
    beyond = value > limit if condition.way > 0 else value < limit
    return Holds(beyond, beyond)
