"""What the machine sees of a clip, as a worker looks: both networks, the strike, pegs and marks."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

import numpy as np
from django.conf import settings

from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.cast import Take
from tropometer.swing.names import Checkpoint, Hand, View
from tropometer.swing.proposals.checkpoints import propose_checkpoints
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.marks import (
    BESIDE_CHECKPOINTS,
    ProposedMark,
    laid_over,
    propose_close_marks,
    propose_marks,
)
from tropometer.swing.proposals.motion import Heard
from tropometer.swing.record.clip import Mark
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
    kept, bodies = [], []
    for picture in pictures:
        bodies.append(finder.find(picture))
        meter.add(picture)
        kept.append(picture)
    times = np.array(known["times_s"]["frames"])
    view: View = known["view"]
    hand: Hand = known["hand"]
    seen = _landmarks(times, bodies)
    fast = propose_marks(seen, view, hand)
    pegs = {at: peg.frame for at, peg in propose_checkpoints(seen, meter.found(), hand, heard).items()}
    if len(pegs) < 2:
        return Looked(pegs, fast, fast, range(0))
    first = max(min(pegs.values()) - BESIDE_CHECKPOINTS, 0)
    frames = range(first, min(max(pegs.values()) + BESIDE_CHECKPOINTS, len(kept) - 1) + 1)
    finder = LandmarkFinder(settings.LANDMARK_MODELS, CLOSE)
    closely = [finder.find_in(kept[i], body.square) if (body := bodies[i]) else None for i in frames]
    closer = propose_close_marks(_landmarks(times[list(frames)], closely), view, hand, np.array(frames), pegs)
    return Looked(pegs, fast, laid_over(fast, closer, first), frames)


def look_at_take(take: Take) -> Looked:
    """Look at a demo clip."""
    path, known = DEMO_CLIPS / f"{take.name}.{take.recording.container}", truth(take.name)
    slow = known["capture_fps"] / known["played_fps"]
    strikes = [
        Heard(each.played_s / slow - CAMERA_M / SOUND_M_S, each.confidence) for each in hear_strikes(path)
    ]
    loudest = max(strikes, key=lambda each: each.confidence, default=None)
    return look((picture for picture, _ in upright_frames(path)), known, loudest)


def _landmarks(times: Any, bodies: list[Body | None]) -> Landmarks:
    points = np.array([np.full((33, 3), np.nan) if body is None else body.landmarks for body in bodies])
    outline = np.array([np.full((8, 2), np.nan) if body is None else body.outline for body in bodies])
    return Landmarks(times - times[0], points, outline)
