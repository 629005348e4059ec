"""Whether a clip's camera stood still, and how it moved where it did not."""

from typing import Any

import numpy as np

from tropometer.server.clips.models import Clip
from tropometer.swing.record.camera_motion import CameraMotion

STILL_PX = 0.4  # at a shorter side of 720: what moves less is taken for standing still
LEAST_KNOWN_SHARE = 0.8  # of the frames; with fewer the motion says nothing


def stood_of(clip: Clip, motion: np.ndarray[Any, Any] | None) -> tuple[dict[str, Any], bytes]:
    """Whether the camera stood still, and its motion where it did not."""
    if motion is None or np.isfinite(motion[:, 0]).mean() < LEAST_KNOWN_SHARE:
        return {"how": "unseen", "most_px": 0.0}, b""
    most = CameraMotion(motion).most_px(clip.width, clip.height)
    if most < STILL_PX * min(clip.width, clip.height) / 720:
        return {"how": "still", "most_px": round(most, 2)}, b""
    return {"how": "moved", "most_px": round(most, 2)}, motion.tobytes()


def motion_rows(clip: Clip) -> list[list[float]] | None:
    """Each frame's homography from the still picture but its last 1, short; None where it stood."""
    motion = motion_of(clip)
    if motion is None:
        return None
    return [[float(f"{each:.7g}") for each in row] for row in motion.known_rows[:, :8].tolist()]


def motion_of(clip: Clip) -> CameraMotion | None:
    """How the clip's camera moved; None where it stood still, or nobody could see."""
    stored = getattr(clip, "proposals", None)
    if stored is None or not stored.camera_motion:
        return None
    moves = np.frombuffer(bytes(stored.camera_motion), np.float64).reshape(-1, 9)
    return CameraMotion(moves) if len(moves) == clip.frame_count else None
