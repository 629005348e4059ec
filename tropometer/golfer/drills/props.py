"""What a drill is done with: sticks, a chair, a wall, a band, tape on a mirror, a slope, a coin, a glove."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, Protocol

import numpy as np

from tropometer.golfer.drills.boxes import box, prism, stretched
from tropometer.golfer.drills.rehearsal import Stage, pose
from tropometer.golfer.drills.scene import Scene
from tropometer.golfer.renderer import Placed
from tropometer.golfer.rotations import UP, Floats
from tropometer.golfer.shapes import Colour, Mesh, ball, ellipsoid, tube

BRASS: Colour = (0.62, 0.42, 0.08)
CLAY: Colour = (0.60, 0.16, 0.06)
WOOD: Colour = (0.30, 0.17, 0.08)
CHALK: Colour = (0.72, 0.72, 0.68)
SLATE: Colour = (0.06, 0.13, 0.26)
PINE: Colour = (0.10, 0.24, 0.20)
WHITE: Colour = (0.92, 0.92, 0.90)

STICK_RADIUS_M = 0.012  # thicker than a real one, so that it shows in a small picture
STICK_M = 1.22
BALL_M = 0.02135
COIN_FROM_HEEL_M = np.array([0.035, 0.004, 0.02])  # half of it shows beside the heel
SLOPE_DEG = 6.0


class Prop(Protocol):
    """Something that is drawn beside the golfer."""

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """Its small meshes by name with how much each shines, as they stand at the start."""

    def placed(self, start: Scene, now: Scene) -> Placed:
        """Where each of them is at a later moment (4, 4)."""


def still(names: dict[str, tuple[Mesh, float]]) -> Placed:
    """Things that stay where they were drawn."""
    return [(name, np.eye(4)) for name in names]


@dataclass(frozen=True)
class HipStick:
    """A stick in the ground beside a hip; it is pushed over where the hip passes it."""

    side: Literal["lead", "trail"]
    apart_m: float = 0.02
    beside: Stage | None = None  # the moment whose hip it stands beside; the start where none is given

    def _foot(self, start: Scene) -> Floats:
        sign = 1 if self.side == "lead" else -1
        at = self.beside
        scene = Scene(*pose(start.body, at.settings, start.motion.hold, at.at)) if at else start
        edge = scene.hip_edge(self.side)
        return np.array([edge[0] + sign * (self.apart_m + STICK_RADIUS_M), 0, edge[2]])

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """The stick about its own foot."""
        return {"hip stick": (tube((0, 0, 0), (0, STICK_M, 0), STICK_RADIUS_M, STICK_RADIUS_M, BRASS), 0.2)}

    def placed(self, start: Scene, now: Scene) -> Placed:
        """Upright, or leaning as far as the hip has pushed it."""
        sign = 1 if self.side == "lead" else -1
        foot, edge = self._foot(start), now.hip_edge(self.side)
        pushed = max(0.0, sign * (edge[0] - foot[0]) + STICK_RADIUS_M)
        lean = np.arctan2(pushed, edge[1])
        place = np.eye(4)
        place[:3, :3] = [
            [np.cos(lean), sign * np.sin(lean), 0],
            [-sign * np.sin(lean), np.cos(lean), 0],
            [0, 0, 1],
        ]
        place[:3, 3] = foot
        return [("hip stick", place)]


@dataclass(frozen=True)
class FloorStick:
    """A stick on the floor along the target line."""

    name: str
    ahead: Literal["toes", "ball"]
    apart_m: float = 0.06

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """Where it lies."""
        if self.ahead == "ball":
            ahead = float(start.motion.ball[2]) + self.apart_m
        else:
            ahead = max(float(foot.toe[0, 2]) for foot in start.poses.feet.values()) + self.apart_m
        ends = [np.array([x * STICK_M / 2, STICK_RADIUS_M, ahead]) for x in (-1, 1)]
        return {self.name: (tube(ends[0], ends[1], STICK_RADIUS_M, STICK_RADIUS_M, BRASS), 0.2)}

    def placed(self, start: Scene, now: Scene) -> Placed:
        """It stays."""
        return still(self.meshes(start))


@dataclass(frozen=True)
class Ball:
    """The ball, as long as it lies there."""

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """About its own middle."""
        return {"ball": (ball(BALL_M, WHITE), 0.3)}

    def placed(self, start: Scene, now: Scene) -> Placed:
        """Where it is struck from."""
        place = np.eye(4)
        place[:3, 3] = now.motion.ball
        return [("ball", place)]


@dataclass(frozen=True)
class OnFloor:
    """A small flat thing: a coin under the lead heel, a glove behind the ball."""

    what: Literal["coin", "glove"]

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """Where it lies."""
        if self.what == "coin":
            heel = start.poses.feet["lead"].heel[0]
            middle, radii, colour = heel + COIN_FROM_HEEL_M, np.array([0.032, 0.005, 0.032]), BRASS
        else:
            middle = start.motion.ball * [1, 0, 1] + [-0.16, 0.012, 0.0]
            radii, colour = np.array([0.09, 0.014, 0.05]), WHITE
        return {self.what: (ellipsoid(middle, radii, colour, np.eye(3)), 0.3)}

    def placed(self, start: Scene, now: Scene) -> Placed:
        """It stays."""
        return still(self.meshes(start))


@dataclass(frozen=True)
class Chair:
    """A chair whose back touches the seat."""

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """Back, seat and legs."""
        front, wide, deep = start.seat[2] - 0.005, 0.21, 0.42
        parts = [
            box((-wide, 0.62, front - 0.03), (wide, 0.98, front), WOOD),
            box((-wide, 0.43, front - deep), (wide, 0.47, front), WOOD),
        ]
        for x in (-wide, wide - 0.04):
            parts.append(box((x, 0, front - 0.035), (x + 0.04, 0.98, front - 0.001), WOOD))
            parts.append(box((x, 0, front - deep), (x + 0.04, 0.45, front - deep + 0.04), WOOD))
        return {"chair": (np.concatenate(parts), 0.1)}

    def placed(self, start: Scene, now: Scene) -> Placed:
        """It stays."""
        return still(self.meshes(start))


@dataclass(frozen=True)
class Wall:
    """A wall behind the seat."""

    apart_m: float

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """A piece of it, as tall as the golfer."""
        front = start.seat[2] - self.apart_m
        return {"wall": (box((-0.55, 0, front - 0.1), (0.75, 1.95, front), CHALK), 0.0)}

    def placed(self, start: Scene, now: Scene) -> Placed:
        """It stays."""
        return still(self.meshes(start))


@dataclass(frozen=True)
class Band:
    """An elastic band from the trail hip across the front of the hips to a post on the target's side."""

    def _points(self, start: Scene, now: Scene) -> list[Floats]:
        places = now.body.places
        front = []
        for side, out in (("r", -0.10), ("l", 0.09)):
            joint = now.body.head[f"thigh_{side}"]
            at = joint + np.array([out, 0.03, 0])
            near = np.linalg.norm(places[:, :2] - at[:2], axis=1) < 0.03
            at[2] = places[near, 2].max() + 0.015 if near.any() else joint[2]
            front.append(now.on_pelvis(at))
        return [*front, np.array([start.hip_edge("lead")[0] + 0.62, start.poses.pelvis.middle[0, 1], 0.05])]

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """A post, and two lengths of band one metre long each, to be stretched."""
        post = self._points(start, start)[-1]
        unit_band = tube((0, 0, 0), (0, 1, 0), 0.014, 0.014, CLAY)
        return {
            "post": (tube(post * [1, 0, 1], post + 0.15 * UP, 0.03, 0.03, SLATE), 0.1),
            "band across": (unit_band, 0.0),
            "band free": (unit_band, 0.0),
        }

    def placed(self, start: Scene, now: Scene) -> Placed:
        """The band between the hips and the post."""
        trail, lead, post = self._points(start, now)
        return [
            ("post", np.eye(4)),
            ("band across", stretched(trail, lead)),
            ("band free", stretched(lead, post)),
        ]


