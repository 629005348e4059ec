"""Marks that disagree with something else: what to look at again, the worst first."""

from __future__ import annotations

from collections.abc import Mapping

from tropometer.swing.doubts.doubt import Doubt
from tropometer.swing.doubts.jumps import jumps
from tropometer.swing.doubts.landmarks import Proposed, away_from_landmarks
from tropometer.swing.doubts.slips import slips
from tropometer.swing.readings.two_swings import one_by_one
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.placed import Placed

TOGETHER_S = 0.15

__all__ = ["Doubt", "doubts"]


def doubts(record: SwingRecord, proposed: Mapping[str, Proposed] | None = None) -> list[Doubt]:
    """Every doubted mark once, by its worst disagreement; `proposed` gives a clip's landmarks' own marks."""
    found: list[Doubt] = []
    for swing in one_by_one(record):
        found += slips(Placed(swing))
    for clip in record.clips:
        found += jumps(clip)
        if proposed and clip.id in proposed:
            found += away_from_landmarks(clip, proposed[clip.id])
    worst: dict[tuple[str, str, int], Doubt] = {}
    for doubt in found:
        key = doubt.clip, doubt.name, doubt.frame
        if key not in worst or worst[key].sigmas < doubt.sigmas:
            worst[key] = doubt
    return _apart(sorted(worst.values(), key=lambda doubt: -doubt.sigmas), record)


def _apart(falling: list[Doubt], record: SwingRecord) -> list[Doubt]:
    """Of a followed mark's doubts so near to each other that they are one, the worst alone."""
    clips = {clip.id: clip for clip in record.clips}
    kept: list[Doubt] = []
    for doubt in falling:
        clip = clips[doubt.clip]
        times = clip.frame_times_s
        near = any(
            (other.clip, other.name) == (doubt.clip, doubt.name)
            and abs(times[other.frame] - times[doubt.frame]) <= TOGETHER_S
            for other in kept
        )
        if not near or clip.marks[doubt.name][doubt.frame].source != "tracked":
            kept.append(doubt)
    return kept
