"""The made-up golfer moves as a body can: for any settings, and for every fault and school."""

from unittest import TestCase

import numpy as np
from hypothesis import HealthCheck, assume, given
from hypothesis import settings as examples

from tests.golfer import bodies
from tropometer.golfer import schools
from tropometer.golfer.arms import arm_lengths, grip_from_wrist
from tropometer.golfer.curves import through_keys
from tropometer.golfer.events import knee_flexion, timing
from tropometer.golfer.faults import CHAINS, FAULTS, with_faults
from tropometer.golfer.feet import SIDES
from tropometer.golfer.legs import segment_lengths
from tropometer.golfer.motion import FACE_FROM_SHAFT_M, Motion, Poses
from tropometer.golfer.settings import EVENTS, IMPACT, TOP, SettingError, SwingSettings

HZ = 500
# Bounds on what a joint can take; the fastest thing here is an elbow as it straightens after the strike.
JOINT_ACCELERATION_M_S2 = 1500
KNEE_DEG = (2, 130)  # Norkin and White, Measurement of Joint Motion (from memory): knee 0 to 135-150


def distance(a: np.ndarray, b: np.ndarray) -> np.ndarray:
    return np.linalg.norm(a - b, axis=1)


class BodyCase(TestCase):
    def check(self, motion: Motion) -> None:
        """All that must hold of any swing, at every instant."""
        times = np.arange(0, motion.end_s, 1 / HZ)
        poses = motion.poses(times)
        self.check_limbs(motion, poses)
        self.check_floor(poses)
        self.check_smooth(poses)
        self.check_strike(motion)

    def check_limbs(self, motion: Motion, poses: Poses) -> None:
        for letter, side, _ in SIDES:
            leg, arm = poses.legs[side], poses.arms[side]
            thigh, shank = segment_lengths(motion.body, letter)
            upper, fore = arm_lengths(motion.body, letter)
            for a, b, length in (
                (leg.hip, leg.knee, thigh),
                (leg.knee, leg.ankle, shank),
                (arm.shoulder, arm.elbow, upper),
                (arm.elbow, arm.wrist, fore),
            ):
                np.testing.assert_allclose(distance(a, b), length, atol=2e-4)
            # Both hands are on the grip: from either wrist one comes to the same place.
            grip = arm.wrist + grip_from_wrist(motion.body, letter, poses.club.shaft, poses.club.face)
            np.testing.assert_allclose(grip, poses.club.grip, atol=1e-9)
            flexion = knee_flexion(poses, side)
            self.assertTrue(((flexion > KNEE_DEG[0]) & (flexion < KNEE_DEG[1])).all())
            # The ankle joins the leg to the foot.
            np.testing.assert_array_equal(leg.ankle, poses.feet[side].ankle)

    def check_floor(self, poses: Poses) -> None:
        for foot in poses.feet.values():
            for point in (foot.heel, foot.toe, foot.outer, foot.inner):
                self.assertGreater(point[:, 1].min(), -1e-3)

    def check_smooth(self, poses: Poses) -> None:
        joints = [place for limb in poses.legs.values() for place in (limb.hip, limb.knee, limb.ankle)]
        joints += [place for limb in poses.arms.values() for place in (limb.shoulder, limb.elbow, limb.wrist)]
        joints.append(poses.heads["head"])
        for place in joints:
            acceleration = np.linalg.norm(np.diff(place, 2, axis=0), axis=1) * HZ**2
            self.assertLess(acceleration.max(), JOINT_ACCELERATION_M_S2)

    def check_strike(self, motion: Motion) -> None:
        head = motion.poses(motion.event_times_s[[IMPACT]]).club.head[0]
        np.testing.assert_allclose(head, motion.ball + FACE_FROM_SHAFT_M, atol=2e-3)


