"""What is proposed of a clip whose capture rate was said wrongly, and of one in which nobody swings."""

from unittest import TestCase

from tests.swing.test_proposals import landmarks_of, movement_of, walking
from tests.swings import truth
from tropometer.server.bench.models import Swing
from tropometer.server.clips.models import Clip
from tropometer.server.clips.proposing import propose
from tropometer.swing.proposals.landmarks import Landmarks


def clip_of(landmarks: Landmarks, said_fps: float | None) -> Clip:
    """A clip that plays at 30 frames a second, with what was said of its capture."""
    count = len(landmarks.times_s)
    return Clip(
        swing=Swing(reference_hand="right"),
        view="face_on",
        played_fps=30,
        capture_fps=said_fps,
        width=1280,
        height=720,
        played_times_s=[n / 30 for n in range(count)],
        movement=movement_of(landmarks),
    )


class ProposingTests(TestCase):
    def test_a_rate_that_was_said_wrongly_is_still_corrected(self) -> None:
        landmarks = landmarks_of(truth("anneke_snap_face"))  # 240 a second
        found = propose(clip_of(landmarks, 240.0), 0, landmarks.points)
        self.assertEqual(
            (found["is_swing"], found["capture_fps"], len(found["pegs"]) > 6), (True, 240.0, True)
        )
        found = propose(clip_of(landmarks, 30.0), 0, landmarks.points)
        self.assertEqual((found["is_swing"], found["capture_fps"]), (True, 240.0))

    def test_who_walks_by_is_neither_a_swing_nor_slow_motion(self) -> None:
        landmarks = walking(1.4, 0.5)
        for said_fps in (None, 30.0, 240.0):
            found = propose(clip_of(landmarks, said_fps), 0, landmarks.points)
            self.assertEqual((found["is_swing"], found["capture_fps"], found["pegs"]), (False, None, []))
