"""A stranger's swing: where every mark is at any instant, along T, B and U from between the heels at address.

What is keyed at the checkpoints is drawn wide enough for swayers, spinners, reverse pivots and people who
stand up; how wide is common practice, no source. Between its keys a part goes by a curve with soft turns
(a cubic spline) or with sharp ones (a monotone cubic, whose acceleration jumps), and turns round at a time of
its own.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt
from scipy.interpolate import CubicSpline, PchipInterpolator

from tests.strangers.body import Body
from tests.strangers.pelvis import Pelvis
from tropometer.swing.names import CHECKPOINTS

Floats = npt.NDArray[np.float64]
Club = Literal["wedge", "mid_iron", "driver"]
CLUBS: tuple[Club, ...] = ("wedge", "mid_iron", "driver")
T, B, U = np.eye(3)
TOP = CHECKPOINTS.index("top")
STRAIGHTEST = 0.9995  # of thigh and shank together; nobody's knee is straighter
WRIST_FROM_GRIP_M = 0.07  # a hand's breadth
GRIP_M, CLUB_M = 0.10, {"wedge": 0.80, "mid_iron": 0.86, "driver": 1.02}  # from the hands to the head
# Mean and standard deviation at the nine checkpoints. Lengths are metres, angles degrees.
Keys = tuple[tuple[float, ...], tuple[float, ...]]
KEYS: dict[str, Keys] = {
    "sway": ((0, -0.01, -0.03, -0.035, 0.01, 0.03, 0.06, 0.08, 0.14),
             (0, 0.015, 0.03, 0.04, 0.04, 0.04, 0.04, 0.04, 0.05)),
    "push": ((0, -0.005, -0.012, -0.018, -0.012, -0.005, 0.005, 0.02, 0.07),
             (0, 0.012, 0.022, 0.028, 0.03, 0.03, 0.035, 0.04, 0.06)),
    "rise": ((0, 0.0, 0.0, 0.0, -0.015, 0.0, 0.02, 0.03, 0.04),
             (0, 0.01, 0.015, 0.02, 0.022, 0.022, 0.025, 0.03, 0.035)),
    "turn": ((0, 13, 32, 45, 14, -12, -38, -52, -92),
             (4, 5, 8, 10, 9, 10, 12, 13, 14)),
    "slant": ((1, -1, -4, -7, 1, 5, 9, 8, 3),
              (2, 3, 4, 5, 5, 5, 5, 5, 6)),
    "tilt": ((20, 20, 20, 19, 19, 17, 12, 8, -4),
             (6, 6, 6, 7, 7, 7, 8, 9, 9)),
    "incline": ((0, 0, 1, 2, 1, -1, -5, -12, -34),
                (0, 2, 3, 5, 5, 5, 6, 8, 10)),
    "side": ((6, 4, 2, 0, 7, 12, 17, 18, 0),
             (3, 4, 5, 6, 6, 6, 7, 8, 9)),
    "chest": ((0, 22, 60, 90, 45, 15, -24, -55, -115),
              (4, 7, 10, 12, 12, 12, 12, 13, 18)),
    "lead_heel": ((0, 0, 0, 0, 0, 0, 0, 0, 0), (0, 0, 0, 0, 0, 0, 0, 0, 0)),
    "trail_heel": ((0, 0, 0, 0, 0.005, 0.015, 0.04, 0.07, 0.16),
                   (0, 0, 0, 0, 0.006, 0.012, 0.025, 0.03, 0.03)),
    "trail_spin": ((0, 0, 0, 0, 0, 2, 8, 18, 40), (0, 0, 0, 0, 2, 4, 7, 10, 16)),
    "lead_spin": ((0, 0, 0, 0, 0, 0, 2, 6, 14), (0, 0, 0, 0, 0, 2, 4, 8, 12)),
    "lead_roll": ((0, -2, -4, -6, -2, 0, 3, 7, 14), (0, 2, 3, 4, 3, 3, 4, 5, 6)),
    "trail_roll": ((0, 0, 0, 0, 4, 8, 11, 10, 5), (0, 1, 2, 3, 4, 5, 6, 7, 8)),
    "lead_knee_out": ((0, -4, -9, -14, -3, 0, 0, 0, 0), (6, 6, 7, 8, 7, 7, 7, 7, 8)),
    "trail_knee_out": ((0, 0, 0, 0, -8, -14, -20, -24, -28), (6, 6, 6, 7, 7, 8, 8, 9, 10)),
    "arm": ((0, -38, -88, -150, -92, -42, 6, 48, 165), (3, 6, 6, 16, 6, 6, 5, 8, 15)),
    "shaft": ((2, -90, -165, -265, -185, -92, -4, 90, 250), (3, 3, 12, 25, 12, 4, 5, 5, 20)),
    "head_side": ((0, 0, -0.01, -0.015, -0.01, -0.015, -0.02, 0.0, 0.08),
                  (0, 0.01, 0.02, 0.025, 0.025, 0.025, 0.025, 0.03, 0.05)),
}  # fmt: skip
CLUB_INCLINE = {"wedge": (38.0, 5.0), "mid_iron": (35.0, 5.0), "driver": (29.0, 5.0)}
CLUB_STANCE = {"wedge": (0.95, 0.15), "mid_iron": (1.1, 0.15), "driver": (1.35, 0.2)}  # of the shoulders
# Part of a key's own spread that a golfer has at all checkpoints alike.
OWN_WAY = 0.6
SWING_TO_SWING, LONGER = 0.25, 0.04  # by how much a golfer's next swing differs
HEEL_LIFTERS = 0.3  # of golfers lift the lead heel going back


@dataclass(frozen=True)
class Timing:
    """When the checkpoints are, seconds from the start of the footage."""

    checkpoints_s: dict[str, float]
    last_s: float


@dataclass(frozen=True, eq=False)
class Swing:
    """A golfer's swing; `paths` are what is keyed, over time."""

    body: Body
    club: Club
    timing: Timing
    stance: dict[str, float]
    paths: dict[str, Callable[[Floats], Floats]]

    def places(self, times_s: Floats) -> dict[str, Floats]:
        """Every mark that is a point of the body or the club (n, 3), and `pelvis` about it (see `Pelvis`)."""
        q = {name: np.asarray(path(times_s), float) for name, path in self.paths.items()}
        found = self._feet(q)
        pelvis = self._pelvis(q)
        found |= {"lead_hip": pelvis.lead_hip, "trail_hip": pelvis.trail_hip}
        for side in ("lead", "trail"):
            found[f"{side}_knee"] = self._knee(side, q, found)
        found |= self._trunk(q, pelvis)
        found |= self._arms(q, found)
        found |= self._trail_arm(found)
        found["ball"] = np.broadcast_to(self._ball, (len(times_s), 3))
        return found

    def pelvis(self, times_s: Floats) -> Pelvis:
        """The clothed pelvis at some instants."""
        return self._pelvis({name: np.asarray(path(times_s), float) for name, path in self.paths.items()})

    @property
    def _ball(self) -> Floats:
        """It lies before the club head at address, 2 cm nearer to the target."""
        q = {name: np.asarray(path(np.zeros(1)), float) for name, path in self.paths.items()}
        club = self._arms(q, self._trunk(q, self._pelvis(q)))["club_head"][0]
        return np.array([club[0] + 0.02, club[1] + 0.01, 0.021])

    def _feet(self, q: dict[str, Floats]) -> dict[str, Floats]:
        found: dict[str, Floats] = {}
        length, half = self.body["foot"], self.body["foot_breadth"] / 2
        for side, sign in (("lead", 1.0), ("trail", -1.0)):
            heel = np.array([self.stance[f"{side}_heel_t"], self.stance[f"{side}_heel_b"], 0.0])
            flare = np.radians(self.stance[f"{side}_flare"])
            # A trail foot spins its heel outward about the ball of the foot, toes toward the target.
            spun = sign * flare + np.radians(q[f"{side}_spin"])
            still = np.array([np.sin(sign * flare), np.cos(flare), 0.0])
            ball = heel + 0.70 * length * still
            along = np.stack([np.sin(spun), np.cos(spun), np.zeros_like(spun)], -1)
            aside = np.stack([np.cos(spun), -np.sin(spun), np.zeros_like(spun)], -1) * sign  # outward
            lift = np.arcsin(np.clip(q[f"{side}_heel"] / (0.70 * length), 0, 0.95))[:, None]
            back = -np.cos(lift) * along + np.sin(lift) * U
            found[f"{side}_heel"] = ball + 0.70 * length * back
            found[f"{side}_toe"] = ball + 0.30 * length * along
            roll = np.radians(q[f"{side}_roll"])[:, None]
            # Rolled about the edge that stays down: a lead foot outward, a trail foot inward.
            tipped = np.cos(roll) * aside + (-sign * np.sin(roll)) * U
            down = np.minimum(0, np.minimum((tipped * half)[:, 2], (-tipped * half)[:, 2]))[:, None] * U
            found[f"{side}_foot_outer"] = ball + half * tipped - down
            found[f"{side}_foot_inner"] = ball - half * tipped - down
            up = np.cos(lift) * U + np.sin(lift) * along
            found[f"{side}_ankle"] = (
                found[f"{side}_heel"] - back * 0.27 * length + self.body["ankle_height"] * up
            )
        return found

    def _pelvis(self, q: dict[str, Floats]) -> Pelvis:
        at = self.stance
        middle = np.stack(
            [at["pelvis_t"] + q["sway"], at["pelvis_b"] + q["push"], at["pelvis_u"] + q["rise"]], -1
        )
        turn, slant, tilt = (np.radians(q[name]) for name in ("turn", "slant", "tilt"))
        line = np.stack([np.cos(slant) * np.cos(turn), np.cos(slant) * np.sin(turn), np.sin(slant)], -1)
        ahead = np.stack([-np.sin(turn), np.cos(turn), np.zeros_like(turn)], -1)
        half = self.body["hip_joints"] / 2
        return Pelvis(
            middle,
            middle + half * line,
            middle - half * line,
            ahead,
            self.body["pelvis_breadth"] / 2,
            self.body["pelvis_depth"] / 2,
            at["pelvis_behind"],
            tilt,
        )

    def _knee(self, side: str, q: dict[str, Floats], found: dict[str, Floats]) -> Floats:
        sign = 1.0 if side == "lead" else -1.0
        hip, ankle = found[f"{side}_hip"], found[f"{side}_ankle"]
        thigh, shank = self.body["thigh"], self.body["shank"]
        way = ankle - hip
        far = np.linalg.norm(way, axis=-1, keepdims=True)
        unit = way / far
        reach = np.minimum(far, STRAIGHTEST * (thigh + shank))
        along = (reach**2 + thigh**2 - shank**2) / (2 * reach)
        bent = np.sqrt(np.maximum(thigh**2 - along**2, 0.0))
        toes = found[f"{side}_toe"] - found[f"{side}_heel"]
        yaw = np.arctan2(toes[:, 0], toes[:, 1]) + sign * np.radians(q[f"{side}_knee_out"])
        forward = np.stack([np.sin(yaw), np.cos(yaw), np.zeros_like(yaw)], -1)
        forward = forward - np.sum(forward * unit, -1, keepdims=True) * unit
        forward /= np.linalg.norm(forward, axis=-1, keepdims=True)
        return np.asarray(hip + along * far / reach * unit + bent * forward)

    def _trunk(self, q: dict[str, Floats], pelvis: Pelvis) -> dict[str, Floats]:
        incline = np.radians(self.stance["incline"] + q["incline"])
        side = np.radians(q["side"])
        # The projections on the two upright planes have these angles.
        up = np.stack([-np.tan(side), np.tan(incline), np.ones_like(side)], -1)
        up /= np.linalg.norm(up, axis=-1, keepdims=True)
        neck = pelvis.middle + self.body["trunk"] * up
        turned = np.radians(q["chest"])
        # About the spine, from the line that is level and toward the target.
        level = np.cross(np.cross(up, T), up)
        level /= np.linalg.norm(level, axis=-1, keepdims=True)
        ahead = np.cross(up, level)
        across = np.cos(turned)[:, None] * level + np.sin(turned)[:, None] * ahead
        front = -np.sin(turned)[:, None] * level + np.cos(turned)[:, None] * ahead
        shoulders = neck - 0.03 * up + self.stance["rounded"] * front
        half = self.body["shoulders"] / 2
        # A neck follows the spine in part and bows of itself.
        bowed = self.stance["neck_follows"] * incline + self.stance["neck_bows"]
        aside = self.stance["neck_follows"] * side
        head_up = np.stack([-np.sin(aside), np.sin(bowed), np.cos(bowed)], -1)
        head = neck + self.body["head"] * head_up / np.linalg.norm(head_up, axis=-1, keepdims=True)
        return {
            "neck": neck,
            "lead_shoulder": shoulders + half * across,
            "trail_shoulder": shoulders - half * across,
            "sternum": neck - 0.25 * self.body["trunk"] * up + self.body["chest"] * front,
            "head": head + q["head_side"][:, None] * T,
        }

    def _arms(self, q: dict[str, Floats], found: dict[str, Floats]) -> dict[str, Floats]:
        plane = np.radians(self.stance["plane"])
        down = np.cos(plane) * B - np.sin(plane) * U
        arm, shaft = np.radians(q["arm"])[:, None], np.radians(q["shaft"])[:, None]
        reach = (self.body["upper_arm"] + self.body["forearm"]) * 0.98 + GRIP_M * 0.7
        hang = np.cos(arm) * (0.35 * B - 0.94 * U) + np.sin(arm) * T
        raised = np.cos(arm) * down + np.sin(arm) * T
        # Low arms hang, high ones go along the plane.
        share = np.sin(np.clip(np.abs(arm), 0, np.pi / 2)) ** 2
        way = (1 - share) * hang + share * raised
        way /= np.linalg.norm(way, axis=-1, keepdims=True)
        grip = found["lead_shoulder"] + reach * way
        # The shaft's plane is such that the head lies on the floor where the arms hang as at address.
        low = np.arcsin(np.clip((self.stance["grip_u"] - 0.02) / CLUB_M[self.club], 0.3, 0.98))
        club = np.cos(shaft) * (np.cos(low) * B - np.sin(low) * U) + np.sin(shaft) * T
        return {
            "grip": grip,
            "grip_butt": grip - GRIP_M * club,
            "club_head": grip + CLUB_M[self.club] * club,
        }

    def _trail_arm(self, found: dict[str, Floats]) -> dict[str, Floats]:
        """An arm of two bones from the shoulder to the hand at the grip, its elbow hanging down and out.

        The hand stays on the grip: a shoulder that is too far for that has come forward by the rest.
        """
        upper, fore = self.body["upper_arm"], self.body["forearm"]
        shoulder = found["trail_shoulder"]
        way = found["grip"] - shoulder
        far = np.linalg.norm(way, axis=-1, keepdims=True)
        reach = np.maximum(far - WRIST_FROM_GRIP_M, abs(upper - fore) + 0.01)
        longer = np.maximum(1.0, reach / (0.99 * (upper + fore)))
        upper, fore = upper * longer, fore * longer
        unit = way / far
        along = (reach**2 + upper**2 - fore**2) / (2 * reach)
        hangs = -0.9 * U - 0.3 * T
        hangs = hangs - np.sum(hangs * unit, -1, keepdims=True) * unit
        hangs /= np.linalg.norm(hangs, axis=-1, keepdims=True)
        elbow = shoulder + along * unit + np.sqrt(upper**2 - along**2) * hangs
        return {"trail_elbow": elbow, "trail_wrist": shoulder + reach * unit}


