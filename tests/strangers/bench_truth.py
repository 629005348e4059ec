"""How near readings come to the truth, and how honest their intervals are. Run by ./tropo bench truth."""

from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from unittest import TestCase

import numpy as np
from django.test import tag

from tests.strangers.slips import Tried, tried
from tests.strangers.third_kind import third_kind
from tests.strangers.times import missed_times
from tests.strangers.trials import SET_UPS, Missed, SetUp, missed_in, trials
from tests.swing.coverage import too_narrow

TRIALS, PARTS = 400, 8
SWINGS = 64
THIRD: tuple[SetUp, ...] = ("both, mat", "both, stick", "face-on, mat", "line, mat")
TIMED, RATES = 200, (60.0, 240.0)
# Largest root mean square error with both views, by unit and reading (readings.md, "How good").
TARGETS = {
    "pelvis_sway": 0.006, "trail_hip_gap": 0.006, "post_gap": 0.006, "pelvis_depth": 0.006,
    "pelvis_rise": 0.006, "stance_width": 0.008, "foot_flare_lead": 2, "foot_flare_trail": 2,
    "toe_line": 2, "knee_flex_lead": 2.5, "knee_flex_trail": 2.5, "pelvis_turn": 3, "shoulder_turn": 3,
    "lead_leg_lean": 1, "spine_incline": 1, "spine_side_tilt": 1,
}  # fmt: skip
CENTIMETRES = 100
UNITS = {"s": (1000, "ms"), "m": (CENTIMETRES, "cm"), "m_s": (CENTIMETRES, "cm/s")}


