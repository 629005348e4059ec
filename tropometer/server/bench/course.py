"""A swing over time, and the student's swings before it."""

from typing import Any

import numpy as np

from tropometer.server.bench.asking import asked_by_other_teachers, asked_of_swing
from tropometer.server.bench.columns import figure, reading_columns
from tropometer.server.bench.models import Swing
from tropometer.server.bench.record import ready_clips, record_of
from tropometer.server.bench.tracking import tracks_stale
from tropometer.swing.arrays import Array
from tropometer.swing.read import read
from tropometer.swing.readings.from_readings import FromReadings
from tropometer.swing.readings.from_times import FromTimes
from tropometer.swing.readings.register import KINDS
from tropometer.swing.readings.series import Series, leading_clip

REMEMBERED = 6


def course(swing: Swing, readings: list[str]) -> dict[str, Any]:
    """Some readings' curves, which others there are, and the times of the swing, shaped as `CourseOut`."""
    clips = ready_clips(swing)
    record = record_of(swing, clips)
    whole = read(record, curves=True)
    found, curves = whole.readings, whole.curves
    times = [each for each in found if isinstance(KINDS[each.reading], FromTimes | FromReadings)]
    leading = leading_clip(record)
    by_reading = {curve.reading: curve for curve in curves}
    return {
        "stale": any(tracks_stale(clip) for clip in clips),
        "clip_id": leading.id if leading and curves else None,
        "frames": curves[0].frames.tolist() if curves else [],
        "offered": [curve.reading for curve in curves],
        "curves": [_curve(by_reading[each]) for each in readings if each in by_reading],
        "others": [
            {"teaching": name, "reading": band.reading, "at": band.at, "low": band.low, "high": band.high}
            for name, band in asked_by_other_teachers(swing, readings)
        ],
        "times": reading_columns(times, asked_of_swing(swing), [str(clip.pk) for clip in clips]),
    }


def _curve(series: Series) -> dict[str, Any]:
    return {
        "reading": series.reading,
        "unit": KINDS[series.reading].unit,
        "values": _rounded(series.values),
        "u95": _rounded(series.u95),
    }


def _rounded(values: Array) -> list[float | None]:
    return [
        figure(value) if seen else None
        for value, seen in zip(values.tolist(), np.isfinite(values).tolist(), strict=True)
    ]


def earlier(swing: Swing) -> list[dict[str, Any]]:
    """What was read on the student's swings before this one, the latest first, shaped as `EarlierOut`."""
    if swing.student is None:
        return []
    before = Swing.objects.swung().filter(student=swing.student, received_at__lt=swing.received_at)
    found = []
    for other in before.select_related("student").order_by("-received_at")[:REMEMBERED]:
        readings = read(record_of(other, ready_clips(other, whole=False), whole=False)).readings
        given = [each for each in readings if each.status == "ok" and not each.said]
        if given:
            found.append(
                {
                    "swing_id": other.pk,
                    "received_at": other.received_at,
                    "club": other.club,
                    "readings": given,
                }
            )
    return found
