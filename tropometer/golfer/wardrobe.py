"""Shirt, trousers and the skin that shows, cut from the mesh. Sizes are metres at a stature of 1.78."""

from __future__ import annotations

import numpy as np

from tropometer.golfer.base_mesh import Floats, Ints, normals, subdivide
from tropometer.golfer.piece import Piece, material, whole
from tropometer.golfer.rig import ARM_BONES, Rig

WAIST_OVER_SPINE = 0.035
SLEEVE_ENDS = 0.66  # of the upper arm
HEM_ENDS = 0.96  # of the shank
FINGER_LETTERS = "imrpt"


def waist_height(rig: Rig) -> float:
    """Where shirt and trousers meet."""
    return float(rig.head["spine_01"][1]) + WAIST_OVER_SPINE


def clothes(rig: Rig, vertices: Floats, groups: dict[str, Ints], scale: float) -> list[Piece]:
    """Shirt and trousers, swollen from the mesh's tight suit."""
    suit, quads, weights = subdivide(vertices, groups["helper-tights"], rig.weights)
    outward = normals(suit, quads)
    return [
        _shirt(rig, suit, quads, weights, outward, scale),
        _trousers(rig, suit, quads, weights, outward, scale),
    ]


def _along_arms(rig: Rig, points: Floats, above: float = -np.inf) -> Floats:
    """Place (n,) along the upper arm of the points beyond a shoulder, 0 elsewhere."""
    along = np.zeros(len(points))
    for side, sign in (("l", 1), ("r", -1)):
        shoulder = rig.head[f"upperarm_{side}"]
        beyond = (points[:, 0] * sign > shoulder[0] * sign) & (points[:, 1] > above)
        along = np.where(beyond, rig.along(f"upperarm_{side}", points), along)
    return along


def _shirt(rig: Rig, suit: Floats, quads: Ints, weights: Floats, outward: Floats, scale: float) -> Piece:
    waist, neck = waist_height(rig), rig.head["neck_01"]
    sleeve = _along_arms(rig, suit, waist)
    loose = np.where(sleeve > 0.05, 0.010 + 0.016 * np.clip(sleeve, 0, 1), 0.012) * scale
    loose = loose + 0.006 * np.clip((waist + 0.22 - suit[:, 1]) / 0.22, 0, 1) * (sleeve < 0.05)
    cloth = suit + outward * loose[:, None]
    neckline = cloth[:, 1] - (neck[1] + 0.028 * scale - 0.62 * (cloth[:, 2] - neck[2]))
    neckline = np.where(np.abs(cloth[:, 0]) < 0.13 * scale, neckline, -1)
    collar = np.clip((neckline + 0.035 * scale) / (0.035 * scale), 0, 1)
    cloth += outward * (collar * 0.006 * scale)[:, None]
    cut = np.maximum.reduce([sleeve - SLEEVE_ENDS, (waist - 0.005) - cloth[:, 1], neckline * 3])
    return Piece(cloth, quads, weights, np.full(len(cloth), float(material("shirt"))), cut, sleeve)


def _trousers(rig: Rig, suit: Floats, quads: Ints, weights: Floats, outward: Floats, scale: float) -> Piece:
    waist = waist_height(rig)
    cloth = suit + outward * (0.009 * scale)
    hem = np.full(len(suit), 1.0)
    for side, sign in (("l", 1), ("r", -1)):
        knee, way = rig.head[f"calf_{side}"], rig.tail[f"calf_{side}"] - rig.head[f"calf_{side}"]
        on_leg = suit[:, 0] * sign > 0
        along = (cloth - knee) @ way / (way @ way)
        middle = knee + np.clip(along, -0.5, 1.2)[:, None] * way + np.array([0, 0, -0.012]) * scale
        out = cloth - middle
        out -= (out @ way / (way @ way))[:, None] * way
        radius = np.linalg.norm(out, axis=1)
        wide = np.interp(along, [-0.5, 0, 0.5, 1.0], [0.092, 0.078, 0.080, 0.082]) * scale
        falls = np.interp(along, [-0.35, 0.05], [0, 0.85]) * on_leg * (along < 1.05)
        hangs = radius * (1 - falls) + np.maximum(wide, radius + 0.004) * falls
        cloth = cloth + out / np.maximum(radius, 1e-6)[:, None] * (hangs - radius)[:, None]
        hem = np.where(on_leg, along, hem)
    cut = np.maximum(hem - HEM_ENDS, cloth[:, 1] - (waist + 0.012))
    arms = [f"{bone}_{side}" for bone in ARM_BONES for side in "lr"]
    cut = np.where(rig.share(weights, *arms) > 0.2, 1.0, cut)
    belt = cloth[:, 1] - (waist - 0.03)
    return Piece(cloth, quads, weights, np.full(len(cloth), float(material("trousers"))), cut, belt)


def skin(rig: Rig, vertices: Floats, groups: dict[str, Ints], scale: float) -> list[Piece]:
    """Head, neck, arms and hands, the socks, and the eyes."""
    faces, weights = groups["body"], rig.weights
    along = _along_arms(rig, vertices)
    fingers = [b for b in rig.bones if b[:-2].endswith(("_01", "_02", "_03")) and b[0] in FINGER_LETTERS]
    arms = [f"{bone}_{side}" for bone in ARM_BONES for side in "lr"]
    on_arm = rig.share(weights, *arms, *fingers)
    on_head = rig.share(weights, "head", "neck_01")
    bare = (along > 0.35) & (on_arm > 0.5)
    bare |= (on_head > 0.25) & (vertices[:, 1] > rig.head["neck_01"][1] - 0.09 * scale)
    sock = (vertices[:, 1] < 0.22 * scale) & (vertices[:, 1] > 0.045 * scale) & (on_arm < 0.01)
    return [
        whole(vertices, faces[bare[faces].all(1)], weights, "skin", along),
        whole(vertices, faces[sock[faces].all(1)], weights, "sole", along),
        whole(vertices, groups["helper-l-eye"], weights, "eye", along),
        whole(vertices, groups["helper-r-eye"], weights, "eye", along),
    ]
