"""How a player stands in a clip's picture: what lays two pictures over each other."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from tropometer.swing.scene.eye import HALF_UP_M, Eye

UNSURE_M = 0.06  # the feet are where they were marked; where they are only supposed to be nothing is laid


@dataclass(frozen=True, kw_only=True)
class InPicture:
    """The middle between the heels at address, pixels of the clip's own picture, and pixels to a metre there.

    `aside_deg` and `above_deg` are how far to the side, and above level, the camera saw the middle of the
    body from its view's square; `distance_m` how far off it stood. Where no mat tells it, it is not
    `squared`: the angle to the side is then what is usual.
    """

    foot_x: float
    foot_y: float
    px_per_m: float
    aside_deg: float
    above_deg: float
    distance_m: float
    squared: bool


def in_picture(eye: Eye) -> InPicture | None:
    """Of a clip whose camera is solved by a mat or a known length, and the feet marked; None of others."""
    if eye.scale == "none" or float(np.linalg.norm(eye.origin_own)) > UNSURE_M:
        return None
    x, y = eye.see(np.zeros((1, 3)))[0].tolist()
    middle = eye.origin + np.array([0.0, 0.0, HALF_UP_M])
    across, along, up = (eye.solved.camera.eye - middle).tolist()
    on_floor = math.hypot(across, along)
    return InPicture(
        foot_x=x,
        foot_y=y,
        px_per_m=eye.px_per_m,
        aside_deg=math.degrees(eye.aside),
        above_deg=math.degrees(math.atan2(up, on_floor)),
        distance_m=math.hypot(on_floor, up),
        squared=eye.scale == "mat",
    )
