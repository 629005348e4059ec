"""Place along the target line against OpenCV's own camera and homography (opencv-python-headless)."""

import math
from unittest import TestCase

import cv2
import numpy as np

from tropometer.swing.face_on import PLACE_AHEAD_M, depth_behind_hips, look
from tropometer.swing.record import Clip, KnownLength, Mark

DISTANCE_M, FOCAL_PX, WIDTH, HEIGHT, EYE_UP_M = 4.2, 1500.0, 1920, 1080, 1.1


def opencv_pixels(tbu: np.ndarray) -> np.ndarray:
    """cv2.projectPoints of T, B, U points with the hips' plane at B = 0, seen square from the ball's side."""
    x_right, y_down, z_ahead = tbu[:, 0], EYE_UP_M - tbu[:, 2], DISTANCE_M - tbu[:, 1]
    matrix = np.array([[FOCAL_PX, 0, WIDTH / 2], [0, FOCAL_PX, HEIGHT / 2], [0, 0, 1]])
    points = np.stack([x_right, y_down, z_ahead], 1)
    return cv2.projectPoints(points, np.zeros(3), np.zeros(3), matrix, None)[0].reshape(-1, 2)


def clip_with(marks: dict[str, dict[int, Mark]]) -> Clip:
    ahead = PLACE_AHEAD_M["ball_line"][0]
    a, b = opencv_pixels(np.array([[-0.5, ahead, 0], [0.5, ahead, 0]]))
    known = KnownLength(tuple(a), tuple(b), 1.0, "ball_line")
    return Clip("c", "face_on", WIDTH, HEIGHT, (0.0,), {"address": 0}, marks, known, DISTANCE_M)


class ScaleTests(TestCase):
    def test_a_length_at_the_ball_gives_the_scale_at_the_hips(self) -> None:
        camera = look(clip_with({}), "right")
        assert camera is not None
        self.assertAlmostEqual(camera.scale_px_per_m.value, FOCAL_PX / DISTANCE_M, places=6)

    def test_ignoring_depth_would_be_wrong_by_a_fifth(self) -> None:
        # design rule of the trade: a length on the ball line is not the scale at the pelvis
        naive = FOCAL_PX / (DISTANCE_M - PLACE_AHEAD_M["ball_line"][0])
        self.assertGreater(naive / (FOCAL_PX / DISTANCE_M), 1.15)

    def test_places_agree_with_a_homography_of_the_hips_plane(self) -> None:
        corners = np.array([[-1, 0, 0], [1, 0, 0], [1, 0, 1.6], [-1, 0, 1.6]], float)
        to_plane, _ = cv2.findHomography(opencv_pixels(corners), corners[:, [0, 2]])
        for along in (-0.31, -0.05, 0.0, 0.22):
            x, y = opencv_pixels(np.array([[along, 0.0, 0.93]]))[0]
            camera = look(clip_with({"lead_hip": {0: Mark(x, y, 1.5)}}), "right")
            assert camera is not None
            plane = cv2.perspectiveTransform(np.array([[[x, y]]]), to_plane)[0, 0, 0]
            found = camera.along_target("lead_hip", 0, "address")
            self.assertAlmostEqual(found.value, float(plane), places=6)
            self.assertAlmostEqual(found.value, along, places=6)

    def test_depth_leaks_into_the_target_line_by_the_sine_of_the_angle(self) -> None:
        # closed form: 5 cm of depth at 4 degrees off square is 3.5 mm along the target line
        camera = look(clip_with({"trail_foot_outer": {0: Mark(900, 1000, 1.5)}}), "right")
        assert camera is not None
        depth = depth_behind_hips("trail_foot_outer", "address").value
        leak = camera.along_target("trail_foot_outer", 0, "address").parts["camera off square"]
        self.assertAlmostEqual(abs(leak), abs(depth) * math.radians(4.0), places=9)
