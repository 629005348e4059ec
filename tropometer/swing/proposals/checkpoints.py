"""Proposes the checkpoints that a body's landmarks tell.

No landmark shows the club: the shaft's own checkpoints are taken from the height of the hands, which on the
made-up golfers lies within 28, 11 and 7 ms of them (one standard deviation: back, down, through).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.ndimage import gaussian_filter1d

from tropometer.swing.names import Checkpoint, Hand
from tropometer.swing.proposals.golf import is_golf_swing
from tropometer.swing.proposals.landmarks import HANDS, HIPS, SHOULDERS, WRISTS, Landmarks
from tropometer.swing.proposals.motion import Heard, speed_of

Array = npt.NDArray[np.float64]

# Real seconds (common practice, no source): a downswing takes 0.2 to 0.35, a backswing 0.6 to 1.1.
TOP_BEFORE_FASTEST_S = (0.6, 0.05)
TOP_BEFORE_IMPACT_S = (0.6, 0.12)
IMPACT_AFTER_TOP_S = (0.1, 0.6)
STRIKE_NEAR_FASTEST_S = 0.25
SURELY_HEARD = 0.8
START_BEFORE_TOP_S = 0.3
# Of the slowest speed, and torso lengths a second: what still counts as slow about the top.
SLOW_SHARE, SLOW_A_S = 2.0, 0.6
STEADIED_OVER_S = 0.02  # a landmark that turns back for one frame stands still for it, and is no top
STILL_SHARE = 0.02  # of the fastest movement: what can just be seen
FINISH_AFTER_IMPACT_S = 0.25
# Height of the hands above the hips where the shaft is level, torso lengths.
SHAFT_LEVEL_AT = {"shaft_back": -0.16, "shaft_down": -0.22, "shaft_through": 0.03}
SHAFT_CONFIDENCE = 0.4
SHOULDER_ABOVE_JOINT = 0.07  # torso lengths by which the landmark lies above the joint


@dataclass(frozen=True)
class ProposedPeg:
    """A checkpoint's frame and how sure it is, 0 to 1."""

    frame: int
    confidence: float


def propose_checkpoints(
    landmarks: Landmarks, motion: Sequence[float], hand: Hand, strike: Heard | None
) -> dict[Checkpoint, ProposedPeg]:
    """Checkpoints of one swing: a doubtful one is left out rather than guessed; none where there is no swing.

    The top is the middle of where the hands are slow between going back and coming down. Impact is the heard
    strike; without one, where the hands come back to their place at address.
    """
    times, speed = landmarks.times_s, landmarks.hand_speed
    fastest = _fastest(times, speed, strike)
    steady = gaussian_filter1d(speed, STEADIED_OVER_S / float(np.median(np.diff(times))))
    top = _slowest(times, steady, times[fastest], TOP_BEFORE_FASTEST_S)
    if top is None:
        return {}
    address = _start(landmarks, motion, top)
    if strike is not None and abs(strike.at_s - times[fastest]) > STRIKE_NEAR_FASTEST_S:
        strike = None
    impact = _impact(landmarks, address, top, strike)
    if impact is None:
        return {}
    top = _slowest(times, steady, times[impact.frame], TOP_BEFORE_IMPACT_S) or top
    if not is_golf_swing(landmarks, address, top, impact.frame):
        return {}
    pause = 1 - float(steady[top]) / float(speed[fastest])
    found: dict[Checkpoint, ProposedPeg] = {
        "address": ProposedPeg(address, 0.6 if address > 0 else 0.3),
        "top": ProposedPeg(top, round(0.9 * pause, 2)),
        "impact": impact,
    }
    found |= _arm_level(landmarks, hand, address, top, impact.frame)
    found |= _shaft_level(landmarks, address, top, impact.frame)
    after = np.flatnonzero(_still(times, motion) & (times > times[impact.frame] + FINISH_AFTER_IMPACT_S))
    if len(after):
        found["finish"] = ProposedPeg(int(after[0]), 0.5)
    return found


def _fastest(times: Array, speed: Array, strike: Heard | None) -> int:
    """Where the hands are fastest: about a strike that was surely heard, if there is one."""
    near = np.ones(len(times), bool)
    if strike is not None and strike.confidence >= SURELY_HEARD:
        near = np.abs(times - strike.at_s) <= STRIKE_NEAR_FASTEST_S
    return int(np.where(near, speed, -1.0).argmax())


