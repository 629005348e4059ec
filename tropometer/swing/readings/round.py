"""The round: which marks the readings need, from which side and at which checkpoints, group by group.

A mark that two groups need is in both.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tropometer.swing.names import CHECKPOINTS, Checkpoint, View

Group = Literal["pelvis", "knees", "feet", "trunk", "club"]


@dataclass(frozen=True)
class WantedMark:
    """A mark of one view, the group it belongs to, and the checkpoints at which it is wanted."""

    name: str
    view: View
    group: Group
    at: tuple[Checkpoint, ...] = CHECKPOINTS


def _both(part: str, view: View, group: Group) -> tuple[WantedMark, WantedMark]:
    return WantedMark(f"lead_{part}", view, group), WantedMark(f"trail_{part}", view, group)


SET_UP: tuple[Checkpoint, ...] = ("address",)
WANTED: tuple[WantedMark, ...] = (
    WantedMark("trail_foot_outer", "face_on", "pelvis", SET_UP),
    *_both("hip_edge", "face_on", "pelvis"),
    *_both("hip", "face_on", "pelvis"),
    *_both("knee", "face_on", "knees"),
    *_both("ankle", "face_on", "knees"),
    *_both("heel", "face_on", "feet"),
    *_both("toe", "face_on", "feet"),
    *_both("foot_inner", "face_on", "feet"),
    *_both("foot_outer", "face_on", "feet"),
    WantedMark("neck", "face_on", "trunk"),
    WantedMark("sternum", "face_on", "trunk"),
    WantedMark("head", "face_on", "trunk"),
    *_both("shoulder", "face_on", "trunk"),
    WantedMark("grip", "face_on", "club"),
    WantedMark("club_head", "face_on", "club"),
    WantedMark("ball", "face_on", "club", SET_UP),
    WantedMark("seat", "down_the_line", "pelvis"),
    *_both("hip", "down_the_line", "pelvis"),
    *_both("knee", "down_the_line", "knees"),
    *_both("ankle", "down_the_line", "knees"),
    *_both("heel", "down_the_line", "feet"),
    *_both("toe", "down_the_line", "feet"),
    WantedMark("neck", "down_the_line", "trunk"),
    *_both("shoulder", "down_the_line", "trunk"),
    WantedMark("grip", "down_the_line", "club"),
    WantedMark("grip_butt", "down_the_line", "club", ("top",)),
    WantedMark("club_head", "down_the_line", "club"),
)
