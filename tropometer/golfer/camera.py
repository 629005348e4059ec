"""A phone on a stand or in a hand: where it is, how it looks, and where a point falls in its picture."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.spatial.transform import Rotation

from tropometer.golfer.rotations import Floats
from tropometer.swing.names import PLANE_OF, View

# The camera's own axes in the range when it stands square: x right, y down, z ahead.
_SQUARE: dict[View, Floats] = {
    "face_on": np.array([[1.0, 0.0, 0.0], [0.0, -1.0, 0.0], [0.0, 0.0, -1.0]]),
    "from_behind": np.array([[-1.0, 0.0, 0.0], [0.0, -1.0, 0.0], [0.0, 0.0, 1.0]]),
    "down_the_line": np.array([[0.0, 0.0, 1.0], [0.0, -1.0, 0.0], [1.0, 0.0, 0.0]]),
    "up_the_line": np.array([[0.0, 0.0, -1.0], [0.0, -1.0, 0.0], [-1.0, 0.0, 0.0]]),
}
# A hand's slow sway: cycles a second and phase of each of three sines about each axis.
_SWAY_HZ = np.array([[0.35, 0.9, 2.1], [0.45, 1.1, 2.6], [0.3, 0.7, 1.7]])
_SWAY_PHASE = np.array([[0.2, 1.9, 4.0], [2.6, 0.4, 5.1], [3.3, 5.7, 1.2]])
_SWAY_SHARE = np.array([0.6, 0.3, 0.1])


@dataclass(frozen=True)
class Camera:
    """A pinhole camera with square pixels and its middle in the picture's middle.

    `off_square_deg` is positive when the camera looks to the right of square (face-on: toward the target);
    `tilt_deg` is positive downward, `roll_deg` clockwise.
    `drift_deg` is one standard deviation of a hand's sway, a turn about the lens and nothing else.
    """

    view: View
    distance_m: float
    height_m: float
    fov_deg: float  # full vertical angle
    width: int
    height: int
    off_square_deg: float = 0.0
    tilt_deg: float = 0.0
    roll_deg: float = 0.0
    beside_m: float = 0.0  # of the line through the anchor: toward the target, or toward the ball
    drift_deg: float = 0.0
    left_handed: bool = False

    @property
    def focal_px(self) -> float:
        """Focal length, pixels."""
        return float(self.height / 2 / np.tan(np.radians(self.fov_deg) / 2))

    @property
    def matrix(self) -> Floats:
        """Camera matrix (3, 3)."""
        f = self.focal_px
        return np.array([[f, 0, self.width / 2], [0, f, self.height / 2], [0, 0, 1]])

    @property
    def rotation(self) -> Floats:
        """From the range's axes to the camera's (3, 3), for a right-hander's range."""
        own = Rotation.from_euler("yxz", [self.off_square_deg, -self.tilt_deg, -self.roll_deg], degrees=True)
        turned: Floats = own.as_matrix().T @ _SQUARE[self.view]
        return turned

    @property
    def eye(self) -> Floats:
        """The lens in the range, metres, for a right-hander."""
        ahead = self.rotation[2] * np.array([1, 0, 1])
        ahead /= np.linalg.norm(ahead)
        aside = np.array([1.0, 0, 0]) if PLANE_OF[self.view] == "frontal" else np.array([0, 0, 1.0])
        place: Floats = (
            ANCHOR[self.view] - self.distance_m * ahead + self.beside_m * aside + [0, self.height_m, 0]
        )
        return place

    def sway(self, t: float) -> Floats:
        """The hand's turn of the camera at an instant: a matrix (3, 3) in the camera's axes."""
        angles = np.sqrt(2) * self.drift_deg * np.sin(2 * np.pi * _SWAY_HZ * t + _SWAY_PHASE) @ _SWAY_SHARE
        turn: Floats = Rotation.from_euler("xyz", angles, degrees=True).as_matrix()
        return turn

    def warp(self, t: float) -> Floats:
        """The homography (3, 3) that the hand's sway does to the still camera's picture."""
        mapped: Floats = self.matrix @ self.sway(t) @ np.linalg.inv(self.matrix)
        return mapped

    def see(self, points: Floats) -> Floats:
        """Points (n, 3) of the range in the still camera's axes: right, down, ahead, metres."""
        seen: Floats = (np.atleast_2d(points) - self.eye) @ self.rotation.T
        return seen

    def project(self, points: Floats, t: float | None = None) -> Floats:
        """Pixels (n, 2) of points (n, 3) of the range as the right-hander's swing gives them.

        At an instant the hand's sway is in them; without one the camera stands still. A left-hander's
        range is mirrored with the camera in it, so the picture is mirrored too.
        """
        seen = self.see(points)
        if self.left_handed:
            seen = seen * [-1, 1, 1]
        if t is not None:
            seen = seen @ self.sway(t).T
        flat: Floats = seen[:, :2] / seen[:, 2:] * self.focal_px + [self.width / 2, self.height / 2]
        return flat


# The point on the floor below what it looks at: the hips, or between hips and ball along the line.
_HIPS, _HALF_WAY = np.array([0.0, 0.0, -0.10]), np.array([0.0, 0.0, 0.25])
ANCHOR: dict[View, Floats] = {
    "face_on": _HIPS,
    "from_behind": _HIPS,
    "down_the_line": _HALF_WAY,
    "up_the_line": _HALF_WAY,
}
