"""The round: which marks the readings need, from which side and at which checkpoints, group by group.

What a reading needs is what its formula asks its look for: nothing of it is written down a second time.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Literal

from tropometer.swing.names import CHECKPOINTS, MARKS, PLANE_OF, VIEWS, Checkpoint, View
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.look import Look, Use
from tropometer.swing.readings.not_shown import not_shown
from tropometer.swing.readings.register import kinds_of
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.scene import Scene
from tropometer.swing.scene.usual import part_of

Group = Literal["pelvis", "knees", "feet", "trunk", "club"]
# The group that each part of the body or the club belongs to, in the order in which a hand goes through them.
GROUP_OF: dict[str, Group] = {
    "hip_edge": "pelvis",
    "hip": "pelvis",
    "seat": "pelvis",
    "knee": "knees",
    "ankle": "knees",
    "heel": "feet",
    "toe": "feet",
    "foot_inner": "feet",
    "foot_outer": "feet",
    "neck": "trunk",
    "sternum": "trunk",
    "head": "trunk",
    "shoulder": "trunk",
    "elbow": "club",
    "wrist": "club",
    "grip": "club",
    "grip_butt": "club",
    "club_head": "club",
    "ball": "club",
}


@dataclass(frozen=True, kw_only=True)
class WantedMark:
    """A mark of one view, the group it belongs to, and the checkpoints at which it is wanted."""

    name: str
    view: View
    group: Group
    at: tuple[Checkpoint, ...]


@lru_cache(maxsize=1)
def wanted_marks() -> tuple[WantedMark, ...]:
    """All marks that some reading needs, in the order of a round; what two groups need is in both.

    A mark is in the group of its own part. It is also in that of a reading of another part that needs it
    through the whole swing: who goes through the knees alone still gets their bend, for which hips count.
    """
    moments: dict[tuple[View, Group, str], set[Checkpoint]] = {}
    for kind in kinds_of(FromMarks):
        for view in _asked(kind):
            for name, at in needs_of(kind):
                own = GROUP_OF[part_of(name)]
                for group in {own, _group(kind, own)} if kind.at == CHECKPOINTS else {own}:
                    moments.setdefault((view, group, name), set()).update([at] if at else kind.at)
    return tuple(_in_order(moments))


def _asked(kind: FromMarks) -> set[View]:
    """The views that a reading can be seen from with all its marks."""
    names = [name for name, _ in needs_of(kind)]
    showing = [view for view in VIEWS if not any(not_shown(name, view) for name in names)]
    planes = {PLANE_OF[view] for view in showing}
    asked = {plane for each in kind.seen if planes >= set(each) for plane in each}
    return {view for view in showing if PLANE_OF[view] in asked}


@cache
def needs_of(kind: FromMarks) -> tuple[Use, ...]:
    """The marks that a reading is made of: what its formula asks for, seen in a swing without any."""
    look = Look(_nobody())
    kind.formula(look)
    return tuple(look.used)


@lru_cache(maxsize=1)
def _nobody() -> Scene:
    return Scene.at_checkpoints(SwingRecord(hand="right", clips=()))


def _group(kind: FromMarks, own: Group) -> Group:
    """The group of marks that a reading's group goes with; those of others go with their marks."""
    groups: dict[str, Group] = {each: each for each in GROUP_OF.values()}
    return groups.get(kind.group, own)


def _in_order(moments: dict[tuple[View, Group, str], set[Checkpoint]]) -> Iterator[WantedMark]:
    """View by view and group by group: first what is measured from, then a group's own, then others'."""
    parts = list(GROUP_OF)

    def rank(key: tuple[View, Group, str]) -> tuple[int, int, bool, bool, int, bool]:
        view, group, name = key
        return (
            VIEWS.index(view),
            parts.index(next(part for part, of in GROUP_OF.items() if of == group)),
            moments[key] != {"address"},
            GROUP_OF[part_of(name)] != group,
            parts.index(part_of(name)),
            name.startswith("trail_"),
        )

    for view, group, name in sorted(moments, key=rank):
        at = moments[view, group, name]
        yield WantedMark(
            name=name, view=view, group=group, at=tuple(each for each in CHECKPOINTS if each in at)
        )


assert {part_of(name) for name in MARKS} == set(GROUP_OF)
