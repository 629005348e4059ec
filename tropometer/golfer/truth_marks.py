"""Where every mark of the contract really is, and whether the camera can see it."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from tropometer.golfer import bay
from tropometer.golfer.body import Body
from tropometer.golfer.camera import Camera
from tropometer.golfer.motion import Motion, Poses, bone_matrices
from tropometer.golfer.piece import material
from tropometer.golfer.rotations import Floats, turned

HIP_BAND_M = 0.02  # height of the slice of the trousers whose edge is the hip's outer edge
SEAT_BAND_M = (-0.10, 0.12)  # of the pelvis about the hip joints, in which the rearmost point is sought
CELL_PX = 6  # of the coarse depth picture that tells what is hidden
# How far below the surface a mark lies, metres: what is nearer than that hides it.
DEPTH_M = {
    "hip": 0.19,
    "shoulder": 0.12,
    "head": 0.16,
    "neck": 0.12,
    "grip": 0.09,
    "club_head": 0.05,
    "ball": 0.05,
}
OTHER_DEPTH_M = 0.09

Marks = dict[str, Floats]


def mark_places(motion: Motion, poses: Poses) -> Marks:
    """Every mark at n instants (n, 3), the range's frame of a right-hander."""
    marks: Marks = {}
    for side in ("lead", "trail"):
        foot, leg, arm = poses.feet[side], poses.legs[side], poses.arms[side]
        marks |= {f"{side}_hip": leg.hip, f"{side}_knee": leg.knee, f"{side}_ankle": leg.ankle}
        marks |= {f"{side}_heel": foot.heel, f"{side}_toe": foot.toe}
        marks |= {f"{side}_foot_outer": foot.outer, f"{side}_foot_inner": foot.inner}
        marks |= {f"{side}_shoulder": arm.shoulder, f"{side}_elbow": arm.elbow, f"{side}_wrist": arm.wrist}
    marks |= _surface(motion.body, poses)
    rest = motion.body.head
    scale = motion.body.sc
    marks["neck"] = poses.heads["neck_01"]
    chest_front = rest["neck_01"] + np.array([0.0, -0.09, 0.09]) * scale - rest["spine_03"]
    marks["sternum"] = poses.heads["spine_03"] + turned(poses.bones["spine_03"], chest_front)
    middle = np.array([0.0, motion.body.eye[1], motion.body.eye[2] - 0.08 * scale]) - rest["head"]
    marks["head"] = poses.heads["head"] + turned(poses.bones["head"], middle)
    marks |= {"grip": poses.club.grip, "grip_butt": poses.club.butt, "club_head": poses.club.head}
    marks["ball"] = bay.ball_at(motion, poses.times_s)
    return marks


def _surface(body: Body, poses: Poses) -> Marks:
    """The marks that lie on the clothes: outer edges of the hips and the rearmost point of the pelvis."""
    cloth = (body.looks[:, 0] == material("trousers")) & (body.looks[:, 1] < 0)
    found: dict[str, list[Floats]] = {"lead_hip_edge": [], "trail_hip_edge": [], "seat": []}
    for i in range(len(poses.times_s)):
        trousers = body.posed(bone_matrices(body, poses, i))[0][cloth]
        for side, toward in (("lead", 1), ("trail", -1)):
            hip = poses.legs[side].hip[i]
            slice_ = trousers[np.abs(trousers[:, 1] - hip[1]) < HIP_BAND_M]
            found[f"{side}_hip_edge"].append(slice_[np.argmax(toward * slice_[:, 0])])
        above = trousers[:, 1] - poses.pelvis.middle[i, 1]
        pelvis = trousers[(above > SEAT_BAND_M[0]) & (above < SEAT_BAND_M[1])]
        found["seat"].append(pelvis[np.argmin(pelvis[:, 2])])
    return {name: np.array(places) for name, places in found.items()}


def hidden(motion: Motion, poses: Poses, marks: Marks, camera: Camera) -> dict[str, npt.NDArray[np.bool_]]:
    """Which marks the camera cannot see at n instants: out of the picture, or the body in front of them."""
    names = list(marks)
    flags = {name: np.zeros(len(poses.times_s), bool) for name in names}
    shape = (camera.height // CELL_PX + 1, camera.width // CELL_PX + 1)
    for i, t in enumerate(poses.times_s):
        skin = motion.body.posed(bone_matrices(motion.body, poses, i))[0]
        nearest = np.full(shape, np.inf)
        cells, inside = _cells(camera.project(skin, t), camera)
        depth = camera.see(skin)[:, 2]
        np.minimum.at(nearest, (cells[inside, 1], cells[inside, 0]), depth[inside])
        places = np.array([marks[name][i] for name in names])
        at, seen = _cells(camera.project(places, t), camera)
        for name, cell, in_picture, away in zip(names, at, seen, camera.see(places)[:, 2], strict=True):
            kind = name.split("_", 1)[1] if name.startswith(("lead_", "trail_")) else name
            allowed = DEPTH_M.get(kind, OTHER_DEPTH_M)
            flags[name][i] = not in_picture or nearest[cell[1], cell[0]] < away - allowed
    return flags


def _cells(pixels: Floats, camera: Camera) -> tuple[npt.NDArray[np.int64], npt.NDArray[np.bool_]]:
    inside: npt.NDArray[np.bool_] = np.all((pixels >= 0) & (pixels < [camera.width, camera.height]), axis=1)
    cells = np.where(inside[:, None], pixels // CELL_PX, 0).astype(np.int64)
    return cells, inside