@tag("bench")
class TruthBench(TestCase):
    def test_readings_against_the_truth(self) -> None:
        with ProcessPoolExecutor() as pool:
            for set_up in SET_UPS:
                parts = [(set_up, number, TRIALS // PARTS) for number in range(PARTS)]
                self._print(set_up, [trial for part in pool.map(_missed, parts) for trial in part])

    def test_slips_of_the_hand(self) -> None:
        print(f"\n{'40 px slips and changed sides':<32}{'named':>7}{'told':>7}{'clean, but doubted':>20}")
        for set_up in SET_UPS:
            with ProcessPoolExecutor() as pool:
                found = Tried()
                for each in pool.map(tried, [set_up] * PARTS, [SWINGS // PARTS] * PARTS, range(PARTS)):
                    found.add(each)
            named = np.mean([hit for _, hit in found.named])
            print(f"{set_up:<32}{named:7.1%}{np.mean(found.told):7.1%}{np.mean(found.falsely):20.1%}")
            of_part: dict[str, list[bool]] = defaultdict(list)
            for part, hit in found.named:
                of_part[part].append(hit)
            rows = sorted(of_part.items(), key=lambda row: -float(np.mean(row[1])))
            print("    " + ", ".join(f"{part} {np.mean(hits):.0%}" for part, hits in rows))

    def test_people_of_a_third_kind(self) -> None:
        print(f"\n{'a third kind':<24}{'honest':>12}  held too seldom")
        for set_up in THIRD:
            parts = [(set_up, number, TRIALS // PARTS) for number in range(PARTS)]
            with ProcessPoolExecutor() as pool:
                trials = [trial for part in pool.map(_missed_of_third_kind, parts) for trial in part]
                slips = list(pool.map(_slips_of_third_kind, parts))
            held: dict[str, list[list[bool]]] = defaultdict(list)
            for trial in trials:
                here: dict[str, list[bool]] = defaultdict(list)
                for each in trial:
                    here[each.reading].append(each.held)
                for reading, inside in here.items():
                    held[reading].append(inside)
            seldom = [
                f"{reading} {np.mean([inside for trial in of_trials for inside in trial]):.0%}"
                for reading, of_trials in held.items()
                if too_narrow(of_trials)
            ]
            print(f"{set_up:<24}{len(held) - len(seldom):>5} of {len(held):>3}  {', '.join(seldom)}")
            named = np.mean([hit for each in slips for _, hit in each.named])
            told, falsely = (
                np.mean([hit for each in slips for hit in getattr(each, name)])
                for name in ("told", "falsely")
            )
            print(f"    slips named {named:.1%}, sides told {told:.1%}, clean but doubted {falsely:.1%}")

    def test_times_of_swings_that_are_marked_on_every_frame(self) -> None:
        for rate_hz in RATES:
            with ProcessPoolExecutor() as pool:
                trials = list(pool.map(partial(missed_times, rate_hz=rate_hz), range(TIMED), chunksize=8))
            by_key: dict[tuple[str, str], list[Missed]] = defaultdict(list)
            for each in (each for trial in trials for each in trial):
                by_key[each.reading, each.at].append(each)
            title = f"every frame, {rate_hz:.0f} a second"
            print(f"\n{title:<32}{'unit':<6}{'rms':>7}{'bias':>7}{'u95':>7}{'held':>7}  given")
            for (reading, at), missed in by_key.items():
                times, unit = UNITS[missed[0].unit]
                bias = float(np.mean([each.by for each in missed])) * times
                u95 = float(np.median([each.u95 for each in missed])) * times
                share = np.mean([each.held for each in missed])
                trusted = not too_narrow([[each.held] for each in missed])
                print(
                    f"{f'{reading} {at}':<32}{unit:<6}{_rms(missed) * times:7.1f}{bias:7.1f}{u95:7.1f}"
                    f"{share:7.1%}{' ' if trusted else '*'} {len(missed)} of {TIMED}"
                )

    def _print(self, set_up: SetUp, trials: list[list[Missed]]) -> None:
        """One line a reading: all checkpoints together, then the share held at each by itself."""
        rows: dict[str, list[list[Missed]]] = defaultdict(list)
        for trial in trials:
            by_reading: dict[str, list[Missed]] = defaultdict(list)
            for each in trial:
                by_reading[each.reading].append(each)
            for reading, of_it in by_reading.items():
                rows[reading].append(of_it)
        print(
            f"\n{set_up:<24}{'unit':<6}{'rms':>7}{'worst':>7}{'bias':>7}{'u95':>7}{'held':>7}"
            "  target  at each checkpoint, %"
        )
        honest = 0
        for reading, of_trials in rows.items():
            every = [each for trial in of_trials for each in trial]
            times, unit = (CENTIMETRES, "cm") if every[0].unit == "m" else (1, every[0].unit)
            by_checkpoint: dict[str, list[Missed]] = defaultdict(list)
            for each in every:
                by_checkpoint[each.at].append(each)
            worst = max(_rms(missed) for missed in by_checkpoint.values()) * times
            bias = float(np.mean([each.by for each in every])) * times
            u95 = float(np.median([each.u95 for each in every])) * times
            held = [[each.held for each in trial] for trial in of_trials]
            trusted = not too_narrow(held)
            honest += trusted
            share = np.mean([inside for trial in held for inside in trial])
            target = TARGETS.get(reading)
            words = "" if target is None or set_up != "both, mat" else f"{target * times:.1f}"
            shares = " ".join(
                f"{np.mean([each.held for each in of_it]) * 100:3.0f}" for of_it in by_checkpoint.values()
            )
            print(
                f"{reading:<24}{unit:<6}{_rms(every) * times:7.2f}{worst:7.2f}{bias:7.2f}{u95:7.2f}"
                f"{share:7.1%}{' ' if trusted else '*'} {words:<7} {shares}"
            )
        print(f"{honest} of {len(rows)} rows are honest; * is held too seldom")


def _missed(part: tuple[SetUp, int, int]) -> list[list[Missed]]:
    set_up, seed, count = part
    return [missed_in(trial) for trial in trials(set_up, count, seed)]


def _missed_of_third_kind(part: tuple[SetUp, int, int]) -> list[list[Missed]]:
    with third_kind():
        return _missed(part)


def _slips_of_third_kind(part: tuple[SetUp, int, int]) -> Tried:
    set_up, seed, _ = part
    with third_kind():
        return tried(set_up, SWINGS // PARTS, seed)


def _rms(missed: list[Missed]) -> float:
    return float(np.sqrt(np.mean([each.by**2 for each in missed])))
