"""A real person who walks, filmed by four calibrated cameras, and where a joint is by three of them.

Open footage of pose2sim 0.10.49, Demo_SinglePerson (BSD 3-clause). Its cameras' angles are off by about a
degree: they are refined here on the body itself, 12 numbers on some thousand points.
"""

from __future__ import annotations

import xml.etree.ElementTree as ET
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt
from django.conf import settings
from scipy.optimize import least_squares

from tests.outside.captured import FOLDER
from tropometer.video.landmarks import CLOSE, LandmarkFinder
from tropometer.video.proxy import upright_frames

Array = npt.NDArray[np.float64]

CAMERAS = ("cam01", "cam02", "cam03", "cam04")
LATE = (0, 0, 1, 0)  # frames; the third camera's clock
EVERY = 3  # the close network looks at each third frame
SHOULDERS, HIPS = (11, 12), (23, 24)
PARTS = {
    "shoulder": (11, 12), "elbow": (13, 14), "wrist": (15, 16), "hip": (23, 24),
    "knee": (25, 26), "ankle": (27, 28), "heel": (29, 30), "toe": (31, 32),
}  # fmt: skip
SOFT_PX = 8.0  # a landmark that is farther off counts less
KNEES, ANKLES = (25, 26), (27, 28)
# Drillis and Contini 1966 in Winter: from memory. Shoulder and ankle height, share of stature.
SHOULDER_HIGH, ANKLE_HIGH = 0.818, 0.039


@dataclass(frozen=True)
class Camera:
    """A camera of the set: inner matrix, distortion, turn (rows: right, down, ahead), place in metres."""

    inner: Array
    distortion: Array
    turn: Array
    place: Array

    def rays(self, pixels: Array, turn: Array) -> Array:
        """Directions (n, 3) in which pixels (n, 2) are seen."""
        flat = cv2.undistortPoints(pixels.reshape(-1, 1, 2), self.inner, self.distortion).reshape(-1, 2)
        ways = np.column_stack([flat, np.ones(len(flat))]) @ turn
        return np.asarray(ways / np.linalg.norm(ways, axis=1, keepdims=True))

    def pixels(self, places: Array, turn: Array) -> Array:
        """Pixels (n, 2) of places (n, 3)."""
        vector, _ = cv2.Rodrigues(turn)
        found, _ = cv2.projectPoints(
            places.reshape(-1, 1, 3), vector, -turn @ self.place, self.inner, self.distortion
        )
        return np.asarray(found.reshape(-1, 2), float)


@dataclass(frozen=True)
class Walk:
    """Landmarks (cameras, frames, 33, 2) by the close network, the cameras and their refined turns."""

    seen: Array
    cameras: list[Camera]
    turns: list[Array]

    def torso_px(self, camera: int) -> float:
        """Apparent length of the torso in one picture."""
        return _torso(self.seen[camera])

    def places(self, landmark: int, by: list[int]) -> Array:
        """Where a landmark is (frames, 3) by some cameras: nearest to all their rays."""
        return _met(
            [self.cameras[i].rays(self.seen[i, :, landmark], self.turns[i]) for i in by],
            [self.cameras[i].place for i in by],
        )

    def missed(self, part: str, camera: int) -> Array:
        """By how much a camera's landmarks miss what the other three see (2 frames, 2), torso lengths."""
        others = [i for i in range(len(self.cameras)) if i != camera]
        missed = [
            self.seen[camera, :, landmark]
            - self.cameras[camera].pixels(self.places(landmark, others), self.turns[camera])
            for landmark in PARTS[part]
        ]
        return np.concatenate(missed) / self.torso_px(camera)

    def statures(self) -> float:
        """The person's height in torso lengths, by the lengths of torso and legs."""
        everybody = list(range(len(self.cameras)))
        middle = {
            name: np.mean([self.places(each, everybody) for each in pair], axis=0)
            for name, pair in (("shoulders", SHOULDERS), ("hips", HIPS))
        }
        torso = np.median(np.linalg.norm(middle["shoulders"] - middle["hips"], axis=1))
        leg = 0.0
        for top, bottom in ((HIPS, KNEES), (KNEES, ANKLES)):
            leg += np.median(
                [
                    np.linalg.norm(self.places(a, everybody) - self.places(b, everybody), axis=1)
                    for a, b in zip(top, bottom, strict=True)
                ]
            )
        return float((1 + leg / torso) / (SHOULDER_HIGH - ANKLE_HIGH))


