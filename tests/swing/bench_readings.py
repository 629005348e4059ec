"""`./tropo bench readings`: how long readings take, and how that grows with the frames of a swing.

The swing is a stranger's, seen from both sides, with every mark on every frame.
"""

import statistics
import time
import tracemalloc
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from unittest import TestCase

import numpy as np
from django.test import tag

from tests.strangers.filming import film
from tests.strangers.trials import BOTH
from tropometer.swing.read import read
from tropometer.swing.readings.curves import curves_of_marks, placed_on_frames
from tropometer.swing.readings.series import Series
from tropometer.swing.record.swing import SwingRecord

FRAMES = (90, 180, 360, 720, 1440, 2880, 5760, 10_000)
TYPICAL = 720


def whole_swing(frames: int) -> SwingRecord:
    """Both views of one swing, filmed fast enough to have so many frames, all marked."""
    long_s = film(BOTH, "mat", np.random.default_rng(1)).swing.timing.last_s
    return film(BOTH, "mat", np.random.default_rng(1), rate_hz=frames / long_s, everywhere=True).record


def with_a_mark_moved(record: SwingRecord, px: float) -> SwingRecord:
    """The record after a hip's mark at the top was drawn aside."""
    clip = record.clips[0]
    top = clip.checkpoints["top"]
    mark = clip.marks["lead_hip"][top]
    moved = {**clip.marks["lead_hip"], top: replace(mark, x=mark.x + px)}
    clips = (replace(clip, marks={**clip.marks, "lead_hip": moved}), *record.clips[1:])
    return replace(record, clips=clips)


def curves_on_frames(record: SwingRecord) -> list[Series]:
    """All curves of a record."""
    return curves_of_marks(placed_on_frames(record))


def timed_ms(work: Callable[[], object], runs: int) -> tuple[float, float]:
    """Median and 95th percentile over some runs, milliseconds; the first is not counted."""
    work()
    taken = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        taken.append((time.perf_counter() - start) * 1000)
    return statistics.median(taken), sorted(taken)[int(0.95 * (runs - 1))]


def peak_mb(work: Callable[[], object]) -> float:
    """The most memory Python and NumPy held while it ran, megabytes."""
    tracemalloc.start()
    work()
    peak = tracemalloc.get_traced_memory()[1]
    tracemalloc.stop()
    return peak / 1e6


@tag("bench")
class ReadingsBench(TestCase):
    def test_time_and_growth(self) -> None:
        record = whole_swing(TYPICAL)
        steps = iter(range(1, 10_000))
        moved = timed_ms(lambda: read(with_a_mark_moved(record, next(steps) * 0.1)).readings, 60)
        whole = timed_ms(partial(curves_on_frames, record), 10)
        both = timed_ms(lambda: read(record, curves=True), 10)
        given = sum(each.status == "ok" for each in read(record).readings)
        print(f"\nBoth views, {len(record.clips[0].marks)} marks, {given} readings given; ms (median, 95 %)")
        for words, (median, most) in (
            ("one mark moved, all readings at the checkpoints", moved),
            (f"all curves, {TYPICAL} frames", whole),
            ("curves, and readings with the times that follow", both),
        ):
            print(f"  {words:<52}{median:8.1f}{most:8.1f}")
        print(f"\n{'frames':>8}{'curves ms':>11}{f'by {TYPICAL}':>9}{'µs a frame':>12}{'peak MB':>9}")
        for frames in FRAMES:
            work = partial(curves_on_frames, whole_swing(frames))
            taken, _ = timed_ms(work, 5 if frames <= TYPICAL else 3)
            ratio, each = taken / whole[0], taken / frames * 1000
            print(f"{frames:>8}{taken:>11.0f}{ratio:>9.2f}{each:>12.0f}{peak_mb(work):>9.0f}")
