"""A clothed, skinned golfer shaped from the base mesh."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
import scipy.sparse as sp

from tropometer.golfer.base_mesh import Floats, Ints, add_target, load_base, normals
from tropometer.golfer.headwear import eyes, headwear
from tropometer.golfer.piece import Piece
from tropometer.golfer.rig import Rig, build_rig
from tropometer.golfer.shoe import Sole, shoe
from tropometer.golfer.wardrobe import clothes, skin

MESH_STATURE_M = 1.78  # at which the sizes of clothes and shoes are given
BONES_A_VERTEX = 4
CUT_AWAY = 0.02  # faces whose corners are all cut by more than that are left out


@dataclass(frozen=True)
class Body:
    """Bones at rest, soles, and the packed surface of one golfer (metres, y up, z ahead)."""

    rig: Rig
    foot: dict[str, Sole]
    eye: Floats  # between the eyes
    sc: float  # size against the mesh's own stature
    places: Floats  # surface at rest (n, 3)
    outward: Floats  # its normals (n, 3)
    looks: Floats  # material, cut, tint (n, 3)
    triangles: Ints  # (m, 3)
    moved_by: Any  # sparse weights (n, bones)

    @property
    def bones(self) -> list[str]:
        """Names of the bones, each after the one it hangs on."""
        return self.rig.bones

    @property
    def parent(self) -> dict[str, str | None]:
        """What each bone hangs on."""
        return self.rig.parent

    @property
    def head(self) -> dict[str, Floats]:
        """Where each bone starts at rest."""
        return self.rig.head

    @property
    def tail(self) -> dict[str, Floats]:
        """Where each bone ends at rest."""
        return self.rig.tail

    def posed(self, matrices: Floats) -> tuple[Floats, Floats]:
        """The surface (n, 3) and its normals for skinning matrices (bones, 4, 4)."""
        moves = (self.moved_by @ matrices[:, :3, :].reshape(-1, 12).astype("f4")).reshape(-1, 3, 4)
        places = np.einsum("nij,nj->ni", moves[:, :, :3], self.places) + moves[:, :, 3]
        return places, np.einsum("nij,nj->ni", moves[:, :, :3], self.outward)


def build(
    height: float = 1.78,
    gender: float = 1.0,
    weight: float = 0.0,
    cap: bool = True,
    ponytail: bool = False,
    hip_width: float = 1.0,
    foot_length: float = 1.0,
) -> Body:
    """A golfer of a stature in metres; gender 0 female to 1 male; weight -1 slight to 1 heavy.

    `hip_width` and `foot_length` are factors on what the mesh has for that stature.
    """
    vertices, groups = load_base()
    _shape(vertices, gender, weight)
    own = np.unique(groups["body"])
    low, high = vertices[own, 1].min() * 0.1, vertices[own, 1].max() * 0.1
    vertices *= 0.1  # the mesh is in decimetres
    vertices[:, 1] -= low
    vertices *= height / (high - low)
    _reshape(vertices, height, hip_width, foot_length)
    rig, scale = build_rig(vertices, groups), height / MESH_STATURE_M
    pieces = clothes(rig, vertices, groups, scale) + skin(rig, vertices, groups, scale)
    pieces += headwear(rig, vertices, groups, scale, cap, ponytail)
    soles = {}
    for side in "lr":
        piece, soles[side] = shoe(rig, vertices, own, side, scale)
        pieces.append(piece)
    return _packed(rig, soles, eyes(vertices, groups), scale, pieces)


def _shape(vertices: Floats, gender: float, weight: float) -> None:
    """Blend the mesh's shape targets in place."""
    extreme = "maxweight" if weight > 0 else "minweight"
    for sex, share in (("male", gender), ("female", 1 - gender)):
        add_target(vertices, f"caucasian-{sex}-young", share)
        build_of = f"universal-{sex}-young-averagemuscle"
        add_target(vertices, f"{build_of}-averageweight", share * (1 - abs(weight)))
        add_target(vertices, f"{build_of}-{extreme}", share * abs(weight))


def _reshape(vertices: Floats, height: float, hip_width: float, foot_length: float) -> None:
    """Widen the hips and lengthen the feet in place, by factors, fading out above and below."""
    level = vertices[:, 1] / height
    hips = np.interp(level, [0.04, 0.50, 0.54, 0.63], [0, 1, 1, 0])
    vertices[:, 0] *= 1 + (hip_width - 1) * hips
    ankle = vertices[level < 0.05, 2].min() + 0.06
    feet = np.interp(level, [0.035, 0.06], [1, 0])
    vertices[:, 2] += (vertices[:, 2] - ankle) * (foot_length - 1) * feet


def _packed(rig: Rig, soles: dict[str, Sole], eye: Floats, scale: float, pieces: list[Piece]) -> Body:
    """All pieces in one list of vertices, each moved by its strongest bones."""
    places, outward, looks, triangles, bones, shares = [], [], [], [], [], []
    count = 0
    for piece in pieces:
        used, renumbered = np.unique(piece.quads, return_inverse=True)
        quads = renumbered.reshape(piece.quads.shape)
        places.append(piece.vertices[used])
        outward.append(normals(piece.vertices[used], quads))
        strongest = np.argsort(-piece.weights[used], 1)[:, :BONES_A_VERTEX]
        share = np.take_along_axis(piece.weights[used], strongest, 1)
        bones.append(strongest)
        shares.append(share / np.maximum(share.sum(1, keepdims=True), 1e-9))
        looks.append(np.stack([piece.materials[used], piece.cut[used], piece.tint[used]], 1))
        quads = quads[~(piece.cut[used][quads] > CUT_AWAY).all(1)]
        triangles.append(np.concatenate([quads[:, [0, 1, 2]], quads[:, [0, 2, 3]]]) + count)
        count += len(used)
    rows = np.arange(count).repeat(BONES_A_VERTEX)
    entries: Any = (np.concatenate(shares).ravel(), (rows, np.concatenate(bones).ravel()))
    moved_by = sp.csr_matrix(entries, (count, len(rig.bones)), dtype="f4")
    return Body(
        rig=rig,
        foot=soles,
        eye=eye,
        sc=scale,
        places=np.concatenate(places).astype("f4"),
        outward=np.concatenate(outward).astype("f4"),
        looks=np.concatenate(looks).astype("f4"),
        triangles=np.concatenate(triangles).astype("i4"),
        moved_by=moved_by,
    )
