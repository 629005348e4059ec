"""A camera as a pinhole with square pixels and its middle in the picture's middle.

World axes T (toward the target), B (toward the ball), U (up), metres, a left-handed triple; camera axes
right, down, ahead.
Hartley and Zisserman, Multiple View Geometry, 2nd ed., 6.1: pixel = middle + f (right, down) / ahead.
A left-hander's picture is mirrored first, so that all of this is said for a right-hander.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.names import View

# Rows: right, down, ahead of a camera that stands square, in T, B, U.
SQUARE: dict[View, Array] = {
    "face_on": np.array([[1.0, 0.0, 0.0], [0.0, 0.0, -1.0], [0.0, -1.0, 0.0]]),
    "from_behind": np.array([[-1.0, 0.0, 0.0], [0.0, 0.0, -1.0], [0.0, 1.0, 0.0]]),
    "down_the_line": np.array([[0.0, 1.0, 0.0], [0.0, 0.0, -1.0], [1.0, 0.0, 0.0]]),
    "up_the_line": np.array([[0.0, -1.0, 0.0], [0.0, 0.0, -1.0], [-1.0, 0.0, 0.0]]),
}


@dataclass(frozen=True)
class Pinhole:
    """One camera: its picture, focal length in pixels, place, and three small angles, radians.

    `off_square` is positive when it looks to the right of square: face-on toward the target, down the line
    toward the ball's side. `tilt` is positive downward, `roll` clockwise.
    """

    view: View
    width: int
    height: int
    focal_px: float
    eye: Array  # T, B, U, metres
    off_square: float = 0.0
    tilt: float = 0.0
    roll: float = 0.0

    @cached_property
    def rotation(self) -> Array:
        """From T, B, U to right, down, ahead (3, 3)."""
        # R = (about ahead(-roll) · about right(-tilt) · about down(off square))ᵀ · SQUARE
        yaw, pitch, roll = self.off_square, -self.tilt, -self.roll
        about_down = np.array(
            [[np.cos(yaw), 0, np.sin(yaw)], [0, 1, 0], [-np.sin(yaw), 0, np.cos(yaw)]],
        )
        about_right = np.array(
            [[1, 0, 0], [0, np.cos(pitch), -np.sin(pitch)], [0, np.sin(pitch), np.cos(pitch)]],
        )
        about_ahead = np.array(
            [[np.cos(roll), -np.sin(roll), 0], [np.sin(roll), np.cos(roll), 0], [0, 0, 1]],
        )
        turned: Array = (about_ahead @ about_right @ about_down).T @ SQUARE[self.view]
        return turned

    def project(self, points: Array) -> Array:
        """Pixels (n, 2) of points (n, 3); a point behind the camera has no pixel and becomes NaN."""
        seen = (np.atleast_2d(points) - self.eye) @ self.rotation.T
        ahead = np.where(seen[:, 2:] > 1e-6, seen[:, 2:], np.nan)
        pixels: Array = seen[:, :2] / ahead * self.focal_px + [self.width / 2, self.height / 2]
        return pixels

    def rays(self, pixels: Array) -> Array:
        """Directions (n, 3) in T, B, U in which the camera sees pixels (n, 2); not of length one."""
        right_down = (np.atleast_2d(pixels) - [self.width / 2, self.height / 2]) / self.focal_px
        directions: Array = np.column_stack([right_down, np.ones(len(right_down))]) @ self.rotation
        return directions

    def on_plane(self, pixels: Array, axis: int, at: float) -> Array:
        """Where the rays (n, 2) meet the plane on which T, B or U (axis 0, 1, 2) is `at`, metres (n, 3).

        NaN where they never do, or only behind the camera.
        """
        # X = eye + far · direction, with X[axis] = at
        directions = self.rays(pixels)
        with np.errstate(divide="ignore", invalid="ignore"):
            far = (at - self.eye[axis]) / directions[:, axis]
        far = np.where(far > 0, far, np.nan)
        met: Array = self.eye + far[:, None] * directions
        return met

    def upright_at(self, pixel: Array) -> Array:
        """Direction (2,) in the picture of what stands upright and is seen at a pixel; not of length one.

        It runs to or from the vertical vanishing point (Hartley and Zisserman, 8.6), also where that is
        infinitely far.
        """
        right, down, ahead = self.rotation[:, 2]
        offset = np.asarray(pixel) - [self.width / 2, self.height / 2]
        direction: Array = np.array([right, down]) * self.focal_px - ahead * offset
        return direction

    def scale_at(self, point: Array) -> float:
        """Pixels to a metre across the line of sight at a point, for a plane square to it."""
        ahead = float(((np.asarray(point) - self.eye) @ self.rotation.T)[2])
        return self.focal_px / ahead
