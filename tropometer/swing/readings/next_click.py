"""What to do next: the one peg, mark or measure that gives or narrows the most readings."""

from __future__ import annotations

from dataclasses import dataclass

from tropometer.swing.readings.reading import Need, Reading

# What narrows a reading that is given, by the kind of source that brings most of its error.
REMEDIES: dict[str, Need] = {"camera": Need("mat"), "where the player stands": Need("mat")}
WORTH_IT = 0.25  # share of the variance from which a remedy is worth a click


@dataclass(frozen=True, kw_only=True)
class NextClick:
    """A need, the readings it gives at once, those that need it among other things, and those it narrows."""

    need: Need
    gives: tuple[str, ...]
    helps: int
    narrows: tuple[str, ...]


def next_clicks(readings: list[Reading], matted: bool, most: int = 3) -> list[NextClick]:
    """The cheapest next clicks, the best first: what gives most readings by itself, else helps most.

    A view that was not filmed is no click; where all clips are `matted`, no mat narrows anything.
    """
    gives: dict[Need, list[str]] = {}
    helps: dict[Need, int] = {}
    narrows: dict[Need, list[str]] = {}
    for reading in readings:
        for need in reading.needs:
            helps[need] = helps.get(need, 0) + 1
            if len(reading.needs) == 1:
                gives.setdefault(need, []).append(reading.reading)
        for share in reading.budget[:1]:
            remedy = None if matted else REMEDIES.get(share.source)
            if remedy is not None and share.share >= WORTH_IT:
                narrows.setdefault(remedy, []).append(reading.reading)
    needs = [need for need in dict.fromkeys([*helps, *narrows]) if need.kind != "view"]
    found = [
        NextClick(
            need=need,
            gives=tuple(dict.fromkeys(gives.get(need, ()))),
            helps=helps.get(need, 0),
            narrows=tuple(dict.fromkeys(narrows.get(need, ()))),
        )
        for need in needs
    ]
    found.sort(key=lambda click: (-len(gives.get(click.need, ())), -click.helps, -len(click.narrows)))
    return found[:most]
