"""The CC0 base mesh, its shape targets, and the mesh operations the body needs."""

from __future__ import annotations

import gzip
import json
from pathlib import Path
from typing import Any

import numpy as np
import numpy.typing as npt
import scipy.sparse as sp

Floats = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

FOLDER = Path(__file__).parent / "mesh"


def load_json(name: str) -> Any:
    """Read one of the gzipped rig files."""
    with gzip.open(FOLDER / f"{name}.json.gz", "rt") as file:
        return json.load(file)


def load_base() -> tuple[Floats, dict[str, Ints]]:
    """Vertices (n, 3) in decimetres and the vertex indices of every named group of faces."""
    vertices: list[list[float]] = []
    groups: dict[str, list[list[int]]] = {}
    group = ""
    with gzip.open(FOLDER / "base.obj.gz", "rt") as file:
        for line in file:
            if line.startswith("v "):
                vertices.append([float(x) for x in line.split()[1:4]])
            elif line.startswith("g "):
                group = line.split()[1]
            elif line.startswith("f "):
                corners = [int(corner.split("/")[0]) - 1 for corner in line.split()[1:]]
                groups.setdefault(group, []).append(corners)
    return np.array(vertices), {name: np.array(faces) for name, faces in groups.items()}


def add_target(vertices: Floats, name: str, weight: float) -> None:
    """Move the vertices in place by a shape target times its weight."""
    if not weight:
        return
    with gzip.open(FOLDER / f"{name}.target.gz", "rt") as file:
        for line in file:
            if line[0] == "#" or not line.strip():
                continue
            index, x, y, z = line.split()[:4]
            vertices[int(index)] += weight * np.array([float(x), float(y), float(z)])


def subdivide(vertices: Floats, quads: Ints, weights: Floats) -> tuple[Floats, Ints, Floats]:
    """One step of Catmull and Clark 1978 on quads; weights (n, bones) follow the same rules.

    New vertices come from corners, then edges, then faces; open edges stay on their curve.
    """
    used, renumbered = np.unique(quads, return_inverse=True)
    quads = renumbered.reshape(quads.shape)
    count, faces = len(used), len(quads)
    edges, edge_of = _edges(quads)
    rule = _rule(quads, edges, edge_of, count)
    a, b, c, d = quads.T
    e0, e1, e2, e3 = edge_of.T + count
    middle = np.arange(faces) + count + len(edges)
    corners = ((a, e0, middle, e3), (e0, b, e1, middle), (middle, e1, c, e2), (e3, middle, e2, d))
    finer = np.concatenate([np.stack(corner, 1) for corner in corners])
    return rule @ vertices[used], finer, rule @ weights[used]


def _edges(quads: Ints) -> tuple[Ints, Ints]:
    """Edges (e, 2) of quads, and the four edges (m, 4) of each quad."""
    sides = np.concatenate([np.stack([quads[:, i], quads[:, (i + 1) % 4]], 1) for i in range(4)])
    edges, edge_of = np.unique(np.sort(sides, 1), axis=0, return_inverse=True)
    return edges, edge_of.ravel().reshape(4, len(quads)).T


def _sparse(weight: float, rows: Ints, columns: Ints, shape: tuple[int, int]) -> Any:
    return sp.csr_matrix((np.full(len(rows), weight), (rows, columns)), shape)


def _rule(quads: Ints, edges: Ints, edge_of: Ints, count: int) -> Any:
    """Sparse matrix from old vertices to new ones."""
    faces, many = len(quads), len(edges)
    each_face = np.arange(faces).repeat(4)
    face_points = _sparse(0.25, each_face, quads.ravel(), (faces, count))
    faces_at_edge = np.bincount(edge_of.ravel(), minlength=many)
    is_open = faces_at_edge == 1
    edge_middles = _sparse(0.5, np.arange(many).repeat(2), edges.ravel(), (many, count))
    face_of_edge = sp.diags(1 / np.maximum(faces_at_edge, 1)) @ _sparse(
        1.0, edge_of.ravel(), each_face, (many, faces)
    )
    own = np.where(is_open, 1.0, 0.5)
    edge_points = sp.diags(own) @ edge_middles + sp.diags(1 - own) @ face_of_edge @ face_points
    return sp.vstack(
        [_corner_rule(quads, edges, is_open, face_points, edge_middles, count), edge_points, face_points]
    ).tocsr()


def _corner_rule(
    quads: Ints, edges: Ints, is_open: Any, face_points: Any, edge_middles: Any, count: int
) -> Any:
    """Where old corners move: by the faces and edges about them, or along an open edge."""
    faces, many = len(quads), len(edges)
    valence = np.bincount(quads.ravel(), minlength=count).astype(float)
    by_faces = sp.diags(1 / valence) @ _sparse(1.0, quads.ravel(), np.arange(faces).repeat(4), (count, faces))
    touches = _sparse(1.0, edges.ravel(), np.arange(many).repeat(2), (count, many))
    by_edges = sp.diags(1 / np.asarray(touches.sum(1)).ravel()) @ touches @ edge_middles
    inside = (
        sp.diags(1 / valence) @ by_faces @ face_points
        + sp.diags(2 / valence) @ by_edges
        + sp.diags((valence - 3) / valence)
    )
    touches_open = _sparse(1.0, edges[is_open].ravel(), np.nonzero(is_open)[0].repeat(2), (count, many))
    open_edges = np.asarray(touches_open.sum(1)).ravel()
    on_border = open_edges > 0
    along = (
        sp.diags(0.5 * np.where(on_border, 1 / np.maximum(open_edges, 1), 0)) @ touches_open @ edge_middles
    )
    border = along + sp.diags(np.full(count, 0.5))
    return sp.diags((~on_border).astype(float)) @ inside + sp.diags(on_border.astype(float)) @ border


def normals(vertices: Floats, quads: Ints) -> Floats:
    """Unit vertex normals of a quad mesh."""
    of_faces = np.cross(
        vertices[quads[:, 2]] - vertices[quads[:, 0]], vertices[quads[:, 3]] - vertices[quads[:, 1]]
    )
    total = np.zeros_like(vertices)
    for corner in range(4):
        np.add.at(total, quads[:, corner], of_faces)
    scaled: Floats = total / np.maximum(np.linalg.norm(total, axis=1, keepdims=True), 1e-12)
    return scaled
