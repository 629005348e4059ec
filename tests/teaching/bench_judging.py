"""`./tropo bench judging`: how long a judgement takes, and how that grows with the faults of a book."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from unittest import TestCase

from django.test import tag

from tests.strangers.trials import trials
from tests.swing.bench_readings import timed_ms
from tropometer.swing.read import read
from tropometer.teaching.judge import judge
from tropometer.teaching.judging.population import shipped_population
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.pages import shipped

SIZES = (10, 30, len(shipped().faults), 100, 200)
ADDED = 5_000_000


def of_size(book: Book, count: int) -> Book:
    """The shipped book with fewer faults, or with the same ones again by other names."""
    found = list(book.faults.values())
    again = [
        fault.model_copy(update={"id": f"{fault.id}_{i}", "leads_to": ()})
        for i in range(1, 6)
        for fault in found
    ]
    return replace(book, faults={fault.id: fault for fault in (*found, *again)[:count]})


@tag("bench")
class JudgingBench(TestCase):
    def test_time_and_growth(self) -> None:
        found = read(next(trials("both, mat", 1, seed=3)).record)
        fixed, _ = timed_ms(lambda: sum(i for i in range(ADDED)), 3)
        print(f"\nBoth views, every reading given; for comparison, adding {ADDED:,} numbers: {fixed:.0f} ms")
        print(f"{'faults':>8}{'ms, median':>12}{'95 %':>8}")
        for count in SIZES:
            book = of_size(shipped(), count)
            model = book.models["loaded_shift"]
            work = partial(judge, found, book, model, population=shipped_population())
            median, most = timed_ms(work, 30)
            print(f"{count:>8}{median:>12.1f}{most:>8.1f}")
