"""From pixels to metres along the target line, as a face-on camera sees it.

A square pinhole camera a distance D in front of the hips maps a point at T, a depth d behind the
hips' plane, to x = cx + s T D / (D + d), with s the scale at the hips in px/m (Hartley and Zisserman,
Multiple View Geometry, 2nd ed., 6.1). Off square by a small angle, depth leaks into T by its sine; the
angle is positive when the camera looks toward the target from behind square. What nobody measured
(roll, off square, the depth of each mark) is taken at its usual value with an honest spread.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Protocol

import numpy as np

from tropometer.swing.camera.facts import DISTANCE_SD, PlumbLine
from tropometer.swing.camera.mat import Mat, camera_from_mat
from tropometer.swing.camera.pinhole import Pinhole
from tropometer.swing.camera.solve import SolvedCamera, Unsolved
from tropometer.swing.measured import Measured, exact, hypot
from tropometer.swing.names import Checkpoint, Hand, LengthPlace, spoken
from tropometer.swing.record import Clip, KnownLength, Mark

# One standard deviation of what a careful phone on a stand does; common practice, no source.
ROLL_SD = math.radians(0.6)
OFF_SQUARE_DEG = (0.0, 4.0)  # placed by eye
# 1 / distance, because places and scale are linear in it: phones stand 2.6 to 5.4 m away.
CAMERA_NEARNESS_PER_M = (0.261, 0.056)

# How far in front of the hips (toward the camera) a length lies: mean and spread, metres.
PLACE_AHEAD_M: dict[LengthPlace, tuple[float, float]] = {
    "body_plane": (0.0, 0.04),
    "toe_line": (0.42, 0.06),
    "ball_line": (0.80, 0.12),
}

# Depth behind the hips' plane at address: mean and spread, metres. The pelvis turns about 45° by the
# top and about 35° open by impact, which carries its edges; common practice, no source.
DEPTH_M: dict[str, dict[str, tuple[float, float]]] = {
    "lead_hip": {"address": (0.0, 0.015), "top": (-0.06, 0.03), "impact": (0.06, 0.03)},
    "trail_hip": {"address": (0.0, 0.015), "top": (0.06, 0.03), "impact": (-0.06, 0.03)},
    "lead_hip_edge": {"address": (-0.05, 0.03), "top": (-0.15, 0.04), "impact": (0.02, 0.04)},
    "trail_hip_edge": {"address": (-0.05, 0.03), "top": (0.02, 0.04), "impact": (-0.10, 0.04)},
    "trail_foot_outer": {"address": (-0.30, 0.06)},
}
UNKNOWN_DEPTH_M = (0.0, 0.10)
HIPS_ON_MAT_M = (-0.35, 0.3)  # from a mat's middle, away from the ball


class FaceOn(Protocol):
    """How one face-on clip of one player is measured."""

    @property
    def clip(self) -> Clip: ...

    @property
    def toward_target(self) -> int:
        """+1 when the target lies at +x in the picture, else -1."""
        ...

    def along_target(self, name: str, frame: int, at: Checkpoint) -> Measured:
        """T of a mark in metres from a place that is the same for all marks, positive toward the target."""
        ...

    def plumb_at_hips(self, foot: Mark, hip_y: float) -> float:
        """x at the height `hip_y` of the upright plane through a foot's mark, seen at the hips' depth."""
        ...

    @property
    def px_per_m_at_hips(self) -> float: ...


@dataclass(frozen=True)
class ByLength:
    """Measured by one known length, with everything else about the camera taken for granted."""

    clip: Clip
    toward_target: int
    scale_px_per_m: Measured
    nearness_per_m: Measured  # 1 / distance of the camera from the hips
    roll: Measured
    off_square: Measured

    @property
    def px_per_m_at_hips(self) -> float:
        """Scale in the plane of the hips."""
        return self.scale_px_per_m.value

    def along_target(self, name: str, frame: int, at: Checkpoint) -> Measured:
        """T of a mark in metres from the picture's middle, positive toward the target."""
        x, y = coordinates(self.clip, name, frame)
        level = (x - self.clip.width / 2) + self.roll * (y - self.clip.height / 2)
        depth = depth_behind_hips(name, at)
        at_hips = level / self.scale_px_per_m * self.toward_target
        return at_hips * (1 + depth * self.nearness_per_m) + self.off_square * depth

    def plumb_at_hips(self, foot: Mark, hip_y: float) -> float:
        """x of the upright plane through a foot's mark where it is as deep as the hips."""
        depth = depth_behind_hips("trail_foot_outer", "address").value
        middle = self.clip.width / 2
        return middle + (foot.x - middle) * (1 + depth * self.nearness_per_m.value)


