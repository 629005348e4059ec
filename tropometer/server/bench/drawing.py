"""Gauges as they lie on one frame's own picture, and the cut of it about the player."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import asdict
from typing import TYPE_CHECKING, Any

from tropometer.server.clips.camera import motion_of
from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.record.camera_motion import CameraMotion

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip


def gauges_on(
    clip: Clip, frame: int, gauges: Iterable[Gauge], shown: list[str] | None = None
) -> list[dict[str, Any]]:
    """A clip's gauges (all, or those `shown`) with the shapes of one frame, shaped as `Gauge`."""
    motion = motion_of(clip)
    return [
        {
            **gauge,
            "lines": [
                {**line, **{end: _as_seen(motion, frame, line[end]) for end in ("a", "b")}}
                for line in gauge["lines"]
            ],
            "shapes": [
                shape
                | {part: [_as_seen(motion, frame, p) for p in shape[part]] for part in ("points", "target")}
                for shape in gauge["shapes"]
                if shape["frame"] == frame
            ],
        }
        for gauge in map(asdict, gauges)
        if shown is None or gauge["id"] in shown
    ]


def crop_about(clip: Clip, middle_x: float | None) -> dict[str, float]:
    """An upright 3:4 cut about the player, pixels; about the picture's middle where nobody knows better."""
    height = float(clip.height)
    width = min(float(clip.width), height * 0.75)
    middle = clip.width / 2 if middle_x is None else middle_x
    left = min(max(0.0, middle - width / 2), clip.width - width)
    return {"left": round(left, 1), "top": 0.0, "width": round(width, 1), "height": height}


def _as_seen(motion: CameraMotion | None, frame: int, point: dict[str, float]) -> dict[str, float]:
    """A gauge's point as it lies in the frame's own picture, however the camera moved."""
    if motion is None:
        return point
    x, y = motion.moved(frame, point["x"], point["y"])
    return {"x": x, "y": y}