def draw_swing(body: Body, random: np.random.Generator) -> Swing:
    """Some swing of somebody's with some club."""
    club = CLUBS[random.integers(3)]
    timing = _timing(random)
    stance = _stance(body, club, random)
    keys = _keys(random)
    at = np.array([timing.checkpoints_s[name] for name in CHECKPOINTS])
    sharp = bool(random.integers(2))
    swing = Swing(body, club, timing, stance, _paths(keys, at, timing.last_s, sharp, random))
    keys["rise"] = keys["rise"] - _too_high(swing, at)
    swing = Swing(body, club, timing, stance, _paths(keys, at, timing.last_s, sharp, random))
    # The hands are over where the ball is to lie: the arms swing there at address and return near there.
    at_address = swing.places(at[:1])
    reach = float(np.linalg.norm(at_address["grip"] - at_address["lead_shoulder"]))
    aside = stance["hands_t"] - float(at_address["lead_shoulder"][0, 0])
    keys["arm"][0] = np.degrees(np.arcsin(np.clip(aside / reach, -0.6, 0.6)))
    stance["grip_u"] = float(swing.places(at[:1])["grip"][0, 2])
    return Swing(body, club, timing, stance, _paths(keys, at, timing.last_s, sharp, random))


def once_more(swing: Swing, random: np.random.Generator) -> Swing:
    """The same golfer's next swing: every key differs by a quarter of what golfers differ by at that moment.

    Common practice, no source.
    """
    at = np.array([swing.timing.checkpoints_s[name] for name in CHECKPOINTS])
    keys = {
        name: path(at)
        + SWING_TO_SWING * np.sqrt(1 - OWN_WAY) * np.array(KEYS[name][1]) * random.normal(size=len(at))
        for name, path in swing.paths.items()
    }
    keys["trail_heel"], keys["lead_heel"] = (
        np.maximum(keys[f"{side}_heel"], 0.0) for side in ("trail", "lead")
    )
    again = _timing_once_more(swing.timing, random)
    then = np.array([again.checkpoints_s[name] for name in CHECKPOINTS])
    next_one = Swing(
        swing.body, swing.club, again, swing.stance, _paths(keys, then, again.last_s, False, random)
    )
    keys["rise"] = keys["rise"] - _too_high(next_one, then)
    return Swing(swing.body, swing.club, again, swing.stance, _paths(keys, then, again.last_s, False, random))


