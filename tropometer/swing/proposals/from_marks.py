"""A body's landmarks out of marks on every frame: so pegs are proposed on a swing without a picture."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.names import Hand

COUNT = 33
FACE = range(11)  # nose, eyes, ears, mouth
# The first of each pair is the left one's; beside it, in order, what else may stand for it.
PAIRS: dict[int, tuple[str, ...]] = {
    11: ("shoulder", "@neck", "hip"),
    13: ("elbow", "wrist", "@grip", "shoulder", "@neck", "hip"),
    15: ("wrist", "@grip", "elbow"),
    17: ("wrist", "@grip", "elbow"),
    19: ("wrist", "@grip", "elbow"),
    21: ("wrist", "@grip", "elbow"),
    23: ("hip",),
    25: ("knee", "ankle"),
    27: ("ankle",),
    29: ("heel", "ankle"),
    31: ("toe", "ankle"),
}
HEAD = ("head", "neck", "sternum", "lead_shoulder", "lead_hip")


def landmarks_from(marks: Mapping[str, Array], frames: int, hand: Hand) -> Array:
    """Landmarks (frames, 33, 3) in the network's order, from marks (frames, 2); NaN where none is seen.

    A part without a mark lies where the nearest part that has one does.
    """
    nowhere = np.full((frames, 2), np.nan)
    left, right = ("lead", "trail") if hand == "right" else ("trail", "lead")
    points = np.full((frames, COUNT, 3), np.nan)

    def first_of(names: tuple[str, ...], side: str = "") -> Array:
        found = nowhere
        for name in names:
            named = name[1:] if name.startswith("@") else f"{side}_{name}" if side else name
            place = marks.get(named, nowhere)
            found = np.where(np.isfinite(found), found, place)
        return found

    for index, names in PAIRS.items():
        for row, side in ((index, left), (index + 1, right)):
            points[:, row, :2] = first_of(names, side)
    points[:, list(FACE), :2] = first_of(HEAD)[:, None]
    seen = np.isfinite(points[..., :2]).all(axis=(1, 2))
    points[~seen] = np.nan
    points[seen, :, 2] = 1.0
    return points
