"""What a launch monitor said as a document of the open format, in and out."""

from __future__ import annotations

from dataclasses import fields
from typing import Any

from tropometer.swing.record.launch import Launch

NAMES = tuple(field.name for field in fields(Launch) if field.name != "sd")


def launch_from(data: dict[str, Any]) -> Launch:
    """A shot from a document that fits the JSON Schema."""
    sd = {name: float(value) for name, value in data.get("sd", {}).items()}
    return Launch(**{name: float(data[name]) for name in NAMES if name in data}, sd=sd)


def launch_document(launch: Launch) -> dict[str, Any]:
    """A shot as a document: what was measured of it."""
    document = {name: value for name in NAMES if (value := getattr(launch, name)) is not None}
    return {**document, **({"sd": dict(launch.sd)} if launch.sd else {})}
