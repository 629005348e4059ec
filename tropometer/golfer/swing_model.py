"""Parametric swing -> joint positions -> bone matrices. x target, y up, z ball; right-handed."""

from __future__ import annotations

from typing import Any

import numpy as np
from scipy.interpolate import PchipInterpolator
from scipy.optimize import least_squares
from scipy.spatial.transform import Rotation as Ro

from tropometer.golfer.base_mesh import Floats
from tropometer.golfer.body import Body


def nz(v: Any) -> Floats:
    """Unit vector."""
    return v / max(np.linalg.norm(v), 1e-9)


def Rx(a: float) -> Floats:
    """Rotation about x, degrees."""
    return Ro.from_euler("x", a, degrees=True).as_matrix()


def Ry(a: float) -> Floats:
    """Rotation about y, degrees."""
    return Ro.from_euler("y", a, degrees=True).as_matrix()


def Rz(a: float) -> Floats:
    """Rotation about z, degrees."""
    return Ro.from_euler("z", a, degrees=True).as_matrix()


def axrot(ax: Any, deg: float) -> Floats:
    """Rotation about any axis, degrees."""
    return Ro.from_rotvec(nz(ax) * np.radians(deg)).as_matrix()


def mid(A: Floats, B: Floats, t: float) -> Floats:
    """Rotation a share t of the way from A to B."""
    return A @ Ro.from_rotvec(Ro.from_matrix(A.T @ B).as_rotvec() * t).as_matrix()


def frame(d: Any, n: Any) -> Floats:
    """Orthonormal axes along d with n made square to it."""
    d = nz(d)
    n = nz(n - (n @ d) * d)
    return np.stack([d, n, np.cross(d, n)], 1)


def ik2(a: Any, b: Any, l1: float, l2: float, pole: Any) -> tuple[Floats, Floats, float]:
    """Two-bone chain from a toward b bending toward pole: middle joint, end, shortfall."""
    d = b - a
    D = np.linalg.norm(d)
    u = d / D
    Dm = min(D, (l1 + l2) * 0.9985)
    x = (l1 * l1 - l2 * l2 + Dm * Dm) / (2 * Dm)
    h = np.sqrt(max(l1 * l1 - x * x, 0))
    p = nz(pole - (pole @ u) * u)
    return a + u * x + p * h, a + u * Dm, D - Dm


EVENTS = [
    "address",
    "takeaway",
    "mid-back",
    "top",
    "mid-down",
    "delivery",
    "impact",
    "release",
    "mid-through",
    "finish",
]
T = np.array([0.30, 0.75, 1.00, 1.32, 1.49, 1.545, 1.60, 1.655, 1.74, 2.25])
# one row per event
KEY = dict(
    pturn=[0, -14, -32, -45, -8, 18, 40, 55, 75, 98],
    ptilt=[22, 22, 21, 19, 22, 20, 16, 12, 6, -2],
    pside=[0, 2, 5, 7, 3, 1, 0, 0, 0, 0],
    px=[0, -0.01, -0.02, -0.015, 0.045, 0.07, 0.085, 0.095, 0.12, 0.15],
    pz=[-0.155, -0.155, -0.15, -0.145, -0.155, -0.145, -0.125, -0.11, -0.09, -0.04],
    py=[0.930, 0.928, 0.923, 0.917, 0.898, 0.908, 0.926, 0.917, 0.926, 0.935],
    tturn=[4, -30, -66, -92, -52, -18, 18, 42, 72, 112],
    ttilt=[27, 27, 29, 30, 31, 31, 28, 24, 16, -6],
    tside=[9, 7, 3, 0, 5, 12, 20, 20, 13, 4],
    hyaw=[0, -6, -12, -16, -12, -8, -6, 6, 35, 85],
    htilt=[46, 46, 45, 44, 45, 46, 46, 42, 22, 2],
    hside=[3, 2, 2, 2, 4, 8, 12, 14, 10, 2],
    lflare=[20] * 10,
    lyaw=[0] * 9 + [6],
    llift=[0, 0, 3, 5, 1, 0, 0, 0, 0, 0],
    lroll=[0, 2, 6, 8, 1, 0, -3, -5, -8, -12],
    ltoe=[0] * 9 + [0],
    ext=[0.962, 0.985, 0.985, 0.98, 0.985, 0.985, 0.99, 0.99, 0.90, 0.60],
    rflare=[8] * 10,
    ryaw=[0, 0, 0, 0, 0, 3, 8, 16, 30, 48],
    rlift=[0, 0, 0, 0, 4, 9, 16, 26, 45, 72],
    rroll=[0, 0, 0, 0, 6, 9, 10, 8, 4, 0],
    rtoe=[0] * 10,
)
GPOS = np.array(
    [
        [0.01, 0.73, 0.17],
        [-0.30, 0.83, 0.26],
        [-0.43, 1.20, 0.09],
        [-0.29, 1.50, -0.10],
        [-0.33, 1.13, 0.06],
        [-0.13, 0.86, 0.20],
        [0.10, 0.74, 0.20],
        [0.37, 0.88, 0.25],
        [0.50, 1.22, 0.08],
        [0.20, 1.60, -0.20],
    ]
)
SHAFT = np.array(
    [
        [0.0, -0.8, 0.6],
        [-0.99, 0.0, 0.10],
        [-0.05, 0.88, -0.46],
        [0.92, 0.24, 0.0],
        [-0.30, 0.78, -0.55],
        [-0.98, 0.04, -0.10],
        [-0.12, -0.83, 0.55],
        [0.97, 0.02, 0.20],
        [0.30, 0.93, -0.22],
        [-0.80, -0.35, 0.45],
    ]
)


