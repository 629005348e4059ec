"""A bare pinhole camera for tests, written apart from the core's own model (Hartley and Zisserman, 6.1)."""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.spatial.transform import Rotation


@dataclass(frozen=True)
class Pinhole:
    """Looks at the player from the ball's side. Angles in degrees, distance to the hips' plane in metres."""

    distance_m: float = 4.0
    height_m: float = 1.0
    off_square_deg: float = 0.0
    roll_deg: float = 0.0
    focal_px: float = 1200.0
    width: int = 1280
    height: int = 720

    def pixels(self, tbu: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
        """Pixels (n, 2) of points (n, 3) as T, B, U, the hips' plane at B = 0; right-handed player."""
        turn = Rotation.from_euler("z", self.off_square_deg, degrees=True)
        seen = turn.apply(np.asarray(tbu, float) - [0, 0, self.height_m])
        depth = self.distance_m - seen[:, 1]
        flat = np.stack([seen[:, 0], -seen[:, 2]], 1) / depth[:, None] * self.focal_px
        a = np.radians(self.roll_deg)
        rolled = flat @ np.array([[np.cos(a), np.sin(a)], [-np.sin(a), np.cos(a)]])
        return np.asarray(rolled + np.array([self.width / 2, self.height / 2]))
