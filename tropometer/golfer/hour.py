"""A studio hour: twelve swings of one golfer, four as ever, four with the feet closer, and four as before."""

from __future__ import annotations

import numpy as np

from tropometer.golfer.faults import with_faults
from tropometer.golfer.settings import SwingSettings

EACH = 4
AS_EVER, CLOSER = 1.0, 0.3  # of a stance far too wide
SEED = 22


def hour_swings(name: str) -> dict[str, SwingSettings]:
    """The swings by name, in order; no two are alike, and how far they scatter is drawn here."""
    random = np.random.default_rng(SEED)
    shares = [AS_EVER] * EACH + [CLOSER] * EACH + [AS_EVER] * EACH
    found = {}
    for number, share in enumerate(shares, 1):
        scattered = random.normal(0, 1, 5)
        swing = SwingSettings(
            backswing=0.82 * (1 + 0.02 * scattered[0]), downswing=0.26 * (1 + 0.015 * scattered[1])
        )
        found[f"{name}_{number:02}"] = with_faults(
            swing,
            wide_stance=max(0.0, share + 0.05 * scattered[2]),
            early_extension=float(np.clip(0.35 + 0.08 * scattered[3], 0, 1)),
            sway=float(np.clip(0.15 + 0.08 * scattered[4], 0, 1)),
        )
    return found
