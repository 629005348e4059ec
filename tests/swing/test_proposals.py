"""What a clip seems to show, against the made-up golfers' truth.

How long a swing takes is common practice, no source.
"""

from typing import Any
from unittest import TestCase

import numpy as np

from tests.swings import truth
from tropometer.golfer.cast import TAKES
from tropometer.swing.names import PLANE_OF
from tropometer.swing.proposals.checkpoints import propose_checkpoints
from tropometer.swing.proposals.landmarks import Landmarks, unswapped
from tropometer.swing.proposals.marks import ProposedMark, propose_marks
from tropometer.swing.proposals.motion import Heard, find_swings, plausible_slowness
from tropometer.swing.proposals.seeing import player_box, propose_hand, propose_view

PAIRS = {11: "shoulder", 13: "elbow", 15: "wrist", 17: "wrist", 19: "wrist", 23: "hip", 25: "knee"} | {
    27: "ankle",
    29: "heel",
    31: "toe",
}
NAMES = [take.name for take in TAKES]


def landmarks_of(known: dict[str, Any]) -> Landmarks:
    """A network's landmarks as if it were perfect; nose and ears lie about the head where one looks."""
    pixels = {name: np.array(rows) for name, rows in known["pixels"].items()}
    times = np.array(known["times_s"]["frames"])
    points = np.ones((len(times), 33, 3))
    points[:, :11, :2] = pixels["head"][:, None]
    sideways = PLANE_OF[known["view"]] == "sagittal"
    looking = pixels["ball"][0, 0] - pixels["head"][0, 0] if sideways else 0.0
    points[:, 0, 0] += 0.1 * np.sign(looking) * abs(pixels["head"][0, 1] - pixels["neck"][0, 1])
    right_is_lead = known["hand"] == "left"
    for left, name in PAIRS.items():
        for side, lead in ((0, not right_is_lead), (1, right_is_lead)):
            points[:, left + side, :2] = pixels[f"{'lead' if lead else 'trail'}_{name}"]
    return Landmarks(times - times[0], points)


def outline_of(known: dict[str, Any]) -> "np.ndarray[Any, np.dtype[np.float64]]":
    """A network's outline as if it were perfect: hip edges and shoe edges face-on, the seat down the line."""
    pixels = {name: np.array(rows) for name, rows in known["pixels"].items()}
    outline = np.full((len(known["times_s"]["frames"]), 8, 2), np.nan)
    right = known["hand"] == "right"
    if known["view"] == "down_the_line":
        outline[:, 2 if right else 3] = pixels["seat"]
        return outline
    for side in ("lead", "trail"):
        left = (side == "lead") == right  # the body's left is the picture's right
        outline[:, 1 if left else 0] = pixels[f"{side}_hip_edge"]
        outline[:, 5 if left else 6] = pixels[f"{side}_foot_outer"]
        outline[:, 4 if left else 7] = pixels[f"{side}_foot_inner"]
    return outline


def movement_of(landmarks: Landmarks) -> list[float]:
    """How much moves from frame to frame: the swiftest landmarks."""
    steps = np.abs(np.diff(landmarks.places, axis=0)).max(axis=2).max(axis=1)
    return [0.0, *steps.tolist()]


class LegTests(TestCase):
    def test_legs_that_were_changed_for_some_frames_are_changed_back(self) -> None:
        landmarks = landmarks_of(truth("tobin_first_face"))
        legs = [25, 27, 29, 31]
        for first, last in ((40, 46), (30, 66)):  # a tenth of a second, and six
            changed = landmarks.points[:, :, :2].copy()
            changed[first:last, legs + [e + 1 for e in legs]] = changed[
                first:last, [e + 1 for e in legs] + legs
            ]
            back = unswapped(landmarks.times_s, changed)
            np.testing.assert_array_equal(back, landmarks.points[:, :, :2])

    def test_legs_that_are_never_changed_back_are_left(self) -> None:
        landmarks = landmarks_of(truth("tobin_first_face"))
        changed = landmarks.points[:, :, :2].copy()
        changed[40:, [25, 26]] = changed[40:, [26, 25]]
        np.testing.assert_array_equal(unswapped(landmarks.times_s, changed), changed)


