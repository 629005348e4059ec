"""Arms and club: the lead arm swings the club about a plane, the trail hand follows on the grip."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.golfer.body import Body
from tropometer.golfer.curves import smooth_positive
from tropometer.golfer.feet import Letter
from tropometer.golfer.rotations import (
    TARGET,
    Floats,
    about_axis,
    between,
    dot,
    frame,
    length,
    shortest,
    square_to,
    turned,
    unit,
)
from tropometer.golfer.settings import Club

CLUB_LENGTH_M: dict[Club, float] = {"wedge": 0.895, "mid_iron": 0.94, "driver": 1.14}
PLANE_DEG: dict[Club, float] = {"wedge": 53, "mid_iron": 50, "driver": 44}
GRIP_FROM_BUTT_M = 0.105  # middle of the two hands
HAND_APART_M = 0.043  # each hand from that middle
PALM_DEPTH_M = 0.030
FINGER_ANGLE = {"l": np.radians(48), "r": np.radians(44)}
SHOULDER_FOLLOWS = {"l": 0.30, "r": 0.48}
STRAIGHTEST = 0.985  # of the arm's length; near that the shoulder blade gives
GIVES_M = 0.02  # how gently
ELBOW_POLE = np.array([0.55, -0.9, -0.15])
# Each finger's three joints, degrees of curl about the grip.
FINGERS = {"index": (48, 59, 36), "middle": (55, 63, 38), "ring": (59, 63, 38), "pinky": (61, 61, 38)}
THUMB_SHARES = (0.75, 0.95, 1.05)


@dataclass(frozen=True)
class ClubPose:
    """Grip middle (n, 3), and the unit axes of the shaft (toward the head), the face and the toe."""

    grip: Floats
    shaft: Floats
    face: Floats
    toe: Floats
    length_m: float

    @property
    def head(self) -> Floats:
        """Where the shaft meets the club head."""
        return self.grip + self.shaft * (self.length_m - GRIP_FROM_BUTT_M)

    @property
    def butt(self) -> Floats:
        """The upper end of the grip."""
        return self.grip - self.shaft * GRIP_FROM_BUTT_M


@dataclass(frozen=True)
class Hand:
    """How a hand is turned: unit vectors (n, 3) along its fingers' roots and out of its palm.

    `curl` is 1 about a grip, 0 for a flat hand.
    """

    fingers: Floats
    palm: Floats
    curl: float = 1.0


@dataclass(frozen=True)
class Arm:
    """Shoulder, elbow, wrist (n, 3) and the orientations of the arm's bones (n, 3, 3)."""

    shoulder: Floats
    elbow: Floats
    wrist: Floats
    bones: dict[str, Floats]


def club_length(club: Club, scale: float) -> float:
    """Length in metres; a taller player's club is a little longer."""
    return CLUB_LENGTH_M[club] * (1 + 0.4 * (scale - 1))


class SwingPlane:
    """Directions by arc and height off a plane that leans from the ball over the player."""

    def __init__(self, club: Club) -> None:
        lean = np.radians(PLANE_DEG[club])
        self.up = np.array([0.0, np.sin(lean), -np.cos(lean)])
        self.normal = np.array([0.0, np.cos(lean), np.sin(lean)])

    def direction(self, arc: Floats, off: Floats) -> Floats:
        """Unit vectors (n, 3); arc 0 points down the plane, positive toward the target, degrees."""
        a, o = np.radians(arc)[:, None], np.radians(off)[:, None]
        along: Floats = np.cos(o) * (np.sin(a) * TARGET - np.cos(a) * self.up) + np.sin(o) * self.normal
        return along

    def angles(self, direction: Floats) -> tuple[float, float]:
        """Arc and height off the plane of one direction (3,), degrees."""
        d = direction / np.linalg.norm(direction)
        return float(np.degrees(np.arctan2(d @ TARGET, -d @ self.up))), float(
            np.degrees(np.arcsin(d @ self.normal))
        )

    def face(self, shaft: Floats, roll: Floats) -> Floats:
        """Where the club face looks: along the arc, opened by `roll` degrees."""
        above = square_to(np.broadcast_to(self.normal, shaft.shape), shaft)
        r = np.radians(roll)[:, None]
        return np.cos(r) * np.cross(above, shaft) + np.sin(r) * above