@dataclass(frozen=True)
class MirrorLines:
    """A mirror between camera and golfer, with a strip of tape before each edge of the hips."""

    ahead_m: float = 0.75
    camera_m: float = 4.7

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """Frame and tape, where the camera sees the tape before the hips' edges."""
        nearer = (self.camera_m - self.ahead_m) / self.camera_m
        z, wide, low, high = self.ahead_m, 0.62, 0.08, 1.72
        bars = [
            box((-wide - 0.03, low, z - 0.02), (-wide, high, z), SLATE),
            box((wide, low, z - 0.02), (wide + 0.03, high, z), SLATE),
            box((-wide, low, z - 0.02), (wide, low + 0.03, z), SLATE),
            box((-wide, high - 0.03, z - 0.02), (wide, high, z), SLATE),
        ]
        lines = []
        for side, sign in (("lead", 1), ("trail", -1)):
            x = start.hip_edge("lead" if side == "lead" else "trail")[0] * nearer + sign * 0.012
            lines.append(box((x - 0.011, low + 0.2, z - 0.01), (x + 0.011, high - 0.2, z - 0.005), CLAY))
        return {"mirror": (np.concatenate(bars), 0.3), "lines": (np.concatenate(lines), 0.0)}

    def placed(self, start: Scene, now: Scene) -> Placed:
        """It stays."""
        return still(self.meshes(start))


@dataclass(frozen=True)
class Slope:
    """Firm ground that falls gently toward the target; the camera is turned so that down is down."""

    def meshes(self, start: Scene) -> dict[str, tuple[Mesh, float]]:
        """A wedge under the feet."""
        left, right, near, far = -1.0, 1.0, 0.75, -0.55
        fall = np.tan(np.radians(SLOPE_DEG))
        deep = {left: -0.04 - (right - left) * fall, right: -0.04}
        return {"slope": (prism((left, right), (far, near), deep, PINE), 0.0)}

    def placed(self, start: Scene, now: Scene) -> Placed:
        """It stays."""
        return still(self.meshes(start))
