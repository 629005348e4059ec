"""A launch monitor's table with any header: what its columns seem to be, and its shots."""

from __future__ import annotations

import csv
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import time
from typing import Literal

from tropometer.swing.formats.launch import launch_from
from tropometer.swing.formats.launch_columns import FIELDS, UNITS, Kind, Use, unit_of, use_of
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.names import Hand
from tropometer.swing.record.launch import Launch

MOST_SHOTS, MOST_COLUMNS = 1000, 80
MOST_BEFORE = 20  # lines of titles above the header
NOTHING = {"", "-", "\u2013", "\u2014", "n/a", "na", "nan", "null", "none"}
Decimal = Literal[".", ","]
_SIDED = re.compile(r"^([LRlr])?\s*(.*?)\s*([LRlr])?$")
_CLOCK = re.compile(r"(?:^|[T ])(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?\s*([AaPp][Mm])?")


@dataclass(frozen=True, kw_only=True)
class LaunchTable:
    """A table as it is written: names of its columns, and under them cells and the lines they stand on."""

    names: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    lines: tuple[int, ...]
    decimal: Decimal


@dataclass(frozen=True, kw_only=True)
class TableShot:
    """A line of the table: the shot, and the time of day it was hit where a column says it."""

    line: int
    launch: Launch
    at: time | None = None


def read_table(text: str) -> LaunchTable:
    """The header, wherever it begins, and the lines below it.

    Raises RecordError where there is no header or no line, and where a line has other columns than it.
    """
    lines = text.removeprefix("\ufeff").splitlines()
    try:
        delimiter = _delimiter(lines)
        cells = [[cell.strip() for cell in row] for row in csv.reader(lines, delimiter=delimiter)]
    except csv.Error as error:  # a cell longer than any can be
        raise RecordError("the table", f"it cannot be parted into cells ({error})") from error
    begins = next((i for i, row in enumerate(cells[:MOST_BEFORE]) if _is_header(row)), None)
    if begins is None:
        raise RecordError("line 1", "there is no line that names columns")
    names = cells[begins]
    while names and not names[-1]:  # a delimiter at the end of each line
        names = names[:-1]
    if len(names) > MOST_COLUMNS:
        raise RecordError(f"line {begins + 1}", f"more than {MOST_COLUMNS} columns")
    if (again := next((name for name in names if name and names.count(name) > 1), None)) is not None:
        raise RecordError(f"line {begins + 1}", f"two columns are named “{again[:40]}”")
    first = begins + 1
    if first < len(cells) and _is_of_units(cells[first]):
        below = (cells[first] + [""] * len(names))[: len(names)]
        names = [f"{name} [{unit}]" if unit else name for name, unit in zip(names, below, strict=True)]
        first += 1
    rows, numbers = [], []
    for number, row in enumerate(cells[first:], first + 1):
        if not any(row):
            continue
        if len(row) < len(names) or any(row[len(names) :]):
            raise RecordError(f"line {number}", f"{len(row)} columns, where the header has {len(names)}")
        rows.append(tuple(row[: len(names)]))
        numbers.append(number)
    if not rows:
        raise RecordError(f"line {first + 1}", "there is no shot below the header")
    if len(rows) > MOST_SHOTS:
        raise RecordError(f"line {numbers[MOST_SHOTS]}", f"more than {MOST_SHOTS} shots")
    return LaunchTable(
        names=tuple(names), rows=tuple(rows), lines=tuple(numbers), decimal=_decimal(rows, delimiter)
    )


def proposed(table: LaunchTable) -> dict[str, Use]:
    """What each column seems to be, by its name; a field is proposed once, for the first that says it."""
    found: dict[str, Use] = {}
    taken: set[str] = set()
    for name in table.names:
        use = use_of(name)
        if use is not None and use.field not in taken:
            found[name] = use
            taken.add(use.field)
    return found


def shots(
    table: LaunchTable, uses: Mapping[str, Use], hand: Hand, decimal: Decimal | None = None
) -> list[TableShot]:
    """Every line as a shot of a player of that hand, as its columns are said to be used; none of empty lines.

    Raises RecordError, which names the line and the column, for a cell that is no number or cannot be what
    it is said to be; and for a column that the table lacks or a field that two columns are said to be.
    """
    fields = [use.field for use in uses.values()]
    for name, use in uses.items():
        if name not in table.names:
            raise RecordError(name[:60], "the table has no such column")
        if fields.count(use.field) > 1:
            raise RecordError(name[:60], f"two columns are said to be {FIELDS[use.field].words}")
    places = {name: table.names.index(name) for name in uses}
    found = [
        _shot(line, row, uses, places, hand, decimal or table.decimal)
        for line, row in zip(table.lines, table.rows, strict=True)
    ]
    return [shot for shot in found if shot.launch != Launch()]


