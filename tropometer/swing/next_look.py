"""What to look at next: the frame or the mark that settles most of what is worth knowing.

A reading is settled when its whole interval lies on one side of each end of its band, and somebody has
looked at all marks that it hangs on. What a click is worth is the expected value of sample information
(Raiffa and Schlaifer 1961, Applied Statistical Decision Theory; from memory): by how much it lowers the
chance that the likelier verdict is wrong, summed over the readings.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import cast

import numpy as np
from scipy.stats import norm

from tropometer.swing.arrays import Array
from tropometer.swing.error.source import HERE, Source, variances
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.proposals.carried import SPREADS, Carried, carried_mark, laid_together
from tropometer.swing.read import Key, OneSwing, SwingRead
from tropometer.swing.readings.reading import Need
from tropometer.swing.record.clip import Clip, Mark
from tropometer.swing.scene.usual import part_of

Ends = tuple[float | None, float | None]  # of a band
Placed = tuple[View, str, Checkpoint]

# Nodes of Gauss and Hermite: where a reading may come to lie once a click has narrowed it.
NODES, WEIGHTS = np.polynomial.hermite_e.hermegauss(9)
WEIGHTS = WEIGHTS / WEIGHTS.sum()
LEAST_WORTH = 1e-3
PEG = "peg"  # in the place of a mark's name


@dataclass(frozen=True, kw_only=True)
class NextLook:
    """A checkpoint to look at ("look"), a mark to place or a peg to check by hand, and what it is worth.

    A look without a view is at all views that have something to look at there: they are seen side by side.

    `worth` counts readings that it may be expected to settle; `narrows` names those it tells most of.
    """

    need: Need
    worth: float
    narrows: tuple[str, ...]


@dataclass(frozen=True, kw_only=True, eq=False)
class _Asked:
    """A reading with a band: its value, one standard deviation, and what each mark adds to its variance."""

    key: Key
    ends: Ends
    value: float
    sd: float
    of_marks: Mapping[Placed, float]
    unseen: frozenset[Placed]


def next_looks(
    found: SwingRead, bands: Mapping[Key, Ends], hand_px: Mapping[View, float], most: int = 3
) -> list[NextLook]:
    """The looks that are worth most, the best first, in a swing whose marks a machine proposed.

    `hand_px` is one standard deviation of a click in each view, pixels.
    """
    asked = [each for swing in found.swings for each in _asked(swing, found, bands)]
    looks = [*_frames(asked), *_clicks(asked, found, hand_px)]
    return sorted((each for each in looks if each.worth > LEAST_WORTH), key=lambda each: -each.worth)[:most]


def _asked(swing: OneSwing, found: SwingRead, bands: Mapping[Key, Ends]) -> list[_Asked]:
    keys = [
        (each.reading, each.at)
        for each in swing.readings
        if each.status == "ok" and (each.reading, each.at) in bands and found.given(each.reading, each.at)
    ]
    measured = [(key, value) for key in keys if (value := swing.measured(key)) is not None]
    told = variances([value.slopes for _, value in measured], len(CHECKPOINTS))
    unseen = swing.scene.unseen()
    rows = [*told.origins.firsts, len(told.squares)]
    asked = []
    for i, (key, _) in enumerate(measured):
        at = cast(Checkpoint, key[1])
        column = CHECKPOINTS.index(at)
        reading = found.given(*key)
        if reading is None or reading.value is None or not reading.u95:
            continue
        of_marks: dict[Placed, float] = {}
        for row, source in enumerate(told.origins.sources[i], rows[i]):
            placed = _clicked(source, at)
            if placed:
                of_marks[placed] = of_marks.get(placed, 0.0) + float(told.squares[row, column])
        frames = {placed: (placed[1], swing.scene.frame(placed[0], placed[2])) for placed in of_marks}
        hidden = frozenset(
            placed for placed, mark in frames.items() if mark in unseen.get(placed[0], frozenset())
        )
        asked.append(
            _Asked(
                key=key,
                ends=bands[key],
                value=reading.value,
                sd=reading.u95 / NORMAL_95,
                of_marks=of_marks,
                unseen=hidden,
            )
        )
    return asked


def _clicked(source: Source, at: Checkpoint) -> Placed | None:
    """What a hand does about a source: puts a mark, or a peg on its very frame."""
    if source.kind not in ("mark", "moment") or source.view is None or source.at is None:
        return None
    name = PEG if source.kind == "moment" else source.of
    return source.view, name, at if source.at == HERE else source.at


def _frames(asked: list[_Asked]) -> list[NextLook]:
    """Looking at all marks of a checkpoint: worth the verdicts that hang on nothing else unseen."""
    worth: dict[Checkpoint, float] = {}
    names: dict[Checkpoint, list[str]] = {}
    views: dict[Checkpoint, set[View]] = {}
    for each in asked:
        moments = {at for _, _, at in each.unseen}
        for view, _, at in each.unseen:
            views.setdefault(at, set()).add(view)
        for at in moments:
            sure = float(_sure(each, np.array([each.value]), each.sd)[0])
            worth[at] = worth.get(at, 0.0) + sure / len(moments)
            names.setdefault(at, []).append(each.key[0])
    return [
        NextLook(
            need=Need("look", at, at, next(iter(views[at])) if len(views[at]) == 1 else None),
            worth=value,
            narrows=tuple(dict.fromkeys(names[at])),
        )
        for at, value in worth.items()
    ]


def _clicks(asked: list[_Asked], found: SwingRead, hand_px: Mapping[View, float]) -> list[NextLook]:
    """Placing one mark by hand: worth what it is expected to make surer, here and where it is carried to."""
    worth: dict[Placed, list[tuple[float, str]]] = {}
    clips = {clip.view: clip for swing in found.swings for clip in swing.scene.clips.values()}
    of_clips = {view: _reductions(clip, hand_px[view]) for view, clip in clips.items()}
    for each in asked:
        sure = float(_sure(each, np.array([each.value]), each.sd)[0])
        goes: dict[Placed, float] = {}
        for (view, name, at), square in each.of_marks.items():
            for clicked, share in of_clips[view].get((name, at), {}).items():
                goes[view, name, clicked] = goes.get((view, name, clicked), 0.0) + square * share
        # One click alone may settle nothing that a few together do: each is worth its share of the best few.
        ordered = sorted(goes, key=lambda placed: -goes[placed])
        together = np.cumsum([goes[placed] for placed in ordered])
        shares = [(_surer(each, square) - sure) / (i + 1) for i, square in enumerate(together.tolist())]
        for i, placed in enumerate(ordered):
            worth.setdefault(placed, []).append((max(shares[i:]), each.key[0]))
    return [
        NextLook(
            need=Need("check" if name == PEG else "mark", at if name == PEG else name, at, view),
            worth=sum(each for each, _ in gains),
            narrows=tuple(dict.fromkeys(name for _, name in sorted(gains, reverse=True))),
        )
        for (view, name, at), gains in worth.items()
    ]


def _surer(each: _Asked, square: float) -> float:
    """How sure the likeliest verdict may be expected to be once so much of the variance is gone."""
    after = np.sqrt(max(each.sd**2 - square, 1e-12))
    values = each.value + NODES * np.sqrt(min(square, each.sd**2))
    return float(WEIGHTS @ _sure(each, values, after))


def _reductions(clip: Clip, hand_px: float) -> dict[tuple[str, Checkpoint], dict[Checkpoint, float]]:
    """By mark and checkpoint: by which share of its variance a click on it at each checkpoint lowers that.

    A peg on its very frame is such a click too: it leaves the time between two frames.
    """
    found: dict[tuple[str, Checkpoint], dict[Checkpoint, float]] = {}
    steps = np.diff(clip.frame_times_s)
    between_s = float(np.median(steps)) / math.sqrt(12) if len(steps) else 0.0
    for at, sd_s in clip.peg_sd_s.items():
        found[PEG, at] = {at: sd_s**2 / (sd_s**2 + between_s**2)}
    unit_px = min(clip.width, clip.height) / 720
    for name, by_frame in clip.marks.items():
        marks = {at: by_frame[frame] for at, frame in clip.checkpoints.items() if frame in by_frame}
        for at, mark in marks.items():
            for clicked, now in marks.items():
                if now.source == "hand" or (clicked != at and mark.source != "proposed"):
                    continue  # it was clicked already; what was taken stands
                left_px = hand_px if clicked == at else _left_px(name, mark, now, hand_px, unit_px)
                if left_px < mark.sd_px:
                    found.setdefault((name, at), {})[clicked] = 1 - (left_px / mark.sd_px) ** 2
    return found


def _left_px(name: str, mark: Mark, clicked: Mark, hand_px: float, unit_px: float) -> float:
    """How unsure a proposal may be expected to be once the same mark was put by hand on another frame."""
    own = mark.sd_px**2 - mark.shared_px**2
    shared = 1 / (1 / (own + hand_px**2) + mark.shared_px**-2) if mark.shared_px else 0.0
    left = math.sqrt(own + shared)
    if part_of(name) not in SPREADS:
        return left
    way = math.hypot(mark.x - clicked.x, mark.y - clicked.y)
    carried = carried_mark(name, hand_px, Carried(x=mark.x, y=mark.y, way_px=way, back_px=0.0), unit_px)
    together = laid_together(replace(mark, sd_px=left, shared_px=0.0), carried)
    return together.sd_px if together else left


def _sure(each: _Asked, values: Array, sd: float) -> Array:
    """The chance of the likeliest verdict (n,): below, inside or above the band."""
    low, high = each.ends
    below = norm.cdf((low - values) / sd) if low is not None else np.zeros(len(values))
    above = norm.cdf((values - high) / sd) if high is not None else np.zeros(len(values))
    return np.asarray(np.max([below, above, 1 - below - above], axis=0))