def palm(body: Body, side: Letter) -> tuple[Floats, Floats, float]:
    """Rest direction of the fingers, of the palm's inside, and the palm's length."""
    knuckle, wrist = body.head[f"middle_01_{side}"], body.head[f"hand_{side}"]
    along = unit(knuckle - wrist)
    inside = unit(np.cross(along, body.head[f"index_01_{side}"] - body.head[f"pinky_01_{side}"]))
    tip = body.tail[f"middle_03_{side}"] - knuckle
    if inside @ (tip - (tip @ along) * along) < 0:
        inside = -inside
    return along, inside, float(np.linalg.norm(knuckle - wrist))


def on_the_grip(side: Letter, shaft: Floats, face: Floats) -> Hand:
    """How a hand is turned that holds the club."""
    toe = np.cross(face, shaft)
    angle = FINGER_ANGLE[side]
    return Hand(np.cos(angle) * shaft + np.sin(angle) * toe, -face if side == "l" else face)


def grip_from_wrist(body: Body, side: Letter, shaft: Floats, face: Floats) -> Floats:
    """From a wrist to the middle of the grip (n, 3)."""
    hand = on_the_grip(side, shaft, face)
    apart = HAND_APART_M if side == "l" else -HAND_APART_M
    return hand.fingers * palm(body, side)[2] * 0.9 + hand.palm * PALM_DEPTH_M * body.sc + shaft * apart


def arm_lengths(body: Body, side: Letter) -> tuple[float, float]:
    """Upper arm and forearm, metres."""
    shoulder, elbow, wrist = (body.head[f"{bone}_{side}"] for bone in ("upperarm", "lowerarm", "hand"))
    return float(np.linalg.norm(elbow - shoulder)), float(np.linalg.norm(wrist - elbow))


def lead_shoulder(body: Body, chest: Floats, collar: Floats, arm: Floats) -> tuple[Floats, Floats]:
    """Shoulder (n, 3) and clavicle orientation; the shoulder follows the arm a little."""
    return _shoulder(body, "l", chest, collar, arm)


def _shoulder(
    body: Body, side: Letter, chest: Floats, collar: Floats, toward: Floats
) -> tuple[Floats, Floats]:
    rest = body.head[f"upperarm_{side}"] - body.head[f"clavicle_{side}"]
    straight = unit(turned(chest, rest))
    clavicle = shortest(straight, unit(straight + SHOULDER_FOLLOWS[side] * toward)) @ chest
    return collar + turned(clavicle, rest), clavicle


def lead_reach(body: Body, elbow_flex: Floats) -> Floats:
    """Shoulder to wrist (n, 1) of the lead arm for a flexion in degrees."""
    upper, fore = arm_lengths(body, "l")
    reach: Floats = np.sqrt(upper**2 + fore**2 + 2 * upper * fore * np.cos(np.radians(elbow_flex)))
    return reach[:, None]


def reaching_shoulder(
    body: Body, side: Letter, chest: Floats, collar: Floats, wrist: Floats
) -> tuple[Floats, Floats]:
    """Shoulder and clavicle of an arm whose hand is held somewhere.

    The shoulder blade slides where the arm would be too short.
    """
    rest = body.head[f"upperarm_{side}"] - body.head[f"clavicle_{side}"]
    toward = unit(wrist - (collar + turned(chest, rest)))
    shoulder, clavicle = _shoulder(body, side, chest, collar, toward)
    far = wrist - shoulder
    missing = smooth_positive(length(far) - STRAIGHTEST * sum(arm_lengths(body, side)), GIVES_M)
    return shoulder + missing * unit(far), clavicle