def _slowest(times: Array, speed: Array, end_s: float, before_s: tuple[float, float]) -> int | None:
    """The middle of the stretch about the slowest frame: at a turn speed is least on a flat place."""
    within = np.flatnonzero((times > end_s - before_s[0]) & (times < end_s - before_s[1]))
    if not len(within):
        return None
    first = last = int(within[speed[within].argmin()])
    slow = max(SLOW_SHARE * float(speed[first]), SLOW_A_S)
    while first > 0 and speed[first - 1] < slow:
        first -= 1
    while last < len(times) - 1 and speed[last + 1] < slow:
        last += 1
    return int(np.abs(times - (times[first] + times[last]) / 2).argmin())


def _start(landmarks: Landmarks, motion: Sequence[float], top: int) -> int:
    """The last frame in which nothing moves yet."""
    times = landmarks.times_s
    before = np.flatnonzero(_still(times, motion) & (times < times[top] - START_BEFORE_TOP_S))
    return int(before[-1]) if len(before) else 0


def _still(times: Array, motion: Sequence[float]) -> npt.NDArray[np.bool_]:
    moving = speed_of(times.tolist(), motion)
    floor = float(np.quantile(moving, 0.02))
    still: npt.NDArray[np.bool_] = moving < floor + STILL_SHARE * (float(moving.max()) - floor)
    return still


def _impact(landmarks: Landmarks, address: int, top: int, strike: Heard | None) -> ProposedPeg | None:
    times = landmarks.times_s
    if strike is not None and times[0] <= strike.at_s <= times[-1]:
        return ProposedPeg(int(np.abs(times - strike.at_s).argmin()), strike.confidence)
    low, high = times[top] + np.array(IMPACT_AFTER_TOP_S)
    within = np.flatnonzero((times > low) & (times < high))
    if not len(within):
        return None
    hands = landmarks.middle(HANDS)
    apart = np.hypot(*(hands[within] - hands[address]).T) / landmarks.torso_px
    return ProposedPeg(int(within[apart.argmin()]), round(float(np.clip(0.6 - apart.min(), 0, 0.6)), 2))


def _arm_level(
    landmarks: Landmarks, hand: Hand, address: int, top: int, impact: int
) -> dict[Checkpoint, ProposedPeg]:
    """Where the lead wrist passes the height of the lead shoulder, going back and coming down."""
    lead = 0 if hand == "right" else 1
    shoulder = landmarks.places[:, SHOULDERS[lead], 1] + SHOULDER_ABOVE_JOINT * landmarks.torso_px
    below = landmarks.places[:, WRISTS[lead], 1] - shoulder
    found: dict[Checkpoint, ProposedPeg] = {}
    back = np.flatnonzero((below[address:top] > 0) & (below[address + 1 : top + 1] <= 0))
    down = np.flatnonzero((below[top:impact] <= 0) & (below[top + 1 : impact + 1] > 0))
    if len(back):
        found["arm_back"] = ProposedPeg(address + int(back[0]) + 1, 0.6)
    if len(down):
        found["arm_down"] = ProposedPeg(top + int(down[0]) + 1, 0.6)
    return found


def _shaft_level(landmarks: Landmarks, address: int, top: int, impact: int) -> dict[Checkpoint, ProposedPeg]:
    """Where the hands pass the height at which the shaft lies level: back, down, and through."""
    height = (landmarks.middle(HIPS) - landmarks.middle(HANDS))[:, 1] / landmarks.torso_px
    stretches: dict[Checkpoint, tuple[int, int, int]] = {
        "shaft_back": (address, top, 1),
        "shaft_down": (top, impact, -1),
        "shaft_through": (impact, len(height) - 1, 1),
    }
    found: dict[Checkpoint, ProposedPeg] = {}
    for at, (first, last, rising) in stretches.items():
        beyond = rising * (height[first : last + 1] - SHAFT_LEVEL_AT[at]) >= 0
        if beyond.any() and not beyond[0]:
            found[at] = ProposedPeg(first + int(beyond.argmax()), SHAFT_CONFIDENCE)
    return found
