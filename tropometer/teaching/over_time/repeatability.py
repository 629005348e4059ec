"""How far a reading repeats: within-subject error, its share of all differences, and the least change.

Swings are no raters: the second swing of one student has nothing in common with the second of another. So it
is the one-way model of Shrout and Fleiss 1979, Psychol Bull 86:420, case 1, with as many swings a student as
there are.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from tropometer.swing.error.value import NORMAL_95


@dataclass(frozen=True, kw_only=True)
class Repeatability:
    """`sem` is the standard error of one swing; `single` and `mean` are intraclass correlations.

    `mean` is that of the mean of as many swings as a subject has (on average, where they differ).
    """

    subjects: int
    swings: int
    sem: float
    single: float
    mean: float

    @property
    def least_change(self) -> float:
        """The least change of one swing that is more than error, at 95 %."""
        return minimal_detectable_change(self.sem)


def minimal_detectable_change(sem: float) -> float:
    """The least change of one that is more than error, at 95 %: SEM · 1.96 · √2.

    Weir 2005, J Strength Cond Res 19:231, "minimum difference". SEM: standard error of one measurement,
    which holds both how it is measured and how the measured scatters.
    """
    return NORMAL_95 * math.sqrt(2) * sem


def repeatability(subjects: Sequence[Sequence[float]]) -> Repeatability | None:
    """Of repeated readings by subject; None where fewer than two subjects repeat or all is the same.

    ICC(1,1) = (BMS − WMS) / (BMS + (k − 1) WMS), ICC(1,k) = (BMS − WMS) / BMS, SEM = √WMS; k of unequal
    counts is that of the one-way analysis of variance with random effects (n − Σk²/n) / (subjects − 1).
    """
    rows = [np.asarray(each, float) for each in subjects if len(each) > 0]
    count = sum(len(each) for each in rows)
    if sum(len(each) > 1 for each in rows) < 2:
        return None
    grand = np.concatenate(rows).mean()
    between = sum(len(each) * (each.mean() - grand) ** 2 for each in rows) / (len(rows) - 1)
    within = sum(((each - each.mean()) ** 2).sum() for each in rows) / (count - len(rows))
    size = (count - sum(len(each) ** 2 for each in rows) / count) / (len(rows) - 1)
    if not between > 0:
        return None
    return Repeatability(
        subjects=len(rows),
        swings=count,
        sem=float(np.sqrt(within)),
        single=float((between - within) / (between + (size - 1) * within)),
        mean=float((between - within) / between),
    )
