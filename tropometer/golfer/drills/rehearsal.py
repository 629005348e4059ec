"""A drill in motion: stages of a swing, gone through slowly; the hands are where the drill has them."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

import numpy as np

from tropometer.golfer import arms
from tropometer.golfer.arms import Arm, ClubPose
from tropometer.golfer.body import Body
from tropometer.golfer.drills.holds import Hold, club_at, hands
from tropometer.golfer.feet import SIDES
from tropometer.golfer.motion import Motion, Poses, Values
from tropometer.golfer.rotations import Floats, turned, unit
from tropometer.golfer.settings import EVENTS, KEYED, SINGLE, Event, SwingSettings

FPS = 20
LONGEST_S = 4.0  # a loop that would be longer is played faster


class Rehearsal(Motion):
    """A swing without a swung club: the hands stay where they are held on the body."""

    def __init__(self, body: Body, settings: SwingSettings, hold: Hold | None) -> None:
        super().__init__(body, settings)
        self.hold = hold

    def _arms(
        self, v: Values, bones: dict[str, Floats], starts: dict[str, Floats]
    ) -> tuple[ClubPose, dict[str, Arm]]:
        if self.hold is None:
            return super()._arms(v, bones, starts)
        found: dict[str, Arm] = {}
        placed = hands(self.hold, self.body)
        for side, name, _ in SIDES:
            held = placed[side]
            turn = bones[held.bone]

            def way(vector: Floats, turn: Floats = turn) -> Floats:
                return turned(turn, unit(vector))

            wrist = starts[held.bone] + turned(turn, held.wrist - self.body.head[held.bone])
            shoulder = arms.reaching_shoulder(
                self.body, side, bones["spine_03"], starts[f"clavicle_{side}"], wrist
            )
            hand = arms.Hand(way(held.fingers), way(held.palm), held.curl)
            found[name] = arms.bend(self.body, side, shoulder, wrist, hand, way(held.pole))
        return self._held_club(bones, starts), found

    def _held_club(self, bones: dict[str, Floats], starts: dict[str, Floats]) -> ClubPose:
        assert self.hold is not None
        at = club_at(self.hold, self.body, self.club_length_m)
        chest = bones["spine_03"]
        if at is None:  # nobody holds it; it is not drawn
            down, ahead = np.array([0.0, -1, 0]), np.array([0.0, 0, 1])
            shaft, face = turned(chest, down), turned(chest, ahead)
            return ClubPose(starts["spine_03"], shaft, face, np.cross(face, shaft), self.club_length_m)
        turn = bones[at.bone]
        butt = starts[at.bone] + turned(turn, at.butt - self.body.head[at.bone])
        shaft, face = turned(turn, at.shaft), turned(turn, np.array([0.0, 0, 1]))
        grip = butt + shaft * arms.GRIP_FROM_BUTT_M
        return ClubPose(grip, shaft, face, np.cross(face, shaft), self.club_length_m)


@dataclass(frozen=True)
class Stage:
    """Where a drill has come to: an event of one swing or another, or a share of the way to the next."""

    at: float  # event number; 2.5 is half way between the third and the fourth
    settings: SwingSettings
    way_s: float = 0.0  # how long the way to it takes
    hold_s: float = 0.0  # how long it is held


def stage(at: Event, settings: SwingSettings, way_s: float = 0.0, hold_s: float = 0.0) -> Stage:
    """A stage at one of a swing's events."""
    return Stage(float(EVENTS.index(at)), settings, way_s, hold_s)


def moments(stages: tuple[Stage, ...]) -> list[tuple[float, SwingSettings]]:
    """The event number and the settings at each picture of a loop."""
    found: list[tuple[float, SwingSettings]] = []
    before = stages[0]
    per_s = FPS * min(1.0, LONGEST_S / sum(each.way_s + each.hold_s for each in stages))
    for each in stages:
        steps = round(each.way_s * per_s)
        for i in range(steps):
            share = _eased((i + 1) / steps)
            found.append(
                (before.at + share * (each.at - before.at), _mixed(before.settings, each.settings, share))
            )
        found += [(each.at, each.settings)] * max(round(each.hold_s * per_s), 0 if steps else 1)
        before = each
    return found


def pose(body: Body, settings: SwingSettings, hold: Hold | None, at: float) -> tuple[Rehearsal, Poses]:
    """The golfer at an event number."""
    motion = _rehearsal(body, settings, hold)
    time = np.interp(at, np.arange(len(EVENTS)), motion.event_times_s)
    return motion, motion.poses(np.array([time]))


def _rehearsal(body: Body, settings: SwingSettings, hold: Hold | None) -> Rehearsal:
    return _of(_ById(body), settings, hold)


class _ById:
    """A body as a key: it holds arrays, which do not compare."""

    def __init__(self, body: Body) -> None:
        self.body = body

    def __hash__(self) -> int:
        return id(self.body)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _ById) and other.body is self.body


@lru_cache(maxsize=4)
def _of(body: _ById, settings: SwingSettings, hold: Hold | None) -> Rehearsal:
    return Rehearsal(body.body, settings, hold)


def _eased(share: float) -> float:
    return share * share * (3 - 2 * share)


def _mixed(start: SwingSettings, end: SwingSettings, share: float) -> SwingSettings:
    """A swing a share of the way from one to another of the same club."""
    if start == end or share >= 1:
        return end
    changed: dict[str, Any] = {}
    for name in (*SINGLE, *KEYED):
        a, b = np.array(getattr(start, name)), np.array(getattr(end, name))
        if (a != b).any():
            mixed = a + share * (b - a)
            changed[name] = tuple(map(float, mixed)) if name in KEYED else float(mixed)
    return replace(start, **changed)
