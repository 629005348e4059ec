"""The things on the practice bay: club, ball, alignment stick; where each is at every instant."""

from __future__ import annotations

import numpy as np

from tropometer.golfer.motion import BALL_RADIUS_M, Motion, Poses
from tropometer.golfer.renderer import Renderer
from tropometer.golfer.rotations import Floats
from tropometer.golfer.settings import IMPACT, Club
from tropometer.golfer.shapes import ball, club, tube

STICK_LENGTH_M = 1.22
STICK_RADIUS_M = 0.006
STICK_AHEAD_OF_TOES_M = 0.05
MAT_RECT = (0.0, 0.42, 0.78, 0.78)  # middle (target, ball) and half sizes, metres
BALL_LEAVES_M_S: dict[Club, tuple[float, float, float]] = {
    "wedge": (32.0, 20.0, 0.0),
    "mid_iron": (50.0, 16.0, 0.0),
    "driver": (62.0, 13.0, 0.0),
}
TEE_COLOUR = (0.80, 0.66, 0.40)


def stick_ends(motion: Motion) -> Floats:
    """Ends (2, 3) of the alignment stick that lies along the toes."""
    feet = motion.poses(np.array([0.0])).feet
    ahead = max(feet["lead"].toe[0, 2], feet["trail"].toe[0, 2]) + STICK_AHEAD_OF_TOES_M
    half = STICK_LENGTH_M / 2
    return np.array([[-half, STICK_RADIUS_M, ahead], [half, STICK_RADIUS_M, ahead]])


def mat_corners() -> Floats:
    """Corners (4, 3) of the mat's green, from behind the trail foot round by the ball's side."""
    middle_x, middle_z, half_x, half_z = MAT_RECT
    signs = [(-1, -1), (-1, 1), (1, 1), (1, -1)]
    return np.array([[middle_x + sx * half_x, 0.0, middle_z + sz * half_z] for sx, sz in signs])


def ball_at(motion: Motion, times_s: Floats) -> Floats:
    """The ball (n, 3): on its place until impact, then away."""
    flown = np.maximum(0.0, times_s - motion.event_times_s[IMPACT])[:, None]
    place: Floats = motion.ball + flown * np.array(BALL_LEAVES_M_S[motion.settings.club])
    return place


def furnish(renderer: Renderer, motion: Motion) -> None:
    """Give the renderer the meshes of the bay."""
    renderer.add("club", club(motion.settings.club, motion.club_length_m), 0.8)
    renderer.add("ball", ball(BALL_RADIUS_M, (0.92, 0.92, 0.90)), 0.3)
    a, b = stick_ends(motion)
    renderer.add("stick", tube(a, b, STICK_RADIUS_M, STICK_RADIUS_M, (0.95, 0.35, 0.05)), 0.1)
    if motion.settings.club == "driver":
        below = motion.ball - [0, BALL_RADIUS_M, 0]
        renderer.add("tee", tube(below * [1, 0, 1], below, 0.002, 0.005, TEE_COLOUR), 0.1)


def held_club(poses: Poses, instant: int) -> Floats:
    """Where the club mesh is (4, 4): it starts at the butt, y along the shaft, x out of the face."""
    place = np.eye(4)
    held = poses.club
    place[:3] = np.stack(
        [held.face[instant], held.shaft[instant], -held.toe[instant], held.butt[instant]], axis=1
    )
    return place


def lying(at: Floats) -> Floats:
    """A mesh moved to a place (3,)."""
    place = np.eye(4)
    place[:3, 3] = at
    return place
