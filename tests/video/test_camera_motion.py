"""The motion of a hand-held camera, found from what stands still behind the player."""

from unittest import TestCase

import cv2
import numpy as np

from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.cast import TAKES
from tropometer.server.clips.camera import STILL_PX
from tropometer.swing.record.camera_motion import CameraMotion
from tropometer.video.camera_motion import camera_motion
from tropometer.video.proxy import upright_frames

SIZE = (320, 240)
BOX = (120.0, 60.0, 200.0, 220.0)


def drawn(moves: list[np.ndarray], textured: bool = True) -> list[np.ndarray]:
    """A still scene seen through each homography, with a player who walks about in front of it."""
    random = np.random.default_rng(1)
    noise = random.uniform(0, 255, (SIZE[1], SIZE[0])) if textured else np.full((SIZE[1], SIZE[0]), 90.0)
    scene = cv2.GaussianBlur(noise.astype(np.float32), (0, 0), 2.0) * 4 - 380
    pictures = []
    for number, move in enumerate(moves):
        picture = cv2.warpPerspective(scene, move, SIZE, flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REFLECT)
        cv2.rectangle(picture, (130 + 4 * number, 70), (150 + 4 * number, 210), 255, -1)
        pictures.append(np.clip(picture, 0, 255).astype(np.uint8))
    return pictures


class CameraMotionTests(TestCase):
    def test_a_turning_hand_is_followed_past_a_moving_player(self) -> None:
        moves = []
        for k in range(8):
            c, s = np.cos(0.002 * k), np.sin(0.002 * k)
            moves.append(np.array([[c, -s, 0.9 * k], [s, c, -0.6 * k], [1e-6 * k, 0, 1]]))
        motion = CameraMotion(camera_motion(drawn(moves), BOX, 0))
        for frame, move in enumerate(moves):
            for x, y in ((40.0, 50.0), (160.0, 120.0), (290.0, 200.0)):
                across, down, scale = move @ [x - 0.5, y - 0.5, 1]  # OpenCV's own pixels
                there = across / scale + 0.5, down / scale + 0.5
                self.assertLess(np.hypot(*np.subtract(motion.moved(frame, x, y), there)), 0.4)
                moved = np.array([motion.moved(frame, x, y)])
                back = motion.still(np.array([frame]), moved)[0][0]
                self.assertAlmostEqual(back[0], x, places=6)
                self.assertAlmostEqual(back[1], y, places=6)

    def test_a_tripod_is_told_from_a_hand(self) -> None:
        for name, hand in (("ilse_face", False), ("tobin_month_face", False), ("jory_top_face", True)):
            clip = next(path for path in DEMO_CLIPS.glob(f"{name}.m*"))
            pictures = [
                cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY)
                for number, (picture, _) in enumerate(upright_frames(clip))
                if number % 4 == 0
            ]
            known = truth(name)
            seen = np.array([known["pixels"][mark] for mark in ("head", "lead_toe", "trail_toe")])
            (left, top), (right, bottom) = seen.min(axis=(0, 1)), seen.max(axis=(0, 1))
            motion = CameraMotion(camera_motion(pictures, (left, top, right, bottom), 0))
            with self.subTest(name):
                moved = motion.most_px(pictures[0].shape[1], pictures[0].shape[0])
                self.assertEqual(moved > STILL_PX, hand, moved)

    def test_a_bare_wall_says_nothing(self) -> None:
        moves = camera_motion(drawn([np.eye(3)] * 3, textured=False), BOX, 0)
        self.assertTrue(np.isnan(moves[:, 0]).all())

    def test_a_hand_held_demo_clip_is_steadied_to_a_fraction_of_its_motion(self) -> None:
        name = "jory_top_face"
        take = next(take for take in TAKES if take.name == name)
        clip = next(path for path in DEMO_CLIPS.glob(f"{name}.m*"))
        times = truth(name)["times_s"]["frames"][:24]
        pictures = [
            cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY)
            for (picture, _), _ in zip(upright_frames(clip), times, strict=False)
        ]
        motion = CameraMotion(camera_motion(pictures, (523.0, 73.0, 758.0, 598.0), 0))
        hip = np.array([640.0, 330.0, 1.0])
        start = np.linalg.inv(take.camera.warp(times[0]))
        moved, left = [], []
        for frame, time in enumerate(times):
            across, down, scale = take.camera.warp(time) @ start @ hip
            seen = np.array([across, down]) / scale
            moved.append(np.linalg.norm(seen - hip[:2]))
            left.append(np.linalg.norm(motion.still(np.array([frame]), np.array([seen]))[0][0] - hip[:2]))
        self.assertGreater(max(moved), 1.0)
        self.assertLess(np.sqrt(np.mean(np.square(left))), 0.3)
