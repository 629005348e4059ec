"""Pitches and half swings: a full swing that turns round earlier, and ends earlier.

How far each goes back and through is common practice, no source.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from tropometer.golfer.settings import EVENTS, IMPACT, KEYED, TOP, SwingSettings
from tropometer.swing.names import SwingLength

# How far along the full swing's events the top and the finish lie, and how long back and down take of it.
TURNS_AT: dict[SwingLength, tuple[float, float, float, float]] = {
    "pitch": (1.45, 7.6, 0.66, 0.80),
    "lead_arm_level": (2.25, 8.2, 0.78, 0.88),
    "shoulder_high": (2.55, 8.7, 0.9, 0.95),
}
SHAFT_DOWN = EVENTS.index("shaft_down")
DOWN_SO_FAR = 0.55  # at the event between top and shaft level down


def of_length(full: SwingSettings, length: SwingLength) -> SwingSettings:
    """The same swing, meant to go back so far only."""
    if length == "full":
        return full
    top, finish, back_takes, down_takes = TURNS_AT[length]
    changes: dict[str, Any] = {
        "backswing": full.backswing * back_takes,
        "downswing": full.downswing * down_takes,
    }
    for name in KEYED:
        keys = np.array(getattr(full, name), float)
        back = np.interp(np.arange(TOP + 1) / TOP * top, np.arange(len(EVENTS)), keys)
        down = back[-1] + DOWN_SO_FAR * (keys[SHAFT_DOWN] - back[-1])
        after = IMPACT + np.arange(1, len(EVENTS) - IMPACT) / (len(EVENTS) - 1 - IMPACT) * (finish - IMPACT)
        through = np.interp(after, np.arange(len(EVENTS)), keys)
        changes[name] = tuple(np.concatenate([back, [down], keys[SHAFT_DOWN : IMPACT + 1], through]).tolist())
    return full.but(**changes)
