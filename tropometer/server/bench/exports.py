"""A swing's readings and curves as tables that a spreadsheet opens, and its marks in space."""

from tropometer.server.bench.models import Swing
from tropometer.server.bench.record import ready_clips, record_of
from tropometer.server.tables import as_csv
from tropometer.swing.formats.in_space import Markers, markers_of
from tropometer.swing.read import read


def readings_csv(swing: Swing) -> str:
    """Every reading, given or refused, one a line; metres, degrees and seconds."""
    header = ("reading", "at", "value", "unit", "u95", "status", "said", "reason", "frames", "method")
    found = read(record_of(swing, ready_clips(swing)), curves=True).readings
    return as_csv(
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


def markers_in(swing: Swing) -> Markers:
    """The marks that both views saw, in space; RecordError says what is missing."""
    return markers_of(record_of(swing, ready_clips(swing)))


def curves_csv(swing: Swing) -> str:
    """Readings over time, one value a line: the frame, seconds from impact, the value and its u95."""
    curves = read(record_of(swing, ready_clips(swing)), curves=True).curves
    return as_csv(
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
