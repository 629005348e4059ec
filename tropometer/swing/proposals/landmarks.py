"""A body's landmarks over a clip, as a trained network finds them: 33 points a frame, left and right.

Beside them stand eight places of the body's outline (tropometer/video/outline.py), left and right in the
picture.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt
from scipy.ndimage import median_filter
from scipy.signal import butter, sosfiltfilt

from tropometer.swing.names import View

Array = npt.NDArray[np.float64]

# Whether a right-hander's target (face-on) or ball (down the line) lies at the right of the picture.
RIGHTWARD: dict[View, float] = {
    "face_on": 1.0,
    "from_behind": -1.0,
    "down_the_line": 1.0,
    "up_the_line": -1.0,
}
# The network's own order; left and right are the body's.
NOSE = 0
EARS = (7, 8)
SHOULDERS = (11, 12)
WRISTS = (15, 16)
HANDS = (15, 16, 17, 18, 19, 20)
HIPS = (23, 24)
ANKLES = (27, 28)
HEELS = (29, 30)
TOES = (31, 32)
# The outline's own order; left and right are the picture's.
HIP_EDGES = (0, 1)
PELVIS_ENDS = (2, 3)
SHOE_EDGES = {"left": (4, 5), "right": (6, 7)}  # of the body's left and right foot
OUTLINE_FRAMES = 5  # a median of so many takes single wrong cuts off
SMOOTHING_HZ = 12.0  # keeps a swing's hands (residuals of demo clips level off at 9 to 13 Hz)
LEGS = (25, 27, 29, 31)  # left knee, ankle, heel, toe; the right one follows each
SWAP_SURE = 2.0  # so many times nearer must each leg be to where the other one was
LONGEST_SWAP_S = 0.7
# A landmark jumps that leaves the line between the frames about it by so many torso lengths, and by so many
# times more than those frames are apart; for so many frames at most.
JUMP, JUMP_SURE, LONGEST_JUMP = 0.35, 1.5, 2
LEAST_SEEN = 0.5  # share of the frames in which somebody must be found


@dataclass(frozen=True)
class Landmarks:
    """Real seconds of n frames, and points (n, 33, 3): x, y in pixels and visibility; NaN where nobody is.

    `outline` (n, 8, 2) holds places on the body's outline, NaN where it is not met.
    """

    times_s: Array
    points: Array
    outline: Array | None = None

    def __post_init__(self) -> None:
        if self.points.shape != (len(self.times_s), 33, 3):
            raise ValueError(f"landmarks: {self.points.shape} for {len(self.times_s)} frames.")

    @property
    def enough(self) -> bool:
        """Whether a person is found in enough frames to say anything."""
        return len(self.times_s) > 12 and float(np.mean(self._seen)) >= LEAST_SEEN

    @property
    def _seen(self) -> npt.NDArray[np.bool_]:
        return np.isfinite(self.points[:, 0, 0])

    @cached_property
    def places(self) -> Array:
        """x, y (n, 33, 2) without gaps (straight across them) and without the network's trembling."""
        frames, seen = np.arange(len(self.times_s)), self._seen
        flat = unswapped(self.times_s, self.points[:, :, :2]).reshape(len(frames), -1)
        whole = np.column_stack([np.interp(frames, frames[seen], column[seen]) for column in flat.T])
        whole = without_jumps(whole.reshape(-1, 33, 2)).reshape(len(frames), -1)
        rate = 1 / float(np.median(np.diff(self.times_s)))
        low = butter(2, min(SMOOTHING_HZ, 0.4 * rate), fs=rate, output="sos")
        smooth: Array = sosfiltfilt(low, whole, axis=0).reshape(-1, 33, 2)
        return smooth

    @cached_property
    def edges(self) -> Array:
        """The outline's places (n, 8, 2), single wrong ones taken off; NaN without an outline."""
        if self.outline is None:
            return np.full((len(self.times_s), 8, 2), np.nan)
        edges: Array = median_filter(self.outline, size=(OUTLINE_FRAMES, 1, 1), mode="nearest")
        return edges

    @cached_property
    def torso_px(self) -> float:
        """Length from the middle of the hips to the middle of the shoulders: the measure of all else here."""
        length = np.linalg.norm(self.middle(SHOULDERS) - self.middle(HIPS), axis=1)
        return float(np.median(length))

    def middle(self, of: tuple[int, ...]) -> Array:
        """Mean place (n, 2) of some landmarks."""
        mean: Array = self.places[:, of].mean(axis=1)
        return mean

    @cached_property
    def hand_speed(self) -> Array:
        """Speed of both hands (n,), torso lengths a second."""
        velocity = np.gradient(self.middle(HANDS), self.times_s, axis=0)
        speed: Array = np.hypot(velocity[:, 0], velocity[:, 1]) / self.torso_px
        return speed


def without_jumps(places: Array) -> Array:
    """Places (n, 33, 2) with a landmark put back that leaves its way for a frame or two and comes back to it.

    It is put on the straight line between the frames about the jump.
    """
    torso_px = np.linalg.norm(places[:, SHOULDERS].mean(axis=1) - places[:, HIPS].mean(axis=1), axis=1)
    least_px = JUMP * float(np.median(torso_px))
    out = places.copy()
    for long in range(1, LONGEST_JUMP + 1):
        before, after = out[: -long - 1], out[long + 1 :]
        way_px = np.linalg.norm(after - before, axis=2)
        line = [before + (after - before) * k / (long + 1) for k in range(1, long + 1)]
        jumped = np.all(
            [
                np.linalg.norm(out[k : len(out) - long - 1 + k] - line[k - 1], axis=2)
                > np.maximum(least_px, JUMP_SURE * way_px)
                for k in range(1, long + 1)
            ],
            axis=0,
        )
        for frame, landmark in zip(*np.nonzero(jumped), strict=True):
            for k in range(1, long + 1):
                out[frame + k, landmark] = line[k - 1][frame, landmark]
    return out


def unswapped(times_s: Array, places: Array) -> Array:
    """Places (n, 33, 2) with the legs changed back where a network takes one for the other for some frames.

    Both legs jump into each other's place, and within LONGEST_SWAP_S back again.
    """
    out = places.copy()
    left, right = list(LEGS), [each + 1 for each in LEGS]
    both, crosswise = left + right, right + left
    kept = np.linalg.norm(places[1:, both] - places[:-1, both], axis=2).sum(axis=1)
    changed = np.linalg.norm(places[1:, crosswise] - places[:-1, both], axis=2).sum(axis=1)
    jumps = (np.flatnonzero(changed * SWAP_SURE < kept) + 1).tolist()
    while len(jumps) > 1:
        begin, end = jumps[:2]
        if times_s[end] - times_s[begin] > LONGEST_SWAP_S:
            jumps.pop(0)  # never changed back: no swap, or nobody can tell which half is
            continue
        out[begin:end, both] = places[begin:end, crosswise]
        jumps = jumps[2:]
    return out
