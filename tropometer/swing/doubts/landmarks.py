"""Placed marks against where a machine's landmarks see them."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator

from tropometer.swing.doubts.doubt import Doubt
from tropometer.swing.names import PROPOSED
from tropometer.swing.record.clip import Clip, Mark

Proposed = Callable[[str, int], Mark | None]

LEAST = 3.0  # standard deviations
PROPOSAL_SPREAD = 1.5  # landmarks are looser on people than on those they were measured on; common practice


def away_from_landmarks(clip: Clip, proposed: Proposed) -> Iterator[Doubt]:
    """Doubts of marks that lie elsewhere than `proposed` says; it gives a name's mark on a frame."""
    for name, by_frame in clip.marks.items():
        for frame, mark in by_frame.items():
            seen = proposed(name, frame) if mark.source not in PROPOSED else None
            if seen is None:
                continue
            apart = math.hypot(mark.x - seen.x, mark.y - seen.y)
            sigmas = apart / math.hypot(PROPOSAL_SPREAD * seen.sd_px, mark.sd_px)
            if sigmas >= LEAST:
                yield Doubt(
                    clip=clip.id,
                    name=name,
                    frame=frame,
                    why=f"{apart:.0f} px from where the landmarks see it",
                    sigmas=sigmas,
                )
