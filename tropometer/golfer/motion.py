"""One golfer's swing in motion: settings and a body become joints and bone orientations at any instant.

The range's frame: x toward the target, y up, z toward the ball, metres, origin on the floor midway
between the heels at address. Everything moves as a right-hander; a left-hander is its mirror image.
Joints are functions of the settings' curves, which are twice differentiable, so the joints are too.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from scipy.optimize import least_squares

from tropometer.golfer import arms, legs
from tropometer.golfer.arms import Arm, ClubPose
from tropometer.golfer.body import Body
from tropometer.golfer.curves import Curve, through_keys
from tropometer.golfer.feet import SIDES, Foot, FootSettings, heels_at_address, stand
from tropometer.golfer.legs import Leg, Pelvis
from tropometer.golfer.rotations import BALL, TARGET, UP, Floats, about, between, turned
from tropometer.golfer.settings import EVENTS, IMPACT, KEYED, TOP, Event, SettingError, SwingSettings

BALL_RADIUS_M = 0.02135  # Rules of Golf, equipment: not under 42.67 mm across
TEE_M = 0.035
HEAD_UP_M = 0.022  # where the shaft meets the head, above the floor at address
FACE_FROM_SHAFT_M = np.array([-0.026, 0.0, -0.030])  # that point from the ball's middle at address and impact
SOLVED_M = 1e-3

# Which part of the body each curve belongs to: the parts start down at their own times.
PARTS: dict[str, tuple[str, ...]] = {
    "lead_knee_start": ("lead_knee_flex", "lead_heel_lift", "lead_foot_roll", "lead_knee_out"),
    "pelvis_shift_start": ("pelvis_sway", "pelvis_push", "trail_knee_flex"),
    "pelvis_turn_start": ("pelvis_turn", "pelvis_tilt"),
    "chest_start": ("chest_turn", "spine_incline", "side_tilt"),
    "arm_start": ("arm_arc", "arm_off_plane", "lead_elbow_flex"),
}
# These run through their keys; the others may rest at them.
FLOWING = (
    "arm_arc", "arm_off_plane", "shaft_arc", "chest_turn", "pelvis_turn", "spine_incline", "side_tilt",
    "pelvis_tilt", "head_turn", "head_tilt", "head_side",
)  # fmt: skip
EASED_AFTER_IMPACT = 1.06
# How much of what impact asks of the spine its neighbours take over.
SPINE_SPREAD: dict[Event, float] = {
    "arm_down": 0.5, "shaft_down": 0.85, "impact": 1.0, "shaft_through": 0.95, "arm_through": 0.65,
}  # fmt: skip

Values = dict[str, Floats]


@dataclass(frozen=True)
class Poses:
    """The golfer at n instants. Bones are named as in the mesh, where left leads and right trails."""

    times_s: Floats
    pelvis: Pelvis
    feet: dict[str, Foot]
    legs: dict[str, Leg]
    arms: dict[str, Arm]
    club: ClubPose
    bones: dict[str, Floats]  # orientation (n, 3, 3)
    heads: dict[str, Floats]  # where each bone starts (n, 3)


class Motion:
    """A body that swings as its settings say."""

    def __init__(self, body: Body, settings: SwingSettings) -> None:
        """Fit the swing to the ball; SettingError when no such body can make it."""
        self.body, self.settings = body, settings
        self.plane = arms.SwingPlane(settings.club)
        self.club_length_m = arms.club_length(settings.club, body.sc)
        self.event_times_s = settings.event_times_s()
        shoulders = float(np.linalg.norm(body.head["upperarm_l"] - body.head["upperarm_r"]))
        self.stance_width_m = settings.stance_ratio * shoulders
        self.heels = heels_at_address(
            body, self.stance_width_m, settings.toe_line, (settings.lead_flare, settings.trail_flare)
        )
        self._keys = {name: np.array(getattr(settings, name), float) for name in KEYED}
        self._follow_the_pelvis()
        self.ball = self._address()
        self._impact()
        self._pace_the_club()
        self._curves = self._draw_curves()

    def poses(self, times_s: Floats) -> Poses:
        """The golfer at instants (n,), seconds from the start of the footage."""
        return self._poses(
            np.asarray(times_s, float), {name: curve(times_s) for name, curve in self._curves.items()}
        )

    def values(self, times_s: Floats) -> Values:
        """The keyed settings at instants, as they were fitted."""
        return {name: curve(times_s) for name, curve in self._curves.items()}

    @property
    def end_s(self) -> float:
        """When the swing is finished."""
        return float(self.event_times_s[-1])

    # Fitting

    def _at(self, event: int) -> Values:
        return {name: keys[event : event + 1].copy() for name, keys in self._keys.items()}

    def _follow_the_pelvis(self) -> None:
        """Where rise and slant are given, the knees take the flexions that carry the pelvis there."""
        rise, slant = self.settings.pelvis_rise, self.settings.pelvis_slant
        if rise is None or slant is None:
            return
        start = float(self._pelvis(self._at(0), self._feet(self._at(0))).middle[0, 1])
        for event in range(len(EVENTS)):
            values = self._at(event)
            feet = self._feet(values)
            middle = self._flat(values) + (start + rise[event]) * UP
            line = legs.hip_line(values["pelvis_turn"], np.array([slant[event]]))
            half = np.linalg.norm(self.body.head["thigh_l"] - self.body.head["thigh_r"]) / 2
            for side, name, sign in SIDES:
                reach = np.linalg.norm(middle + sign * half * line - feet[name].ankle, axis=1)
                self._keys[f"{name}_knee_flex"][event] = legs.flexion_for(self.body, side, reach)[0]

    def _address(self) -> Floats:
        """Put the club on the floor at address; returns the ball's place (3,)."""
        settings, values = self.settings, self._at(0)
        tee = TEE_M if settings.club == "driver" else 0.0
        along = self.heels[1][0] + settings.ball_position * (self.heels[0][0] - self.heels[1][0])
        hang = np.radians(settings.arm_hang)
        head_up = HEAD_UP_M + tee * 0.6

        def club(x: Floats) -> tuple[Floats, Floats]:
            arm = np.array([np.sin(x[0]), -np.cos(x[0]) * np.cos(hang), np.cos(x[0]) * np.sin(hang)])
            shaft = np.array([np.sin(x[1]), -np.cos(x[1]) * np.sin(x[2]), np.cos(x[1]) * np.cos(x[2])])
            return arm, shaft

        def misses(x: Floats) -> Floats:
            arm, shaft = club(x)
            pose = self._swung(values, arm[None], shaft[None])[0]
            miss: Floats = np.array(
                [
                    pose.grip[0, 0] - along - settings.hands_ahead_address,
                    pose.head[0, 0] - along - FACE_FROM_SHAFT_M[0],
                    pose.head[0, 1] - head_up,
                ]
            )
            return miss

        found = least_squares(misses, [-0.1, 0.0, np.radians(58)], xtol=1e-12, ftol=1e-12, gtol=1e-12)
        arm, shaft = club(found.x)
        if np.abs(found.fun).max() > SOLVED_M or not np.radians(30) < found.x[2] < np.radians(80):
            raise SettingError("arm_hang and spine_incline: the club does not reach the floor at address")
        self._set_arm(0, arm, shaft)
        head = self._swung(values, arm[None], shaft[None])[0].head[0]
        ball: Floats = head - FACE_FROM_SHAFT_M
        ball[1] = BALL_RADIUS_M + tee
        return ball

    def _impact(self) -> None:
        """Bring the club back to the ball; the spine tips as far as that needs."""
        settings, values = self.settings, self._at(IMPACT)
        target = self.ball + FACE_FROM_SHAFT_M
        spine = values["spine_incline"][0]

        def parts(x: Floats) -> tuple[Values, Floats, Floats]:
            tipped = {**values, "spine_incline": np.array([spine + x[4]])}
            return tipped, self.plane.direction(x[0:1], x[1:2]), self.plane.direction(x[2:3], x[3:4])

        def misses(x: Floats) -> Floats:
            tipped, arm, shaft = parts(x)
            pose, shoulder = self._swung(tipped, arm, shaft)
            angle = arms.arm_shaft_angle(shoulder, pose)[0]
            ahead = pose.grip[0, 0] - self.ball[0] - settings.hands_ahead_impact
            miss: Floats = np.array(
                [*(pose.head[0] - target), ahead, np.radians(angle - settings.impact_arm_shaft)]
            )
            return miss

        start = [0.0, -30.0, -8.0, -4.0, 0.0]
        found = least_squares(misses, start, x_scale=[10, 10, 10, 10, 5], xtol=1e-12, ftol=1e-12, gtol=1e-12)
        if np.abs(found.fun).max() > SOLVED_M:
            raise SettingError("pelvis and spine at impact: the club does not come back to the ball")
        for event, share in SPINE_SPREAD.items():
            self._keys["spine_incline"][EVENTS.index(event)] += share * found.x[4]
        _, arm, shaft = parts(found.x)
        self._set_arm(IMPACT, arm[0], shaft[0])

    def _pace_the_club(self) -> None:
        """The club goes through the ball at one pace: what follows impact comes as late as that asks."""
        arc, times = self._keys["shaft_arc"], self.event_times_s
        pace = (arc[IMPACT] - arc[IMPACT - 1]) / (times[IMPACT] - times[IMPACT - 1]) / EASED_AFTER_IMPACT
        times[IMPACT + 1 :] += times[IMPACT] + (arc[IMPACT + 1] - arc[IMPACT]) / pace - times[IMPACT + 1]

    def _set_arm(self, event: int, arm: Floats, shaft: Floats) -> None:
        for name, direction in (("arm", arm), ("shaft", shaft)):
            arc, off = self.plane.angles(direction)
            self._keys[f"{name}_arc"][event], self._keys[f"{name}_off_plane"][event] = arc, off

    def _draw_curves(self) -> dict[str, Curve]:
        """Curves through all keys; each part of the body turns round at its own time."""
        shift = {name: getattr(self.settings, start) for start, names in PARTS.items() for name in names}
        times = self.event_times_s
        before, after = times[TOP] - times[TOP - 1], times[TOP + 1] - times[TOP]
        curves = {}
        for name, keys in self._keys.items():
            own = times.copy()
            own[TOP] += np.clip(shift.get(name, 0.0), -0.75 * before, 0.75 * after)
            curves[name] = through_keys(own, keys, flowing=name in FLOWING)
        return curves

    # Posing

    def _feet(self, v: Values) -> dict[str, Foot]:
        settings, still = self.settings, np.zeros(len(v["pelvis_turn"]))
        lead = FootSettings(
            settings.lead_flare,
            v["lead_foot_twist"],
            v["lead_foot_roll"],
            v["lead_heel_lift"],
            v["lead_toe_lift"],
            still,
        )
        trail = FootSettings(
            settings.trail_flare,
            -v["trail_foot_spin"],
            -v["trail_foot_roll"],
            v["trail_heel_lift"],
            still,
            v["trail_foot_drag"],
        )
        return {
            "lead": stand(self.body, "l", self.heels[0], lead),
            "trail": stand(self.body, "r", self.heels[1], trail),
        }

    def _flat(self, v: Values) -> Floats:
        along = self.settings.pelvis_bump + v["pelvis_sway"]
        toward_ball = self.settings.pelvis_back + v["pelvis_push"]
        return along[:, None] * TARGET + toward_ball[:, None] * BALL

    def _pelvis(self, v: Values, feet: dict[str, Foot]) -> Pelvis:
        flexions = {name: v[f"{name}_knee_flex"] for name in ("lead", "trail")}
        return legs.carry(self.body, feet, self._flat(v), v["pelvis_turn"], v["pelvis_tilt"], flexions)

    def _trunk(self, v: Values, pelvis: Pelvis) -> tuple[dict[str, Floats], dict[str, Floats]]:
        """Orientations and starts of the bones from pelvis to head, and the clavicles' starts."""
        rest = self.body.head
        chest = about("x", v["spine_incline"]) @ about("y", -v["chest_turn"]) @ about("z", v["side_tilt"])
        head = about("x", v["head_tilt"]) @ about("y", -v["head_turn"]) @ about("z", v["head_side"])
        bones = {
            "pelvis": pelvis.facing,
            "spine_01": between(pelvis.facing, chest, 0.30),
            "spine_02": between(pelvis.facing, chest, 0.68),
            "spine_03": chest,
            "neck_01": between(chest, head, 0.5),
            "head": head,
        }
        hips = (rest["thigh_l"] + rest["thigh_r"]) / 2
        starts = {"pelvis": pelvis.middle + turned(pelvis.facing, rest["pelvis"] - hips)}
        chain = ("pelvis", "spine_01", "spine_02", "spine_03", "neck_01", "head")
        for parent, bone in pairwise(chain):
            starts[bone] = starts[parent] + turned(bones[parent], rest[bone] - rest[parent])
        for side in "lr":
            collar = rest[f"clavicle_{side}"] - rest["spine_03"]
            starts[f"clavicle_{side}"] = starts["spine_03"] + turned(chest, collar)
        return bones, starts

    def _swung(self, v: Values, arm: Floats, shaft: Floats) -> tuple[ClubPose, Floats]:
        """The club for a direction of the lead arm and of the shaft, and the lead shoulder."""
        bones, starts = self._trunk(v, self._pelvis(v, self._feet(v)))
        return self._hold(v, bones["spine_03"], starts["clavicle_l"], arm, shaft)[:2]

    def _hold(
        self, v: Values, chest: Floats, collar: Floats, arm: Floats, shaft: Floats
    ) -> tuple[ClubPose, Floats, Floats]:
        shoulder, clavicle = arms.lead_shoulder(self.body, chest, collar, arm)
        wrist = shoulder + arms.lead_reach(self.body, v["lead_elbow_flex"]) * arm
        face = self.plane.face(shaft, v["face_roll"])
        grip = wrist + arms.grip_from_wrist(self.body, "l", shaft, face)
        return ClubPose(grip, shaft, face, np.cross(face, shaft), self.club_length_m), shoulder, clavicle

    def _poses(self, times_s: Floats, v: Values) -> Poses:
        body, feet = self.body, self._feet(v)
        pelvis = self._pelvis(v, feet)
        bones, starts = self._trunk(v, pelvis)
        legs_by: dict[str, Leg] = {}
        for side, name, _ in SIDES:
            hip = pelvis.middle + turned(pelvis.facing, self._from_hips(f"thigh_{side}"))
            leg = legs.bend(body, side, hip, feet[name], pelvis, v[f"{name}_knee_out"])
            legs_by[name] = leg
            bones |= {f"thigh_{side}": leg.thigh, f"calf_{side}": leg.shank}
            bones |= {f"foot_{side}": feet[name].rear, f"ball_{side}": feet[name].front}
            starts |= {f"thigh_{side}": leg.hip, f"calf_{side}": leg.knee}
            starts |= {f"foot_{side}": leg.ankle, f"ball_{side}": feet[name].ball_joint}
        club, arms_by = self._arms(v, bones, starts)
        for side, name, _ in SIDES:
            held = arms_by[name]
            bones |= held.bones
            starts |= {f"upperarm_{side}": held.shoulder, f"upperarm_tw_{side}": held.shoulder}
            starts |= {f"lowerarm_{side}": held.elbow, f"lowerarm_tw_{side}": held.elbow}
            starts[f"hand_{side}"] = held.wrist
        for bone in body.bones:  # fingers, in the mesh's order from the hand outward
            if bone not in starts:
                parent = body.parent[bone]
                assert parent is not None
                starts[bone] = starts[parent] + turned(bones[parent], body.head[bone] - body.head[parent])
        return Poses(times_s, pelvis, feet, legs_by, arms_by, club, bones, starts)

    def _arms(
        self, v: Values, bones: dict[str, Floats], starts: dict[str, Floats]
    ) -> tuple[ClubPose, dict[str, Arm]]:
        """The club and both arms, given the trunk's orientations and starts."""
        body, chest = self.body, bones["spine_03"]
        direction = self.plane.direction(v["arm_arc"], v["arm_off_plane"])
        shaft = self.plane.direction(v["shaft_arc"], v["shaft_off_plane"])
        club, shoulder, clavicle = self._hold(v, chest, starts["clavicle_l"], direction, shaft)
        wrists = {
            side: club.grip - arms.grip_from_wrist(body, side, shaft, club.face) for side, _, _ in SIDES
        }
        shoulders = {
            "l": (shoulder, clavicle),
            "r": arms.reaching_shoulder(body, "r", chest, starts["clavicle_r"], wrists["r"]),
        }
        return club, {
            name: arms.bend(
                body,
                side,
                shoulders[side],
                wrists[side],
                arms.on_the_grip(side, shaft, club.face),
                arms.swinging_pole(side, chest),
            )
            for side, name, _ in SIDES
        }

    def _from_hips(self, bone: str) -> Floats:
        rest = self.body.head
        offset: Floats = rest[bone] - (rest["thigh_l"] + rest["thigh_r"]) / 2
        return offset


def bone_matrices(body: Body, poses: Poses, instant: int) -> Floats:
    """Skinning matrices (bones, 4, 4) of one instant, from the mesh's rest pose."""
    matrices = np.zeros((len(body.bones), 4, 4))
    matrices[:, 3, 3] = 1
    for i, bone in enumerate(body.bones):
        turn = poses.bones[bone][instant]
        matrices[i, :3, :3] = turn
        matrices[i, :3, 3] = poses.heads[bone][instant] - turn @ body.head[bone]
    return matrices
