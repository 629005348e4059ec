"""A clothed, skinned golfer shaped from the base mesh."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np
import scipy.sparse as sp

from tropometer.golfer.base_mesh import Floats, Ints, add_target, load_base, load_json, normals, subdivide
from tropometer.golfer.shoe import MAT, shoe


@dataclass
class Body:
    """Bones at rest, foot landmarks and the packed vertices of one golfer (metres, y up, z ahead)."""

    bones: list[str] = field(default_factory=list)
    parent: dict[str, str | None] = field(default_factory=dict)
    head: dict[str, Floats] = field(default_factory=dict)
    tail: dict[str, Floats] = field(default_factory=dict)
    idx: dict[str, int] = field(default_factory=dict)
    foot: dict[str, dict[str, Any]] = field(default_factory=dict)
    height: float = 0.0
    sc: float = 1.0
    eye: Any = None
    neck: Any = None
    nv: int = 0
    S: Any = None
    rp: Any = None
    rn: Any = None
    ext: Any = None
    index: Any = None

    def posed(self, matrices: Floats) -> tuple[Floats, Floats]:
        """The surface (vertices, 3) and its normals for skinning matrices (bones, 4, 4)."""
        moves = (self.S @ matrices[:, :3, :].reshape(-1, 12).astype("f4")).reshape(-1, 3, 4)
        places = np.einsum("nij,nj->ni", moves[:, :, :3], self.rp) + moves[:, :, 3]
        return places, np.einsum("nij,nj->ni", moves[:, :, :3], self.rn)


def _ponytail(start: Floats, sc: float) -> tuple[Floats, Ints]:
    """Vertices and quads of tied hair that falls from the back of the head."""
    rings, sides = 9, 12
    share = np.linspace(0, 1, rings)
    middle = start + sc * np.stack([0 * share, -0.11 * share**1.3, -0.035 * np.sin(share * 2.4)], 1)
    radius = sc * np.interp(share, [0, 0.12, 0.4, 1], [0.014, 0.028, 0.032, 0.008])
    round_ = np.linspace(0, 2 * np.pi, sides, endpoint=False)
    ring = np.stack([np.cos(round_), 0 * round_, np.sin(round_)], 1)
    vertices = (middle[:, None] + radius[:, None, None] * ring).reshape(-1, 3)
    quads = [
        [i * sides + j, i * sides + (j + 1) % sides, (i + 1) * sides + (j + 1) % sides, (i + 1) * sides + j]
        for i in range(rings - 1)
        for j in range(sides)
    ]
    return vertices, np.array(quads)


def _reshape(V: Floats, height: float, hip_width: float, foot_length: float) -> None:
    """Widen the hips and lengthen the feet in place, by factors, fading out above and below."""
    level = V[:, 1] / height
    hips = np.interp(level, [0.04, 0.50, 0.54, 0.63], [0, 1, 1, 0])
    V[:, 0] *= 1 + (hip_width - 1) * hips
    ankle = V[level < 0.05, 2].min() + 0.06
    feet = np.interp(level, [0.035, 0.06], [1, 0])
    V[:, 2] += (V[:, 2] - ankle) * (foot_length - 1) * feet


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
    V, G = load_base()
    for g, wg in (("male", gender), ("female", 1 - gender)):
        add_target(V, f"caucasian-{g}-young", wg)
        ww = abs(weight)
        s = "maxweight" if weight > 0 else "minweight"
        add_target(V, f"universal-{g}-young-averagemuscle-averageweight", wg * (1 - ww))
        add_target(V, f"universal-{g}-young-averagemuscle-{s}", wg * ww)
    bodyid = np.unique(G["body"])
    V *= 0.1
    lo, hi = V[bodyid, 1].min(), V[bodyid, 1].max()
    V[:, 1] -= lo
    V *= height / (hi - lo)
    _reshape(V, height, hip_width, foot_length)
    # --- rig
    rig = load_json("rig")
    wj = load_json("weights")["weights"]
    names = [b for b in rig if b != "Root"]
    order, seen = [], set()

    def visit(b: str) -> None:
        if b in seen or b == "Root":
            return
        p = rig[b]["parent"]
        if p and p != "Root":
            visit(p)
        seen.add(b)
        order.append(b)

    for b in names:
        visit(b)

    def pt(s: dict[str, Any]) -> Floats:
        if s["strategy"] == "CUBE":
            return V[np.unique(G[s["cube_name"]])].mean(0)
        return V[s["vertex_indices"]].mean(0)

    B = Body()
    head = {b: pt(rig[b]["head"]) for b in order}
    tail = {b: pt(rig[b]["tail"]) for b in order}
    parent = {b: (rig[b]["parent"] if rig[b]["parent"] != "Root" else None) for b in order}
    # twist helper bones
    for s in "lr":
        for a in ("lowerarm", "upperarm"):
            t = f"{a}_tw_{s}"
            order.append(t)
            parent[t] = f"{a}_{s}"
            head[t] = head[f"{a}_{s}"]
            tail[t] = tail[f"{a}_{s}"]
    B.bones, B.parent, B.head, B.tail = order, parent, head, tail
    B.idx = {b: i for i, b in enumerate(order)}
    nb = len(order)
    W = np.zeros((len(V), nb))
    for b, l in wj.items():
        if b in B.idx:
            for i, w in l:
                W[i, B.idx[b]] = w
    W /= np.maximum(W.sum(1, keepdims=True), 1e-9)
    for s in "lr":
        for a in ("lowerarm", "upperarm"):
            h, t = head[f"{a}_{s}"], tail[f"{a}_{s}"]
            u = np.clip((V - h) @ (t - h) / ((t - h) @ (t - h)), 0, 1)
            w = W[:, B.idx[f"{a}_{s}"]].copy()
            W[:, B.idx[f"{a}_tw_{s}"]] = w * u
            W[:, B.idx[f"{a}_{s}"]] = w * (1 - u)
    B.height = height
    I = B.idx
    parts = []  # (V,F quads,W,mat,cut)
    waist = head["spine_01"][1] + 0.035
    # --- clothes from the tights helper
    Vt, Ft, Wt = subdivide(V, G["helper-tights"], W)
    Nt = normals(Vt, Ft)
    sc = height / 1.78
    arm = sum(
        Wt[:, I[f"{a}_{s}"]]
        for a in ("upperarm", "lowerarm", "hand", "upperarm_tw", "lowerarm_tw")
        for s in "lr"
    )
    # sleeve parameter along upper arm
    sl = np.zeros(len(Vt))
    for s in "lr":
        h, t = head[f"upperarm_{s}"], tail[f"upperarm_{s}"]
        side = 1 if s == "l" else -1
        u = (Vt - h) @ (t - h) / ((t - h) @ (t - h))
        sl = np.where((Vt[:, 0] * side > h[0] * side - 0.0) & (Vt[:, 1] > waist), u, sl)
    Vs = Vt.copy()
    off = np.where(sl > 0.05, 0.010 + 0.016 * np.clip(sl, 0, 1), 0.012) * sc
    off = off + 0.006 * np.clip((waist + 0.22 - Vt[:, 1]) / 0.22, 0, 1) * (sl < 0.05)  # loose at the waist
    Vs += Nt * off[:, None]
    ny = head["neck_01"][1]
    neckcut = Vs[:, 1] - (ny + 0.028 * sc - 0.62 * (Vs[:, 2] - head["neck_01"][2]))
    neckcut = np.where(np.abs(Vs[:, 0]) < 0.13 * sc, neckcut, -1)
    B.neck = np.array([0, ny + 0.028 * sc, head["neck_01"][2]])
    nk = np.clip((neckcut + 0.035 * sc) / (0.035 * sc), 0, 1)
    Vs += Nt * (nk * 0.006 * sc)[:, None]
    cut = np.maximum.reduce([sl - 0.66, (waist - 0.005) - Vs[:, 1], neckcut * 3])
    parts.append((Vs, Ft, Wt, np.full(len(Vs), MAT["shirt"]), cut, sl))
    Vp = Vt + Nt * (0.009 * sc)
    hem = np.full(len(Vt), 1.0)
    for s in "lr":
        h, k, t = head[f"thigh_{s}"], head[f"calf_{s}"], tail[f"calf_{s}"]
        side = 1 if s == "l" else -1
        on = Vt[:, 0] * side > 0
        d = t - k
        u = (Vp - k) @ d / (d @ d)
        ax = k + np.clip(u, -0.5, 1.2)[:, None] * d + np.array([0, 0, -0.012]) * sc
        r = Vp - ax
        r -= (r @ d / (d @ d))[:, None] * d
        rl = np.linalg.norm(r, axis=1)
        R = np.interp(u, [-0.5, 0, 0.5, 1.0], [0.092, 0.078, 0.080, 0.082]) * sc
        m = np.interp(u, [-0.35, 0.05], [0, 0.85]) * on * (u < 1.05)
        new = rl * (1 - m) + np.maximum(R, rl + 0.004) * m
        Vp = Vp + r / np.maximum(rl, 1e-6)[:, None] * (new - rl)[:, None]
        hem = np.where(on, u, hem)
    cutp = np.maximum(hem - 0.96, Vp[:, 1] - (waist + 0.012))
    cutp = np.where(arm > 0.2, 1.0, cutp)
    parts.append((Vp, Ft, Wt, np.full(len(Vp), MAT["trousers"]), cutp, (Vp[:, 1] - (waist - 0.03))))
    # --- skin: head, neck, arms
    F = G["body"]
    N = normals(V, F)
    armw = np.zeros(len(V))
    for s in "lr":
        h, t = head[f"upperarm_{s}"], tail[f"upperarm_{s}"]
        side = 1 if s == "l" else -1
        u = (V - h) @ (t - h) / ((t - h) @ (t - h))
        armw = np.where(V[:, 0] * side > h[0] * side, u, armw)
    aw = sum(
        W[:, I[f"{a}_{x}"]]
        for a in ("upperarm", "lowerarm", "hand", "upperarm_tw", "lowerarm_tw")
        for x in "lr"
    ) + sum(W[:, i] for b, i in I.items() if b[:-2].endswith(("_01", "_02", "_03")) and b[0] in "imrpt")
    keepv = ((armw > 0.35) & (aw > 0.5)) | (
        (W[:, I["head"]] + W[:, I["neck_01"]] > 0.25) & (V[:, 1] > head["neck_01"][1] - 0.09 * sc)
    )
    keepf = keepv[F].all(1)
    parts.append((V, F[keepf], W, np.full(len(V), MAT["skin"]), np.full(len(V), -1.0), armw))
    # socks / ankle: body lower legs
    sock = (V[:, 1] < 0.22 * sc) & (V[:, 1] > 0.045 * sc) & (aw < 0.01)
    parts.append((V, F[sock[F].all(1)], W, np.full(len(V), MAT["sole"]), np.full(len(V), -1.0), armw))
    for s in "lr":
        parts.append((V, G[f"helper-{s}-eye"], W, np.full(len(V), MAT["eye"]), np.full(len(V), -1.0), armw))
    # --- hair: scalp faces offset + cap: dome
    hw = W[:, I["head"]]
    hc = head["head"]
    top = V[bodyid, 1].max()
    eyeY = V[np.unique(G["helper-l-eye"])].mean(0)[1]
    eyeZ = V[np.unique(G["helper-l-eye"])].mean(0)[2]
    B.eye = np.array([0, eyeY, eyeZ])
    scalp = hw > 0.9
    capc = np.array([0, eyeY + 0.03 * sc, 0])
    Vh = V.copy()
    Vh += N * (0.010 * sc)
    zc = V[scalp & (V[:, 1] > eyeY)][:, 2]
    capc[2] = (zc.min() + zc.max()) / 2
    # hairline: above brow line at the front, to the nape at the back, exclude ears/face
    q = (V - capc) / sc
    hl = q[:, 1] - np.interp(q[:, 2], [-0.08, -0.02, 0.03, 0.07, 0.1], [-0.062, -0.04, 0.0, 0.05, 0.06])
    ear = (np.abs(q[:, 0]) > 0.071) & (q[:, 1] < 0.03) & (q[:, 1] > -0.08) & (q[:, 2] > -0.05)
    hl = np.where(ear, np.minimum(hl, -0.02), hl)
    hl = np.where(q[:, 1] < 0.0, np.minimum(hl, (0.077 - np.abs(q[:, 0])) * 2), hl)
    parts.append(
        (Vh, F[(hw[F] > 0.35).all(1) & (hl[F] > -0.03).any(1)], W, np.full(len(V), MAT["hair"]), -hl, armw)
    )
    if cap:
        Vc = V + N * (0.017 * sc)
        cl = q[:, 1] - 0.018 - 0.0 * q[:, 2]
        parts.append(
            (Vc, F[(hw[F] > 0.9).all(1) & (cl[F] > -0.03).any(1)], W, np.full(len(V), MAT["cap"]), -cl, armw)
        )
        # brim
        front = V[scalp & (np.abs(V[:, 1] - (capc[1] + 0.022 * sc)) < 0.012 * sc)]
        zf = front[:, 2].max() + 0.012 * sc
        hwid = np.abs(front[:, 0]).max() * 0.86
        nu, nv = 17, 7
        g = []
        for j in range(nv):
            for i in range(nu):
                a = (i / (nu - 1) - 0.5) * 2
                x = a * hwid
                zb = zf - 0.075 * sc * (a * a) * 1.0
                ln = 0.075 * sc * np.sqrt(max(0, 1 - a * a * 0.92))
                v = j / (nv - 1)
                g.append(
                    [
                        x * (1 - 0.10 * v),
                        capc[1]
                        + 0.024 * sc
                        - 0.016 * sc * v
                        - 0.014 * sc * a * a
                        + 0.003 * sc * np.sin(v * 3.1),
                        zb + ln * v,
                    ]
                )
        g = np.array(g)
        Wb = np.zeros((len(g), nb))
        Wb[:, I["head"]] = 1
        Fb = np.array(
            [
                [j * nu + i, j * nu + i + 1, (j + 1) * nu + i + 1, (j + 1) * nu + i]
                for j in range(nv - 1)
                for i in range(nu - 1)
            ]
        )
        parts.append(
            (g, Fb[:, ::-1], Wb, np.full(len(g), MAT["cap"]), np.full(len(g), -1.0), np.zeros(len(g)))
        )
    if ponytail:
        back = np.array([0, eyeY + 0.045 * sc, V[scalp][:, 2].min() - 0.004 * sc])
        tail_v, tail_f = _ponytail(back, sc)
        Wt_ = np.zeros((len(tail_v), nb))
        hangs = np.clip((back[1] - tail_v[:, 1]) / (0.16 * sc), 0, 1)  # its end lies on the back
        Wt_[:, I["head"]], Wt_[:, I["spine_03"]] = 1 - hangs, hangs
        plain = np.full(len(tail_v), -1.0)
        parts.append((tail_v, tail_f, Wt_, np.full(len(tail_v), MAT["hair"]), plain, np.zeros(len(tail_v))))
    # --- shoes
    B.foot = {}
    for s in "lr":
        sv, sf, sw, sm = shoe(V, W, I, s, head, tail, sc, B.foot, bodyid)
        parts.append((sv, sf, sw, sm, np.full(len(sv), -1.0), np.zeros(len(sv))))
    # --- pack
    vo, rows, idx = 0, [], []
    for v, f, w, m, c, u in parts:
        used, inv = np.unique(f, return_inverse=True)
        f = inv.reshape(f.shape)
        n = normals(v[used], f)
        w = w[used]
        top4 = np.argsort(-w, 1)[:, :4]
        tw = np.take_along_axis(w, top4, 1)
        tw /= np.maximum(tw.sum(1, keepdims=True), 1e-9)
        f = f[~(c[used][f] > 0.02).all(1)]
        rows.append(
            np.concatenate([v[used], n, top4, tw, m[used][:, None], c[used][:, None], u[used][:, None]], 1)
        )
        idx.append(np.concatenate([f[:, [0, 1, 2]], f[:, [0, 2, 3]]]) + vo)
        vo += len(used)

    rr = np.concatenate(rows)
    B.nv = len(rr)
    B.S = sp.csr_matrix(
        (rr[:, 10:14].ravel(), (np.arange(B.nv).repeat(4), rr[:, 6:10].astype(int).ravel())),
        (B.nv, nb),
        dtype="f4",
    )
    B.rp = rr[:, :3].astype("f4")
    B.rn = rr[:, 3:6].astype("f4")
    B.ext = rr[:, 14:17].astype("f4")
    B.vert = np.concatenate(rows).astype("f4")
    B.index = np.concatenate(idx).astype("i4")
    B.sc = sc
    return B