@dataclass(frozen=True)
class ByCamera:
    """Measured by a camera that was solved from the floor: rays cut with the plane of each mark's depth.

    The camera is a right-hander's; a left-hander's marks are mirrored before they are cut.
    """

    clip: Clip
    toward_target: int
    solved: SolvedCamera
    hips_b: Measured  # B of the hips at address, on the mat's own scale

    @property
    def px_per_m_at_hips(self) -> float:
        """Scale in the plane of the hips, in the picture's middle."""
        eye = self.solved.camera.eye
        return self.solved.camera.scale_at(np.array([eye[0], self.hips_b.value, eye[2]]))

    def along_target(self, name: str, frame: int, at: Checkpoint) -> Measured:
        """T of a mark in metres from the mat's middle, positive toward the target."""
        x, y = coordinates(self.clip, name, frame)
        b = self.hips_b - depth_behind_hips(name, at)
        place = np.array([self._x(x.value), y.value, b.value])

        def t(camera: Pinhole, x: float, y: float, b: float) -> float:
            return float(camera.on_plane(np.array([[x, y]]), 1, b)[0, 0])

        own = self.solved.camera
        of_camera = self.solved.measure(lambda camera: t(camera, *place))
        step = np.diag([0.5, 0.5, 0.005])
        slope_x, slope_y, slope_b = (
            (t(own, *(place + each)) - t(own, *(place - each))) / (2 * float(each.sum())) for each in step
        )
        of_mark = (x - x.value) * (slope_x * self.toward_target) + (y - y.value) * slope_y
        return of_camera + of_mark + (b - b.value) * slope_b

    def plumb_at_hips(self, foot: Mark, hip_y: float) -> float:
        """x of the upright plane through a foot's mark where it is as deep as the hips."""
        camera = self.solved.camera
        t = camera.on_plane(np.array([[self._x(foot.x), foot.y]]), 2, 0.0)[0, 0]
        up = camera.on_plane(np.array([[self.clip.width / 2, hip_y]]), 1, self.hips_b.value)[0, 2]
        x = float(camera.project(np.array([[t, self.hips_b.value, up]]))[0, 0])
        return self._x(x) if math.isfinite(x) else foot.x  # a foot above the horizon stands nowhere

    def _x(self, x: float) -> float:
        return x if self.toward_target > 0 else self.clip.width - x


@dataclass(frozen=True)
class Blind:
    """A clip of whose camera nothing is known: every place is zero, and only what is missing is learnt."""

    clip: Clip
    toward_target: int = 1
    px_per_m_at_hips: float = 1.0

    def along_target(self, name: str, frame: int, at: Checkpoint) -> Measured:
        """Zero."""
        return Measured(0.0)

    def plumb_at_hips(self, foot: Mark, hip_y: float) -> float:
        """Upright."""
        return foot.x


def depth_behind_hips(name: str, at: Checkpoint) -> Measured:
    """Depth of a mark behind the hips' plane at address, metres."""
    mean, sd = DEPTH_M.get(name, {}).get(at, UNKNOWN_DEPTH_M)
    return Measured.of(mean, sd, f"depth of the {spoken(name)} at {spoken(at)}")


def look(clip: Clip, hand: Hand) -> FaceOn | None:
    """How a face-on clip is measured: by its mat, else by its known length; None while it has neither.

    Raises Unsolved when there is only a mat, and no camera sees it so.
    """
    if clip.mat is not None:
        try:
            return _by_camera(clip, hand, clip.mat)
        except Unsolved:
            if clip.known_length is None:
                raise
    return _by_length(clip, hand, clip.known_length) if clip.known_length else None


