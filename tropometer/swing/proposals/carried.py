"""A mark by hand carried by the flow of the picture to the pegs about it, and laid together with a proposal.

What is carried is the cloth or leather that was clicked: as long as a foot stands it is the mark, and the
farther it goes the more the mark slips over it. How much was measured on the made-up golfers, whose truth
knows nothing of optical flow, but on the very clips that these spreads were chosen on (docs/method).
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from tropometer.swing.record.clip import Mark
from tropometer.swing.scene.usual import part_of

# By part of the body: one standard deviation where nothing moves, pixels at a shorter side of 720, and how
# much of the farthest that the mark goes on its way comes to that.
SPREADS: dict[str, tuple[float, float]] = {
    "toe": (1.5, 0.45),
    "foot_outer": (2.0, 0.5),
    "foot_inner": (1.5, 0.7),
    "ankle": (1.5, 0.5),
    "heel": (7.0, 0.8),
    "knee": (1.8, 0.5),
}
BACK_PX = 2.0  # at 720: what does not find back to where it began went astray
APART = 3.0  # standard deviations between the two, along either axis: one of them is wrong


@dataclass(frozen=True, kw_only=True)
class Carried:
    """Where a mark came to be: pixels; how far from its start it went, and missed that on the way back."""

    x: float
    y: float
    way_px: float
    back_px: float


def nearest_frame(frames: Iterable[int], frame: int) -> int:
    """The frame of several from which a mark is carried to one: the nearest, the earlier of two."""
    return min(frames, key=lambda each: (abs(each - frame), each))


def carried_mark(name: str, sd_px: float, carried: Carried, unit_px: float) -> Mark | None:
    """The mark that was carried, from one with `sd_px`; None where it did not find back.

    `unit_px` is the picture's shorter side over 720.
    """
    still, slips = SPREADS[part_of(name)]
    if not carried.back_px <= BACK_PX * unit_px:
        return None
    own = math.hypot(still * unit_px, slips * carried.way_px, sd_px)
    return Mark(carried.x, carried.y, own, "proposed")


def laid_together(seen: Mark | None, carried: Mark | None) -> Mark | None:
    """One mark of what a network sees and of what was carried, each with the weight of its variance.

    Where they lie too far apart for their errors the network's stands alone: it saw the frame itself.
    """
    if carried is None or seen is None:
        return seen or carried
    apart = max(abs(seen.x - carried.x), abs(seen.y - carried.y))
    if apart > APART * math.hypot(seen.sd_px, carried.sd_px):
        return seen
    a, b = seen.sd_px**-2, carried.sd_px**-2
    x, y = ((a * u + b * v) / (a + b) for u, v in ((seen.x, carried.x), (seen.y, carried.y)))
    shared = seen.shared_px * a / (a + b)
    return Mark(x, y, (a + b) ** -0.5, "proposed", shared)
