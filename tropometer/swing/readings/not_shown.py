"""What a side does not show of a player, or shows as an outline that means nothing there."""

from __future__ import annotations

from tropometer.swing.names import View
from tropometer.swing.scene.usual import part_of

NOT_SHOWN: dict[View, frozenset[str]] = {
    "face_on": frozenset(["seat", "grip_butt"]),
    "from_behind": frozenset(["seat", "grip_butt", "sternum", "toe", "foot_inner"]),
    "down_the_line": frozenset(["hip_edge", "foot_inner", "foot_outer", "sternum", "ball"]),
    "up_the_line": frozenset(["hip_edge", "foot_inner", "foot_outer", "sternum", "ball", "grip_butt"]),
}


def not_shown(name: str, view: View) -> bool:
    """Whether a mark is not asked for in a view."""
    return part_of(name) in NOT_SHOWN[view]