class AnySwingTests(BodyCase):
    @given(drawn=bodies.settings(), shape=bodies.BODIES)
    @examples(max_examples=10, deadline=None, suppress_health_check=list(HealthCheck), derandomize=True)
    def test_any_settings_move_as_a_body_can(self, drawn: SwingSettings, shape: tuple) -> None:
        try:
            motion = Motion(bodies.body(*shape), drawn)
            motion.poses(np.array([0.0, motion.end_s]))
        except SettingError:
            assume(False)
        self.check(motion)

    def test_every_fault_chain_and_school_can_be_swung(self) -> None:
        swings = {name: with_faults(SwingSettings(), **{name: 1.0}) for name in FAULTS}
        swings |= {name: with_faults(SwingSettings(), **dict.fromkeys(c, 0.8)) for name, c in CHAINS.items()}
        swings |= {name: school() for name, school in schools.SCHOOLS.items()}
        swings |= {f"{name}, driver": schools.driver(s()) for name, s in schools.SCHOOLS.items()}
        swings |= {f"{name}, wedge": schools.wedge(s()) for name, s in schools.SCHOOLS.items()}
        for name, chosen in swings.items():
            with self.subTest(name):
                self.check(Motion(bodies.body(), chosen))

    def test_the_club_is_fastest_at_the_ball(self) -> None:
        for chosen in (SwingSettings(), schools.driver(SwingSettings()), schools.wedge(SwingSettings())):
            motion = Motion(bodies.body(), chosen)
            impact = motion.event_times_s[IMPACT]
            times = np.arange(0, motion.end_s, 1e-3)
            speed = np.linalg.norm(np.gradient(motion.poses(times).club.head, times, axis=0), axis=1)
            at_ball = float(np.interp(impact, times, speed))
            self.assertGreater(at_ball, 0.9 * speed.max())
            self.assertTrue(26 < at_ball < 50)  # a sound amateur to a good player; common practice, no source

    def test_given_rise_and_slant_bend_the_knees(self) -> None:
        own = bodies.default_motion().poses(bodies.default_motion().event_times_s).pelvis
        rise = tuple(own.middle[:, 1] - own.middle[0, 1] - 0.01 * np.arange(len(EVENTS)) / 10)
        motion = Motion(bodies.body(), SwingSettings(pelvis_rise=rise, pelvis_slant=tuple(own.slant)))
        found = motion.poses(motion.event_times_s).pelvis
        # All but the top, where the lower body has already started down.
        there = [event for event in range(len(EVENTS)) if event != TOP]
        got_rise = found.middle[:, 1] - found.middle[0, 1]
        np.testing.assert_allclose(got_rise[there], np.array(rise)[there], atol=1e-6)
        np.testing.assert_allclose(found.slant[there], own.slant[there], atol=1e-3)


class SettingTests(TestCase):
    def test_settings_come_out_as_they_were_put_in(self) -> None:
        motion = bodies.default_motion()
        poses, chosen = motion.poses(motion.event_times_s), motion.settings
        for side in ("lead", "trail"):
            wanted = getattr(chosen, f"{side}_knee_flex")
            got = knee_flexion(poses, side)
            # All but the top, where the lower body has already started down.
            for event in (e for e in range(len(EVENTS)) if e != TOP):
                self.assertAlmostEqual(got[event], wanted[event], delta=1e-6)
        sway = poses.pelvis.middle[:, 0] - poses.pelvis.middle[0, 0]
        self.assertAlmostEqual(sway[IMPACT], chosen.pelvis_sway[IMPACT], places=9)

    def test_parts_start_down_when_they_are_told(self) -> None:
        found = timing(bodies.default_motion())
        top, chosen = found.checkpoints["top"], bodies.default_motion().settings
        self.assertAlmostEqual(top, bodies.default_motion().event_times_s[TOP], places=5)
        self.assertAlmostEqual(found.starts["pelvis_shift"] - top, chosen.pelvis_shift_start, delta=2e-3)
        self.assertAlmostEqual(found.starts["pelvis_turn"] - top, chosen.pelvis_turn_start, delta=2e-3)
        self.assertAlmostEqual(found.starts["lead_arm"] - top, chosen.arm_start, delta=2e-3)
        order = sorted(found.starts, key=lambda part: found.starts[part])
        self.assertLess(order.index("pelvis_turn"), order.index("chest"))
        self.assertEqual(order[-1], "club")

    def test_what_no_body_can_do_is_refused_by_name(self) -> None:
        with self.assertRaisesRegex(SettingError, "stance_ratio: 9 leaves 0.6 to 1.9"):
            SwingSettings(stance_ratio=9)
        with self.assertRaisesRegex(SettingError, "lead_knee_flex: 3 values"):
            SwingSettings(lead_knee_flex=(20, 20, 20))
        with self.assertRaisesRegex(SettingError, "give both or neither"):
            SwingSettings(pelvis_rise=(0,) * 10)


class CurveTests(TestCase):
    def test_curves_pass_their_keys_twice_differentiable_and_rest_on_the_floor(self) -> None:
        times = np.array([0, 0.4, 0.7, 1.0, 1.3, 1.6])
        for flowing in (False, True):
            curve = through_keys(times, np.array([0.0, 0, 0, 8, 3, 30]), flowing)
            np.testing.assert_allclose(curve(times), [0, 0, 0, 8, 3, 30], atol=1e-12)
            fine = np.linspace(-0.1, 1.7, 200_001)
            self.assertGreaterEqual(curve(fine).min(), -1e-9)
            bend = np.diff(curve(fine), 2) / (fine[1] - fine[0]) ** 2
            self.assertLess(np.abs(np.diff(bend)).max(), 1.0)  # no jump in the second derivative
