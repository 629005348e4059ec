"""Whether intervals hold the truth as often as the contract says, judged by how many there were."""

from collections.abc import Sequence

import numpy as np
from scipy.stats import binom

LOW = 0.93  # of 95 % intervals, by the contract
BY_CHANCE = 0.001  # so seldom an honest reading is called dishonest


def independent(held: Sequence[Sequence[bool]]) -> float:
    """How many independent intervals those of some trials are worth: within a trial they share its errors.

    Kish's design effect, 1 + (m - 1) times the intraclass correlation, by an analysis of variance
    (Kish 1965, Survey Sampling, 5.4; from memory).
    """
    counts = np.array([len(each) for each in held], float)
    total, trials = counts.sum(), len(held)
    if total == trials or trials < 2:
        return float(total)
    shares = np.array([np.mean(each) for each in held])
    whole = float((counts * shares).sum() / total)
    between = float((counts * (shares - whole) ** 2).sum()) / (trials - 1)
    within = float((counts * shares * (1 - shares)).sum()) / (total - trials)
    usual = (total - (counts**2).sum() / total) / (trials - 1)
    spread = between + (usual - 1) * within
    correlation = max(0.0, (between - within) / spread) if spread > 0 else 1.0
    return float(total / (1 + (usual - 1) * correlation))


def too_narrow(held: Sequence[Sequence[bool]]) -> str:
    """How seldom some trials' intervals held; empty where chance explains it."""
    count, share = _worth(held)
    inside = round(share * count)
    if binom.cdf(inside, count, LOW) < BY_CHANCE:
        return f"only {share:.1%} held, as good as {inside} of {count} independent ones"
    return ""


def _worth(held: Sequence[Sequence[bool]]) -> tuple[int, float]:
    return max(1, round(independent(held))), float(np.mean([each for trial in held for each in trial]))