def bend(
    body: Body,
    side: Letter,
    shoulder: tuple[Floats, Floats],
    wrist: Floats,
    hand: Hand,
    pole: Floats,
) -> Arm:
    """Elbow and bone orientations of an arm from its shoulder and clavicle to where its hand is held.

    The elbow points as near `pole` (n, 3) as the arm allows.
    """
    joint, clavicle = shoulder
    upper, fore = arm_lengths(body, side)
    line, reach = unit(wrist - joint), length(wrist - joint)
    along = (upper**2 - fore**2 + reach**2) / (2 * reach)
    elbow = joint + along * line + np.sqrt(np.maximum(upper**2 - along**2, 1e-9)) * square_to(pole, line)
    return Arm(joint, elbow, wrist, _arm_bones(body, side, (joint, elbow, wrist), clavicle, hand))


def swinging_pole(side: Letter, chest: Floats) -> Floats:
    """Where an elbow points (n, 3) while both hands are on the club."""
    sign = 1.0 if side == "l" else -1.0
    pole: Floats = turned(chest, ELBOW_POLE * np.array([sign, 1, 1])) + np.array([0.0, -0.5, 0.0])
    return pole


def _arm_bones(
    body: Body, side: Letter, joints: tuple[Floats, Floats, Floats], clavicle: Floats, hand: Hand
) -> dict[str, Floats]:
    shoulder, elbow, wrist = joints
    hinge = unit(np.cross(elbow - shoulder, wrist - elbow))
    rest_upper = body.head[f"lowerarm_{side}"] - body.head[f"upperarm_{side}"]
    rest_fore = body.head[f"hand_{side}"] - body.head[f"lowerarm_{side}"]
    rest_hinge = unit(np.cross(rest_upper, rest_fore))[None]
    along, inside, _ = palm(body, side)
    held = frame(hand.fingers, hand.palm) @ frame(along[None], inside[None])[0].T
    bent_upper = frame(elbow - shoulder, hinge) @ frame(rest_upper[None], rest_hinge)[0].T
    bent_fore = frame(wrist - elbow, hinge) @ frame(rest_fore[None], rest_hinge)[0].T
    swung_upper = shortest(unit(turned(clavicle, rest_upper)), unit(elbow - shoulder)) @ clavicle
    swung_fore = shortest(unit(turned(held, rest_fore)), unit(wrist - elbow)) @ held
    bones = {
        f"clavicle_{side}": clavicle,
        f"upperarm_{side}": between(swung_upper, bent_upper, 0.35),
        f"upperarm_tw_{side}": bent_upper,
        f"lowerarm_{side}": bent_fore,
        f"lowerarm_tw_{side}": between(bent_fore, swung_fore, 0.8),
        f"hand_{side}": held,
    }
    return bones | _finger_bones(body, side, held, along, inside, hand.curl)


def _finger_bones(
    body: Body, side: Letter, hand: Floats, along: Floats, inside: Floats, curled: float
) -> dict[str, Floats]:
    bones = {}
    curl_axis = np.cross(along, inside)
    for finger, curls in FINGERS.items():
        for joint, curl in enumerate(np.cumsum(curls) * curled, 1):
            bones[f"{finger}_0{joint}_{side}"] = (
                hand @ about_axis(curl_axis[None], np.array([float(curl)]))[0]
            )
    thumb = unit(body.tail[f"thumb_03_{side}"] - body.head[f"thumb_01_{side}"])
    round_grip = shortest(thumb[None], unit(0.80 * along + 0.62 * inside)[None])
    for joint, share in enumerate(THUMB_SHARES, 1):
        bones[f"thumb_0{joint}_{side}"] = hand @ between(np.eye(3)[None], round_grip, share * curled)[0]
    return bones


def arm_shaft_angle(shoulder: Floats, club: ClubPose) -> Floats:
    """Angle lead shoulder, grip, club head (n,), degrees."""
    cosine = dot(unit(shoulder - club.grip), club.shaft)[:, 0]
    angle: Floats = np.degrees(np.arccos(np.clip(cosine, -1, 1)))
    return angle
