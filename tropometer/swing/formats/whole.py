"""A swing record's file as a document."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.schema import check_shape


def load(path: Path) -> dict[str, Any]:
    """A document that fits the published schema; RecordError names the field that does not."""
    try:
        document = json.loads(path.read_text(encoding="utf-8"))
    except OSError as error:
        raise RecordError(str(path), error.strerror or "cannot be read") from error
    except (json.JSONDecodeError, UnicodeDecodeError, RecursionError) as error:
        raise RecordError(str(path), f"not JSON ({error})") from error
    check_shape(document)
    if not isinstance(document, dict):
        raise RecordError("$", "not an object")
    return document
