"""What a mark hangs on: others, known from elsewhere, that say more of where it is than what is usual."""

from __future__ import annotations

BUTT_BEHIND = 0.12  # the butt end lies behind the grip by so much of what the head lies before it


def _hangs_on() -> dict[str, dict[str, float]]:
    """What a mark goes with, each with its share: the middle of others, or a point of their line."""
    found = {
        "seat": {"lead_hip": 0.5, "trail_hip": 0.5},
        "head": {"neck": 1.0},
        "sternum": {"neck": 1.0},
        "grip": {"lead_shoulder": 0.5, "trail_shoulder": 0.5},
        "grip_butt": {"grip": 1 + BUTT_BEHIND, "club_head": -BUTT_BEHIND},  # a shaft is straight
        "club_head": {"grip": 1.0},
        "ball": {"club_head": 1.0},
    }
    of_a_side = {
        "hip_edge": ("{}_hip",),
        "ankle": ("{}_heel", "{}_toe"),
        "foot_outer": ("{}_heel", "{}_toe"),
        "foot_inner": ("{}_heel", "{}_toe"),
        "shoulder": ("neck",),
        "wrist": ("grip",),
        "elbow": ("{}_shoulder", "{}_wrist"),
    }
    for part, parents in of_a_side.items():
        for side in ("lead", "trail"):
            found[f"{side}_{part}"] = {parent.format(side): 1 / len(parents) for parent in parents}
    return found


HANGS_ON = _hangs_on()
