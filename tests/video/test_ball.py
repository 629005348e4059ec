"""The ball is what is gone after the strike; where nothing surely is one, none is proposed."""

from typing import Any
from unittest import TestCase

import numpy as np

from tests.swing.test_proposals import landmarks_of
from tests.swings import DEMO_CLIPS, truth
from tests.video.spoilt import low_light
from tropometer.swing.proposals.ball import ACROSS, LyingBall, ball_room, marks_by_ball
from tropometer.swing.record.camera_motion import CameraMotion
from tropometer.video.ball import find_ball
from tropometer.video.camera_motion import camera_motion
from tropometer.video.proxy import upright_frames

OFF_PX = 3.0  # at 720 lines


def pictures_of(name: str) -> list[Any]:
    (path,) = DEMO_CLIPS.glob(f"{name}.m*")
    return [picture for picture, _ in upright_frames(path)]


class BallTests(TestCase):
    def found(self, name: str, pictures: list[Any], **about: Any) -> dict[str, float] | None:
        known = truth(name)
        height, width = pictures[0].shape[:2]
        pegs, landmarks = known["checkpoints"], landmarks_of(known)
        room = ball_room(landmarks, known["view"], pegs["address"], width, height)
        assert room is not None
        box = (room.left, room.top, room.right, room.bottom)
        across = ACROSS * landmarks.torso_px
        frames = (pegs["address"], pegs["impact"], len(pictures) - 1)
        return find_ball(pictures, frames, box, across, **about)

    def off_px(self, name: str, found: dict[str, float] | None) -> float:
        assert found is not None
        true = truth(name)["pixels"]["ball"][0]
        return float(np.hypot(found["x"] - true[0], found["y"] - true[1]))

    def test_it_is_found_from_either_side(self) -> None:
        for name in ("tobin_first_face", "tobin_first_line"):
            with self.subTest(name):
                self.assertLess(self.off_px(name, self.found(name, pictures_of(name))), OFF_PX)

    def test_it_is_found_before_a_camera_that_moves(self) -> None:
        for name in ("wynn_line", "wynn_face"):
            with self.subTest(name):
                self.check_moved(name)

    def check_moved(self, name: str) -> None:
        pictures = pictures_of(name)
        known = truth(name)
        body = np.concatenate([np.array(rows) for rows in known["pixels"].values()])
        (left, top), (right, bottom) = np.nanpercentile(body, 2, axis=0), np.nanpercentile(body, 98, axis=0)
        gray = [np.asarray(picture.mean(axis=2), np.uint8) for picture in pictures]
        moves = camera_motion(gray, (left, top, right, bottom), 0)
        self.assertLess(self.off_px(name, self.found(name, pictures, moves=moves)), OFF_PX)

    def test_nothing_is_said_where_nothing_surely_is_one(self) -> None:
        name = "tobin_first_line"
        pictures = pictures_of(name)
        impact = truth(name)["checkpoints"]["impact"]
        never_struck = pictures[:impact] + pictures[:1] * (len(pictures) - impact)
        self.assertIsNone(self.found(name, never_struck))
        dark, _ = low_light(pictures, {})
        self.assertIsNone(self.found(name, dark))  # its brightest spot is another

    def test_it_lies_until_it_is_struck_and_goes_with_the_camera(self) -> None:
        moves = np.tile([1.0, 0, 5, 0, 1, -3, 0, 0, 0.1], (20, 1))
        moves[0] = 1, 0, 0, 0, 1, 0, 0, 0, 0
        ball = LyingBall(x=300.0, y=600.0, sd_px=1.5)
        pegs: Any = {"address": 2, "impact": 12}
        found = marks_by_ball(ball, 200.0, "face_on", "left", np.arange(20), pegs, CameraMotion(moves))
        np.testing.assert_allclose(found["ball"].places[[0, 12]], [[300, 600], [305, 597]])
        self.assertTrue(np.isnan(found["ball"].places[13:]).all())
        head = found["club_head"]
        self.assertGreater(head.places[2, 0], 305)  # a left-hander's target is at the left
        self.assertTrue(np.isnan(np.delete(head.places, 2, axis=0)).all())
        self.assertGreater(head.sd_px[2], ball.sd_px)
