"""The pelvis carried by two legs of fixed length: knee flexions and foot places give its height and slant."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.golfer.body import Body
from tropometer.golfer.feet import SIDES, Foot, Letter
from tropometer.golfer.rotations import (
    UP,
    Floats,
    about,
    about_axis,
    dot,
    frame,
    length,
    square_to,
    turned,
    unit,
)
from tropometer.golfer.settings import SettingError

NEWTON_STEPS = 25
CLOSED_M = 1e-9
FOOT_SHARE = 0.65  # how far a knee points where its foot points rather than where the pelvis faces


@dataclass(frozen=True)
class Leg:
    """Hip, knee and ankle (n, 3), and the orientations (n, 3, 3) of thigh and shank."""

    hip: Floats
    knee: Floats
    ankle: Floats
    thigh: Floats
    shank: Floats


@dataclass(frozen=True)
class Pelvis:
    """Middle of the hip joints (n, 3), orientation (n, 3, 3), slant in degrees (n,)."""

    middle: Floats
    facing: Floats
    slant: Floats


def segment_lengths(body: Body, side: Letter) -> tuple[float, float]:
    """Thigh and shank, metres."""
    hip, knee, ankle = (body.head[f"{bone}_{side}"] for bone in ("thigh", "calf", "foot"))
    return float(np.linalg.norm(knee - hip)), float(np.linalg.norm(ankle - knee))


def leg_reach(body: Body, side: Letter, flexion: Floats) -> Floats:
    """Hip to ankle (n,) for a flexion in degrees: the cosine rule."""
    thigh, shank = segment_lengths(body, side)
    inside = np.radians(180 - flexion)
    reach: Floats = np.sqrt(thigh**2 + shank**2 - 2 * thigh * shank * np.cos(inside))
    return reach


def flexion_for(body: Body, side: Letter, reach: Floats) -> Floats:
    """Flexion in degrees for a hip-to-ankle distance (n,); SettingError when the leg is too short."""
    thigh, shank = segment_lengths(body, side)
    cosine = (thigh**2 + shank**2 - reach**2) / (2 * thigh * shank)
    if (cosine < -1).any():
        raise SettingError("pelvis_rise and pelvis_slant: a leg is too short to hold the pelvis there")
    flexion: Floats = 180 - np.degrees(np.arccos(cosine))
    return flexion


def hip_line(turn: Floats, slant: Floats) -> Floats:
    """Unit vectors (n, 3) from the trail to the lead hip."""
    t, s = np.radians(turn), np.radians(slant)
    line: Floats = np.stack([np.cos(s) * np.cos(t), np.sin(s), np.cos(s) * np.sin(t)], 1)
    return line


def carry(
    body: Body, feet: dict[str, Foot], flat: Floats, turn: Floats, tilt: Floats, flexions: dict[str, Floats]
) -> Pelvis:
    """The pelvis over its flat place (n, 3) whose hips stand at each leg's length (Newton's method).

    Raises SettingError when no height and slant fit both knees.
    """
    half = np.linalg.norm(body.head["thigh_l"] - body.head["thigh_r"]) / 2
    wanted = [leg_reach(body, side, flexions[name]) ** 2 for side, name, _ in SIDES]
    height = np.full(len(turn), float(body.head["thigh_l"][1]) - 0.03 * body.sc)
    slant = np.zeros(len(turn))
    for _ in range(NEWTON_STEPS):
        line = hip_line(turn, slant)
        s, t = np.radians(slant), np.radians(turn)
        swing = np.stack([-np.sin(s) * np.cos(t), np.cos(s), -np.sin(s) * np.sin(t)], 1)
        middle = flat + height[:, None] * UP
        misses, by_height, by_slant = [], [], []
        for (_, name, sign), reach in zip(SIDES, wanted, strict=True):
            leg = middle + sign * half * line - feet[name].ankle
            misses.append(np.sum(leg * leg, 1) - reach)
            by_height.append(2 * leg[:, 1])
            by_slant.append(2 * sign * half * np.sum(leg * swing, 1))
        determinant = by_height[0] * by_slant[1] - by_slant[0] * by_height[1]
        up = (misses[0] * by_slant[1] - misses[1] * by_slant[0]) / determinant
        lean = (by_height[0] * misses[1] - by_height[1] * misses[0]) / determinant
        height, slant = height - np.clip(up, -0.1, 0.1), slant - np.degrees(np.clip(lean, -0.3, 0.3))
    if not max(np.abs(misses[0]).max(), np.abs(misses[1]).max()) < CLOSED_M or np.abs(slant).max() > 45:
        raise SettingError("lead_knee_flex and trail_knee_flex: no pelvis fits these knees over these feet")
    facing = about("y", -turn) @ about("z", slant) @ about("x", tilt)
    return Pelvis(flat + height[:, None] * UP, facing, slant)


def bend(body: Body, side: Letter, hip: Floats, foot: Foot, pelvis: Pelvis, out: Floats) -> Leg:
    """The leg below a hip; its knee points between foot and pelvis, turned out by `out` degrees."""
    thigh, shank = segment_lengths(body, side)
    ahead = np.array([0.0, 0.0, 1.0])
    pole = FOOT_SHARE * turned(foot.front, ahead)
    pole = pole + (1 - FOOT_SHARE) * turned(pelvis.facing, np.array([0.0, 0.25, 1.0]))
    line = unit(foot.ankle - hip)
    sign = 1.0 if side == "l" else -1.0
    pole = turned(about_axis(line, -sign * out), square_to(pole, line))
    reach = length(foot.ankle - hip)
    along = (thigh**2 - shank**2 + reach**2) / (2 * reach)
    knee = hip + along * line + np.sqrt(np.maximum(thigh**2 - along**2, 0)) * pole
    rest_thigh = body.head[f"calf_{side}"] - body.head[f"thigh_{side}"]
    rest_shank = body.head[f"foot_{side}"] - body.head[f"calf_{side}"]
    return Leg(
        hip=hip,
        knee=knee,
        ankle=foot.ankle,
        thigh=frame(knee - hip, pole) @ frame(rest_thigh[None], ahead[None])[0].T,
        shank=frame(foot.ankle - knee, pole) @ frame(rest_shank[None], ahead[None])[0].T,
    )


def flexion(leg_hip: Floats, knee: Floats, ankle: Floats) -> Floats:
    """180 minus the angle hip, knee, ankle (n,), degrees."""
    thigh, shank = unit(leg_hip - knee), unit(ankle - knee)
    bent: Floats = 180 - np.degrees(np.arccos(np.clip(dot(thigh, shank)[:, 0], -1, 1)))
    return bent
