"""Where errors come from, and what they do to the values that hang on them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View, spoken

HERE: Literal["here"] = "here"
SourceKind = Literal["mark", "eye", "camera", "depth", "stand", "moment", "mat", "plate", "others"]


@dataclass(frozen=True)
class Source:
    """What an error comes from: its kind, and what of. Two that are equal are one and the same.

    `of` is a mark, a part of the body or what is unsure of it, `along` the axis on which it is; `at` is when
    it is made (HERE: at each moment anew; None: once for all), `view` the side it is seen from.
    """

    kind: SourceKind
    of: str = ""
    at: Checkpoint | Literal["here"] | None = None
    view: View | None = None
    along: str = ""

    @cached_property
    def words(self) -> str:
        """What it is of, as it is said in a sentence."""
        of = " ".join(word for word in (spoken(self.of), self.along) if word)
        when = f"at {spoken(self.at)}" if self.at and self.at != HERE else ""
        side = spoken(self.view).replace("face on", "face-on") if self.view else ""
        return ", ".join(part for part in (f"{of} {when}".strip(), side) if part)


@dataclass(frozen=True, eq=False)
class Sources:
    """The sources of some errors in their order, and how many of the errors are each one's."""

    widths: tuple[tuple[Source, int], ...]


@lru_cache(maxsize=4096)
def sources(*widths: tuple[Source, int]) -> Sources:
    """The same object for the same sources, so that what follows from it is found out once."""
    return Sources(widths)


class Origin:
    """A quantity with k coordinates, at one moment or at n, and what independent errors do to them.

    `effects` (k, Q, 1 or n) holds what one standard deviation of each of Q errors does.
    """

    __slots__ = ("effects", "sources")

    def __init__(self, effects: Array, sources: Sources) -> None:
        self.effects = effects
        self.sources = sources


Slopes = Mapping[Origin, Array]


@dataclass(frozen=True, eq=False)
class Origins:
    """The sources of several values, and at which row the first of each value's is."""

    sources: tuple[tuple[Source, ...], ...]
    firsts: tuple[int, ...]


@dataclass(frozen=True, eq=False)
class Variances:
    """What each source adds to the variance of some values at n moments: `squares` (rows, n).

    The rows of value i begin at `origins.firsts[i]`, and `origins.sources[i]` are its sources, one a row; an
    exact value has none.
    """

    origins: Origins
    squares: Array

    def whole(self) -> Array:
        """The variance of each value (values, n)."""
        total = np.zeros((len(self.origins.sources), self.squares.shape[1]))
        unsure = [i for i, found in enumerate(self.origins.sources) if found]
        if unsure:
            firsts = [self.origins.firsts[i] for i in unsure]
            total[unsure] = np.add.reduceat(self.squares, firsts, axis=0)
        return total


def variances(values: Sequence[Slopes], count: int) -> Variances:
    """By source, the variances of values that answer with these slopes (k, 1 or n) to their origins.

    First-order error propagation, law of propagation, JCGM 100:2008, 5.1.2: errors of one source that
    reach a value through several origins are added before they are squared.
    """
    layout = _layout(tuple(tuple(origin.sources for origin in slopes) for slopes in values))
    moved = np.empty((len(layout.order), count))
    pairs = [pair for slopes in values for pair in slopes.items()]
    row = 0
    for (origin, slope), felt in zip(pairs, _felt(pairs, count), strict=True):
        below = row + origin.effects.shape[1]
        first, *others = felt
        np.multiply(slope[first], origin.effects[first], out=moved[row:below])
        for k in others:
            moved[row:below] += slope[k] * origin.effects[k]
        row = below
    if not row:
        return Variances(layout.origins, np.zeros((0, count)))
    errors = np.add.reduceat(moved[layout.order], layout.errors, axis=0)
    return Variances(layout.origins, np.add.reduceat(errors * errors, layout.begins, axis=0))


def covariance(values: Sequence[Slopes], columns: Sequence[int]) -> Array:
    """How the errors of some values, each at the checkpoint of one of its columns, hang together (n, n).

    Σ c_i c_j u² over the errors that both answer to: law of propagation, JCGM 100:2008, 5.2.2.
    """
    numbers: dict[tuple[Source, int], int] = {}
    known: dict[tuple[Sources, int], list[int]] = {}
    rows: list[int] = []
    errors: list[int] = []
    moved: list[float] = []
    for row, (slopes, column) in enumerate(zip(values, columns, strict=True)):
        for origin, slope in slopes.items():
            way, effects = (each[..., min(column, each.shape[-1] - 1)] for each in (slope, origin.effects))
            # Most values share their sources with others: each is numbered once a checkpoint.
            key = (origin.sources, column)
            if key not in known:
                told = _errors_at(origin.sources, CHECKPOINTS[column])
                known[key] = [numbers.setdefault(error, len(numbers)) for error in told]
            errors += known[key]
            rows += [row] * len(known[key])
            moved += (way @ effects).tolist()
    matrix = np.zeros((len(values), len(numbers)))
    np.add.at(matrix, (rows, errors), moved)
    return np.asarray(matrix @ matrix.T)


@lru_cache(maxsize=4096)
def _errors_at(told: Sources, at: Checkpoint) -> tuple[tuple[Source, int], ...]:
    """The errors of some sources, each source's counted; what is made at each moment anew is made here."""
    of = [(replace(each, at=at) if each.at == HERE else each, width) for each, width in told.widths]
    return tuple((each, i) for each, width in of for i in range(width))


def _felt(pairs: Sequence[tuple[Origin, Array]], count: int) -> list[list[int]]:
    """Along which coordinates of each origin a value has a slope at all: most hang on one alone."""
    heights = [len(slope) for _, slope in pairs]
    rows = np.empty((sum(heights), count))
    row = 0
    for (_, slope), height in zip(pairs, heights, strict=True):
        rows[row : row + height] = slope
        row += height
    any_slope = iter(np.any(rows, axis=1).tolist())
    return [[k for k in range(height) if next(any_slope)] or [0] for height in heights]


@dataclass(frozen=True, eq=False)
class _Layout:
    """How the errors of several values' origins, one below the other, are put together.

    `order` of the rows has the same error's of one value side by side; `errors` is where each error begins
    in that order, and `begins` where each source begins among the errors.
    """

    order: Frames
    errors: Frames
    begins: Frames
    origins: Origins


@lru_cache(maxsize=4096)
def _layout(values: tuple[tuple[Sources, ...], ...]) -> _Layout:
    order: list[int] = []
    errors: list[int] = []
    of_sources: list[int] = []
    told: list[tuple[Source, ...]] = []
    firsts: list[int] = []
    row = 0
    for origins in values:
        rows: dict[Source, dict[int, list[int]]] = {}
        for source, width in (each for origin in origins for each in origin.widths):
            for i in range(width):
                rows.setdefault(source, {}).setdefault(i, []).append(row)
                row += 1
        told.append(tuple(rows))
        firsts.append(len(of_sources))
        for of_source in rows.values():
            of_sources.append(len(errors))
            for same in of_source.values():
                errors.append(len(order))
                order += same
    return _Layout(
        np.array(order, int),
        np.array(errors, int),
        np.array(of_sources, int),
        Origins(tuple(told), tuple(firsts)),
    )
