"""The chain of causes: which fault brings about which, and which is at the root of most."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from tropometer.swing.names import CHECKPOINTS, Checkpoint
from tropometer.teaching.judging.finding import SLIGHT, Finding
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.trade_words import BallMiss

# What a root is worth beside what it explains; common practice, no source.
FITS_MISS, SPARES = 0.5, 0.5
LARGEST = 3.0  # a fault counts no more than so many half-widths


@dataclass(frozen=True, kw_only=True)
class Link:
    """A fault that leads to another, or only makes room for it."""

    cause: str
    effect: str
    strength: float
    makes_room: bool


@dataclass(frozen=True, kw_only=True)
class Root:
    """A fault without an active cause: what it explains, how strongly, and what it is worth to work on."""

    fault: str
    weight: float
    explains: Mapping[str, float]  # faults, each by the best path's strength
    misses: tuple[BallMiss, ...]  # of the usual ones, those that it or what it explains brings about
    spares: bool  # whether it or what it explains strains a part of the body


@dataclass(frozen=True, kw_only=True)
class Chain:
    """Active findings by the time of the swing, joined by what leads to what; the heaviest root first."""

    faults: tuple[str, ...]
    links: tuple[Link, ...]
    roots: tuple[Root, ...]


def chained(book: Book, found: Collection[Finding], misses: Collection[BallMiss] = ()) -> Chain:
    """Links join active findings only, and only a cause that is not later than its effect."""
    active = {each.fault: each for each in sorted(found, key=lambda each: _order(each)) if each.is_active}
    links = tuple(
        Link(cause=id, effect=edge.fault, strength=edge.strength, makes_room=edge.makes_room)
        for id in active
        for edge in book.faults[id].leads_to
        if edge.fault in active and _order(active[id]) <= _order(active[edge.fault])
    )
    caused = {link.effect for link in links if not link.makes_room}
    roots = [_root(book, id, active, links, misses) for id in active if id not in caused]
    roots.sort(key=lambda root: -root.weight)
    return Chain(faults=tuple(active), links=links, roots=tuple(roots))


def _root(
    book: Book,
    id: str,
    active: Mapping[str, Finding],
    links: tuple[Link, ...],
    misses: Collection[BallMiss],
) -> Root:
    explained = _explained(id, links)
    own = {id: 1.0, **explained}
    # Σ certainty · size · strength of the best path
    weight = sum(active[each].counts * counted(active[each]) * strength for each, strength in own.items())
    fitting = tuple(miss for miss in misses if any(miss in book.faults[each].ball for each in own))
    spares = any(book.faults[each].loads for each in own)
    return Root(
        fault=id,
        weight=weight + FITS_MISS * len(fitting) + SPARES * spares,
        explains=explained,
        misses=fitting,
        spares=spares,
    )


def counted(finding: Finding) -> float:
    """A finding's size as it counts: a slight one a little, a huge one no more than a strong one."""
    return min(max(finding.size, SLIGHT / 2), LARGEST)


def _explained(id: str, links: tuple[Link, ...]) -> dict[str, float]:
    """What a fault leads to, by the product of the strengths along the best path."""
    best: dict[str, float] = {}
    waiting = [(id, 1.0)]
    while waiting:
        cause, so_far = waiting.pop()
        for link in links:
            through = so_far * link.strength
            if link.cause == cause and through > best.get(link.effect, 0.0):
                best[link.effect] = through
                waiting.append((link.effect, through))
    return best


def _order(finding: Finding) -> int:
    moments: tuple[Checkpoint | str, ...] = CHECKPOINTS
    return moments.index(finding.moment)
