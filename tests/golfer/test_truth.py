"""The truth files: what they say of the camera, the mat and the marks holds together."""

from unittest import TestCase

import av
import cv2
import numpy as np

from tests.golfer import bodies
from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.camera import Camera
from tropometer.golfer.cast import PEOPLE, TAKES
from tropometer.golfer.forces import CLUB_KG, GRAVITY, mass_centre, pressure
from tropometer.golfer.motion import Motion
from tropometer.golfer.settings import SwingSettings
from tropometer.golfer.truth_marks import mark_places
from tropometer.swing.names import CHECKPOINTS, MARKS

SET_BYTES = 25_000_000
CLIP_BYTES = 4_000_000


class CommittedTests(TestCase):
    def test_every_take_is_there_with_its_truth(self) -> None:
        total = 0
        for take in TAKES:
            with self.subTest(take.name):
                path = DEMO_CLIPS / f"{take.name}.{take.recording.container}"
                total += path.stat().st_size
                self.assertLess(path.stat().st_size, CLIP_BYTES)
                known = truth(take.name)
                self.assertEqual(known["hand"], take.person.hand)
                self.assertEqual(set(known["tbu_m"]), set(MARKS))
                count = len(known["times_s"]["frames"])
                with av.open(str(path)) as container:
                    packets = sum(p.pts is not None for p in container.demux(container.streams.video[0]))
                    self.assertEqual(packets, count)
                    self.assertEqual(len(container.streams.audio), 1)
                frames = [known["checkpoints"][at] for at in CHECKPOINTS]
                self.assertEqual(frames, sorted(frames))
                self.assertTrue(all(len(flags) == count for flags in known["hidden"].values()))
        self.assertLess(total, SET_BYTES)

    def test_pixels_are_what_opencv_projects(self) -> None:
        for name in ("tobin_first_face", "ilse_line", "model_lead_face"):
            known, frame = truth(name), 40
            camera = known["camera"]
            marks = sorted(known["tbu_m"])
            places = np.array([known["tbu_m"][mark][frame] for mark in marks])
            rotation, eye = np.array(camera["rotation"]), np.array(camera["eye_tbu_m"])
            f, cx, cy = camera["focal_px"], camera["width"] / 2, camera["height"] / 2
            # OpenCV takes a proper rotation; T, B, U is a left-handed frame, so B is turned for it.
            flip = np.diag([1.0, -1.0, 1.0])
            turn = rotation @ flip
            vector, _ = cv2.Rodrigues(turn)
            matrix = np.array([[f, 0, cx], [0, f, cy], [0, 0, 1]])
            seen, _ = cv2.projectPoints(places @ flip, vector, -turn @ flip @ eye, matrix, None)
            seen = seen.reshape(-1, 2)
            if known["hand"] == "left":
                seen[:, 0] = camera["width"] - seen[:, 0]
            written = np.array([known["pixels"][mark][frame] for mark in marks])
            np.testing.assert_allclose(
                seen, written, atol=0.06
            )  # places are written to a tenth of a millimetre


