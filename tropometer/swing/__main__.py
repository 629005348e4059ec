"""`python -m tropometer.swing read RECORD.json` prints a swing record's readings, as JSON or a table.

Marks to look at again, a line each, go to standard error.
"""

from __future__ import annotations

import argparse
import json
import sys
from dataclasses import asdict
from pathlib import Path

from tropometer.swing.doubts import doubts
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.swing_record import from_document
from tropometer.swing.formats.whole import load
from tropometer.swing.read import read
from tropometer.swing.readings.reading import Reading


def main(arguments: list[str] | None = None) -> int:
    """Run the command; 0 when the readings were printed, 2 when the record is bad."""
    parser = argparse.ArgumentParser(prog="tropo", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    reading = commands.add_parser("read", help="print the readings")
    reading.add_argument("record", type=Path)
    reading.add_argument("--table", action="store_true", help="a line a reading, for people")
    chosen = parser.parse_args(arguments)
    try:
        record = from_document(load(chosen.record))
        readings = read(record, curves=True).readings
    except RecordError as error:
        print(error, file=sys.stderr)
        return 2
    for doubt in doubts(record):
        print(
            f"look again: {doubt.name} on frame {doubt.frame} of {doubt.clip}, {doubt.why}", file=sys.stderr
        )
    if chosen.table:
        for each in readings:
            print(f"{each.reading:<26}{each.at:<15}{_told(each)}")
        return 0
    keys = ("reading", "at", "value", "unit", "u95", "status", "reason", "said", "clips", "frames", "method")
    rows = [{key: asdict(reading)[key] for key in keys} for reading in readings]
    print(json.dumps(rows, indent=2))
    return 0


def _told(reading: Reading) -> str:
    if reading.value is None or reading.u95 is None:
        return f"refused: {reading.reason}"
    said = f"{reading.said.replace('_', ' ')}, " if reading.said else ""
    return f"{said}{reading.value:.3f} ± {reading.u95:.3f} {reading.unit}"


if __name__ == "__main__":
    raise SystemExit(main())
