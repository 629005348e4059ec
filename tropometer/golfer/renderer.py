"""Draws one frame of a golfer on the practice bay, on the CPU through headless EGL."""

from __future__ import annotations

from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from tropometer.golfer.base_mesh import Floats
from tropometer.golfer.body import Body
from tropometer.golfer.shaders import BGF, BGV, CATF, CATV, CHF, CHV, OBF, OBV


def look(eye: Any, at: Any, up: Any = (0, 1, 0)) -> Floats:
    """View matrix of a camera at eye looking at a point."""
    f = np.array(at, float) - eye
    f /= np.linalg.norm(f)
    s = np.cross(f, up)
    s /= np.linalg.norm(s)
    u = np.cross(s, f)
    M = np.eye(4)
    M[0, :3], M[1, :3], M[2, :3] = s, u, -f
    M[:3, 3] = -M[:3, :3] @ np.array(eye, float)
    return M


def persp(fovy: float, asp: float, n: float = 0.1, f: float = 400) -> Floats:
    """Perspective matrix; fovy is the full vertical angle in degrees."""
    t = 1 / np.tan(np.radians(fovy) / 2)
    M = np.zeros((4, 4))
    M[0, 0] = t / asp
    M[1, 1] = t
    M[2, 2] = (f + n) / (n - f)
    M[2, 3] = 2 * f * n / (n - f)
    M[3, 2] = -1
    return M


def ortho(w: float, n: float, f: float) -> Floats:
    """Orthographic matrix of half width w."""
    return np.array(
        [[1 / w, 0, 0, 0], [0, 1 / w, 0, 0], [0, 0, -2 / (f - n), -(f + n) / (f - n)], [0, 0, 0, 1]]
    )


# How far thin copies add up to the moving thing itself where they all lie over each other.
BLUR_COVER = 1.6


