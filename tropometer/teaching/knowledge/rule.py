"""Evidence rules: what must hold of a swing's readings for a fault to be there."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Discriminator, Field, Tag, model_validator

from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.trade_words import Known

End = Literal["low", "high"]


class Reads(Known):
    """A reading at a checkpoint, or what else it is of."""

    reading: str
    at: str

    @property
    def key(self) -> Key:
        """The reading and where it is read."""
        return self.reading, self.at


class Condition(Reads):
    """A reading, or its change since another moment, or its difference from another reading, past a limit.

    The limit is a number in the reading's unit, or an end of the model's band of that reading, which it lies
    `by` beyond. `half` says how much more than the limit is a plain case, where no band says it.
    """

    since: str | None = None  # less the same reading at this moment
    less: Reads | None = None
    below: float | End | None = None
    above: float | End | None = None
    by: float = Field(default=0.0, ge=0)
    half: float | None = Field(default=None, gt=0)

    @model_validator(mode="after")
    def _check_limit(self) -> Condition:
        if (self.below is None) == (self.above is None):
            raise ValueError("says neither below nor above, or both")
        if self.since is not None and self.less is not None:
            raise ValueError("says since and less; one will do")
        if isinstance(self.limit, str) and (self.since or self.less):
            raise ValueError("takes an end of a band for a change or a difference, which has no band")
        if self.by and not isinstance(self.limit, str):
            raise ValueError("says by, which belongs to an end of a band")
        return self

    @property
    def limit(self) -> float | End:
        """The number, or the end of the band."""
        limit = self.below if self.above is None else self.above
        assert limit is not None
        return limit

    @property
    def way(self) -> Literal[1, -1]:
        """1 where it holds above the limit, -1 below."""
        return -1 if self.above is None else 1

    @property
    def terms(self) -> tuple[tuple[Key, float], ...]:
        """What it is a sum of: readings, each with its sign."""
        if self.since is not None:
            return ((self.key, 1.0), ((self.reading, self.since), -1.0))
        return ((self.key, 1.0), *(((self.less.key, -1.0),) if self.less else ()))


MOST_JOINED, DEEPEST = 12, 4


class AllOf(Known):
    """Every one holds."""

    all: tuple[Rule, ...] = Field(min_length=1, max_length=MOST_JOINED)


class AnyOf(Known):
    """One of them holds at least."""

    any: tuple[Rule, ...] = Field(min_length=1, max_length=MOST_JOINED)


class AtLeast(Known):
    """So many of them hold."""

    at_least: int = Field(ge=1)
    of: tuple[Rule, ...] = Field(min_length=1, max_length=MOST_JOINED)

    @model_validator(mode="after")
    def _check_count(self) -> AtLeast:
        if self.at_least > len(self.of):
            raise ValueError(f"wants {self.at_least} of {len(self.of)}")
        return self


def _kind(value: object) -> str:
    for name, kind in (("all", AllOf), ("any", AnyOf), ("of", AtLeast)):
        if isinstance(value, kind) or (isinstance(value, dict) and name in value):
            return name
    return "condition"


# Told apart by their fields, so that an error names the one that was meant.
Rule = Annotated[
    Annotated[AllOf, Tag("all")]
    | Annotated[AnyOf, Tag("any")]
    | Annotated[AtLeast, Tag("of")]
    | Annotated[Condition, Tag("condition")],
    Discriminator(_kind),
]
AllOf.model_rebuild()
AnyOf.model_rebuild()
AtLeast.model_rebuild()
AnyRule = Condition | AllOf | AnyOf | AtLeast


def conditions(rule: AnyRule) -> Iterator[Condition]:
    """All conditions of a rule, in their order."""
    if isinstance(rule, Condition):
        yield rule
        return
    for each in parts(rule):
        yield from conditions(each)


def parts(rule: AllOf | AnyOf | AtLeast) -> tuple[AnyRule, ...]:
    """What a joined rule joins."""
    if isinstance(rule, AllOf):
        return rule.all
    return rule.any if isinstance(rule, AnyOf) else rule.of


def depth(rule: AnyRule) -> int:
    """How deep conditions are joined; 0 for a single one."""
    return 0 if isinstance(rule, Condition) else 1 + max(map(depth, parts(rule)))
