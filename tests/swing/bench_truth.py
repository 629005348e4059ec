"""How near readings come to the truth, and how honest their intervals are. Run by ./tropo bench truth."""

from collections import defaultdict
from unittest import TestCase

import numpy as np
from django.test import tag

from tests.swing.trials import SET_UPS, trials
from tropometer.swing.read import read

TRIALS = 400
# Largest root mean square error with both views, by unit and reading (readings.md, "How good").
TARGETS = {
    "pelvis_sway": 0.006, "trail_hip_gap": 0.006, "post_gap": 0.006, "pelvis_depth": 0.006,
    "pelvis_rise": 0.006, "stance_width": 0.008, "foot_flare_lead": 2, "foot_flare_trail": 2,
    "toe_line": 2, "knee_flex_lead": 2.5, "knee_flex_trail": 2.5, "pelvis_turn": 3, "shoulder_turn": 3,
    "lead_leg_lean": 1, "spine_incline": 1, "spine_side_tilt": 1,
}  # fmt: skip
CENTIMETRES = 100


@tag("bench")
class TruthBench(TestCase):
    def test_readings_against_the_truth(self) -> None:
        for set_up in SET_UPS:
            missed: dict[tuple[str, str, str], list[float]] = defaultdict(list)
            claimed: dict[tuple[str, str, str], list[float]] = defaultdict(list)
            refused: dict[str, int] = defaultdict(int)
            for trial in trials(set_up, TRIALS):
                for each in read(trial.record):
                    true = trial.true.get((each.reading, each.at))
                    if true is None or isinstance(true, str):
                        continue
                    if each.value is None or each.u95 is None:
                        refused[each.reading] += 1
                        continue
                    key = (each.reading, each.at, each.unit)
                    missed[key].append(each.value - true)
                    claimed[key].append(each.u95)
            self._print(set_up, missed, claimed)

    def _print(
        self,
        set_up: str,
        missed: dict[tuple[str, str, str], list[float]],
        claimed: dict[tuple[str, str, str], list[float]],
    ) -> None:
        """One line a reading: all checkpoints together, and the least and most held of any by itself."""
        print(
            f"\n{set_up:<26}{'unit':<6}{'rms':>8}{'worst':>8}{'bias':>8}{'u95':>8}{'in u95':>8}"
            f"{'least':>7}{'most':>7}{'n':>6}  target"
        )
        for reading in dict.fromkeys(name for name, _, _ in missed):
            keys = [key for key in missed if key[0] == reading and max(claimed[key]) > 0]
            if not keys:
                continue
            unit = keys[0][2]
            times, name = (CENTIMETRES, "cm") if unit == "m" else (1, unit)
            errors = [np.array(missed[key]) * times for key in keys]
            u95 = [np.array(claimed[key]) * times for key in keys]
            pairs = [pair for pair in zip(errors, u95, strict=True) if len(pair[0]) >= TRIALS / 4]
            held = [np.mean(np.abs(missed_by) <= wide_by) for missed_by, wide_by in pairs]
            worst = max(float(np.sqrt(np.mean(e**2))) for e in errors)
            every, wide = np.concatenate(errors), np.concatenate(u95)
            target = TARGETS.get(reading)
            words = "" if target is None or set_up != "both" else f"{target * times:.1f}"
            least, most = (f"{each:7.0%}" for each in (min(held, default=0), max(held, default=0)))
            inside = np.mean(np.abs(every) <= wide)
            print(
                f"{reading:<26}{name:<6}{np.sqrt(np.mean(every**2)):8.2f}{worst:8.2f}{every.mean():8.2f}"
                f"{np.median(wide):8.2f}{inside:8.1%}{least}{most}{len(every):6}  {words}"
            )
