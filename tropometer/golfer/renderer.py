"""Draws one frame of a golfer on the practice bay, on the CPU through headless EGL."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import moderngl
import numpy as np
import numpy.typing as npt

from tropometer.golfer.base_mesh import Floats
from tropometer.golfer.body import Body
from tropometer.golfer.shaders import (
    BGF,
    BGV,
    BLIT_FRAGMENT,
    BLIT_VERTEX,
    CATF,
    CATV,
    CHF,
    CHV,
    OBF,
    OBV,
    SHADOW_ONLY,
    SHADOW_SKIN_FRAGMENT,
    SHADOW_SKIN_VERTEX,
)
from tropometer.golfer.shapes import Mesh

Picture = npt.NDArray[np.uint8]

NEAR_M, FAR_M = 0.1, 400.0
SUN = np.array([0.42, 0.80, 0.45]) / np.linalg.norm([0.42, 0.80, 0.45])
_SUN = tuple(map(float, SUN))
SHADOW_PX = 1536
SHADOW_REACH_M = 1.9  # half width of what throws a shadow, about the golfer
SHADOW_MIDDLE = np.array([0.0, 0.9, 0.1])
SHADED_FLOOR = (0, 0.2, 2.2, 2.2)  # middle and half sizes of the floor that shadows fall on
SAMPLES = 4
SKY_SAMPLES = 3  # a side, for each pixel of the range, which is drawn once
NOISE_SIDE = 512
# How far thin copies add up to the moving thing itself where they all lie over each other.
BLUR_COVER = 1.6
CORNERS = np.array([-1, -1, 1, -1, -1, 1, 1, 1], "f4")

Placed = list[tuple[str, Floats]]


@dataclass(frozen=True)
class _Thing:
    """A small mesh on the graphics side: drawn, as a shadow, and how much it shines."""

    drawn: Any
    shadow: Any
    shine: float


def perspective(fov_deg: float, aspect: float) -> Floats:
    """Perspective matrix; the angle is the full vertical one."""
    reach = 1 / np.tan(np.radians(fov_deg) / 2)
    matrix = np.zeros((4, 4))
    matrix[0, 0], matrix[1, 1] = reach / aspect, reach
    matrix[2, 2], matrix[2, 3] = (FAR_M + NEAR_M) / (NEAR_M - FAR_M), 2 * FAR_M * NEAR_M / (NEAR_M - FAR_M)
    matrix[3, 2] = -1
    return matrix


def sun_view() -> Floats:
    """From the range to what the sun sees of the golfer: a parallel view (4, 4)."""
    eye = SHADOW_MIDDLE + SUN * 4
    ahead = -SUN
    side = np.cross(ahead, [0, 1, 0])
    side /= np.linalg.norm(side)
    view = np.eye(4)
    view[:3, :3] = np.stack([side, np.cross(side, ahead), -ahead])
    view[:3, 3] = -view[:3, :3] @ eye
    near, far = 0.1, 8.0
    flat = np.diag([1 / SHADOW_REACH_M, 1 / SHADOW_REACH_M, -2 / (far - near), 1.0])
    flat[2, 3] = -(far + near) / (far - near)
    matrix: Floats = flat @ view
    return matrix


def noise_texture() -> bytes:
    """Five octaves of value noise, one byte a pixel, for cloth and skin."""
    dice = np.random.default_rng(3)
    total, strength = np.zeros((NOISE_SIDE, NOISE_SIDE)), 0.5
    for octave in range(5):
        side = 16 * 2**octave
        values = dice.random((side, side))
        at = np.arange(NOISE_SIDE) * side / NOISE_SIDE
        low = at.astype(int)
        share = at - low
        share = share * share * (3 - 2 * share)
        high = (low + 1) % side
        fy, fx = share[:, None], share[None, :]
        above = values[np.ix_(low, low)] * (1 - fx) + values[np.ix_(low, high)] * fx
        below = values[np.ix_(high, low)] * (1 - fx) + values[np.ix_(high, high)] * fx
        total += strength * (above * (1 - fy) + below * fy)
        strength *= 0.5
    return (np.clip(total, 0, 1) * 255).astype("u1").tobytes()


def linear_colours(*colours: str) -> list[tuple[float, ...]]:
    """Linear colours from six hex digits each."""
    return [tuple((np.array([int(c[i : i + 2], 16) for i in (0, 2, 4)]) / 255.0) ** 2.2) for c in colours]


def _give(program: Any, **matrices: npt.NDArray[Any]) -> None:
    """Hand matrices to a program that uses them."""
    for name, matrix in matrices.items():
        if name in program:
            program[name].write(matrix.T.astype("f4").tobytes())


class Renderer:
    """Holds the graphics context, the buffers and the range; draws one golfer."""

    def __init__(self, body: Body, width: int, height: int) -> None:
        self.body, self.width, self.height = body, width, height
        on_cpu: Any = {"backend": "egl"}
        self.context = c = moderngl.create_context(standalone=True, **on_cpu)
        size = (width, height)
        self._many = c.framebuffer(
            [c.renderbuffer(size, 4, samples=SAMPLES)], c.depth_renderbuffer(size, samples=SAMPLES)
        )
        self._single = c.simple_framebuffer(size)
        self._shadow = c.depth_texture((SHADOW_PX, SHADOW_PX))
        self._shadow.compare_func = "<="
        self._shadow.filter = (moderngl.LINEAR, moderngl.LINEAR)
        self._shadow_target = c.framebuffer(depth_attachment=self._shadow)
        self._range = c.texture(size, 4)
        self._noise = c.texture((NOISE_SIDE, NOISE_SIDE), 1, noise_texture())
        self._noise.repeat_x = self._noise.repeat_y = True
        self._skin = c.program(vertex_shader=CHV, fragment_shader=CHF)
        self._skin_shadow = c.program(vertex_shader=SHADOW_SKIN_VERTEX, fragment_shader=SHADOW_SKIN_FRAGMENT)
        self._thing = c.program(vertex_shader=OBV, fragment_shader=OBF)
        self._thing_shadow = c.program(vertex_shader=OBV, fragment_shader=SHADOW_ONLY)
        self._sky = c.program(vertex_shader=BGV, fragment_shader=BGF)
        self._floor = c.program(vertex_shader=CATV, fragment_shader=CATF)
        self._blit = c.program(vertex_shader=BLIT_VERTEX, fragment_shader=BLIT_FRAGMENT)
        quad = c.buffer(CORNERS.tobytes())
        self._sky_quad = c.vertex_array(self._sky, [(quad, "2f", "p")])
        self._blit_quad = c.vertex_array(self._blit, [(quad, "2f", "p")])
        self._floor_quad = c.vertex_array(self._floor, [(quad, "2f", "p")])
        self._moving = c.buffer(reserve=len(body.places) * 24)
        still = c.buffer(np.concatenate([body.places, body.looks], 1).tobytes())
        order = c.buffer(body.triangles.tobytes())
        self._skin_array = c.vertex_array(
            self._skin, [(self._moving, "3f 3f", "pos", "nrm"), (still, "3f 3f", "rpos", "ext")], order
        )
        self._skin_shadow_array = c.vertex_array(
            self._skin_shadow, [(self._moving, "3f 12x", "pos"), (still, "12x 3f", "ext")], order
        )
        self._things: dict[str, _Thing] = {}
        self._sun_view = sun_view()

    def add(self, name: str, rows: Mesh, shine: float) -> None:
        """Register a small mesh under a name."""
        buffer = self.context.buffer(rows.tobytes())
        self._things[name] = _Thing(
            self.context.vertex_array(self._thing, [(buffer, "3f 3f 3f", "pos", "nrm", "col")]),
            self.context.vertex_array(self._thing_shadow, [(buffer, "3f 24x", "pos")]),
            shine,
        )

    def place_camera(self, eye: Floats, rotation: Floats, fov_deg: float) -> None:
        """Place the camera; `rotation` takes the range to right, down, ahead."""
        view = np.eye(4)
        view[:3, :3] = np.diag([1, -1, -1]) @ rotation
        view[:3, 3] = -view[:3, :3] @ eye
        self._eye = tuple(map(float, eye))
        self._view = perspective(fov_deg, self.width / self.height) @ view

    def draw_plain(self, colour: tuple[float, float, float]) -> None:
        """One colour behind everything instead of the range, shares of full light as the screen has them."""
        behind = self.context.framebuffer([self._range])
        behind.use()
        behind.clear(color=(*colour, 1.0))

    def draw_range(self, mat: tuple[float, float, float, float], indoors: bool = False) -> None:
        """The range or the boathouse behind everything, drawn once; `mat` is its middle and half sizes."""
        self.context.framebuffer([self._range]).use()
        _give(self._sky, IVP=np.linalg.inv(self._view), VP=self._view)
        self._sky["eye"] = self._eye
        self._sky["sun"] = _SUN
        self._sky["matR"] = mat
        self._sky["indoors"] = int(indoors)
        self._sky["res"] = (self.width, self.height)
        self._sky["ss"] = SKY_SAMPLES
        self._sky_quad.render(moderngl.TRIANGLE_STRIP)

    def frame(
        self,
        bones: Floats,
        still: Placed,
        feet: list[Floats],
        colours: list[tuple[float, ...]],
        mirror: float,
        blurred: dict[str, list[Floats]],
    ) -> Picture:
        """One picture (h, w, 3) for skinning matrices (bones, 4, 4); mirror -1 for a left-hander.

        `still` stands while the shutter is open; `blurred` is drawn thinly at each of its places.
        """
        places, outward = self.body.posed(bones)
        self._moving.write(np.concatenate([places, outward], 1).astype("f4").tobytes())
        middles = [(name, at[len(at) // 2]) for name, at in blurred.items()]
        self._draw_shadows([*still, *middles], mirror)
        self._many.use()
        self._many.clear(depth=1.0)
        self._draw_range(feet)
        self._draw_golfer(colours, mirror)
        self._draw_things(still, blurred)
        self.context.copy_framebuffer(self._single, self._many)
        rows = np.frombuffer(self._single.read(components=3), "u1")
        return rows.reshape(self.height, self.width, 3)[::-1]

    def _draw_shadows(self, things: Placed, mirror: float) -> None:
        self._shadow_target.use()
        self._shadow_target.clear(depth=1.0)
        self.context.enable(moderngl.DEPTH_TEST)
        self.context.disable(moderngl.BLEND)
        self.context.disable(moderngl.CULL_FACE)
        _give(self._skin_shadow, VP=self._sun_view)
        self._skin_shadow["mir"] = mirror
        self._skin_shadow_array.render()
        for name, place in things:
            _give(self._thing_shadow, VP=self._sun_view, M=place)
            self._things[name].shadow.render()

    def _draw_range(self, feet: list[Floats]) -> None:
        """The range as drawn before, and the shadows that fall on it."""
        c = self.context
        self._range.use(1)
        self._blit["x"] = 1
        c.disable(moderngl.DEPTH_TEST)
        self._blit_quad.render(moderngl.TRIANGLE_STRIP)
        c.enable(moderngl.DEPTH_TEST)
        self._shadow.use(2)
        for program in (self._skin, self._thing, self._floor):
            program["shm"] = 2
            _give(program, LVP=self._sun_view, VP=self._view)
        self._floor["rect"] = SHADED_FLOOR
        self._floor["feet"] = [tuple(map(float, foot)) for foot in feet]
        c.enable(moderngl.BLEND)
        c.blend_func = moderngl.SRC_ALPHA, moderngl.ONE_MINUS_SRC_ALPHA
        self._many.depth_mask = False
        self._floor_quad.render(moderngl.TRIANGLE_STRIP)
        self._many.depth_mask = True
        c.disable(moderngl.BLEND)

    def _draw_golfer(self, colours: list[tuple[float, ...]], mirror: float) -> None:
        program = self._skin
        self._noise.use(3)
        program["nzt"] = 3
        program["mir"] = program["ffsign"] = mirror
        program["eye"] = self._eye
        program["sun"] = _SUN
        program["C"] = colours
        program["eyeP"] = tuple(self.body.eye)
        program["sc"] = self.body.sc
        self._skin_array.render()

    def _draw_things(self, still: Placed, blurred: dict[str, list[Floats]]) -> None:
        program = self._thing
        program["eye"] = self._eye
        program["sun"] = _SUN
        for name, place in still:
            self._draw_thing(name, place, 1.0)
        for name, places in blurred.items():
            thin = len(places) > 1
            if thin:
                self.context.enable(moderngl.BLEND)
                self._many.depth_mask = False
            for place in places:
                self._draw_thing(name, place, BLUR_COVER / len(places) if thin else 1.0)
            self._many.depth_mask = True
            self.context.disable(moderngl.BLEND)

    def _draw_thing(self, name: str, place: Floats, cover: float) -> None:
        thing = self._things[name]
        self._thing["alpha"], self._thing["spec"] = cover, thing.shine
        _give(self._thing, M=place)
        thing.drawn.render()
