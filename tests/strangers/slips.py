"""Slips of the hand in strangers' records: a mark put 40 px of 720 lines away, a pair's sides changed."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace

import numpy as np

from tests.strangers.trials import SetUp, trials
from tropometer.swing.doubts import doubts
from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.readings.round import wanted_marks
from tropometer.swing.record.clip import Clip, Mark
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.usual import part_of

SLIP_PX = 40.0
EACH = 4
APART_PX = 20.0  # changed sides whose points lie nearer are no mistake that shows


@dataclass
class Tried:
    """Whether each mark that slipped was named, each changed pair told, and each clean swing doubted."""

    named: list[tuple[str, bool]] = field(default_factory=list)  # with the part that slipped
    told: list[bool] = field(default_factory=list)
    falsely: list[bool] = field(default_factory=list)

    def add(self, other: Tried) -> None:
        """Take in what was tried elsewhere."""
        self.named += other.named
        self.told += other.told
        self.falsely += other.falsely

    def slip(self, record: SwingRecord, dice: np.random.Generator) -> None:
        """Put a mark of a random checkpoint away in a random direction."""
        clip = record.clips[dice.integers(len(record.clips))]
        # The marks that somebody is asked to set, where they are asked to.
        asked = [(each.name, at) for each in wanted_marks() if each.view == clip.view for at in each.at]
        name, at = asked[dice.integers(len(asked))]
        frame = clip.checkpoints[at]
        mark, way = clip.marks[name][frame], dice.uniform(0, 2 * math.pi)
        far = SLIP_PX * min(clip.width, clip.height) / 720
        away = replace(mark, x=mark.x + far * math.cos(way), y=mark.y + far * math.sin(way))
        found = doubts(_with(record, clip, {name: {**clip.marks[name], frame: away}}))
        hit = any((each.clip, each.name, each.frame) == (clip.id, name, frame) for each in found)
        self.named.append((part_of(name), hit))

    def change(self, record: SwingRecord, dice: np.random.Generator) -> None:
        """Change a random pair's sides on a random checkpoint."""
        clip = record.clips[dice.integers(len(record.clips))]
        parts = [name.removeprefix("lead_") for name in clip.marks if name.startswith("lead_")]
        parts = [part for part in parts if f"trail_{part}" in clip.marks]
        part = parts[dice.integers(len(parts))]
        pair = (f"lead_{part}", f"trail_{part}")
        frame = _checkpoint(clip, dice)
        lead, trail = (clip.marks[name][frame] for name in pair)
        if math.hypot(lead.x - trail.x, lead.y - trail.y) < APART_PX:
            return
        swapped = {
            name: {**clip.marks[name], frame: mark} for name, mark in zip(pair, (trail, lead), strict=True)
        }
        found = doubts(_with(record, clip, swapped))
        self.told.append(
            any(each.clip == clip.id and each.name in pair and each.frame == frame for each in found)
        )


def tried(set_up: SetUp, swings: int, seed: int) -> Tried:
    """Some swings of a set-up: each as it is, and with four slips and four changes, one at a time."""
    dice, found = np.random.default_rng(seed), Tried()
    for trial in trials(set_up, swings, seed=seed):
        found.falsely.append(bool(doubts(trial.record)))
        for _ in range(EACH):
            found.slip(trial.record, dice)
            found.change(trial.record, dice)
    return found


def _checkpoint(clip: Clip, dice: np.random.Generator) -> int:
    return clip.checkpoints[CHECKPOINTS[dice.integers(len(CHECKPOINTS))]]


def _with(record: SwingRecord, clip: Clip, marks: dict[str, dict[int, Mark]]) -> SwingRecord:
    moved = replace(clip, marks={**clip.marks, **marks})
    return replace(record, clips=tuple(moved if each is clip else each for each in record.clips))
