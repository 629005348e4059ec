"""Small lit meshes: tubes, spheres and clubs, as rows of position, normal, colour."""

from __future__ import annotations

from typing import Any

import numpy as np
import numpy.typing as npt

Floats = npt.NDArray[np.float64]
Mesh = npt.NDArray[np.float32]


def tube(a: Any, b: Any, r0: float, r1: float, col: Any, n: int = 14, cap: bool = True) -> Mesh:
    """A tapered tube from a to b with closed ends."""
    a, b = np.array(a, float), np.array(b, float)
    d = (b - a) / np.linalg.norm(b - a)
    x = np.cross(d, [0.3, 0.9, 0.2])
    x /= np.linalg.norm(x)
    y = np.cross(d, x)
    th = np.linspace(0, 2 * np.pi, n, endpoint=False)
    c = np.cos(th)[:, None] * x + np.sin(th)[:, None] * y
    v = np.concatenate([a + c * r0, b + c * r1])
    nn = np.concatenate([c, c])
    F = []
    for i in range(n):
        j = (i + 1) % n
        F += [[i, j, n + j], [i, n + j, n + i]]
    if cap:
        for e, (o, q, s) in enumerate(((a, r0, -1), (b, r1, 1))):
            k = len(v)
            v = np.concatenate([v, o + c * q, [o]])
            nn = np.concatenate([nn, np.tile(d * s, (n + 1, 1))])
            F += [[k + i, k + (i + 1) % n, k + n] for i in range(n)]
    return mesh(v, nn, F, col)


def mesh(v: Any, n: Any, F: Any, col: Any) -> Mesh:
    """Unroll triangles into rows of position, normal, colour."""
    F = np.array(F).ravel()
    return np.concatenate([np.asarray(v)[F], np.asarray(n)[F], np.tile(col, (len(F), 1))], 1).astype("f4")


def sphere(o: Any, r: float, col: Any, n: int = 16, sq: Any = (1, 1, 1), A: Floats | None = None) -> Mesh:
    """A sphere about o, squeezed by sq along the axes A."""
    A = np.eye(3) if A is None else A
    u, v = np.meshgrid(np.linspace(0, 2 * np.pi, 2 * n + 1), np.linspace(0, np.pi, n + 1))
    s = np.stack([np.cos(u) * np.sin(v), np.cos(v), np.sin(u) * np.sin(v)], -1).reshape(-1, 3)
    F = []
    W = 2 * n + 1
    for i in range(n):
        for j in range(2 * n):
            k = i * W + j
            F += [[k, k + 1, k + W], [k + 1, k + W + 1, k + W]]
    nn = s / np.array(sq)
    nn /= np.linalg.norm(nn, axis=1, keepdims=True)
    return mesh((s * r * np.array(sq)) @ A.T + np.array(o), nn @ A.T, F, col)


def club(kind: str, L: float) -> Mesh:
    """An iron or driver of length L: origin at the butt, y along the shaft, x the face normal."""
    # local frame: x = face normal, y = along shaft toward the head (origin at butt), z = toe-up direction (-u)
    grey, blk = (0.62, 0.63, 0.66), (0.05, 0.05, 0.055)
    parts = [
        tube([0, 0, 0], [0, 0.27, 0], 0.0135, 0.0095, blk),
        tube([0, 0.27, 0], [0, L - 0.03, 0], 0.0068, 0.0048, grey),
    ]
    if kind == "7i":
        lie = np.radians(62)
        o = np.array([0, L - 0.02, 0])
        tz = np.array([0, np.cos(lie), np.sin(lie)])
        up = np.array([0, -np.sin(lie), np.cos(lie)])  # toe and crown directions
        xf = np.array([1.0, 0, 0])
        loft = np.radians(32)
        fn = np.cos(loft) * xf + np.sin(loft) * up
        ft = -np.sin(loft) * xf + np.cos(loft) * up
        pr = [
            (-0.008, -0.014),
            (-0.006, 0.024),
            (0.035, 0.036),
            (0.068, 0.052),
            (0.078, 0.042),
            (0.078, 0.004),
            (0.066, -0.016),
            (0.02, -0.019),
        ]  # (toe, up) outline
        q = [o + tz * a + ft * b for a, b in pr]
        f = [p + fn * 0.006 for p in q]
        b_ = [p - fn * 0.008 - ft * 0.0 for p in q]
        n = len(pr)
        c = (0.55, 0.56, 0.60)
        parts.append(mesh(f, np.tile(fn, (n, 1)), [[0, i, i + 1] for i in range(1, n - 1)], c))
        parts.append(mesh(b_, np.tile(-fn, (n, 1)), [[0, i, i + 1] for i in range(1, n - 1)], c))
        for i in range(n):
            j = (i + 1) % n
            nn = np.cross(q[j] - q[i], fn)
            nn /= np.linalg.norm(nn)
            parts.append(mesh([f[i], f[j], b_[j], b_[i]], np.tile(nn, (4, 1)), [[0, 1, 2], [0, 2, 3]], c))
        parts.append(tube([0, L - 0.085, 0], o + tz * 0.0, 0.0075, 0.0085, grey))
    else:
        lie = np.radians(57)
        tz = np.array([0, np.cos(lie), np.sin(lie)])
        up = np.array([0, -np.sin(lie), np.cos(lie)])
        A = np.stack([[1, 0, 0], up, tz], 1)
        parts.append(
            sphere(
                np.array([-0.035, L - 0.02, 0]) + tz * 0.045 + up * 0.008,
                1.0,
                (0.06, 0.06, 0.075),
                14,
                (0.058, 0.030, 0.058),
                A,
            )
        )
        parts.append(tube([0, L - 0.09, 0], [0, L - 0.02, 0], 0.0075, 0.010, blk))
    return np.concatenate(parts)
