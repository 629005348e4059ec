"""A swing record with what a machine saw in the places where nobody has put anything yet.

What is read off it is provisional: nobody has looked at it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace

import numpy as np

from tropometer.swing.names import CHECKPOINTS, Checkpoint
from tropometer.swing.proposals.carried import laid_together
from tropometer.swing.readings.round import wanted_marks
from tropometer.swing.record.calibration import Mat
from tropometer.swing.record.clip import Clip, KnownLength, Mark
from tropometer.swing.record.swing import SwingRecord

Seen = Callable[[str, int], Mark | None]

# How far proposed pegs lie from their moments, one standard deviation, seconds: measured on the made-up
# golfers (`./tropo bench first-look` counts what holds with them).
PEG_SD_S: dict[Checkpoint, float] = {
    "address": 0.045,
    "shaft_back": 0.035,
    "arm_back": 0.05,
    "top": 0.03,
    "arm_down": 0.025,
    "shaft_down": 0.012,
    "impact": 0.012,
    "shaft_through": 0.012,
    "finish": 0.03,
}


@dataclass(frozen=True, kw_only=True)
class SeenClip:
    """What a machine saw in a clip: pegs, the mark of a name on a frame, a mat or a length if it found one.

    `carried` are marks by hand that it carried to other frames, by name and frame.
    """

    pegs: Mapping[Checkpoint, int]
    mark: Seen
    carried: Mapping[str, Mapping[int, Mark]] = field(default_factory=dict)
    mat: Mat | None = None
    length: KnownLength | None = None


def with_proposals(record: SwingRecord, seen: Mapping[str, SeenClip]) -> SwingRecord:
    """The record with proposed pegs, marks and mats where it has none; `seen` is by the clips' ids."""
    clips = (_filled(clip, seen[clip.id]) if clip.id in seen else clip for clip in record.clips)
    return replace(record, clips=tuple(clips))


def _filled(clip: Clip, seen: SeenClip) -> Clip:
    added = _pegs_between(clip.checkpoints, seen.pegs)
    pegs = clip.checkpoints | added
    marks = {name: dict(by_frame) for name, by_frame in clip.marks.items()}
    for name, frames in _wanted(clip, pegs):
        placed = marks.get(name, {})
        machine = best_seen(seen, name, placed)
        hidden = clip.hidden.get(name, frozenset())
        for frame in frames:
            proposed = machine(name, frame) if frame not in placed and frame not in hidden else None
            if proposed is not None:
                marks.setdefault(name, {})[frame] = proposed
    scaled = clip.mat is not None or clip.known_length is not None
    return replace(
        clip,
        checkpoints=pegs,
        peg_sd_s=clip.peg_sd_s | {at: PEG_SD_S[at] for at in added},
        marks=marks,
        mat=clip.mat if scaled else seen.mat,
        known_length=clip.known_length if scaled or seen.mat else seen.length,
    )


def _pegs_between(
    placed: Mapping[Checkpoint, int], proposed: Mapping[Checkpoint, int]
) -> dict[Checkpoint, int]:
    """The proposed pegs that nobody has put and that keep the order of those that somebody has."""

    def in_order(at: Checkpoint, frame: int) -> bool:
        here = CHECKPOINTS.index(at)
        return all(
            (other < frame) if CHECKPOINTS.index(each) < here else (other > frame)
            for each, other in placed.items()
        )

    return {at: frame for at, frame in proposed.items() if at not in placed and in_order(at, frame)}


def _wanted(clip: Clip, pegs: Mapping[Checkpoint, int]) -> Iterator[tuple[str, set[int]]]:
    for wanted in wanted_marks():
        if wanted.view == clip.view:
            yield wanted.name, {pegs[at] for at in wanted.at if at in pegs}


def best_seen(seen: SeenClip, name: str, placed: Mapping[int, Mark]) -> Seen:
    """What a machine sees of a mark once a hand has put it on some frames: corrected, and carried."""
    machine, carried = corrected(seen.mark, name, placed), seen.carried.get(name, {})
    return lambda of, frame: laid_together(machine(of, frame), carried.get(frame))


def corrected(seen: Seen, name: str, placed: Mapping[int, Mark]) -> Seen:
    """What a machine sees of a mark once a hand has put it on some frames: its shared error goes out.

    The shared error's normal posterior, given by how much the hand's marks lie beside the machine's.
    """
    pairs = [
        (mark, machine)
        for frame, mark in placed.items()
        if mark.source == "hand" and (machine := seen(name, frame)) is not None
    ]
    if not pairs or not all(machine.shared_px for _, machine in pairs):
        return seen
    apart = np.array([[mark.x - machine.x, mark.y - machine.y] for mark, machine in pairs])
    told = np.array(
        [1 / (machine.sd_px**2 - machine.shared_px**2 + mark.sd_px**2) for mark, machine in pairs]
    )
    left = 1 / (told.sum() + pairs[0][1].shared_px ** -2)
    dx, dy = (left * told @ apart).tolist()

    def better(of: str, frame: int) -> Mark | None:
        machine = seen(of, frame)
        if machine is None or not machine.shared_px:
            return machine
        own = machine.sd_px**2 - machine.shared_px**2
        return replace(
            machine, x=machine.x + dx, y=machine.y + dy, sd_px=float(np.sqrt(own + left)), shared_px=0.0
        )

    return better