class CameraTests(TestCase):
    def test_a_left_hander_s_picture_is_the_mirror_image(self) -> None:
        dice = np.random.default_rng(3)
        points = np.array([0, 0.9, 0.2]) + dice.normal(0, 0.6, (50, 3))
        for view in ("face_on", "down_the_line"):
            shared = {"off_square_deg": 4, "tilt_deg": 3, "roll_deg": 1, "beside_m": 0.2}
            right = Camera(view, 4.5, 1.1, 31, 1280, 720, **shared)
            left = Camera(view, 4.5, 1.1, 31, 1280, 720, **shared, left_handed=True)
            mirrored = left.project(points)
            np.testing.assert_allclose(1280 - mirrored[:, 0], right.project(points)[:, 0], atol=1e-9)
            np.testing.assert_allclose(mirrored[:, 1], right.project(points)[:, 1], atol=1e-9)

    def test_the_camera_stands_where_it_says(self) -> None:
        square = Camera("face_on", 4.5, 1.1, 31, 1280, 720)
        np.testing.assert_allclose(square.eye, [0, 1.1, 4.4])
        off = Camera("face_on", 4.5, 1.1, 31, 1280, 720, off_square_deg=10)
        self.assertGreater(off.rotation[2] @ [1, 0, 0], 0)  # looks toward the target
        self.assertLess(off.eye[0], 0)  # from behind square
        line = Camera("down_the_line", 4.5, 1.1, 31, 1280, 720)
        self.assertLess(line.eye[0], -4)
        toward_ball = line.project(np.array([[0, 0.5, 0.0], [0, 0.5, 0.5]]))
        self.assertGreater(toward_ball[1, 0], toward_ball[0, 0])  # +x in the picture is toward the ball

    def test_a_hand_s_sway_moves_points_as_it_moves_the_picture(self) -> None:
        camera = Camera("face_on", 4.5, 1.1, 31, 1280, 720, drift_deg=0.3)
        points = np.array([[0.2, 0.9, 0.1], [-0.3, 0.1, 0.5]])
        still = Camera("face_on", 4.5, 1.1, 31, 1280, 720).project(points)
        warped = cv2.perspectiveTransform(still[None], camera.warp(1.3))[0]
        np.testing.assert_allclose(camera.project(points, 1.3), warped, atol=1e-6)
        self.assertGreater(np.abs(warped - still).max(), 1)


class ForceTests(TestCase):
    def test_the_force_is_what_moves_the_mass(self) -> None:
        """Impulse and momentum: force less weight, summed over time, is mass times the speed gained."""
        motion, mass_kg = bodies.default_motion(), 78.0
        total_kg = mass_kg + CLUB_KG["mid_iron"]
        times = np.arange(0.2, motion.end_s, 1 / 2000)
        felt = pressure(motion, times, 1.0, mass_kg)
        total = felt.lead_force_n + felt.trail_force_n
        height = mass_centre(motion, motion.poses(times), 1.0, mass_kg)[:, 1]
        speed = np.gradient(height, times)
        pushed = np.concatenate([[0], np.cumsum((total[1:] + total[:-1]) / 2 - total_kg * GRAVITY) / 2000])
        np.testing.assert_allclose(pushed, total_kg * (speed - speed[0]), atol=0.02 * total_kg)
        standing = total[times < 0.29]
        np.testing.assert_allclose(standing, total_kg * GRAVITY, rtol=1e-6)

    def test_every_cast_swing_presses_plausibly(self) -> None:
        for take in TAKES:
            if take.camera.view != "face_on":
                continue
            known = truth(take.name)
            mat = known["mat"]
            lead, trail = np.array(mat["lead_force_n"]), np.array(mat["trail_force_n"])
            share = (lead + trail) / (take.person.mass_kg * GRAVITY)
            with self.subTest(take.name):
                self.assertTrue((lead >= 0).all() and (trail >= 0).all())
                self.assertTrue(
                    share.min() > 0.2 and share.max() < 3.4, f"{share.min():.2f} {share.max():.2f}"
                )
                top, impact = known["checkpoints"]["top"], known["checkpoints"]["impact"]
                self.assertGreater(share[top : impact + 1].max(), 1.3)  # it rises in the downswing
                places = np.array(mat["lead_place"] + mat["trail_place"])
                self.assertTrue(((places > 0) & (places < 1)).all())


class MarkTests(TestCase):
    def test_edges_lie_outside_joints_and_the_seat_behind(self) -> None:
        for person in ("petra", "wynn"):
            about = PEOPLE[person]
            motion = Motion(bodies.body(about.stature_m, about.man, about.build), SwingSettings())
            marks = mark_places(motion, motion.poses(np.array([0.3, 1.14])))
            self.assertTrue((marks["lead_hip_edge"][:, 0] > marks["lead_hip"][:, 0] + 0.04).all())
            self.assertTrue((marks["trail_hip_edge"][:, 0] < marks["trail_hip"][:, 0] - 0.04).all())
            self.assertTrue((marks["seat"][:, 2] < marks["trail_hip"][:, 2] - 0.05).all())
            self.assertLess(marks["trail_foot_outer"][0, 0], marks["trail_foot_inner"][0, 0])
