"""Where a ball may lie before the player's feet, and the marks that follow from one that was found there."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Frames
from tropometer.swing.names import PLANE_OF, Checkpoint, Hand, View
from tropometer.swing.proposals.landmarks import HEELS, RIGHTWARD, TOES, Landmarks
from tropometer.swing.proposals.marks import ProposedMark
from tropometer.swing.proposals.seeing import Box
from tropometer.swing.record.camera_motion import CameraMotion

# Torso lengths. A ball is 42.67 mm across at least (R&A and USGA, Equipment Rules; from memory) and lies
# nearer to a camera than a trunk of half a metre does.
ACROSS = 0.095
# What may lie before the toes, from them: sideways and down in the picture, or toward the ball and down.
BEFORE_FRONTAL = ((-0.3, 0.5), (0.06, 1.3))
BEHIND_FRONTAL = ((-0.3, 0.5), (-1.0, -0.02))
BEFORE_SAGITTAL = ((0.35, 2.6), (-0.5, 0.6))
# Where a club lies behind its ball at address, to the lead or the ball's side and down: measured on the
# made-up golfers. How near people put theirs is common practice, no source: about a ball's breadth.
HEAD_BESIDE: dict[View, tuple[float, float]] = {
    "face_on": (-0.061, -0.02),
    "down_the_line": (-0.047, 0.009),
    "up_the_line": (-0.047, 0.009),
}
HEAD_SD = 0.04
# Where a shaft ends on the demo clips: within 4 degrees about the grip, and along the shaft by so much.
SHAFT_END_SD = 0.09
# Where a club is long in the picture: elsewhere it comes toward the camera, or is a blur.
# By plane and checkpoint: the least that is seen of it there, of its length at address.
SHAFT_AT: dict[str, dict[Checkpoint, float]] = {
    "frontal": {"shaft_back": 0.85, "top": 0.85, "arm_down": 0.5, "shaft_down": 0.85},
    "sagittal": {"arm_down": 0.85},
}


@dataclass(frozen=True, kw_only=True)
class LyingBall:
    """A ball at rest, in the picture that the camera's motion starts from: pixels."""

    x: float
    y: float
    sd_px: float


def ball_room(landmarks: Landmarks, view: View, address: int, width: int, height: int) -> Box | None:
    """The part of a picture in which a ball may lie; None where the feet leave no room for it."""
    feet, torso = landmarks.places[address], landmarks.torso_px
    toes, heels = feet[list(TOES)], feet[list(HEELS)]
    if PLANE_OF[view] == "frontal":
        (left, right), (above, below) = BEFORE_FRONTAL if view == "face_on" else BEHIND_FRONTAL
        edge = toes[:, 1].max() if view == "face_on" else toes[:, 1].min()
        across = (toes[:, 0].min() + left * torso, toes[:, 0].max() + right * torso)
        down = (edge + above * torso, edge + below * torso)
    else:
        (near, far), (above, below) = BEFORE_SAGITTAL
        ballward = np.sign((toes - heels)[:, 0].mean())
        edge = toes[:, 0].max() if ballward > 0 else toes[:, 0].min()
        across = tuple(sorted((edge + ballward * near * torso, edge + ballward * far * torso)))
        down = (toes[:, 1].min() + above * torso, toes[:, 1].max() + below * torso)
    (left, right), (top, bottom) = np.clip(across, 0, width), np.clip(down, 0, height)
    if right - left < 2 * ACROSS * torso or bottom - top < 2 * ACROSS * torso:
        return None
    return Box(float(left), float(top), float(right), float(bottom))


def marks_by_ball(
    ball: LyingBall,
    torso_px: float,
    view: View,
    hand: Hand,
    frames: Frames,
    pegs: Mapping[Checkpoint, int],
    motion: CameraMotion | None = None,
    heads: Mapping[int, tuple[float, float]] | None = None,
) -> dict[str, ProposedMark]:
    """The ball on frames (n,) until it is struck, the club behind it at address, and where its shaft ends on
    others (`heads`, by frame); NaN elsewhere.
    """
    lies = np.array(
        [motion.moved(int(frame), ball.x, ball.y) if motion else (ball.x, ball.y) for frame in frames]
    )
    before = frames <= pegs.get("impact", frames[-1])
    places = np.where(before[:, None], lies, np.nan)
    each = np.full(len(frames), ball.sd_px)
    found = {"ball": ProposedMark(places, each, np.zeros(len(frames)))}
    if view in HEAD_BESIDE:
        way = np.array([RIGHTWARD[view] * (1.0 if hand == "right" else -1.0), 1.0])
        beside = np.array(HEAD_BESIDE[view]) * way * torso_px
        addressed = frames == pegs.get("address", -1)
        places = np.where(addressed[:, None], lies + beside, np.nan)
        sd_px = np.hypot(each, HEAD_SD * torso_px)
        for frame, head in (heads or {}).items():
            rows = (frames == frame) & ~addressed
            places[rows], sd_px[rows] = head, SHAFT_END_SD * torso_px
        found["club_head"] = ProposedMark(places, sd_px, np.zeros(len(frames)))
    return found
