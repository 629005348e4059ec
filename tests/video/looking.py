"""What the machine sees of a clip, as a worker looks: both networks, the strike, pegs and marks."""

from __future__ import annotations

import time
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
from django.conf import settings

from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.cast import Take
from tropometer.swing.names import Checkpoint, Hand, View
from tropometer.swing.proposals.ball import ACROSS, LyingBall, ball_room, marks_by_ball
from tropometer.swing.proposals.checkpoints import propose_checkpoints
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.marks import (
    BESIDE_CHECKPOINTS,
    ProposedMark,
    laid_over,
    propose_marks,
)
from tropometer.swing.proposals.motion import Heard
from tropometer.swing.record.clip import Mark
from tropometer.video.ball import find_ball
from tropometer.video.landmarks import CLOSE, Body, LandmarkFinder, Picture
from tropometer.video.movement import MovementMeter
from tropometer.video.proxy import upright_frames
from tropometer.video.strike import hear_strikes

SOUND_M_S, CAMERA_M = 343.0, 4.0  # as a worker reckons where nobody has said how far the camera stood


@dataclass(frozen=True)
class Looked:
    """Pegs, and marks over the whole clip: of the fast network alone, and with the close one's over them."""

    pegs: dict[Checkpoint, int]
    fast: dict[str, ProposedMark]
    marks: dict[str, ProposedMark]
    close_frames: range
    ms_a_frame: dict[str, float]  # by network

    def mark(self, name: str, frame: int) -> Mark | None:
        """A proposed mark on a frame."""
        mark = self.marks.get(name)
        if mark is None or not np.isfinite(mark.places[frame]).all():
            return None
        x, y = mark.places[frame].tolist()
        return Mark(x, y, float(mark.sd_px[frame]), "proposed", float(mark.shared_px[frame]))


def look(pictures: Iterable[Picture], known: dict[str, Any], heard: Heard | None) -> Looked:
    """Look at the pictures of a clip of which `times_s`, view and hand are known."""
    finder, meter = LandmarkFinder(settings.LANDMARK_MODELS), MovementMeter()
    kept = list(pictures)
    began = time.perf_counter()
    bodies = [finder.find(picture) for picture in kept]
    ms = {"fast": (time.perf_counter() - began) / len(kept) * 1000}
    for picture in kept:
        meter.add(picture)
    times = np.array(known["times_s"]["frames"])
    view: View = known["view"]
    hand: Hand = known["hand"]
    seen = _landmarks(times, bodies)
    pegs = {at: peg.frame for at, peg in propose_checkpoints(seen, meter.found(), hand, heard).items()}
    fast = propose_marks(seen, view, hand, np.arange(len(kept)), pegs)
    fast |= _by_ball(kept, seen, view, hand, pegs)
    if len(pegs) < 2:
        return Looked(pegs, fast, fast, range(0), ms)
    first = max(min(pegs.values()) - BESIDE_CHECKPOINTS, 0)
    frames = range(first, min(max(pegs.values()) + BESIDE_CHECKPOINTS, len(kept) - 1) + 1)
    finder = LandmarkFinder(settings.LANDMARK_MODELS, CLOSE)
    began = time.perf_counter()
    closely = [finder.find_in(kept[i], body.square) if (body := bodies[i]) else None for i in frames]
    ms["close"] = (time.perf_counter() - began) / len(frames) * 1000
    at = np.array(frames)
    closer = propose_marks(_landmarks(times[at], closely), view, hand, at, pegs, "close")
    return Looked(pegs, fast, laid_over(fast, closer, first), frames, ms)


def look_at_take(take: Take) -> Looked:
    """Look at a demo clip."""
    return look_at_file(demo_clip(take), truth(take.name))


def demo_clip(take: Take) -> Path:
    """Where a demo clip lies."""
    return DEMO_CLIPS / f"{take.name}.{take.recording.container}"


def look_at_file(path: Path, known: dict[str, Any]) -> Looked:
    """Look at a drawn clip of which everything is known, as a worker would."""
    return look((picture for picture, _ in upright_frames(path)), known, heard_in(path, known))


def heard_in(path: Path, known: dict[str, Any]) -> Heard | None:
    """The surest strike that is heard in a drawn clip."""
    slow = known["capture_fps"] / known["played_fps"]
    late_s = CAMERA_M / SOUND_M_S
    strikes = [Heard(each.played_s / slow - late_s, each.confidence) for each in hear_strikes(path)]
    return max(strikes, key=lambda each: each.confidence, default=None)


def _by_ball(
    kept: list[Picture], seen: Landmarks, view: View, hand: Hand, pegs: dict[Checkpoint, int]
) -> dict[str, ProposedMark]:
    height, width = kept[0].shape[:2]
    if not {"address", "impact"} <= pegs.keys():
        return {}
    room = ball_room(seen, view, pegs["address"], width, height)
    if room is None:
        return {}
    box = (room.left, room.top, room.right, room.bottom)
    ball = find_ball(kept, (pegs["address"], pegs["impact"], len(kept) - 1), box, ACROSS * seen.torso_px)
    lies = LyingBall(**ball) if ball else None
    return marks_by_ball(lies, seen.torso_px, view, hand, np.arange(len(kept)), pegs) if lies else {}


def _landmarks(times: Any, bodies: list[Body | None]) -> Landmarks:
    points = np.array([np.full((33, 3), np.nan) if body is None else body.landmarks for body in bodies])
    outline = np.array([np.full((8, 2), np.nan) if body is None else body.outline for body in bodies])
    return Landmarks(times - times[0], points, outline)
