"""How the ball was struck, counted: with a change and without it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from scipy.stats import fisher_exact

from tropometer.teaching.trials.against import SURE

Struck = Literal["clean", "heavy", "thin", "toe", "heel"]
STRUCK: tuple[Struck, ...] = get_args(Struck)


@dataclass(frozen=True, kw_only=True)
class Counted:
    """So many of the base's tries, and of the changed ones, were struck so; `p` is the exact test's.

    `real` where the two shares lie so far apart by chance in 5 % at most.
    """

    struck: Struck
    base: int
    of_base: int
    changed: int
    of_changed: int
    p: float

    @property
    def real(self) -> bool:
        return self.p <= SURE


def counted(base: Sequence[Struck], changed: Sequence[Struck]) -> tuple[Counted, ...]:
    """Every way of striking that was seen on either side; nothing where a side has none that was said.

    Fisher 1935, The Design of Experiments, two-sided.
    """
    if not base or not changed:
        return ()
    found = []
    for struck in STRUCK:
        first, then = base.count(struck), changed.count(struck)
        if first + then == 0:
            continue
        table = np.array([[first, len(base) - first], [then, len(changed) - then]])
        found.append(
            Counted(
                struck=struck,
                base=first,
                of_base=len(base),
                changed=then,
                of_changed=len(changed),
                p=float(fisher_exact(table)[1]),
            )
        )
    return tuple(found)
