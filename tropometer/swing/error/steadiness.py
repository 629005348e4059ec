"""How steady a hand is: the same marks placed twice, without seeing the first.

The standard deviation of one placing is √(Σd² / 2n) over the n differences d along each axis (Dahlberg 1940;
Bland and Altman 1996, BMJ 313:744); its interval follows from χ² with n degrees of freedom.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from scipy.stats import chi2

LEAST_PAIRS = 5
SLIP = 6.0  # a difference so many times the median one is a click on the wrong thing


class TooFew(ValueError):
    """Not enough marks were placed twice."""


@dataclass(frozen=True, kw_only=True)
class Steadiness:
    """One standard deviation along each axis, its 95 % interval, and how many marks it comes from."""

    sd: float
    low: float
    high: float
    pairs: int
    slips: int


def steadiness(differences: Sequence[tuple[float, float]]) -> Steadiness:
    """From the differences (x, y) between the first and the second placing of each mark, in any one unit.

    Raises TooFew below five good pairs. Slips are left out, and counted.
    """
    sizes = sorted(math.hypot(*each) for each in differences)
    if len(sizes) < LEAST_PAIRS:
        raise TooFew(f"It takes {LEAST_PAIRS} marks placed twice; there are {len(sizes)}.")
    middle = sizes[len(sizes) // 2]
    good = [each for each in differences if math.hypot(*each) <= SLIP * max(middle, 1e-9)]
    if len(good) < LEAST_PAIRS:
        raise TooFew("The two rounds lie too far apart: the same points were not meant.")
    count = 2 * len(good)
    squares = sum(x * x + y * y for x, y in good)
    sd = math.sqrt(squares / (2 * count))
    low, high = (sd * math.sqrt(count / float(chi2.ppf(p, count))) for p in (0.975, 0.025))
    return Steadiness(sd=sd, low=low, high=high, pairs=len(good), slips=len(differences) - len(good))
