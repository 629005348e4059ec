"""What is proposed of a clip whose capture rate was said wrongly, and of one in which nobody swings."""

from unittest import TestCase

import numpy as np
from django.db import connection

from tests.server import making
from tests.swing.test_proposals import landmarks_of, movement_of, walking
from tests.swings import truth
from tropometer.server.bench.models import Swing
from tropometer.server.clips.models import Clip, Proposals, SeenBody
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


class SaidAnewTests(making.MediaCase):
    def test_a_swing_that_is_seen_once_its_rate_is_put_right_is_looked_at_closely(self) -> None:
        landmarks = landmarks_of(truth("anneke_snap_face"))
        owner = making.instructor()
        swing = Swing.objects.create(instructor=owner, student=making.student(owner), club="7 iron")
        clip = making.ready_clip(owner, swing)
        slow = clip_of(landmarks, 30.0)
        for field in ("played_fps", "capture_fps", "played_times_s", "movement"):
            setattr(clip, field, getattr(slow, field))
        clip.save()
        seen = landmarks.points.astype(np.float32).tobytes()
        SeenBody.objects.create(clip=clip, network="fast", first_frame=0, landmarks=seen)
        Proposals.objects.create(clip=clip, found=propose(clip, 0, landmarks.points))
        self.assertEqual(Proposals.objects.get().found["pegs"], [])
        self.client.force_login(owner)
        about = {"view": "face_on", "capture_fps": 240.0, "flipped": False}
        answer = self.client.put(f"/api/clips/{clip.pk}/about", about, content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content)
        stored = Proposals.objects.get()
        self.assertGreater(len(stored.found["pegs"]), 6)
        self.assertEqual(stored.closer, 0)
        with connection.cursor() as jobs:
            jobs.execute("SELECT count(*) FROM procrastinate_jobs WHERE task_name LIKE %s", ["%look_closer"])
            self.assertEqual(jobs.fetchone(), (1,))
