"""Whether a document has the shape that the published JSON Schema asks for."""

from __future__ import annotations

import json
from functools import lru_cache
from pathlib import Path
from typing import Any

import jsonschema

from tropometer.swing.formats.record_error import RecordError

LARGEST = {"swing-record": 1e9, "live": 1e12}  # a device's clock may count from long ago
SCHEMAS = Path(__file__).parents[3] / "docs" / "formats"
RECORD = "swing-record"


def check_shape(document: Any, part: str | None = None, schema: str = RECORD) -> None:
    """Raises RecordError, which names the field, when a swing record, or a part of it, has another shape.

    `part` is a property of a record, or a definition of another `schema`.
    """
    validator = _validator(part, schema)
    if isinstance(document, dict | list):
        _check_finite(document, part or "$", LARGEST[schema])
    worst = jsonschema.exceptions.best_match(validator.iter_errors(document))
    if worst is not None:
        where = worst.json_path if part is None else f"{part}{worst.json_path.removeprefix('$')}"
        raise RecordError(where, worst.message.splitlines()[0][:200])


def _check_finite(document: Any, root: str, largest: float) -> None:
    """JSON has no infinities, but Python reads them; and a number that nothing can measure is no measure."""
    waiting = [(document, root)]
    while waiting:
        value, where = waiting.pop()
        inside: Any = value.items() if isinstance(value, dict) else enumerate(value)
        for key, each in inside:
            if isinstance(each, dict | list):
                waiting.append((each, _path(where, key)))
            elif isinstance(each, int | float) and not abs(each) <= largest:
                raise RecordError(_path(where, key), "not a number that can be measured")


def _path(where: str, key: str | int) -> str:
    return f"{where}[{key}]" if isinstance(key, int) else f"{where}.{key}"


@lru_cache
def _validator(part: str | None, name: str) -> jsonschema.Draft202012Validator:
    schema = json.loads((SCHEMAS / f"{name}.schema.json").read_text(encoding="utf-8"))
    if part is not None:
        parts = schema["properties"] if name == RECORD else schema["$defs"]
        schema = {**parts[part], "$defs": schema.get("$defs", {})}
    return jsonschema.Draft202012Validator(schema)
