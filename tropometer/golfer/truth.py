"""What is really where: marks in metres and in pixels for every frame the golfer is drawn in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from tropometer.golfer.base_mesh import Floats
from tropometer.golfer.body import Body
from tropometer.golfer.shoe import MAT

HIP_BAND_M = 0.015


@dataclass(frozen=True)
class Camera:
    """A pinhole camera in the range's frame: x target, y up, z ball, metres; full vertical angle."""

    eye: tuple[float, float, float]
    at: tuple[float, float, float]
    fov_deg: float
    width: int
    height: int

    def project(self, points: Floats) -> Floats:
        """Pixels (n, 2) of points (n, 3); the centre of the first pixel is (0.5, 0.5)."""
        forward = np.array(self.at, float) - self.eye
        forward /= np.linalg.norm(forward)
        side = np.cross(forward, (0, 1, 0))
        side /= np.linalg.norm(side)
        up = np.cross(side, forward)
        relative = np.atleast_2d(points) - np.array(self.eye)
        depth = relative @ forward
        focal_px = self.height / 2 / np.tan(np.radians(self.fov_deg) / 2)
        x = self.width / 2 + focal_px * (relative @ side) / depth
        y = self.height / 2 - focal_px * (relative @ up) / depth
        return np.stack([x, y], 1)


def marks_3d(body: Body, joints: dict[str, Any], skin: Floats) -> dict[str, Floats]:
    """Marks of the contract at one instant, right-handed frame; `skin` (n, 3) is the posed surface.

    Left in the mesh's names is the lead side: the model swings right-handed and is mirrored when drawn.
    """
    material = body.ext[:, 0]
    trousers = skin[np.isin(material, [MAT["trousers"]]) & (body.ext[:, 1] < 0)]
    marks: dict[str, Floats] = {}
    for side, letter, toward in (("lead", "l", 1), ("trail", "r", -1)):
        hip = joints[f"b_thigh_{letter}"]
        marks[f"{side}_hip"] = hip
        band = trousers[np.abs(trousers[:, 1] - hip[1]) < HIP_BAND_M]
        marks[f"{side}_hip_edge"] = band[np.argmax(toward * band[:, 0])]
        marks[f"{side}_knee"] = joints[f"b_calf_{letter}"]
        marks[f"{side}_ankle"] = joints[f"b_foot_{letter}"]
        marks[f"{side}_heel"] = joints[f"heel_{letter}"]
        marks[f"{side}_toe"] = joints[f"toe_{letter}"]
        sole = skin[(material == MAT["sole"]) & (toward * (skin[:, 0] - joints[f"toe_{letter}"][0]) > -0.15)]
        near = sole[np.linalg.norm(sole - joints[f"b_ball_{letter}"], axis=1) < 0.09]
        marks[f"{side}_foot_outer"] = near[np.argmax(toward * near[:, 0])]
        marks[f"{side}_shoulder"] = joints[f"b_upperarm_{letter}"]
    marks["neck"] = joints["b_neck_01"]
    marks["grip"] = joints["grip"]
    marks["club_head"] = joints["head"]
    return marks
