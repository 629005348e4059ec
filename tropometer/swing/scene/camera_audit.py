"""Where the camera stood and how square, in words a teacher uses, each figure with its error."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.camera.pinhole import Pinhole
from tropometer.swing.camera.solve import SOURCE, SolvedCamera
from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured, coordinates
from tropometer.swing.names import PLANE_OF, PLANES
from tropometer.swing.scene.eye import Eye
from tropometer.swing.scene.usual import STATURE_M, usual

# Beyond these a clip should be filmed again; common practice, no source.
FAR_OFF_SQUARE_DEG = 15.0
NEAR_M = 2.5
LOW_M, HIGH_M = 0.5, 1.6
FAR_ROLLED_DEG = 3.0
HIPS_UP_M = 0.9
HIPS_SD_M = 0.03
STEP_M = 0.01


@dataclass(frozen=True, kw_only=True)
class CameraAudit:
    """Angles in degrees, lengths in metres; `distance` is along the floor from the player."""

    distance_m: Measured
    height_m: Measured
    off_square_deg: Measured
    tilt_deg: Measured
    roll_deg: Measured
    beside_m: Measured  # of the square line through the player: toward the target, or toward the ball
    scale_px_per_m: Measured  # at the player
    refilm: tuple[str, ...]  # what to ask for when it is filmed again


def audit(solved: SolvedCamera, hips_b: Measured) -> CameraAudit:
    """The audit of a solved camera; the player stands in the middle of the mat, the hips at B `hips_b`."""
    across = PLANES.index(PLANE_OF[solved.camera.view])

    def figures(camera: Pinhole, b: float = float(hips_b.value)) -> list[float]:
        player = hips_at(b)
        on_floor = camera.eye[:2] - player[:2]
        return [
            float(math.hypot(*on_floor)),
            float(camera.eye[2]),
            math.degrees(camera.off_square),
            math.degrees(camera.tilt),
            math.degrees(camera.roll),
            float(on_floor[across]),
            camera.scale_at(player),
        ]

    # What is not known of where the player stands counts too.
    here, there = figures(solved.camera), figures(solved.camera, float(hips_b.value) + STEP_M)
    aside = hips_b - hips_b.value
    distance, height, off_square, tilt, roll, beside, scale = (
        figure + aside * ((b - a) / STEP_M)
        for figure, a, b in zip(solved.measure_all(figures), here, there, strict=True)
    )
    return CameraAudit(
        distance_m=distance,
        height_m=height,
        off_square_deg=off_square,
        tilt_deg=tilt,
        roll_deg=roll,
        beside_m=beside,
        scale_px_per_m=scale,
        refilm=_refilm(distance, height, off_square, roll),
    )


def hips_on_mat(eye: Eye) -> Measured:
    """B of the hips at address on the mat's own scale."""
    usually, _ = usual(("lead_hip",), np.zeros(1), STATURE_M)
    own = {SOURCE: eye.origin_by_camera[:2], Source("stand"): eye.origin_own[:2]}
    spread = Measured.of(usually[1, 0, 0], HIPS_SD_M, Source("stand", "the hips over the feet"))
    _, along_b = coordinates(eye.origin[:2], own)
    return along_b + spread


def hips_at(b: float) -> Array:
    """T, B, U of a player's hips."""
    return np.array([0.0, b, HIPS_UP_M])


def _refilm(distance: Measured, height: Measured, off_square: Measured, roll: Measured) -> tuple[str, ...]:
    asked = []
    if abs(off_square.value) > FAR_OFF_SQUARE_DEG:
        asked.append(
            f"Stand square to the line: the camera looks {abs(off_square.value):.0f}° off, "
            "and a turn reads as a sway."
        )
    if distance.value < NEAR_M:
        asked.append(f"Stand farther back than {distance.value:.1f} m: near things look too large.")
    if not LOW_M <= height.value <= HIGH_M:
        asked.append(f"Hold the camera at hip height: it was {height.value:.1f} m above the floor.")
    if abs(roll.value) > FAR_ROLLED_DEG:
        asked.append(f"Keep the phone upright: it leaned {abs(roll.value):.0f}°.")
    return tuple(asked)
