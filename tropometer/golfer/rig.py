"""Bones of the mesh: their places at rest, who hangs on whom, and how much each moves every vertex."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from tropometer.golfer.base_mesh import Floats, Ints, load_json

ARM_BONES = ("upperarm", "lowerarm", "hand", "upperarm_tw", "lowerarm_tw")
TWISTED = ("lowerarm", "upperarm")  # bones whose skin turns gradually along them


@dataclass(frozen=True)
class Rig:
    """Bones in an order in which each comes after the one it hangs on; `weights` is (vertices, bones)."""

    bones: list[str]
    parent: dict[str, str | None]
    head: dict[str, Floats]
    tail: dict[str, Floats]
    weights: Floats

    @property
    def index(self) -> dict[str, int]:
        """Column of each bone."""
        return {bone: i for i, bone in enumerate(self.bones)}

    def share(self, weights: Floats, *bones: str) -> Floats:
        """How much some bones together move each vertex (n,), given weights (n, bones)."""
        together: Floats = weights[:, [self.bones.index(bone) for bone in bones]].sum(1)
        return together

    def along(self, bone: str, points: Floats) -> Floats:
        """Place (n,) of points along a bone: 0 at its head, 1 at its tail."""
        start, way = self.head[bone], self.tail[bone] - self.head[bone]
        share: Floats = (points - start) @ way / (way @ way)
        return share

    def hung_on(self, bone: str, count: int) -> Floats:
        """Weights (count, bones) of vertices that follow one bone alone."""
        weights = np.zeros((count, len(self.bones)))
        weights[:, self.bones.index(bone)] = 1
        return weights


def build_rig(vertices: Floats, groups: dict[str, Ints]) -> Rig:
    """The rig for vertices (n, 3) already at their size."""
    described = load_json("rig")
    bones = _ordered(described)
    head = {bone: _place(described[bone]["head"], vertices, groups) for bone in bones}
    tail = {bone: _place(described[bone]["tail"], vertices, groups) for bone in bones}
    parent = {bone: _parent(described[bone]) for bone in bones}
    for side in "lr":
        for bone in TWISTED:
            twist, whole = f"{bone}_tw_{side}", f"{bone}_{side}"
            bones.append(twist)
            parent[twist], head[twist], tail[twist] = whole, head[whole], tail[whole]
    rig = Rig(bones, parent, head, tail, np.zeros((len(vertices), len(bones))))
    _weigh(rig, vertices)
    return rig


def _parent(described: dict[str, Any]) -> str | None:
    parent: str | None = described["parent"]
    return None if parent == "Root" else parent


def _ordered(described: dict[str, Any]) -> list[str]:
    order: list[str] = []

    def visit(bone: str | None) -> None:
        if bone and bone != "Root" and bone not in order:
            visit(described[bone]["parent"])
            order.append(bone)

    for bone in described:
        visit(bone)
    return order


def _place(described: dict[str, Any], vertices: Floats, groups: dict[str, Ints]) -> Floats:
    chosen: Any = described.get("vertex_indices")
    if described["strategy"] == "CUBE":
        chosen = np.unique(groups[described["cube_name"]])
    place: Floats = vertices[chosen].mean(0)
    return place


def _weigh(rig: Rig, vertices: Floats) -> None:
    """Fill in the weights; twist bones take over along the arm."""
    weights, column = rig.weights, rig.index
    for bone, rows in load_json("weights")["weights"].items():
        if bone in column:
            for vertex, weight in rows:
                weights[vertex, column[bone]] = weight
    weights /= np.maximum(weights.sum(1, keepdims=True), 1e-9)
    for side in "lr":
        for bone in TWISTED:
            along = np.clip(rig.along(f"{bone}_{side}", vertices), 0, 1)
            whole = weights[:, column[f"{bone}_{side}"]].copy()
            weights[:, column[f"{bone}_tw_{side}"]] = whole * along
            weights[:, column[f"{bone}_{side}"]] = whole * (1 - along)