@lru_cache(maxsize=1)
def walk() -> Walk:
    """The walk, as the close network sees it."""
    cameras = _cameras()
    seen = np.array([_seen(name) for name in CAMERAS])
    count = seen.shape[1] - max(LATE)
    seen = np.array([each[late : late + count] for each, late in zip(seen, LATE, strict=True)])[:, ::EVERY]
    return Walk(seen, cameras, _refined(seen, cameras))


def _seen(name: str) -> Array:
    """Landmarks (frames, 33, 2); those of frames between are left where they are not asked for."""
    fast = LandmarkFinder(settings.LANDMARK_MODELS)
    close = LandmarkFinder(settings.LANDMARK_MODELS, CLOSE)
    late = LATE[CAMERAS.index(name)]
    found = []
    for number, (picture, _) in enumerate(upright_frames(FOLDER / f"{name}.mp4")):
        body = fast.find(picture)
        if (number - late) % EVERY:
            found.append(np.full((33, 2), np.nan))
            continue
        closely = close.find_in(picture, body.square) if body else None
        found.append(np.full((33, 2), np.nan) if closely is None else closely.landmarks[:, :2])
    return np.array(found)


def _cameras() -> list[Camera]:
    """As they were calibrated: a text file of a capture system, 64ths of pixels and millimetres."""
    found = []
    for each in ET.parse(FOLDER / "cameras.xml").getroot().iter("camera"):  # checked by its hash
        inner, outer = each.find("intrinsic"), each.find("transform")
        assert inner is not None and outer is not None

        def number(of: Any, key: str) -> float:
            return float(of.attrib[key])

        matrix = np.eye(3)
        matrix[0, 0], matrix[1, 1] = (number(inner, f"focalLength{axis}") / 64 for axis in "UV")
        matrix[0, 2], matrix[1, 2] = (number(inner, f"centerPoint{axis}") / 64 for axis in "UV")
        bent = [f"radialDistortion{i}" for i in (1, 2)] + [f"tangentalDistortion{i}" for i in (1, 2)]
        turn = np.array([[number(outer, f"r{row}{column}") for column in (1, 2, 3)] for row in (1, 2, 3)])
        found.append(
            Camera(
                matrix,
                np.array([*(number(inner, key) for key in bent), 0.0]),
                np.diag([1.0, -1.0, -1.0]) @ turn,  # theirs look up and backward
                np.array([number(outer, axis) for axis in "xyz"]) / 1000,
            )
        )
    return found


def _refined(seen: Array, cameras: list[Camera]) -> list[Array]:
    """The cameras' turns on which shoulders, elbows and legs meet best."""
    joints = [11, 12, 13, 14, 23, 24, 25, 26, 27, 28]
    pixels = [each[:, joints].reshape(-1, 2) for each in seen]
    places = [camera.place for camera in cameras]

    def turned(by: Array) -> list[Array]:
        return [cv2.Rodrigues(by[3 * i : 3 * i + 3])[0] @ camera.turn for i, camera in enumerate(cameras)]

    def left(by: Array) -> Array:
        turns = turned(by)
        met = _met([c.rays(p, t) for c, p, t in zip(cameras, pixels, turns, strict=True)], places)
        far = np.concatenate(
            [
                np.linalg.norm(c.pixels(met, t) - p, axis=1)
                for c, p, t in zip(cameras, pixels, turns, strict=True)
            ]
        )
        soft = SOFT_PX * np.sqrt(2 * (np.sqrt(1 + (far / SOFT_PX) ** 2) - 1))
        return np.concatenate([soft, by * 200])  # a turn by much is unlikely

    found: Array = least_squares(left, np.zeros(3 * len(cameras)), diff_step=1e-4).x
    return turned(found)


def _met(rays: list[Array], places: list[Array]) -> Array:
    """The points (n, 3) that lie nearest to rays (n, 3) from some places."""
    matrix, right = np.zeros((len(rays[0]), 3, 3)), np.zeros((len(rays[0]), 3))
    for ray, place in zip(rays, places, strict=True):
        across = np.eye(3) - ray[:, :, None] * ray[:, None, :]
        matrix, right = matrix + across, right + across @ place
    return np.asarray(np.linalg.solve(matrix, right[:, :, None])[:, :, 0])


def _torso(points: Array) -> float:
    length = np.linalg.norm(points[:, SHOULDERS].mean(axis=1) - points[:, HIPS].mean(axis=1), axis=1)
    return float(np.median(length))
