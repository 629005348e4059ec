"""What a launch monitor said as a document of the open format, in and out."""

from __future__ import annotations

from dataclasses import asdict, fields
from typing import Any

from tropometer.swing.record.launch import Launch

NAMES = tuple(field.name for field in fields(Launch))


def launch_from(data: dict[str, float]) -> Launch:
    """A shot from a document that fits the JSON Schema."""
    return Launch(**{name: float(data[name]) for name in NAMES if name in data})


def launch_document(launch: Launch) -> dict[str, Any]:
    """A shot as a document: what was measured of it."""
    return {name: value for name, value in asdict(launch).items() if value is not None}