def _timing(random: np.random.Generator) -> Timing:
    down = random.uniform(0.20, 0.36)
    back = down * random.uniform(2.2, 4.0)
    start = random.uniform(0.15, 0.5)
    times = {
        "address": start,
        "shaft_back": start + back * random.uniform(0.38, 0.48),
        "arm_back": start + back * random.uniform(0.56, 0.68),
        "top": start + back,
        "arm_down": start + back + down * random.uniform(0.55, 0.68),
        "shaft_down": start + back + down * random.uniform(0.78, 0.86),
        "impact": start + back + down,
    }
    times["shaft_through"] = times["impact"] + random.uniform(0.05, 0.09)
    times["finish"] = times["impact"] + random.uniform(0.5, 0.9)
    return Timing(times, times["finish"] + 0.3)


def _timing_once_more(timing: Timing, random: np.random.Generator) -> Timing:
    """The same golfer's next swing begins at another time and takes a little longer or shorter."""
    start, begun = random.uniform(0.15, 0.5), timing.checkpoints_s["address"]
    longer = random.normal(1, LONGER)
    times = {at: start + (second - begun) * longer for at, second in timing.checkpoints_s.items()}
    return Timing(times, times["finish"] + 0.3)


def _stance(body: Body, club: Club, random: np.random.Generator) -> dict[str, float]:
    ratio = max(0.6, random.normal(*CLUB_STANCE[club]))
    width = ratio * body["shoulders"]
    flares = max(-5.0, random.normal(20, 10)), max(-5.0, random.normal(8, 8))
    line = np.radians(random.normal(0, 4))
    leg = body["thigh"] + body["shank"]
    incline, spread = CLUB_INCLINE[club]
    back = random.normal(-0.11, 0.03)
    half = width / 2
    # Knees bent by 18 to 32° each: hips so high above the ankles.
    bent = leg * np.cos(np.radians(random.uniform(9, 16)))
    across = half - body["hip_joints"] / 2
    high = np.sqrt(bent**2 - across**2 - (back - 0.27 * body["foot"]) ** 2) + body["ankle_height"]
    return {
        "lead_heel_t": half,
        "trail_heel_t": -half,
        "lead_heel_b": -half * np.tan(line),
        "trail_heel_b": half * np.tan(line),
        "lead_flare": flares[0],
        "trail_flare": flares[1],
        "pelvis_t": random.normal(0.01, 0.02),
        "pelvis_b": back,
        "pelvis_u": float(high),
        "pelvis_behind": random.normal(0.005, 0.015),
        "incline": random.normal(incline, spread),
        "rounded": random.normal(0.03, 0.01),
        "neck_follows": random.uniform(0.4, 1.0),
        "neck_bows": np.radians(random.normal(10, 8)),
        "plane": random.normal({"wedge": 58, "mid_iron": 52, "driver": 44}[club], 5),
        "hands_t": {"wedge": 0.0, "mid_iron": 0.25, "driver": 0.7}[club] * half + random.normal(0, 0.03),
        "grip_u": 0.0,
    }