def walking(pace_m_s: float, arms: float, elbows: float = 0.3) -> Landmarks:
    """Somebody who walks by, 100 pixels a metre; arms swing and elbows are bent by so many radians."""
    times = np.arange(0, 3, 1 / 60)
    points = np.ones((len(times), 33, 3))
    along = 100 * pace_m_s * times
    stride = np.sin(2 * np.pi * 0.9 * times)
    for left in range(11, 33):
        points[:, left, :2] = np.stack([along, np.full_like(along, 250.0)], axis=1)
    points[:, :11, 1] = 180.0
    points[:, :11, 0] = along[:, None]
    for side, sign in ((0, 1.0), (1, -1.0)):
        shoulder = np.stack([along + 3 * sign, np.full_like(along, 205.0)], axis=1)
        swing = sign * arms * stride
        elbow = shoulder + 30 * np.stack([np.sin(swing), np.cos(swing)], axis=1)
        wrist = elbow + 26 * np.stack([np.sin(swing + elbows), np.cos(swing + elbows)], axis=1)
        hip = np.stack([along + 2 * sign, np.full_like(along, 255.0)], axis=1)
        knee = hip + 42 * np.stack([-np.sin(0.5 * sign * stride), np.cos(0.5 * stride)], axis=1)
        ankle = knee + 42 * np.stack([-np.sin(0.5 * sign * stride), np.cos(0.5 * stride)], axis=1)
        for left, place in ((11, shoulder), (13, elbow), (15, wrist), (23, hip), (25, knee), (27, ankle)):
            points[:, left + side, :2] = place
        for left in (17, 19, 21):
            points[:, left + side, :2] = wrist + np.array([0, 6])
        for left in (29, 31):
            points[:, left + side, :2] = ankle + np.array([6 * (left == 31), 4])
    return Landmarks(times, points)


class NoSwingTests(TestCase):
    def test_who_walks_by_with_swinging_arms_gets_no_pegs(self) -> None:
        for pace, arms, elbows in ((1.4, 0.5, 0.3), (0.8, 0.3, 0.2), (2.6, 1.0, 1.5), (0.0, 0.9, 0.3)):
            landmarks = walking(pace, arms, elbows)
            for strike in (None, Heard(1.5, 0.9)):
                with self.subTest(pace=pace, strike=strike is not None):
                    found = propose_checkpoints(landmarks, movement_of(landmarks), "right", strike)
                    self.assertEqual(found, {})

    def test_hands_that_are_held_together_and_carried_by_are_no_swing(self) -> None:
        landmarks = walking(1.4, 0.4)
        points = landmarks.points.copy()
        hands = [15, 16, 17, 18, 19, 20, 21, 22]
        points[:, hands] = points[:, hands].mean(axis=1)[:, None]
        carried = Landmarks(landmarks.times_s, points)
        self.assertEqual(propose_checkpoints(carried, movement_of(carried), "right", None), {})

    def test_landmarks_that_jump_for_a_frame_or_two_do_not_move_the_pegs(self) -> None:
        for name in ("tobin_first_face", "petra_closed_line", "jory_top_line", "sunniva_square_face"):
            known = truth(name)
            seen = landmarks_of(known)
            true_s = known["times_s"]["checkpoints"]["top"] - known["times_s"]["frames"][0]
            random = np.random.default_rng(len(name))
            points = seen.points.copy()
            for frame in random.choice(np.arange(6, len(points) - 6), 4, replace=False):
                for k in range(int(random.integers(1, 3))):
                    points[frame + k, 15:23, :2] += random.normal(0, 2 * seen.torso_px, 2)
            jumpy = Landmarks(seen.times_s, points)
            for strike in (None, Heard(true_s + 0.27, 0.9)):
                found = propose_checkpoints(jumpy, movement_of(seen), known["hand"], strike)
                with self.subTest(name, strike=strike is not None):
                    self.assertAlmostEqual(seen.times_s[found["top"].frame], true_s, delta=0.05)


class MarkTests(TestCase):
    def proposed(self, landmarks: Landmarks, known: dict[str, Any]) -> dict[str, ProposedMark]:
        frames = np.arange(len(landmarks.times_s))
        return propose_marks(landmarks, known["view"], known["hand"], frames, known["checkpoints"])

    def test_marks_of_the_outline_lie_by_the_truth_for_either_hand(self) -> None:
        wanted = {
            "face_on": ("lead_hip_edge", "trail_hip_edge", "trail_foot_outer"),
            "down_the_line": ("seat",),
        }
        for name in ("tobin_first_face", "ilse_face", "tobin_first_line", "ilse_line"):
            known = truth(name)
            seen = landmarks_of(known)
            landmarks = Landmarks(seen.times_s, seen.points, outline_of(known))
            marks = self.proposed(landmarks, known)
            for mark in wanted[known["view"]]:
                with self.subTest(name, mark=mark):
                    apart = np.abs(marks[mark].places - np.array(known["pixels"][mark]))
                    self.assertLess(float(np.median(apart)), 0.06 * landmarks.torso_px)

    def test_without_an_outline_its_marks_are_left_out(self) -> None:
        known = truth("tobin_first_face")
        marks = self.proposed(landmarks_of(known), known)
        self.assertTrue(np.isnan(marks["lead_hip_edge"].places).all())
        self.assertTrue(np.isfinite(marks["lead_hip"].places).all())