def hips_on_mat(clip: Clip, hand: Hand, solved: SolvedCamera) -> Measured:
    """B of the hips at address on the mat's scale: by the trail foot's mark, else somewhere on the mat."""
    address = clip.checkpoints.get("address") if clip.view == "face_on" else None
    foot = None if address is None else clip.still_mark("trail_foot_outer", address)
    if foot is None or address is None:
        return Measured.of(*HIPS_ON_MAT_M, "where the player stands on the mat")
    _, y = coordinates(clip, "trail_foot_outer", address)
    own = foot.x if hand == "right" else clip.width - foot.x
    pixels = np.array([[own, foot.y]])
    if not np.isfinite(solved.camera.on_plane(pixels, 2, 0.0)).all():  # a foot above the horizon
        return Measured.of(*HIPS_ON_MAT_M, "where the player stands on the mat")
    b = solved.measure(lambda camera: float(camera.on_plane(pixels, 2, 0.0)[0, 1]))
    slope = float(
        np.diff(solved.camera.on_plane(np.array([[own, foot.y - 0.5], [own, foot.y + 0.5]]), 2, 0.0)[:, 1])[0]
    )
    if not math.isfinite(b.sd):  # so near the horizon that the camera's error carries it beyond
        return Measured.of(*HIPS_ON_MAT_M, "where the player stands on the mat")
    return b + (y - y.value) * slope + depth_behind_hips("trail_foot_outer", "address")


def _by_camera(clip: Clip, hand: Hand, mat: Mat) -> ByCamera:
    solved = camera_from_mat(mat, "face_on", hand, clip.width, clip.height, clip.camera_facts)
    return ByCamera(clip, 1 if hand == "right" else -1, solved, hips_on_mat(clip, hand, solved))


def _by_length(clip: Clip, hand: Hand, known: KnownLength) -> ByLength:
    if clip.camera_distance_m is None:
        nearness = Measured.of(*CAMERA_NEARNESS_PER_M, "camera distance")
    else:
        given = 1 / clip.camera_distance_m
        nearness = Measured.of(given, DISTANCE_SD * given, "camera distance")
    ends = [Measured.of(v, known.sd_px, f"known length end {i}") for i, v in enumerate((*known.a, *known.b))]
    pixels = hypot(ends[2] - ends[0], ends[3] - ends[1])
    length = Measured.of(known.length_m, known.length_sd_m, "known length")
    ahead = Measured.of(*PLACE_AHEAD_M[known.place], "place of the known length")
    scale = pixels / length * (1 - ahead * nearness)
    angle, angle_sd = clip.off_square_deg or OFF_SQUARE_DEG
    return ByLength(
        clip=clip,
        toward_target=1 if hand == "right" else -1,
        scale_px_per_m=scale,
        nearness_per_m=nearness,
        roll=_roll(clip.plumb, clip.width),
        off_square=Measured.of(math.radians(angle), math.radians(angle_sd), "camera off square"),
    )


def _roll(plumb: PlumbLine | None, width: int) -> Measured:
    """How far the picture leans: as an upright edge says, else as a careful phone stands.

    Away from the picture's middle an upright edge also leans by the camera's tilt (a vanishing point far
    below), which nobody measured here: up to ten degrees of it count as error.
    """
    if plumb is None:
        return Measured.of(0.0, ROLL_SD, "camera roll")
    (ax, ay), (bx, by) = sorted((plumb.a, plumb.b), key=lambda end: end[1])
    length = math.hypot(bx - ax, by - ay)
    aside = abs((ax + bx) / 2 - width / 2) / width
    spread = math.hypot(math.sqrt(2) * plumb.sd_px / length, aside * math.radians(10))
    return Measured.of(-math.atan2(bx - ax, by - ay), spread, "camera roll")


def coordinates(clip: Clip, name: str, frame: int) -> tuple[Measured, Measured]:
    """A mark's x and y in the still picture, with the error of putting it there; KeyError without it."""
    mark = clip.still_mark(name, frame)
    if mark is None:
        raise KeyError(name)
    where = f"{spoken(name)} on frame {frame}"
    return (
        exact(Measured.of(mark.x, mark.sd_px, f"{where}, x")),
        exact(Measured.of(mark.y, mark.sd_px, f"{where}, y")),
    )