def _keys(random: np.random.Generator) -> dict[str, Floats]:
    found = {}
    for name, (mean, sd) in KEYS.items():
        own, then = random.normal(), random.normal(size=len(CHECKPOINTS))
        shared = np.sqrt(OWN_WAY) * own + np.sqrt(1 - OWN_WAY) * then
        found[name] = np.array(mean, float) + np.array(sd) * shared
    for name in ("trail_heel",):
        found[name] = np.maximum(found[name], 0.0)
    if random.random() < HEEL_LIFTERS:
        high = abs(random.normal(0.03, 0.02))
        found["lead_heel"] = found["lead_heel"] + high * np.array([0, 0.1, 0.5, 1, 0.3, 0, 0, 0, 0])
    return found


def _paths(
    keys: dict[str, Floats], at: Floats, last: float, sharp: bool, random: np.random.Generator
) -> dict[str, Callable[[Floats], Floats]]:
    found: dict[str, Callable[[Floats], Floats]] = {}
    for name, values in keys.items():
        times = at.copy()
        if name in TURNS_ROUND:
            times[TOP] += TURNS_ROUND[name] + random.normal(0, 0.015)
        times = np.concatenate([[0.0], times, [last]])
        still = np.concatenate([values[:1], values, values[-1:]])
        if sharp or (np.diff(still) == 0).any():
            found[name] = PchipInterpolator(times, still)
        else:
            found[name] = CubicSpline(times, still, bc_type="clamped")
    return found


# When a part turns round, from the top, on average; common practice, no source.
TURNS_ROUND = {"sway": -0.05, "push": -0.04, "turn": -0.03, "chest": -0.005, "arm": 0.0}


def _too_high(swing: Swing, at: Floats) -> Floats:
    """How far the pelvis must come down at the checkpoints for both legs to reach their feet."""
    places = swing.places(at)
    lowered = np.zeros(len(at))
    longest = STRAIGHTEST * 0.998 * (swing.body["thigh"] + swing.body["shank"])
    for side in ("lead", "trail"):
        way = places[f"{side}_hip"] - places[f"{side}_ankle"]
        flat = np.sum(way[:, :2] ** 2, axis=1)
        most = np.sqrt(np.maximum(longest**2 - flat, 0.0))
        lowered = np.maximum(lowered, way[:, 2] - most)
    return lowered
