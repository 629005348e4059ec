"""Whether verdicts come true, and which faults are found. Run by ./tropo bench verdicts."""

from __future__ import annotations

from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from itertools import pairwise
from unittest import TestCase

import numpy as np
from django.test import tag

from tests.strangers.injected import INJECTED, with_fault
from tests.strangers.swing import Swing
from tests.strangers.trials import SetUp
from tests.strangers.verdicts import (
    Verdict,
    set_up_soundly,
    sound_golfers,
    sound_seed,
    verdicts,
    with_some_faults,
)
from tropometer.teaching.judging.population import shipped_population
from tropometer.teaching.knowledge.pages import shipped

SEEN: tuple[SetUp, ...] = ("both, mat", "face-on, mat", "line, mat", "both, stick")
RANDOM, OF_A_FAULT, CLEAN = 600, 40, 200
BINS = np.linspace(0, 1, 11)
MODEL = "loaded_shift"


@tag("bench")
class VerdictBench(TestCase):
    def test_whether_what_is_said_comes_true(self) -> None:
        for set_up in SEEN:
            for prior in (True, False):
                told = _all(partial(_random, set_up, prior), RANDOM)
                self._reliability(f"{set_up}{'' if prior else ', flat prior'}", told)

    def test_whether_injected_faults_are_found(self) -> None:
        faults = [fault for fault in shipped().faults if fault in INJECTED]
        print(f"\n{'injected at full share':<28}{'found':>7}{'shown':>7}{'root':>7}  claimed with it")
        for fault in faults:
            told = _all(partial(_injected, fault), OF_A_FAULT)
            own = [each for of_one in told for each in of_one if each.fault == fault and each.truly]
            others: dict[str, int] = defaultdict(int)
            for of_one in told:
                for each in of_one:
                    others[each.fault] += each.is_claimed and each.fault != fault
            beside = sorted(others.items(), key=lambda row: -row[1])[:3]
            shares = [
                np.mean([getattr(e, name) for e in own]) for name in ("is_claimed", "is_shown", "is_root")
            ]
            words = ", ".join(f"{other} {count / len(told):.0%}" for other, count in beside if count)
            print(f"{fault:<28}" + "".join(f"{share:7.0%}" for share in shares) + f"  {words}")
        rest = [fault for fault in shipped().faults if fault not in INJECTED]
        print("not injected: " + ", ".join(rest))

    def test_whether_sound_swings_are_left_in_peace(self) -> None:
        for set_up in SEEN:
            told = _all(partial(_sound, set_up), CLEAN)
            for name in ("is_shown", "is_claimed"):
                claimed = [[each.fault for each in of_one if getattr(each, name)] for of_one in told]
                counts: dict[str, int] = defaultdict(int)
                for faults in claimed:
                    for fault in faults:
                        counts[fault] += 1
                most = ", ".join(f"{f} {c}" for f, c in sorted(counts.items(), key=lambda row: -row[1])[:4])
                share = np.mean([bool(each) for each in claimed])
                print(f"{set_up:<16}{name:<12}{share:7.1%} of {len(told)} sound swings  {most}")

    def _reliability(self, title: str, told: list[list[Verdict]]) -> None:
        seen = [each for of_one in told for each in of_one if each.is_seen]
        p = np.array([each.certainty for each in seen])
        truly = np.array([each.truly for each in seen], float)
        print(f"\n{title}: {len(told)} swings, {len(seen)} verdicts, Brier {np.mean((p - truly) ** 2):.4f}")
        print(f"{'said':>12}{'verdicts':>10}{'mean':>8}{'true':>8}{'off':>8}")
        for low, high in pairwise(BINS):
            inside = (p >= low) & ((p < high) | (high == 1))
            if inside.any():
                said, came = p[inside].mean(), truly[inside].mean()
                print(f"{low:6.0%} -{high:4.0%}{inside.sum():>11}{said:8.1%}{came:8.1%}{came - said:+8.1%}")


def _all(work: partial[list[Verdict]], count: int) -> list[list[Verdict]]:
    with ProcessPoolExecutor() as pool:
        return list(pool.map(work, range(count), chunksize=4))


def _random(set_up: SetUp, prior: bool, seed: int) -> list[Verdict]:
    population = shipped_population() if prior else None
    return verdicts(set_up, [31, seed], population, with_some_faults)


def _injected(fault: str, seed: int) -> list[Verdict]:
    def change(swing: Swing, _: np.random.Generator) -> Swing:
        return with_fault(swing, fault)

    return verdicts("both, mat", [32, seed], shipped_population(), change, MODEL)


def _sound(set_up: SetUp, seed: int) -> list[Verdict]:
    with sound_golfers():
        drawn = sound_seed([33, seed], shipped().models[MODEL])
        return verdicts(set_up, drawn, shipped_population(), lambda swing, _: set_up_soundly(swing), MODEL)