class DemoTests(TestCase):
    def test_view_hand_and_pace_of_every_demo_clip(self) -> None:
        for name in NAMES:
            with self.subTest(name):
                known = truth(name)
                landmarks, pegs = landmarks_of(known), known["checkpoints"]
                view = propose_view(landmarks, pegs["address"], pegs["top"], pegs["finish"])
                hand = propose_hand(landmarks, known["view"], pegs["address"], pegs["top"])
                self.assertEqual((view.value, hand.value), (known["view"], known["hand"]))
                self.assertGreater(min(view.confidence, hand.confidence), 0.5)
                slow = round(known["capture_fps"] / known["played_fps"])
                played = (landmarks.times_s * slow).tolist()
                self.assertEqual(plausible_slowness(played, movement_of(landmarks)), slow)

    def test_checkpoints_lie_near_the_true_ones(self) -> None:
        within_s = {
            "shaft_back": 0.12,
            "shaft_down": 0.05,
            "shaft_through": 0.05,
            "address": 0.12,
            "arm_back": 0.08,
            "top": 0.05,
            "arm_down": 0.08,
            "finish": 0.12,
        }
        for name in NAMES:
            known = truth(name)
            landmarks = landmarks_of(known)
            true = {
                at: t - known["times_s"]["frames"][0] for at, t in known["times_s"]["checkpoints"].items()
            }
            for strike in (Heard(true["impact"], 0.9), None):
                found = propose_checkpoints(landmarks, movement_of(landmarks), known["hand"], strike)
                for at, delta in {**within_s, "impact": 0.01 if strike else 0.05}.items():
                    if at.split("_")[0] in ("arm", "shaft") and at not in found:
                        continue  # an arm that never comes level, hands that never come so low
                    with self.subTest(name, at=at, strike=strike is not None):
                        self.assertAlmostEqual(landmarks.times_s[found[at].frame], true[at], delta=delta)

    def test_gaps_are_bridged_and_too_little_says_nothing(self) -> None:
        known = truth("tobin_first_face")
        whole = landmarks_of(known)
        points = whole.points.copy()
        points[40:44] = np.nan
        gappy = Landmarks(whole.times_s, points)
        self.assertLess(float(np.abs(gappy.places - whole.places)[30:54].max()), 0.1 * whole.torso_px)
        points[10:90] = np.nan
        self.assertFalse(Landmarks(whole.times_s, points).enough)
        with self.assertRaisesRegex(ValueError, "landmarks"):
            Landmarks(whole.times_s[:5], points)

    def test_the_player_is_in_the_box(self) -> None:
        known = truth("ilse_line")
        box = player_box(landmarks_of(known), 720, 1280)
        for name in ("lead_toe", "head", "trail_heel", "grip"):
            for x, y in known["pixels"][name]:
                self.assertTrue(box.left <= x <= box.right and box.top <= y <= box.bottom, name)
        self.assertLess(box.right - box.left, 680)

    def test_a_landmark_astray_for_some_frames_does_not_widen_the_box(self) -> None:
        seen = landmarks_of(truth("tobin_first_face"))
        astray = seen.points.copy()
        astray[50:52, 15, :2] = 5.0
        boxes = [player_box(each, 1280, 720) for each in (seen, Landmarks(seen.times_s, astray))]
        self.assertLess(abs(boxes[0].left - boxes[1].left), 0.1 * seen.torso_px)


class MotionTests(TestCase):
    """Bumps of movement on a time line of 60 frames a second."""

    times = [n / 60 for n in range(900)]

    def movement(self, *bumps: tuple[float, float]) -> list[float]:
        time = np.array(self.times)
        moved = np.full(len(time), 0.2)
        for start, end in bumps:
            moved += np.where(
                (time > start) & (time < end), 9 * np.sin((time - start) / (end - start) * 3), 0
            )
        return moved.tolist()

    def test_swings_are_stretches_of_movement(self) -> None:
        found = find_swings(self.times, self.movement((2, 3.6), (9, 10.5)), [])
        for swing, start in zip(found, (2 - 0.6, 9 - 0.6), strict=True):
            self.assertAlmostEqual(swing.first / 60, start, delta=0.15)
        self.assertEqual([each.strike for each in found], [None, None])

    def test_where_strikes_are_heard_the_rest_is_practice(self) -> None:
        heard = [Heard(10.2, 0.9), Heard(6.0, 1.0)]
        (found,) = find_swings(self.times, self.movement((2, 3.6), (9, 10.5)), heard)
        self.assertEqual(found.strike, heard[0])

    def test_a_walk_up_to_the_ball_is_no_swing_but_a_strike_in_it_is_found(self) -> None:
        self.assertEqual(find_swings(self.times, self.movement((1, 9)), []), ())
        (found,) = find_swings(self.times, self.movement((1, 9)), [Heard(8.0, 1.0)])
        self.assertAlmostEqual(found.first / 60, 6.1, delta=0.05)

    def test_windows_never_overlap(self) -> None:
        first, second = find_swings(self.times, self.movement((2, 3.6), (4.2, 5.8)), [])
        self.assertEqual(first.last + 1, second.first)

    def test_a_clip_cut_at_its_ends_keeps_inside_itself(self) -> None:
        (found,) = find_swings(self.times[:120], self.movement((0.2, 1.9))[:120], [])
        self.assertEqual((found.first, found.last), (0, 119))
