"""Tables that a spreadsheet opens."""

import csv
import io
from collections.abc import Iterable
from typing import Any

FORMULA = ("=", "+", "-", "@", "\t", "\r")


def as_csv(header: tuple[str, ...], rows: Iterable[tuple[Any, ...]]) -> str:
    """Lines of values; words that a spreadsheet would take for a formula are quoted for it."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(header)
    writer.writerows(tuple(map(_cell, row)) for row in rows)
    return out.getvalue()


def _cell(value: Any) -> Any:
    return f"'{value}" if isinstance(value, str) and value.startswith(FORMULA) else value