class Renderer:
    """Holds the GL context, the buffers and the range; draws one golfer."""

    def __init__(self, B: Body, w: int = 1280, h: int = 720, msaa: int = 4, shadow: int = 1536) -> None:
        self.ctx = moderngl.create_context(standalone=True, backend="egl")
        c = self.ctx
        self.w, self.h, self.B = w, h, B
        self.fbo = c.framebuffer(
            [c.renderbuffer((w, h), 4, samples=msaa)], c.depth_renderbuffer((w, h), samples=msaa)
        )
        self.out = c.simple_framebuffer((w, h))
        self.dt = c.depth_texture((shadow, shadow))
        self.dt.compare_func = "<="
        self.dt.filter = (moderngl.LINEAR, moderngl.LINEAR)
        self.sfbo = c.framebuffer(depth_attachment=self.dt)
        self.pch = c.program(vertex_shader=CHV, fragment_shader=CHF)
        self.pchs = c.program(
            vertex_shader="#version 330\nin vec3 pos; in vec3 ext; uniform mat4 VP; uniform float mir; out float cut; void main(){cut=ext.y; gl_Position=VP*vec4(pos.x*mir,pos.yz,1.);}",
            fragment_shader="#version 330\nin float cut; void main(){ if(cut>0.) discard; }",
        )
        self.pob = c.program(vertex_shader=OBV, fragment_shader=OBF)
        self.pobs = c.program(vertex_shader=OBV, fragment_shader="#version 330\nvoid main(){}")
        self.pbg = c.program(vertex_shader=BGV, fragment_shader=BGF)
        self.pcat = c.program(vertex_shader=CATV, fragment_shader=CATF)
        self.pblit = c.program(
            vertex_shader="#version 330\nin vec2 p; out vec2 t; void main(){t=p*.5+.5;gl_Position=vec4(p,.9999,1.);}",
            fragment_shader="#version 330\nin vec2 t; out vec4 o; uniform sampler2D x; void main(){o=texture(x,t);}",
        )
        q = c.buffer(np.array([-1, -1, 1, -1, -1, 1, 1, 1], "f4"))
        self.quad = q
        self.dyn = c.buffer(reserve=B.nv * 24)
        st = c.buffer(np.concatenate([B.rp, B.ext], 1).tobytes())
        ib = c.buffer(B.index.tobytes())
        self.vch = c.vertex_array(
            self.pch, [(self.dyn, "3f 3f", "pos", "nrm"), (st, "3f 3f", "rpos", "ext")], ib
        )
        self.vchs = c.vertex_array(self.pchs, [(self.dyn, "3f 12x", "pos"), (st, "12x 3f", "ext")], ib)
        self.sun = np.array([0.42, 0.80, 0.45])
        self.sun /= np.linalg.norm(self.sun)
        g = np.random.default_rng(3)
        tex = np.zeros((512, 512))
        a = 0.5
        for o in range(5):
            k = 16 * 2**o
            m = g.random((k, k))
            yy, xx = np.meshgrid(np.arange(512) * k / 512, np.arange(512) * k / 512, indexing="ij")
            i, j = yy.astype(int), xx.astype(int)
            fy, fx = yy - i, xx - j
            fy, fx = fy * fy * (3 - 2 * fy), fx * fx * (3 - 2 * fx)
            i1, j1 = (i + 1) % k, (j + 1) % k
            tex += a * (
                (m[i, j] * (1 - fx) + m[i, j1] * fx) * (1 - fy) + (m[i1, j] * (1 - fx) + m[i1, j1] * fx) * fy
            )
            a *= 0.5
        self.nzt = c.texture((512, 512), 1, (np.clip(tex, 0, 1) * 255).astype("u1").tobytes())
        self.nzt.repeat_x = self.nzt.repeat_y = True
        self.objs = {}
        self.bgt = c.texture((w, h), 4)

    def add(self, name: str, data: Any, spec: float = 0.1) -> None:
        """Register a small mesh under a name."""
        b = self.ctx.buffer(data.tobytes())
        self.objs[name] = (
            self.ctx.vertex_array(self.pob, [(b, "3f 3f 3f", "pos", "nrm", "col")]),
            self.ctx.vertex_array(self.pobs, [(b, "3f 24x", "pos")]),
            spec,
        )

    def camera(self, eye: Floats, rotation: Floats, fov: float, matR: Any) -> None:
        """Place the camera and draw the range once.

        `rotation` takes the range to right, down, ahead; `matR` is the mat (x, z, half sizes).
        """
        self.eye = eye
        view = np.eye(4)
        view[:3, :3] = np.diag([1, -1, -1]) @ rotation
        view[:3, 3] = -view[:3, :3] @ eye
        self.VP = persp(fov, self.w / self.h) @ view
        self.fb = self.ctx.simple_framebuffer((self.w, self.h))
        f = self.ctx.framebuffer([self.bgt])
        f.use()
        p = self.pbg
        for k, v in (("IVP", np.linalg.inv(self.VP)), ("VP", self.VP)):
            if k in p:
                p[k].write(v.T.astype("f4").tobytes())
        p["eye"].value = tuple(self.eye)
        p["sun"].value = tuple(self.sun)
        p["matR"].value = matR
        p["res"].value = (self.w, self.h)
        p["ss"].value = 3
        self.ctx.vertex_array(p, [(self.quad, "2f", "p")]).render(moderngl.TRIANGLE_STRIP)
        self.vblit = self.ctx.vertex_array(self.pblit, [(self.quad, "2f", "p")])
        self.vcat = self.ctx.vertex_array(self.pcat, [(self.quad, "2f", "p")])

    def skin(self, M: Floats) -> Floats:
        """Upload the skinned vertices for bone matrices M (b, 4, 4); returns positions (n, 3)."""
        p, n = self.B.posed(M)
        self.dyn.write(np.concatenate([p, n], 1).astype("f4").tobytes())
        return p

    def frame(
        self,
        M: Floats,
        inst: Any,
        feet: Any,
        colors: Any,
        mir: float = 1.0,
        center: Any = (0, 0.9, 0.1),
        blurred: dict[str, list[Floats]] | None = None,
    ) -> npt.NDArray[np.uint8]:
        """One picture (h, w, 3); mir -1 mirrors the golfer for a left-hander.

        `inst` stands still while the shutter is open; `blurred` is drawn thinly at each of its places.
        """
        blurred = blurred or {}
        c = self.ctx
        self.skin(M)
        ctr = np.array(center)
        LVP = ortho(1.9, 0.1, 8) @ look(ctr + self.sun * 4, ctr)
        w = lambda p, k, v: p[k].write(np.asarray(v, float).T.astype("f4").tobytes()) if k in p else None
        self.sfbo.use()
        self.sfbo.clear(depth=1.0)
        c.enable(moderngl.DEPTH_TEST)
        c.disable(moderngl.BLEND)
        c.disable(moderngl.CULL_FACE)
        w(self.pchs, "VP", LVP)
        self.pchs["mir"] = mir
        self.vchs.render()
        for n, A in [*inst, *((n, places[len(places) // 2]) for n, places in blurred.items())]:
            w(self.pobs, "VP", LVP)
            w(self.pobs, "M", A)
            self.objs[n][1].render()
        self.fbo.use()
        self.fbo.clear(depth=1.0)
        self.bgt.use(1)
        self.pblit["x"] = 1
        c.disable(moderngl.DEPTH_TEST)
        self.vblit.render(moderngl.TRIANGLE_STRIP)
        c.enable(moderngl.DEPTH_TEST)
        self.dt.use(2)
        self.nzt.use(3)
        self.pch["nzt"] = 3
        for p in (self.pch, self.pob, self.pcat):
            p["shm"] = 2
            w(p, "LVP", LVP)
        w(self.pcat, "VP", self.VP)
        self.pcat["rect"] = (0, 0.2, 2.2, 2.2)
        self.pcat["feet"].value = [tuple(map(float, f)) for f in feet]
        c.enable(moderngl.BLEND)
        c.blend_func = moderngl.SRC_ALPHA, moderngl.ONE_MINUS_SRC_ALPHA
        self.fbo.depth_mask = False
        self.vcat.render(moderngl.TRIANGLE_STRIP)
        self.fbo.depth_mask = True
        c.disable(moderngl.BLEND)
        p = self.pch
        w(p, "VP", self.VP)
        p["mir"] = mir
        p["ffsign"] = mir
        p["eye"].value = tuple(self.eye)
        p["sun"].value = tuple(self.sun)
        p["C"].value = colors
        p["eyeP"].value = tuple(self.B.eye)
        p["sc"] = self.B.sc
        self.vch.render()
        p = self.pob
        w(p, "VP", self.VP)
        p["eye"].value = tuple(self.eye)
        p["sun"].value = tuple(self.sun)
        p["alpha"] = 1.0
        for n, A in inst:
            w(p, "M", A)
            p["spec"] = self.objs[n][2]
            self.objs[n][0].render()
        for n, places in blurred.items():
            p["alpha"] = BLUR_COVER / len(places) if len(places) > 1 else 1.0
            p["spec"] = self.objs[n][2]
            c.enable(moderngl.BLEND)
            self.fbo.depth_mask = len(places) == 1
            for A in places:
                w(p, "M", A)
                self.objs[n][0].render()
            self.fbo.depth_mask = True
            c.disable(moderngl.BLEND)
        c.copy_framebuffer(self.out, self.fbo)
        return np.frombuffer(self.out.read(components=3), "u1").reshape(self.h, self.w, 3)[::-1]


def srgb(*h: str) -> list[tuple[float, ...]]:
    """Linear colours from hex."""
    return [tuple((np.array([int(x[i : i + 2], 16) for i in (0, 2, 4)]) / 255.0) ** 2.2) for x in h]
