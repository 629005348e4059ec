"""A swing's readings and curves as tables that a spreadsheet opens."""

import csv
import io
from collections.abc import Iterable
from typing import Any

from tropometer.server.bench.models import Swing
from tropometer.server.bench.record import ready_clips, record_of
from tropometer.swing.read import read


def readings_csv(swing: Swing) -> str:
    """Every reading, given or refused, one a line; metres, degrees and seconds."""
    header = ("reading", "at", "value", "unit", "u95", "status", "said", "reason", "frames", "method")
    found = read(record_of(swing, ready_clips(swing)), curves=True).readings
    return _csv(
        header,
        (
            (
                each.reading,
                each.at,
                each.value,
                each.unit,
                each.u95,
                each.status,
                each.said,
                each.reason,
                " ".join(map(str, each.frames)),
                each.method,
            )
            for each in found
        ),
    )


def curves_csv(swing: Swing) -> str:
    """Readings over time, one value a line: the frame, seconds from impact, the value and its u95."""
    curves = read(record_of(swing, ready_clips(swing)), curves=True).curves
    return _csv(
        ("reading", "frame", "time_from_impact_s", "value", "u95"),
        (
            (curve.reading, int(frame), round(float(time), 6), float(value), float(u95))
            for curve in curves
            for frame, time, value, u95 in zip(
                curve.frames, curve.times_s, curve.values, curve.u95, strict=True
            )
            if value == value
        ),
    )


def _csv(header: tuple[str, ...], rows: Iterable[tuple[Any, ...]]) -> str:
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(header)
    writer.writerows(rows)
    return out.getvalue()
