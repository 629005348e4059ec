"""Two views that are two swings: each view's own readings stand, what needs both at one moment is refused.

A student with one phone films face-on, walks round, and films another swing down the line.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import combinations

from tropometer.swing.names import CHECKPOINTS, PLANE_OF, VIEWS, Checkpoint, View, spoken
from tropometer.swing.readings.reading import Reading
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.swing import SwingRecord

REFUSAL = "This needs both views of one swing; these are two swings."
PEGGED_SD_FRAMES = (
    0.5  # how far a hand's peg is from the frame that it means, besides what lies within a frame
)
HELD: tuple[Checkpoint, ...] = ("address", "finish")  # stood still at: any frame of it may be pegged
SAME_WITHIN = 3.5  # standard deviations


def one_by_one(record: SwingRecord) -> tuple[SwingRecord, ...]:
    """The record of each swing that a record holds: itself, unless its views are two swings.

    Where nobody has said, they are two when their pegs lie too differently for one.
    """
    views = dict.fromkeys(clip.view for clip in record.clips)
    one = unlike(record) is None if record.one_swing is None else record.one_swing
    if one or len(views) < 2:
        return (record,)
    return tuple(
        replace(record, one_swing=True, clips=tuple(clip for clip in record.clips if clip.view == view))
        for view in views
    )


def merged(found: Sequence[list[Reading]], record: SwingRecord) -> list[Reading]:
    """One list of readings of a record's swings: of each reading the surest that is given."""
    if len(found) == 1:
        return found[0]
    by_key: dict[tuple[str, str], list[Reading]] = {}
    for each in (each for readings in found for each in readings):
        by_key.setdefault((each.reading, each.at), []).append(each)
    return [_best(each, record) for each in by_key.values()]


def _best(found: list[Reading], record: SwingRecord) -> Reading:
    given = [each for each in found if each.status == "ok"]
    if given:
        return min(given, key=lambda each: math.inf if each.u95 is None else each.u95)
    filmed = {PLANE_OF[clip.view] for clip in record.clips}

    def lacks_a_view(each: Reading) -> bool:
        return any(need.view and need.kind == "view" and PLANE_OF[need.view] in filmed for need in each.needs)

    # What only lacks a mark or a peg can be helped; what lacks the other view of the same swing cannot.
    helped = [each for each in found if not lacks_a_view(each)]
    if helped:
        return min(helped, key=lambda each: len(each.needs))
    span = None if record.one_swing is False else unlike(record)
    return replace(found[0], reason=REFUSAL if span is None else _told(span), needs=())


@dataclass(frozen=True, kw_only=True)
class Span:
    """How long it takes between two pegs in either of two clips, seconds, and how far apart that is."""

    first: Checkpoint
    last: Checkpoint
    a_view: View
    b_view: View
    a_s: float
    b_s: float
    sigmas: float


def _told(span: Span) -> str:
    stretch = f"from {spoken(span.first)} to {spoken(span.last)}"
    return (
        f"This needs both views of one swing; {stretch} took {span.a_s:.2f} s in one and {span.b_s:.2f} s "
        "in the other."
    )


def unlike(record: SwingRecord) -> Span | None:
    """What speaks most against a record's views being one swing; None where nothing does."""
    first = {clip.view: clip for clip in reversed(record.clips)}
    pairs = combinations(sorted(first, key=VIEWS.index), 2)
    spans = [span for a, b in pairs if (span := most_unlike(first[a], first[b])) is not None]
    worst = max(spans, key=lambda span: span.sigmas, default=None)
    return worst if worst and worst.sigmas > SAME_WITHIN else None


def most_unlike(a: Clip, b: Clip) -> Span | None:
    """The stretch between neighbouring pegs that differs most between two clips of what may be one swing.

    None where they share less than two pegs. One swing takes as long in either view, but for the frames.
    """
    shared = [at for at in CHECKPOINTS if at in a.checkpoints and at in b.checkpoints and at not in HELD]
    spans = []
    for i, first in enumerate(shared):
        for last in shared[i + 1 :]:
            a_s, b_s = (_took(clip, first, last) for clip in (a, b))
            sd = math.hypot(*(_unsure_s(clip, at) for clip in (a, b) for at in (first, last)))
            spans.append(
                Span(
                    first=first,
                    last=last,
                    a_view=a.view,
                    b_view=b.view,
                    a_s=a_s,
                    b_s=b_s,
                    sigmas=abs(a_s - b_s) / sd,
                )
            )
    return max(spans, key=lambda span: span.sigmas, default=None)


def _took(clip: Clip, first: Checkpoint, last: Checkpoint) -> float:
    return clip.frame_times_s[clip.checkpoints[last]] - clip.frame_times_s[clip.checkpoints[first]]


def _step_s(clip: Clip) -> float:
    times = clip.frame_times_s
    return (times[-1] - times[0]) / max(1, len(times) - 1)


def _unsure_s(clip: Clip, at: Checkpoint) -> float:
    """One standard deviation of how far a peg's frame is from the moment that it means, seconds."""
    by_hand = _step_s(clip) * math.hypot(1 / math.sqrt(12), PEGGED_SD_FRAMES)
    return math.hypot(by_hand, clip.peg_sd_s.get(at, 0.0))
