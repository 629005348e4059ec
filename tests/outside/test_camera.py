"""Our pinhole against OpenCV (Apache-2.0) and scikit-image (BSD): projection, homography, pose."""

import math
from unittest import TestCase

import cv2
import numpy as np
from skimage.transform import ProjectiveTransform

from tropometer.swing.camera.pinhole import Pinhole
from tropometer.swing.camera.solve import FloorPoint, solve_camera

CAMERA = Pinhole("face_on", 1280, 720, 1150.0, np.array([0.4, 4.2, 1.1]), 0.08, 0.05, -0.02)
# T, B, U is a left-handed triple and OpenCV wants a right-handed one: T, U, B.
TUB = [0, 2, 1]
MATRIX = np.array([[CAMERA.focal_px, 0, 640], [0, CAMERA.focal_px, 360], [0, 0, 1]])


class PinholeTests(TestCase):
    def test_projection_is_opencv_s_project_points(self) -> None:
        points = np.random.default_rng(0).uniform([-1, -1, 0], [1, 1, 2], (200, 3))
        turn, _ = cv2.Rodrigues(CAMERA.rotation[:, TUB])
        shift = -CAMERA.rotation @ CAMERA.eye
        theirs, _ = cv2.projectPoints(points[:, TUB], turn, shift, MATRIX, None)
        np.testing.assert_allclose(CAMERA.project(points), theirs[:, 0], atol=1e-9)

    def test_the_floor_is_seen_by_scikit_image_s_homography(self) -> None:
        floor = np.array([[-1.0, -1], [1, -1], [1, 1], [-1, 1]])
        seen = CAMERA.project(np.column_stack([floor, np.zeros(4)]))
        theirs = ProjectiveTransform.from_estimate(seen, floor)  # type: ignore[no-untyped-call]
        pixels = np.random.default_rng(1).uniform([300, 500], [1000, 700], (50, 2))
        np.testing.assert_allclose(CAMERA.on_plane(pixels, 2, 0.0)[:, :2], theirs(pixels), atol=1e-7)

    def test_the_solved_pose_is_opencv_s_once_the_lens_is_known(self) -> None:
        """cv2.solvePnP (IPPE for planes; Collins and Bartoli 2014) on the same noisy corners."""
        floor = np.array([[-0.75, -0.75, 0], [0.75, -0.75, 0], [0.75, 0.75, 0], [-0.75, 0.75, 0]])
        seen = CAMERA.project(floor) + np.random.default_rng(5).normal(0, 0.3, (4, 2))
        points = [
            FloorPoint(x, y, t, b, 0.3)
            for (x, y), (t, b, _) in zip(seen.tolist(), floor.tolist(), strict=True)
        ]
        ours = solve_camera(points, "face_on", 1280, 720).camera
        matrix = np.array([[ours.focal_px, 0, 640], [0, ours.focal_px, 360], [0, 0, 1]])
        _, turn, shift = cv2.solvePnP(floor[:, TUB], seen, matrix, None, flags=cv2.SOLVEPNP_ITERATIVE)
        rotation, _ = cv2.Rodrigues(turn)
        np.testing.assert_allclose((-rotation.T @ shift)[TUB, 0], ours.eye, atol=0.02)
        between = math.degrees(math.acos(min(1.0, (np.trace(rotation.T @ ours.rotation[:, TUB]) - 1) / 2)))
        self.assertLess(between, 0.3)
