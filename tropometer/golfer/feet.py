"""Where each shoe stands at every instant: flare, spin, roll, heel lift and toe lift of a rigid sole."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from tropometer.golfer.body import Body
from tropometer.golfer.rotations import BALL, TARGET, UP, Floats, about, about_axis, turned

Letter = Literal["l", "r"]  # the mesh's own sides: left leads, right trails
SIDES: tuple[tuple[Letter, Literal["lead", "trail"], float], ...] = (("l", "lead", 1.0), ("r", "trail", -1.0))
ROLL_SOFTNESS = 0.012  # keeps the roll from one edge to the other without a jolt; lifts the sole by 0.6 mm
HEEL_BACK_M = 0.022  # the sole's round end behind the point it turns about when the toe lifts


@dataclass(frozen=True)
class FootSettings:
    """What one foot does, an array (n,) each: angles in degrees, drag in metres."""

    flare: float
    outward: Floats  # twist from the flare, away from the other foot
    roll_out: Floats
    heel_lift: Floats
    toe_lift: Floats
    drag: Floats


@dataclass(frozen=True)
class Foot:
    """One shoe at n instants: joints and sole points (n, 3), orientations (n, 3, 3)."""

    ankle: Floats
    ball_joint: Floats
    heel: Floats
    toe: Floats
    outer: Floats
    inner: Floats
    rear: Floats  # orientation of the foot behind the ball joint
    front: Floats  # orientation of the toes


def stand(body: Body, side: Letter, heel_at: Floats, about_it: FootSettings) -> Foot:
    """The foot whose heel stands at `heel_at` (3,) at address.

    It twists about the ball of the foot and drags along the target line; rolling lifts it so that the
    lower edge of the sole stays on the floor; the heel lifts about the ball joint, the toe about the heel.
    """
    sole, sign = body.foot[side], 1.0 if side == "l" else -1.0
    rest_yaw = np.degrees(np.arctan2(sole.along[0], sole.along[2]))
    flared = about("y", np.array([sign * about_it.flare - rest_yaw]))[0]
    pivot = heel_at + flared @ (sole.ball - sole.heel)
    facing = about("y", sign * (about_it.flare + about_it.outward) - rest_yaw)
    along = turned(facing, sole.along)
    roll = np.radians(about_it.roll_out)
    front = about_axis(along, -sign * about_it.roll_out) @ facing
    half_width = max(abs((sole.inner - sole.ball) @ TARGET), abs((sole.outer - sole.ball) @ TARGET))
    lifted = half_width * np.sqrt(np.sin(roll) ** 2 + ROLL_SOFTNESS**2)
    ground = pivot + about_it.drag[:, None] * TARGET + lifted[:, None] * UP
    joint = body.head[f"ball_{side}"]
    ball_joint = ground + turned(front, joint - sole.ball)
    across = np.cross(np.broadcast_to(UP, along.shape), along)
    rear = about_axis(across, about_it.heel_lift) @ front
    heel = ball_joint + turned(rear, sole.heel - joint)
    toe_up = about_axis(across, -about_it.toe_lift)
    ball_joint = heel + turned(toe_up, ball_joint - heel)
    ball_joint += HEEL_BACK_M * body.sc * np.sin(np.radians(about_it.toe_lift))[:, None] * UP
    rear, front = toe_up @ rear, toe_up @ front
    return Foot(
        ankle=ball_joint + turned(rear, body.head[f"foot_{side}"] - joint),
        ball_joint=ball_joint,
        heel=ball_joint + turned(rear, sole.heel - joint),
        toe=ball_joint + turned(front, sole.toe - joint),
        outer=ball_joint + turned(front, sole.outer - joint),
        inner=ball_joint + turned(front, sole.inner - joint),
        rear=rear,
        front=front,
    )


def heels_at_address(
    body: Body, width_m: float, toe_line: float, flares: tuple[float, float]
) -> tuple[Floats, Floats]:
    """Heel points (3,) of the lead and the trail foot, their middle at the origin.

    The feet are set along the ball's direction so that the line through the toes has the angle wanted.
    """
    reach = []
    for (side, _, sign), flare in zip(SIDES, flares, strict=True):
        sole = body.foot[side]
        rest_yaw = np.degrees(np.arctan2(sole.along[0], sole.along[2]))
        facing = about("y", np.array([sign * flare - rest_yaw]))[0]
        reach.append(facing @ (sole.toe - sole.heel))
    apart = width_m + (reach[0] - reach[1]) @ TARGET
    level = (reach[0] - reach[1]) @ BALL
    back = (np.tan(np.radians(toe_line)) * apart - level) / 2
    lead = width_m / 2 * TARGET + back * BALL
    return lead, -lead
