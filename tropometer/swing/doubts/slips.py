"""Which clicks of a swing's checkpoints slipped, and which sides were changed for each other: worst first.

What makes all others likeliest is named and taken out, or put right, before the next is looked for: a slip
makes its neighbours look wrong too.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

import numpy as np

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.doubts.doubt import Doubt
from tropometer.swing.doubts.expected import Click
from tropometer.swing.doubts.whole_swing import whole_swing
from tropometer.swing.names import View, spoken
from tropometer.swing.scene.placed import Placed
from tropometer.swing.scene.usual import part_of

SLIPPED = 18.0  # gains from which a click is doubted: of 450 clean ones about one in a swing of forty
# Who moves unlike anybody is doubted from more on: a tenth of the clicks gains so much in a usual swing.
TENTH, FROM_CLICKS = 2.9, 50
CHANGED = 9.0
SHARE = 0.3  # of what leaving one of its clicks out would gain, a change gains at least
MOST = 40  # doubts of one swing; where there are more, something else than marks is wrong


class _Change(NamedTuple):
    """Sides that may be changed for each other: of some parts, on some checkpoints of a view."""

    pairs: tuple[tuple[int, int], ...]  # clicks of the lead and of the trail side
    rows: Frames
    moved: Array


def slips(placed: Placed) -> Iterator[Doubt]:
    """The doubts of a swing's checkpoints."""
    swing = whole_swing(placed)
    if swing is None:
        return
    changes = list(_changes(placed, swing.clicks))
    for _ in range(MOST):
        by, gains = swing.slips()
        worst = int(np.argmax(gains))
        gained = [swing.gain(change.rows, change.moved) for change in changes]
        best = int(np.argmax(gained)) if gained else -1
        if gained and gained[best] > max(CHANGED, SHARE * gains[changes[best].rows // 2].max()):
            change = changes.pop(best)
            swing.move(change.rows, change.moved)
            told = set(change.rows.tolist())
            changes = [each for each in changes if not told & set(each.rows.tolist())]
            yield from _changed(placed, swing.clicks, change, gained[best])
        elif gains[worst] > SLIPPED * _unlike_others(gains):
            yield _slipped(placed, swing.clicks[worst], by[worst], gains[worst])
            swing.leave_out(worst)
            rows = {2 * worst, 2 * worst + 1}
            changes = [each for each in changes if not rows & set(each.rows.tolist())]
        else:
            return


def _unlike_others(gains: Array) -> float:
    """How much worse than usual all clicks of a swing fit together; 1 where they fit as usual, or better."""
    return max(1.0, float(np.quantile(gains, 0.9)) / TENTH) if len(gains) >= FROM_CLICKS else 1.0


def _changes(placed: Placed, clicks: Sequence[Click]) -> Iterator[_Change]:
    """A pair on a checkpoint, all pairs of a checkpoint, a pair on all checkpoints, all pairs on all."""
    number = {click: i for i, click in enumerate(clicks)}
    pairs: dict[tuple[View, str, int], tuple[int, int]] = {}
    for click, lead in number.items():
        name = placed.names[click.row]
        other = f"trail_{part_of(name)}"
        if not name.startswith("lead_") or other not in placed.names:
            continue
        trail = number.get(click._replace(row=placed.names.index(other)))
        if trail is not None:
            pairs[click.view, part_of(name), click.column] = (lead, trail)
    together: dict[tuple[View, str | None, int | None], list[tuple[int, int]]] = {}
    for (view, part, column), pair in pairs.items():
        for key in ((view, part, column), (view, part, None), (view, None, column), (view, None, None)):
            together.setdefault(key, []).append(pair)
    for same in {tuple(each): None for each in together.values()}:
        yield _change(placed, clicks, same)


def _change(placed: Placed, clicks: Sequence[Click], pairs: tuple[tuple[int, int], ...]) -> _Change:
    rows, moved = [], []
    for lead, trail in pairs:
        a, b = (placed.clicked(clicks[i].view)[:2, clicks[i].row, clicks[i].column] for i in (lead, trail))
        rows += [2 * lead, 2 * lead + 1, 2 * trail, 2 * trail + 1]
        moved += [*(b - a), *(a - b)]
    return _Change(pairs, np.array(rows), np.array(moved))


def _changed(placed: Placed, clicks: Sequence[Click], change: _Change, gain: float) -> Iterator[Doubt]:
    for lead, _ in change.pairs:
        view, row, column = clicks[lead]
        clip = placed.clips[view]
        why = (
            f"lead and trail {spoken(part_of(placed.names[row]))} lie as if they were changed for each other"
        )
        yield Doubt(
            clip=clip.id,
            name=placed.names[row],
            frame=placed.frame(view, column),
            why=why,
            sigmas=math.sqrt(gain),
        )


def _slipped(placed: Placed, click: Click, by: Array, gain: float) -> Doubt:
    clip, eye = placed.clips[click.view], placed.eyes[click.view]
    right = -by[0] if eye.mirrored else by[0]
    across, along = ("left", "right"), ("high", "low")
    way = across[int(right > 0)] if abs(right) > abs(by[1]) else along[int(by[1] > 0)]
    far = float(np.hypot(*by))
    why = f"{far:.0f} px too far {way}" if way in across else f"{far:.0f} px too {way}"
    name = placed.names[click.row]
    return Doubt(
        clip=clip.id,
        name=name,
        frame=placed.frame(click.view, click.column),
        why=f"{why} for all other marks",
        sigmas=math.sqrt(gain),
    )