def _shot(
    line: int,
    row: Sequence[str],
    uses: Mapping[str, Use],
    places: Mapping[str, int],
    hand: Hand,
    decimal: Decimal,
) -> TableShot:
    found: dict[str, float] = {}
    at = None
    for name, use in uses.items():
        cell, where = row[places[name]], f"line {line}, {name[:60]}"
        if cell.lower() in NOTHING:
            continue
        if use.field == "time":
            at = _clock(cell, where)
            continue
        field = FIELDS[use.field]
        value = _value(cell, decimal, use, hand, where)
        if not field.least <= value <= field.most:
            raise RecordError(where, f"{cell[:40]} is no {field.words} in {use.unit}")
        found[use.field] = value
    return TableShot(line=line, launch=launch_from(found), at=at)


def _value(cell: str, decimal: Decimal, use: Use, hand: Hand, where: str) -> float:
    """A cell in the core's own unit; of what lies to a side, positive toward the ball's."""
    field = FIELDS[use.field]
    if not field.sided:
        return _number(cell, decimal, field.kind, use.unit, where)
    before, plain, after = _SIDED.match(cell).groups()  # type: ignore[union-attr]  # it matches anything
    number = _number(plain, decimal, field.kind, use.unit, where)
    right = 1 if hand == "right" else -1  # the ball's side is right of the line for a right-hander
    if letter := before or after:
        return number * right * (1 if letter.upper() == "R" else -1)
    return number * {"ball_side": 1, "right": right, "left": -right}[use.positive]


def _number(cell: str, decimal: Decimal, kind: Kind, unit: str, where: str) -> float:
    """The number, in the unit that stands behind it or else the column's; RecordError where it is none."""
    plain = re.sub("[\u00a0 ']", "", cell.replace("−", "-"))
    other = "," if decimal == "." else "."
    # The other sign parts thousands, and nothing else: “12,5” is not 125.
    if re.match(rf"^[-+]?\d{{1,3}}(?:[{other}]\d{{3}})+(?!\d)", plain):
        plain = plain.replace(other, "")
    told = re.match(r"^([-+]?(?:\d+\.?\d*|\.\d+))([^\d.,].*)?$", plain.replace(decimal, "."))
    own = unit if told is None or told[2] is None else unit_of(told[2], kind)
    if told is None or own is None:
        raise RecordError(where, f"“{cell[:40]}” is not a number")
    return float(told[1]) * UNITS[kind][own]


def _clock(cell: str, where: str) -> time:
    found = _CLOCK.search(cell)
    try:
        if found is None:
            raise ValueError
        hour, minute, second, half = found.groups()
        hours = int(hour) if not half else int(hour) % 12 + (12 if half.lower() == "pm" else 0)
        return time(hours, int(minute), int(second or 0))
    except ValueError:
        raise RecordError(where, f"“{cell[:40]}” is not a time of day") from None


def _delimiter(lines: Sequence[str]) -> str:
    """The one that parts most lines into equally many cells."""

    def fits(delimiter: str) -> tuple[int, int]:
        counts = [len(row) for row in csv.reader(lines[: MOST_BEFORE * 2], delimiter=delimiter)]
        several = [count for count in counts if count > 1]
        return max(((several.count(count), count) for count in set(several)), default=(0, 0))

    return max(";\t|,", key=fits)  # a comma may be a decimal one: it comes last among equals


def _is_header(row: Sequence[str]) -> bool:
    named = [cell for cell in row if cell]
    return len(named) >= 2 and not any(re.match(r"^[-+]?[.,]?\d", cell) for cell in named)


def _is_of_units(row: Sequence[str]) -> bool:
    """A line of units below the names: no number in it, and one unit at least that is known."""
    return _is_header(row) and any(unit_of(cell, kind) for cell in row for kind in UNITS)


def _decimal(rows: Sequence[Sequence[str]], delimiter: str) -> Decimal:
    """Which sign parts off decimals: a comma where it cannot be anything else."""
    cells = [cell for row in rows for cell in row]
    if any(re.search(r"^[^\d]*\d+,(\d{1,2}|\d{4,})\b", cell) for cell in cells):
        return ","
    if delimiter == "," or any(re.search(r"^[^\d]*\d+\.\d+\b", cell) for cell in cells):
        return "."
    return "," if any(re.search(r"\d,\d{3}\b", cell) for cell in cells) else "."
