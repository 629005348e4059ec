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
# A place that is less sure than this is not shown. Where the ball lies hangs on whether it is on a tee.
SURE_M = 0.09
SURE_OF_BALL_M = 0.15


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
    """What is known of a swing from above; nothing when nobody said how long anything is."""

    marks: tuple[FloorMark, ...]
    cameras: tuple[FloorCamera, ...]


def floor_plan(scene: Scene) -> FloorPlan:
    """Feet and hips at every checkpoint and the ball at address, as far as they are known well enough."""
    scaled = {view: eye for view, eye in scene.eyes.items() if eye.scale != "none"}
    if not scaled:
        return FloorPlan((), ())
    marks = []
    for name in (*FEET, *HIPS, "ball"):
        place = scene.place(name)
        columns = np.array([place.t.value, place.b.value, place.t.u95, place.b.u95]).T
        known = np.isfinite(columns).all(axis=1)
        known &= columns[:, 2:].max(axis=1) <= (SURE_OF_BALL_M if name == "ball" else SURE_M)
        if name in HIPS:  # from one side alone a hip's depth is only what is usual
            known &= scene.shown_in("frontal", name) & scene.shown_in("sagittal", name)
        if name == "ball":
            known[1:] = False
        marks += [
            FloorMark(name, at, *row)
            for at, row, shown in zip(CHECKPOINTS, columns.tolist(), known.tolist(), strict=True)
            if shown
        ]
    cameras = []
    for view, eye in scaled.items():
        t, b, _ = (eye.solved.camera.eye - eye.origin).tolist()
        cameras.append(FloorCamera(view, t, b))
    return FloorPlan(tuple(marks), tuple(cameras))
