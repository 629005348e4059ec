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


def subdivide(V: Floats, F: Ints, W: Floats) -> tuple[Floats, Ints, Floats]:
    """One Catmull-Clark step on quads; attributes W (n, b) follow the same stencil."""

    used, inv = np.unique(F, return_inverse=True)
    F = inv.reshape(F.shape)
    V = V[used]
    W = W[used]
    n, m = len(V), len(F)
    E = np.concatenate([np.stack([F[:, i], F[:, (i + 1) % 4]], 1) for i in range(4)])
    Es = np.sort(E, 1)
    ue, ei = np.unique(Es, axis=0, return_inverse=True)
    ei = ei.ravel().reshape(4, m).T
    ne = len(ue)
    r = np.arange(m).repeat(4)
    FP = sp.csr_matrix((np.full(4 * m, 0.25), (r, F.ravel())), (m, n))
    cnt = np.bincount(ei.ravel(), minlength=ne)
    bnd = cnt == 1
    EM = sp.csr_matrix((np.full(2 * ne, 0.5), (np.arange(ne).repeat(2), ue.ravel())), (ne, n))
    EF = sp.csr_matrix((np.full(4 * m, 1.0), (ei.ravel(), r)), (ne, m))
    EF = sp.diags(1 / np.maximum(cnt, 1)) @ EF
    k = np.where(bnd, 1.0, 0.5)
    EP = sp.diags(k) @ EM + sp.diags(1 - k) @ EF @ FP
    val = np.bincount(F.ravel(), minlength=n).astype(float)
    VF = sp.diags(1 / val) @ sp.csr_matrix((np.ones(4 * m), (F.ravel(), r)), (n, m)) @ FP
    inc = sp.csr_matrix((np.ones(2 * ne), (ue.ravel(), np.arange(ne).repeat(2))), (n, ne))
    dg = np.asarray(inc.sum(1)).ravel()
    VE = sp.diags(1 / dg) @ inc @ EM
    VP = sp.diags(1 / val) @ VF + sp.diags(2 / val) @ VE + sp.diags((val - 3) / val)
    bi = sp.csr_matrix((np.ones(2 * bnd.sum()), (ue[bnd].ravel(), np.where(bnd)[0].repeat(2))), (n, ne))
    bd = np.asarray(bi.sum(1)).ravel()
    isb = bd > 0
    VB = sp.diags(0.5 * np.where(isb, 1 / np.maximum(bd, 1), 0)) @ bi @ EM + sp.diags(np.full(n, 0.5))
    VP = sp.diags((~isb).astype(float)) @ VP + sp.diags(isb.astype(float)) @ VB
    S = sp.vstack([VP, EP, FP]).tocsr()
    a, b, c, d = F.T
    e0, e1, e2, e3 = ei.T + n
    f = np.arange(m) + n + ne
    NF = np.concatenate(
        [np.stack(q, 1) for q in ((a, e0, f, e3), (e0, b, e1, f), (f, e1, c, e2), (e3, f, e2, d))]
    )
    return S @ V, NF, S @ W


def normals(V: Floats, F: Ints) -> Floats:
    """Unit vertex normals of a quad mesh."""
    N = np.zeros_like(V)
    fn = np.cross(V[F[:, 2]] - V[F[:, 0]], V[F[:, 3]] - V[F[:, 1]])
    for i in range(4):
        np.add.at(N, F[:, i], fn)
    return N / np.maximum(np.linalg.norm(N, axis=1, keepdims=True), 1e-12)
