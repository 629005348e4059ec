"""A pressure plate's data as people have them: a table with a line an instant, or the record's own object."""

from __future__ import annotations

import csv
import json
import math
from dataclasses import replace
from typing import Any

from tropometer.swing.clocks.felt_strike import felt_strike
from tropometer.swing.formats.plate import plate_from
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.schema import check_shape
from tropometer.swing.record.plate import PressurePlate

MOST_INSTANTS = 20_000
NEEDED = ("time_s", "lead_force_n", "trail_force_n")
# The two columns of each foot's place, and what the record calls them together.
PLACES = {"lead_place": ("lead_toe", "lead_outer"), "trail_place": ("trail_toe", "trail_outer")}


def read_plate(text: str, impact_s: float | None = None) -> PressurePlate:
    """A plate's data from the text of a file; `impact_s` is impact on its clock, where the file does not say.

    Where neither says it, it is looked for in the force's own shape, and its error is kept with it. Raises
    RecordError, which names the line and column, or the field.
    """
    if text.lstrip().startswith("{"):
        try:
            document = json.loads(text)
        except json.JSONDecodeError as error:
            raise RecordError(f"line {error.lineno}", f"not JSON ({error.msg})") from error
        document = document.get("pressure", document)
    else:
        document = _from_table(text.removeprefix("\ufeff"))
    if impact_s is not None and isinstance(document, dict):
        document["impact_s"] = impact_s
    unsaid = isinstance(document, dict) and "impact_s" not in document
    if unsaid:
        document["impact_s"] = _begins(document)
    check_shape(document, "pressure")
    if len(document["times_s"]) > MOST_INSTANTS:
        raise RecordError("pressure.times_s", f"more than {MOST_INSTANTS} instants: cut out the swing")
    plate = plate_from(document)
    return _struck(plate) if unsaid else plate


def _begins(document: dict[str, Any]) -> Any:
    """A time on the plate's clock that holds the place of impact until it is found; 0 where there is none."""
    times = document.get("times_s")
    return times[0] if isinstance(times, list) and times and isinstance(times[0], int | float) else 0.0


def _struck(plate: PressurePlate) -> PressurePlate:
    strike = felt_strike(plate.times_s, plate.lead_force_n + plate.trail_force_n)
    if strike is None or not plate.times_s[0] <= strike.at_s <= plate.times_s[-1]:
        raise RecordError(
            "impact_s", "no strike is felt in the force: say when impact is on the plate's clock"
        )
    return replace(plate, impact_s=strike.at_s, impact_sd_s=strike.sd_s)


def _from_table(text: str) -> dict[str, Any]:
    lines = text.splitlines()
    header = lines[0] if lines else ""
    delimiter = max(",;\t", key=header.count)
    names = [name.strip().lower() for name in header.split(delimiter)]
    for name in NEEDED:
        if name not in names:
            raise RecordError("line 1", f"there is no column {name}")
    found: dict[str, list[Any]] = {"times_s": [], "lead_force_n": [], "trail_force_n": []}
    places = {place: pair for place, pair in PLACES.items() if any(name in names for name in pair)}
    for pair in places.values():
        for name in pair:
            if name not in names:
                raise RecordError("line 1", f"there is no column {name}")
    found |= {place: [] for place in places}
    for number, cells in enumerate(csv.reader(lines[1:], delimiter=delimiter), 2):
        if not any(cell.strip() for cell in cells):
            continue
        if len(cells) != len(names):
            raise RecordError(f"line {number}", f"{len(cells)} columns, where line 1 has {len(names)}")
        row = dict(zip(names, cells, strict=True))

        def value(name: str, row: dict[str, str] = row, number: int = number) -> float:
            return _number(row[name], delimiter, f"line {number}, {name}")

        found["times_s"].append(value("time_s"))
        found["lead_force_n"].append(value("lead_force_n"))
        found["trail_force_n"].append(value("trail_force_n"))
        for place, (toe, outer) in places.items():
            found[place].append([value(toe), value(outer)])
    return found


def _number(cell: str, delimiter: str, where: str) -> float:
    # A decimal comma can only be one where columns are told apart by something else.
    plain = cell.strip() if delimiter == "," else cell.strip().replace(",", ".")
    try:
        number = float(plain)
    except ValueError:
        raise RecordError(where, f"“{cell.strip()[:40]}” is not a number") from None
    if not math.isfinite(number):
        raise RecordError(where, "not a number")
    return number