class SwingModel:
    """One golfer's swing with a club; `faults` adds offsets to the named curves, one per event."""

    def __init__(self, B: Body, club: str = "7i", faults: dict[str, Any] | None = None) -> None:
        self.B = B
        k = B.sc
        self.key = {a: np.array(b, float) for a, b in KEY.items()}
        for n, v in (faults or {}).items():
            self.key[n] = self.key[n] + np.array(v, float)
        self.L = {"7i": 0.94, "dr": 1.14}[club]
        self.lg = self.L - 0.105  # grip reference = between the hands
        self.stance = {"7i": 0.40, "dr": 0.48}[club] * k
        self.ballx = {"7i": 0.03, "dr": 0.16}[club]
        g = GPOS.copy() * k
        c = np.array([nz(v) for v in SHAFT])
        self.ball = np.array([self.ballx, 0.0214 + (0.0 if club == "7i" else 0.035), 0])
        cl = c[0]
        # address: hands where the key says, ball where the shaft reaches the ground
        h = g[0]
        c0 = np.array([self.ballx - 0.01 - h[0], -(h[1] - 0.02), 0])
        c0[2] = np.sqrt(self.lg**2 - c0[0] ** 2 - c0[1] ** 2)
        self.ball[2] = h[2] + c0[2] - 0.012
        c[0] = nz(c0)
        hd = self.ball + np.array([-0.024, 0.0, -0.008])
        c7 = nz(c[6])
        g[6] = hd - c7 * self.lg
        c[6] = c7
        self.tT = np.concatenate([[0], T, [2.6]])
        ext = lambda A: np.concatenate([A[:1], A, A[-1:]])
        self.f = {n: PchipInterpolator(self.tT, ext(v)) for n, v in self.key.items()}
        self.dur = 2.6
        self._rest()
        self._ext = ext
        self.g, self.c = g, c
        mk = lambda: (
            setattr(self, "fg", PchipInterpolator(self.tT, ext(g))),
            setattr(self, "fc", PchipInterpolator(self.tT, ext(c))),
        )
        mk()
        for _ in range(6):  # address: lead arm at its key length, ball where the shaft reaches the ground
            _, J = self.pose(T[0])
            h = J["grip"]
            g[0] = h
            c0 = np.array([self.ballx - 0.02 - h[0], -(h[1] - 0.022), 0])
            c0[2] = np.sqrt(self.lg**2 - c0[0] ** 2 - c0[1] ** 2)
            c[0] = nz(c0)
            self.ball[2] = h[2] + c0[2] + 0.03
            mk()

        hd = self.ball + np.array([-0.026, 0.001, -0.030])
        x0 = g[6][0]

        def res(v: Any) -> list[float]:
            g[6] = [x0, v[0], v[1]]
            c[6] = nz(hd - g[6])
            mk()
            _, J = self.pose(T[6])
            return [np.linalg.norm(hd - J["grip"]) - self.lg, np.linalg.norm(J["grip"] - g[6]) * 3]

        q = least_squares(res, [g[6][1], g[6][2]], diff_step=1e-3)
        res(q.x)
        self.impact_res = q.fun
        g[6] = self.pose(T[6])[1]["grip"]
        c[6] = nz(hd - g[6])
        mk()

    def _rest(self) -> None:
        B = self.B
        self.rest = {}
        for sd in "lr":
            h = nz(B.head[f"middle_01_{sd}"] - B.head[f"hand_{sd}"])
            ac = B.head[f"index_01_{sd}"] - B.head[f"pinky_01_{sd}"]
            p = nz(np.cross(h, ac))
            tip = B.tail[f"middle_03_{sd}"] - B.head[f"middle_01_{sd}"]
            if p @ (tip - (tip @ h) * h) < 0:
                p = -p
            self.rest[sd] = dict(
                h=h, p=p, palm=np.linalg.norm(B.head[f"middle_01_{sd}"] - B.head[f"hand_{sd}"])
            )
            a, b = (
                B.tail[f"upperarm_{sd}"] - B.head[f"upperarm_{sd}"],
                B.tail[f"lowerarm_{sd}"] - B.head[f"lowerarm_{sd}"],
            )
            self.rest[sd]["hinge"] = nz(np.cross(a, b))

    def pose(self, t: float) -> tuple[Floats, dict[str, Any]]:
        """Bone matrices (b, 4, 4) and named joint positions at time t, seconds."""
        B = self.B
        H, Tl = B.head, B.tail
        p = {n: float(f(t)) for n, f in self.f.items()}
        sc = B.sc
        R, P, J = {}, {}, {}
        G = self.fg(t)
        c = nz(self.fc(t))
        Rp = Rx(p["ptilt"]) @ Ry(p["pturn"]) @ Rz(p["pside"])
        Rt = Rx(p["ttilt"]) @ Ry(p["tturn"]) @ Rz(p["tside"])
        Rh = Rx(p["htilt"]) @ Ry(p["hyaw"]) @ Rz(p["hside"])
        pel = np.array([p["px"], p["py"], p["pz"]]) * sc
        # feet first
        for sd, sg in (("l", 1), ("r", -1)):
            f = B.foot[sd]
            yaw = sg * p[sd + "flare"] + (p[sd + "yaw"] if sd == "r" else -p[sd + "yaw"] * 0 + p[sd + "yaw"])
            rest_yaw = np.degrees(np.arctan2(f["ax"][0], f["ax"][2]))
            Y = Ry(yaw - rest_yaw)
            yaw0 = sg * p[sd + "flare"] - rest_yaw
            base = np.array([sg * self.stance / 2, 0, 0])
            piv = base + Ry(yaw0) @ (
                f["ballpt"] - np.array([H[f"foot_{sd}"][0], f["ybot"], H[f"foot_{sd}"][2]])
            )  # ball of foot on the ground
            ax = Y @ f["ax"]
            lat = np.cross(np.array([0, 1.0, 0]), ax)
            Rb = Y
            pb = piv
            # roll about the inner (or outer) sole edge
            edge = piv + Y @ (f["inner"] - f["ballpt"]) * (1 if p[sd + "roll"] >= 0 else -1)
            Rr = axrot(ax, sg * p[sd + "roll"])
            Rball = Rr @ Y
            pball = edge + Rr @ (piv - edge)
            Rl = axrot(Rball @ np.array([1.0, 0, 0]) if True else lat, p[sd + "lift"])
            Rl = axrot(np.cross(Rball @ np.array([0, 1.0, 0]), Rball @ f["ax"]), p[sd + "lift"])
            bj = pball + Rball @ (H[f"ball_{sd}"] - f["ballpt"])
            Rf = Rl @ Rball
            if p[sd + "toe"]:
                hp = bj + Rf @ (f["heelpt"] - H[f"ball_{sd}"])
                Rq = axrot(lat, -p[sd + "toe"])
                Rf = Rq @ Rf
                Rball = Rq @ Rball
                bj = hp + Rq @ (bj - hp)
            R[f"foot_{sd}"], R[f"ball_{sd}"] = Rf, Rball
            P[f"ball_{sd}"] = bj
            P[f"foot_{sd}"] = bj + Rf @ (H[f"foot_{sd}"] - H[f"ball_{sd}"])
            J["heel_" + sd] = bj + Rf @ (f["heelpt"] - H[f"ball_{sd}"])
            J["toe_" + sd] = bj + Rball @ (f["toept"] - H[f"ball_{sd}"])
        # lower the pelvis if a leg cannot reach
        for _ in range(4):
            for sd in "lr":
                hip = pel + Rp @ (H[f"thigh_{sd}"] - H["pelvis"])
                l = np.linalg.norm(Tl[f"thigh_{sd}"] - H[f"thigh_{sd}"]) + np.linalg.norm(
                    Tl[f"calf_{sd}"] - H[f"calf_{sd}"]
                )
                v = P[f"foot_{sd}"] - hip
                ex = np.linalg.norm(v) - l * 0.992
                if ex > 0:
                    pel = pel + np.array([0, -ex * 1.02 * np.linalg.norm(v) / abs(v[1]), 0])
        R["pelvis"], P["pelvis"] = Rp, pel

        def child(b: str, par: str, Rm: Floats) -> None:
            R[b] = Rm
            P[b] = P[par] + R[par] @ (H[b] - H[par])

        child("spine_01", "pelvis", mid(Rp, Rt, 0.30))
        child("spine_02", "spine_01", mid(Rp, Rt, 0.68))
        child("spine_03", "spine_02", Rt)
        child("neck_01", "spine_03", mid(Rt, Rh, 0.5))
        child("head", "neck_01", Rh)
        for sd in "lr":
            child(f"thigh_{sd}", "pelvis", Rp)
            hip = P[f"thigh_{sd}"]
            l1 = np.linalg.norm(H[f"calf_{sd}"] - H[f"thigh_{sd}"])
            l2 = np.linalg.norm(H[f"foot_{sd}"] - H[f"calf_{sd}"])
            pole = (
                nz(R[f"ball_{sd}"] @ np.array([0, 0, 1.0])) * 0.62 + nz(Rp @ np.array([0, 0.25, 1.0])) * 0.38
            )
            if p[sd + "lift"] > 20:
                pole = pole + np.array([0, -0.0, 0])
            k, an, e = ik2(hip, P[f"foot_{sd}"], l1, l2, pole)
            pl = k - (hip + an) / 2
            fw = nz(pole - (pole @ nz(an - hip)) * nz(an - hip))
            z = np.array([0, 0, 1.0])
            R[f"thigh_{sd}"] = frame(k - hip, fw) @ frame(H[f"calf_{sd}"] - H[f"thigh_{sd}"], z).T
            R[f"calf_{sd}"] = frame(an - k, fw) @ frame(H[f"foot_{sd}"] - H[f"calf_{sd}"], z).T
            P[f"calf_{sd}"] = k
            J["leg_err_" + sd] = e
        # club frame and hands
        Lsh = P["spine_03"] + Rt @ (H["upperarm_l"] - H["spine_03"])
        d = nz(G - Lsh)
        u = nz(d - (d @ c) * c)
        n = np.cross(c, u)
        for it in range(5):
            err = 0
            for sd, sg in (("l", 1), ("r", -1)):
                q = self.rest[sd]
                a = np.radians(48 if sd == "l" else 44)
                h = nz(np.cos(a) * c + np.sin(a) * u)
                pn = -sg * n
                gp = G + c * (-0.043 if sd == "l" else 0.043) * 1.0
                hand = gp - h * (q["palm"] * 0.90) - pn * 0.030 * sc
                child(f"clavicle_{sd}", "spine_03", Rt)
                C = P[f"clavicle_{sd}"]
                cd = Rt @ (H[f"upperarm_{sd}"] - H[f"clavicle_{sd}"])
                to = nz(hand - (C + cd))
                nd = nz(cd) + (0.30 if sd == "l" else 0.48) * to
                Rc = Ro.align_vectors([nd], [cd])[0].as_matrix() @ Rt
                R[f"clavicle_{sd}"] = Rc
                sh = C + Rc @ (H[f"upperarm_{sd}"] - H[f"clavicle_{sd}"])
                l1 = np.linalg.norm(H[f"lowerarm_{sd}"] - H[f"upperarm_{sd}"])
                l2 = np.linalg.norm(H[f"hand_{sd}"] - H[f"lowerarm_{sd}"])
                pole = Rt @ np.array([sg * 0.55, -0.9, -0.15]) + np.array([0, -0.5, 0])
                el, wr, e = ik2(sh, hand, l1, l2, pole)
                if sd == "l":
                    eL = (np.linalg.norm(hand - sh) - (l1 + l2) * p["ext"], sh, hand)
                J["arm_err_" + sd] = e
                P[f"upperarm_{sd}"], P[f"lowerarm_{sd}"], P[f"hand_{sd}"] = sh, el, wr
                bend = (
                    nz(np.cross(el - sh, wr - el))
                    if np.linalg.norm(np.cross(nz(el - sh), nz(wr - el))) > 1e-3
                    else nz(np.cross(el - sh, -pole))
                )
                Fu = frame(el - sh, bend) @ frame(H[f"lowerarm_{sd}"] - H[f"upperarm_{sd}"], q["hinge"]).T
                Rl = frame(wr - el, bend) @ frame(H[f"hand_{sd}"] - H[f"lowerarm_{sd}"], q["hinge"]).T
                Rhd = frame(h, pn) @ frame(q["h"], q["p"]).T
                ru = H[f"lowerarm_{sd}"] - H[f"upperarm_{sd}"]
                sw = Ro.align_vectors([el - sh], [Rc @ ru])[0].as_matrix() @ Rc
                R[f"upperarm_{sd}"] = mid(sw, Fu, 0.35)
                R[f"upperarm_tw_{sd}"] = Fu
                P[f"upperarm_tw_{sd}"] = sh
                R[f"lowerarm_{sd}"] = Rl
                rl = H[f"hand_{sd}"] - H[f"lowerarm_{sd}"]
                swl = Ro.align_vectors([wr - el], [Rhd @ rl])[0].as_matrix() @ Rhd
                R[f"lowerarm_tw_{sd}"] = mid(Rl, swl, 0.8)
                P[f"lowerarm_tw_{sd}"] = el
                R[f"hand_{sd}"] = Rhd
                axc = np.cross(q["h"], q["p"])
                for fi, cl in (
                    ("index", (50, 62, 38)),
                    ("middle", (58, 66, 40)),
                    ("ring", (62, 66, 40)),
                    ("pinky", (64, 64, 40)),
                ):
                    par, acc = f"hand_{sd}", 0
                    for j in range(3):
                        acc += cl[j] * 0.95
                        b = f"{fi}_0{j + 1}_{sd}"
                        child(b, par, Rhd @ axrot(axc, acc))
                        par = b
                par = f"hand_{sd}"
                td = nz(Tl[f"thumb_03_{sd}"] - H[f"thumb_01_{sd}"])
                tt = nz(q["h"] * 0.80 + q["p"] * 0.62 + np.cross(q["h"], q["p"]) * 0)
                A0 = Ro.align_vectors([tt], [td])[0].as_matrix()
                for j in range(3):
                    b = f"thumb_0{j + 1}_{sd}"
                    child(b, par, Rhd @ mid(np.eye(3), A0, (0.75, 0.95, 1.05)[j]))
                    par = b
            wx = np.clip(
                (T[8] + 0.15 - t) / 0.2, 0, 1
            )  # lead arm kept at its key length until the follow-through, then it may fold
            if abs(eL[0]) * wx > 2e-4 or J["arm_err_l"] > 2e-4:
                G = G - nz(eL[2] - eL[1]) * (eL[0] * wx if wx > 0 else max(eL[0], 0))
                d = nz(G - Lsh)
                u = nz(d - (d @ c) * c)
                n = np.cross(c, u)
            else:
                break
        J.update(grip=G, shaft=c, face=n, toeup=u, head=G + c * self.lg, butt=G - c * (self.L - self.lg))
        for b in B.bones:
            J["b_" + b] = P[b]
        M = np.zeros((len(B.bones), 4, 4))
        M[:, 3, 3] = 1
        for i, b in enumerate(B.bones):
            M[i, :3, :3] = R[b]
            M[i, :3, 3] = P[b] - R[b] @ H[b]
        M[:, 1, 3] += -B.foot["l"]["ybot"] * 0
        return M, J
