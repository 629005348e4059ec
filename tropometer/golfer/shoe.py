"""The golf shoe: a lofted shell around the foot, with the sole points the swing stands on."""

from __future__ import annotations

from typing import Any

import numpy as np

from tropometer.golfer.base_mesh import Floats, Ints, normals

MAT = dict(skin=0, shirt=1, trousers=2, shoe=3, sole=4, hair=5, eye=6, cap=7, glove=8, belt=9)


def shoe(
    V: Floats,
    W: Floats,
    I: dict[str, int],
    s: str,
    head: dict[str, Floats],
    tail: dict[str, Floats],
    sc: float,
    foot: dict[str, dict[str, Any]],
    bodyid: Ints,
) -> tuple[Floats, Ints, Floats, Any]:
    """Vertices, quads, bone weights and materials of one shoe; writes its landmarks into `foot`."""
    fw = W[:, I[f"foot_{s}"]] + W[:, I[f"ball_{s}"]]
    P = V[bodyid][(fw[bodyid] > 0.5) & (V[bodyid, 1] < 0.10 * sc)]
    an, ball, toe = head[f"foot_{s}"], head[f"ball_{s}"], tail[f"ball_{s}"]
    ax = toe - an
    ax[1] = 0
    ax /= np.linalg.norm(ax)
    lat = np.array([ax[2], 0, -ax[0]])  # lat = character-left-ish
    o = np.array([an[0], 0, an[2]])
    a = (P - o) @ ax
    l = (P - o) @ lat
    y = P[:, 1]
    a0, a1 = a.min() - 0.012 * sc, a.max() + 0.016 * sc
    L = a1 - a0
    ns = 40
    K = 28
    inner = -1 if s == "l" else 1
    st = np.linspace(0, 1, ns)
    st = 0.5 - 0.5 * np.cos(np.pi * st)
    wl = []
    wr = []
    for t in st:
        c = a0 + np.clip(t, 0.1, 0.86) * L
        m = (np.abs(a - c) < 0.018 * sc) & (y < 0.05 * sc)
        wl.append(l[m].min() - 0.006 * sc)
        wr.append(l[m].max() + 0.006 * sc)
    sm = lambda z: np.convolve(np.pad(z, 4, "edge"), np.ones(9) / 9, "valid")
    wl, wr = sm(np.array(wl)), sm(np.array(wr))
    mid = (wl + wr) / 2
    half = (wr - wl) / 2
    endh = np.sqrt(np.clip(1 - ((0.13 - st) / 0.13).clip(0) ** 2, 0, 1))
    endt = np.clip(1 - ((st - 0.74) / 0.26).clip(0) ** 2.3, 0, 1) ** 0.55
    half = half * np.minimum(endh, endt)
    half = np.maximum(half, 0.0015)
    # waist of the sole at the arch, inner side
    arch = np.exp(-(((st - 0.42) / 0.13) ** 2)) * 0.009 * sc
    top = np.interp(
        st,
        [0, 0.04, 0.12, 0.30, 0.42, 0.58, 0.78, 0.93, 1],
        np.array([0.062, 0.083, 0.090, 0.092, 0.082, 0.064, 0.050, 0.042, 0.028]) * sc,
    )
    ybot = -0.014 * sc
    ysole = np.interp(st, [0, 0.25, 0.45, 0.7, 1], np.array([0.016, 0.014, 0.010, 0.008, 0.013]) * sc)
    spring = np.interp(st, [0.8, 1], [0, 0.012 * sc])  # toe spring
    rings = []
    mats = []
    for i, t in enumerate(st):
        c = o + ax * (a0 + t * L)
        h = half[i]
        ring = []
        mt = []
        n_up = K - 8
        li, ri = mid[i] - h, mid[i] + h
        if inner < 0:
            li += arch[i]
        else:
            ri -= arch[i]
        hb = ybot + spring[i]
        hs = ysole[i] + spring[i] * 0.6
        # bottom (4), right side up (2), upper arc, left side down(2)
        for q in (0.2, 0.5, 0.8):
            ring.append((li + (ri - li) * q, hb))
            mt.append(MAT["sole"])
        ring.append((ri - 0.002, hb))
        mt.append(MAT["sole"])
        ring.append((ri + 0.003 * sc, (hb + hs) / 2))
        mt.append(MAT["sole"])
        ring.append((ri + 0.002 * sc, hs))
        mt.append(MAT["sole"])
        e = 0.62 if t < 0.5 else 0.8
        for j in range(n_up):
            th = np.pi * (j + 0.5) / n_up
            cx, sy = np.cos(th), np.sin(th)
            cx = np.sign(cx) * abs(cx) ** e
            sy = sy**0.8
            # the upper narrows toward the ankle
            tt = max(top[i] - 0.0, hs + 0.006)
            yy = hs + (tt - hs) * sy
            nar = 1 - 0.38 * np.interp(t, [0.05, 0.3, 0.6], [0.9, 0.9, 0.3]) * sy**2
            ring.append((mid[i] + (h - 0.001) * cx * nar, yy))
            mt.append(MAT["shoe"])
        ring.append((li - 0.002 * sc, hs))
        mt.append(MAT["sole"])
        ring.append((li - 0.003 * sc, (hb + hs) / 2))
        mt.append(MAT["sole"])
        for x, yv in ring:
            rings.append(c + lat * x + np.array([0, yv, 0]))
        mats += mt
    R = np.array(rings)
    K = len(ring)
    mats = np.array(mats)
    Fq = np.array(
        [
            [i * K + j, (i + 1) * K + j, (i + 1) * K + (j + 1) % K, i * K + (j + 1) % K]
            for i in range(ns - 1)
            for j in range(K)
        ]
    )
    ends = []
    c0, c1 = R[:K].mean(0), R[-K:].mean(0)
    R = np.concatenate([R, [c0, c1]])
    mats = np.append(mats, [MAT["shoe"], MAT["shoe"]])
    z0, z1 = ns * K, ns * K + 1
    Fq = np.concatenate(
        [
            Fq,
            [[z0, j, (j + 1) % K, z0] for j in range(K)],
            [[z1, (ns - 1) * K + (j + 1) % K, (ns - 1) * K + j, z1] for j in range(K)],
        ]
    )
    Wn = np.zeros((len(R), W.shape[1]))
    u = (R - o) @ ax
    ub = (ball - o) @ ax
    b = np.clip((u - (ub - 0.028 * sc)) / (0.045 * sc), 0, 1)
    b = b * b * (3 - 2 * b)
    Wn[:, I[f"ball_{s}"]] = b
    Wn[:, I[f"foot_{s}"]] = 1 - b
    cen = R.mean(0)
    n = normals(R, Fq)
    if ((R - cen) * n).sum() < 0:
        Fq = Fq[:, ::-1]
    # reference points, rest frame
    foot[s] = dict(
        heel=o + ax * (a0 + 0.012),
        ballpt=o + ax * ub + np.array([0, ybot, 0]),
        ax=ax,
        lat=lat,
        L=L,
        ybot=ybot,
        heelpt=o + ax * (a0 + 0.02 * sc) + np.array([0, ybot, 0]),
        inner=o + ax * ub + lat * (inner * 0.042 * sc) + np.array([0, ybot, 0]),
        outer=o + ax * ub - lat * (inner * 0.048 * sc) + np.array([0, ybot, 0]),
        toept=o + ax * a1 + np.array([0, ybot, 0]),
    )
    return R, Fq, Wn, mats
