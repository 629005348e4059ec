"""From where a clip is filmed, which hand the player plays, and where the player is in the picture."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic, TypeVar

import numpy as np

from tropometer.swing.names import PLANE_OF, Hand, View
from tropometer.swing.proposals.landmarks import (
    EARS,
    HANDS,
    HEELS,
    HIPS,
    NOSE,
    RIGHTWARD,
    SHOULDERS,
    TOES,
    Landmarks,
)

# Apparent shoulder width over torso length: 0.73 to 0.84 face-on, 0.01 to 0.12 down the line on our golfers.
WIDTH_BETWEEN = 0.43
WIDTH_REACH = 0.25  # so far from the border nothing is in doubt
CHEST_REACH = 0.5  # the shoulders' breadths at the top and at the finish, together
HAND_REACH = 0.25  # torso lengths; the hands go 0.5 to 0.9 going back
FOOT_REACH = 0.2  # a foot points 0.35 to 0.48 to its side
RARE = 0.02  # share of the frames at either end
ROOM = 0.45  # torso lengths about the body: the club's hands, a cap, a shoe's tip

T = TypeVar("T")


@dataclass(frozen=True)
class Box:
    """A stretch of the picture, pixels."""

    left: float
    top: float
    right: float
    bottom: float


@dataclass(frozen=True)
class Seen(Generic[T]):
    """A proposal and how sure it is, 0 to 1."""

    value: T
    confidence: float


def propose_view(landmarks: Landmarks, address: int, top: int, finish: int) -> Seen[View]:
    """Along which line, by how broad the shoulders are seen at address; from which end of it, by the chest.

    Square to the line the chest is seen at address, or the back. Along the line the chest looks away from the
    target at the top and toward it at the finish, in either hand and also in a mirror.
    """
    chest = (landmarks.places[:, SHOULDERS[0], 0] - landmarks.places[:, SHOULDERS[1], 0]) / landmarks.torso_px
    beyond = abs(float(chest[address])) - WIDTH_BETWEEN
    along = _sure(beyond, WIDTH_REACH)
    if beyond > 0:
        return Seen("face_on" if chest[address] > 0 else "from_behind", along)
    turned = float(chest[top] - chest[finish])
    end = _sure(turned, CHEST_REACH)
    return Seen("down_the_line" if turned > 0 else "up_the_line", min(along, end))


def propose_hand(landmarks: Landmarks, view: View, address: int, top: int) -> Seen[Hand]:
    """Square to the line the hands go back to the trail side; along it feet and nose point to the ball.

    Face-on a right-hander's target is at the right of the picture; down the line the ball is.
    """
    places, rightward = landmarks.places, RIGHTWARD[view]
    if PLANE_OF[view] == "frontal":
        hands = landmarks.middle(HANDS)[:, 0] - landmarks.middle(HIPS)[:, 0]
        trailward = rightward * float(hands[address] - hands[top]) / landmarks.torso_px
        return Seen("right" if trailward > 0 else "left", _sure(trailward, HAND_REACH))
    feet = float(np.mean(places[address, TOES, 0] - places[address, HEELS, 0]))
    nose = float(places[address, NOSE, 0] - np.mean(places[address, EARS, 0]))
    ballward = rightward * (feet + nose) / landmarks.torso_px
    return Seen("right" if ballward > 0 else "left", _sure(ballward, FOOT_REACH))


def player_box(landmarks: Landmarks, width: int, height: int) -> Box:
    """Where the body is over the whole clip, with some room, inside the picture."""
    # What is in few frames only is a landmark that went astray.
    lowest, highest = np.quantile(landmarks.places, [RARE, 1 - RARE], axis=0)
    low = lowest.min(axis=0) - ROOM * landmarks.torso_px
    high = highest.max(axis=0) + ROOM * landmarks.torso_px
    left, top = np.clip(low, 0, [width, height])
    right, bottom = np.clip(high, 0, [width, height])
    return Box(float(left), float(top), float(right), float(bottom))


def _sure(beyond: float, reach: float) -> float:
    return round(float(np.clip(abs(beyond) / reach, 0, 1)), 2)
