"""Yet another kind of people and phones, by which no belief about a reading was set.

They move more and about other means than the strangers, are built otherwise, and are filmed otherwise; what
is measured on them tells how far the strangers' numbers carry. All of it is made up: no source.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from unittest.mock import patch

from tests.strangers import body, filming, swing

MOVES, VARIES = 1.25, 1.3  # of the strangers' keyed ways, and of how they differ
CLUMSIER = 1.4  # an eye that misses all but hips by so much more
SHARES = {
    "thigh": 0.238, "shank": 0.252, "trunk": 0.310, "shoulders": 0.205, "pelvis_breadth": 0.212,
    "pelvis_depth": 0.160, "foot": 0.146, "head": 0.108, "chest": 0.075,
}  # fmt: skip
STATURES_M = ((1.69, 0.085), (1.56, 0.075))
DIFFER = 0.06
LENS = (0.70, 0.10, 0.5, 1.1)
INCLINE = {"wedge": (43.0, 6.0), "mid_iron": (39.0, 6.0), "driver": (33.0, 6.0)}
STANCE = {"wedge": (0.8, 0.2), "mid_iron": (1.25, 0.25), "driver": (1.55, 0.25)}
HEEL_LIFTERS = 0.6


@contextmanager
def third_kind() -> Iterator[None]:
    """Within it, golfers that are drawn are of this kind."""
    keys = {
        name: (tuple(MOVES * each for each in mean), tuple(VARIES * each for each in spread))
        for name, (mean, spread) in swing.KEYS.items()
    }
    for peg in ("arm", "shaft"):  # the checkpoints are where they are
        keys[peg] = swing.KEYS[peg]
    eyes = {
        part: (least, most) if part == "hip" else (CLUMSIER * least, CLUMSIER * most)
        for part, (least, most) in filming.MISJUDGED_M.items()
    }
    changes = [
        patch.dict(swing.KEYS, keys),
        patch.dict(swing.CLUB_INCLINE, INCLINE),
        patch.dict(swing.CLUB_STANCE, STANCE),
        patch.object(swing, "HEEL_LIFTERS", HEEL_LIFTERS),
        patch.dict(body.SHARES, SHARES),
        patch.object(body, "STATURES_M", STATURES_M),
        patch.object(body, "DIFFER", DIFFER),
        patch.object(filming, "LENS", LENS),
        patch.dict(filming.MISJUDGED_M, eyes),
    ]
    with ExitStack() as stack:
        for change in changes:
            stack.enter_context(change)
        yield
