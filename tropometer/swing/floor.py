"""The swing from above: where shoes, ball and hips are on the floor, and where the cameras stand.

T runs toward the target and B toward the ball, metres from the middle between the heels at address.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.scene.eye import FEET
from tropometer.swing.scene.scene import Scene

HIPS = ("lead_hip", "trail_hip")
SURE_M = 0.06  # a place that is less sure than this is not shown


@dataclass(frozen=True)
class FloorMark:
    """A mark seen from above, with its 95 % half-widths."""

    name: str
    at: Checkpoint
    t: float
    b: float
    u95_t: float
    u95_b: float


@dataclass(frozen=True)
class FloorCamera:
    """Where a view's camera stands."""

    view: View
    t: float
    b: float


@dataclass(frozen=True)
class FloorPlan:
    """What is known of a swing from above; `scaled` when its metres are metres."""

    scaled: bool
    marks: tuple[FloorMark, ...]
    cameras: tuple[FloorCamera, ...]


def floor_plan(scene: Scene) -> FloorPlan:
    """Feet and hips at every checkpoint and the ball at address, as far as they are known well enough."""
    marks = []
    for name in (*FEET, *HIPS, "ball"):
        place = scene.place(name)
        columns = np.array([place.t.value, place.b.value, place.t.u95, place.b.u95]).T
        for at, row in zip(CHECKPOINTS, columns.tolist(), strict=True):
            wanted = name != "ball" or at == "address"
            if wanted and np.isfinite(row).all() and max(row[2:]) <= SURE_M:
                marks.append(FloorMark(name, at, *row))
    cameras = []
    for view, eye in scene.eyes.items():
        if eye.scale != "none":
            t, b, _ = (eye.solved.camera.eye - eye.origin).tolist()
            cameras.append(FloorCamera(view, t, b))
    return FloorPlan(bool(cameras), tuple(marks), tuple(cameras))
