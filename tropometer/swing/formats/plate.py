"""A pressure plate's data as a document of the open format, in and out."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.record.plate import PressurePlate


def plate_from(data: dict[str, Any]) -> PressurePlate:
    """A plate's data from a document that fits the JSON Schema; RecordError where they make no sense."""
    columns: dict[str, Array] = {
        name: np.array(data[name], float)
        for name in ("times_s", "lead_force_n", "trail_force_n", "lead_place", "trail_place")
        if name in data
    }
    count = len(columns["times_s"])
    for name, column in columns.items():
        if len(column) != count:
            raise RecordError(f"pressure.{name}", f"it has {len(column)} values, times_s has {count}")
        endless = np.flatnonzero(~np.isfinite(column).reshape(count, -1).all(axis=1))
        if len(endless):
            raise RecordError(f"pressure.{name}[{endless[0]}]", "not a number")
    late = np.flatnonzero(np.diff(columns["times_s"]) <= 0)
    if len(late):
        raise RecordError(f"pressure.times_s[{late[0] + 1}]", "times must rise")
    if not columns["times_s"][0] <= data["impact_s"] <= columns["times_s"][-1]:
        raise RecordError("pressure.impact_s", "impact is outside the plate's times")
    known = {name: data[name] for name in ("impact_sd_s", "force_sd_n", "place_sd") if name in data}
    for name, value in known.items():
        if not math.isfinite(value):
            raise RecordError(f"pressure.{name}", "not a number")
    return PressurePlate(
        times_s=columns["times_s"],
        lead_force_n=columns["lead_force_n"],
        trail_force_n=columns["trail_force_n"],
        impact_s=data["impact_s"],
        lead_place=columns.get("lead_place"),
        trail_place=columns.get("trail_place"),
        **known,
    )


def plate_document(plate: PressurePlate) -> dict[str, Any]:
    """A plate's data as a document."""
    columns = {
        name: column.tolist() if isinstance(column, np.ndarray) else column
        for name, column in vars(plate).items()
    }
    return {name: column for name, column in columns.items() if column is not None}
