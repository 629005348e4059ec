"""What is doubted, what is next, and how steady a hand is."""

import math
from dataclasses import replace
from typing import Any, cast
from unittest import TestCase

import numpy as np

from tests.strangers.trials import trials
from tests.swing.test_camera import mat_of
from tests.swings import record_of, truth
from tropometer.swing.doubts import LEAST, doubts
from tropometer.swing.names import CHECKPOINTS, Hand
from tropometer.swing.next_click import next_clicks
from tropometer.swing.read import read
from tropometer.swing.reading import Need, Reading
from tropometer.swing.record import Clip, Mark, SwingRecord
from tropometer.swing.repeat import TooFew, steadiness

FACE, LINE = "tobin_first_face", "tobin_first_line"
LEGS = [f"{side}_{part}" for side in ("lead", "trail") for part in ("hip", "knee", "ankle", "heel", "toe")]


def legs(name: str, moved: dict[tuple[str, str], tuple[float, float]] | None = None) -> Clip:
    """A clip with its legs marked near the truth at every checkpoint, and some marks moved."""
    known: dict[str, Any] = truth(name)
    rng = np.random.default_rng(1)
    marks: dict[str, dict[int, Mark]] = {mark: {} for mark in LEGS}
    for at in CHECKPOINTS:
        frame = known["checkpoints"][at]
        for mark in LEGS:
            x, y = np.array(known["pixels"][mark][frame]) + rng.normal(0, 1, 2)
            dx, dy = (moved or {}).get((mark, at), (0.0, 0.0))
            marks[mark][frame] = Mark(x + dx, y + dy, 1.5)
    first = known["times_s"]["frames"][0]
    return Clip(
        id=name, view=known["view"], width=known["camera"]["width"], height=known["camera"]["height"],
        frame_times_s=tuple(t - first for t in known["times_s"]["frames"]),
        checkpoints={at: known["checkpoints"][at] for at in CHECKPOINTS}, marks=marks, mat=mat_of(known),
    )  # fmt: skip


def record(*clips: Clip) -> SwingRecord:
    return SwingRecord(hand=cast(Hand, truth(FACE)["hand"]), clips=clips)


class DoubtTests(TestCase):
    def test_careful_marks_are_left_alone(self) -> None:
        found = doubts(record(legs(FACE), legs(LINE)))
        self.assertLessEqual(len(found), 2, found)  # a turning leg may look short

    def test_a_changed_leg_is_the_worst_doubt(self) -> None:
        known = truth(FACE)
        frame = known["checkpoints"]["top"]
        lead, trail = (np.array(known["pixels"][f"{side}_ankle"][frame]) for side in ("lead", "trail"))
        clip = legs(
            FACE,
            {("lead_ankle", "top"): tuple(trail - lead), ("trail_ankle", "top"): tuple(lead - trail)},
        )
        worst = doubts(record(clip))[0]
        self.assertEqual((worst.name, worst.frame), ("lead_ankle", frame))
        self.assertIn("farther from the target", worst.why)
        self.assertGreater(worst.sigmas, 10)

    def test_a_slipped_mark_is_found_by_the_limb_and_by_the_landmarks(self) -> None:
        clip = legs(FACE, {("trail_knee", "arm_back"): (0.0, 70.0)})
        frame = truth(FACE)["checkpoints"]["arm_back"]
        found = doubts(record(clip))
        self.assertEqual((found[0].name, found[0].frame), ("trail_knee", frame))
        self.assertRegex(found[0].why, "% (longer|shorter) than on the other frames")
        x, y = truth(FACE)["pixels"]["trail_knee"][frame]

        def seen(name: str, at: int) -> Mark | None:
            return Mark(x, y, 4.0, "proposed") if (name, at) == ("trail_knee", frame) else None

        by_eye = doubts(record(clip), {FACE: seen})
        self.assertIn("from where the landmarks see it", by_eye[0].why)

    def test_a_followed_mark_s_neighbours_are_one_doubt(self) -> None:
        clip = legs(FACE)
        astray = {frame: Mark(300.0, 300.0, 1.5, "tracked") for frame in range(20, 28)}
        clip.marks["lead_toe"].update(astray)

        def seen(name: str, at: int) -> Mark | None:
            return Mark(400.0, 300.0, 4.0, "proposed") if name == "lead_toe" and at in astray else None

        found = [doubt for doubt in doubts(record(clip), {FACE: seen}) if doubt.name == "lead_toe"]
        self.assertEqual(len(found), 1)

    def test_the_two_views_must_agree_on_a_height(self) -> None:
        wrong = legs(FACE, {("lead_knee", "top"): (0.0, -90.0)})
        found = [each for each in doubts(record(wrong, legs(LINE))) if "down the line" in each.why]
        self.assertEqual([each.name for each in found], ["lead_knee"])
        self.assertIn("higher face-on", found[0].why)
        self.assertGreaterEqual(found[0].sigmas, LEAST)


class StrangerTests(TestCase):
    """Pairs of strangers' swings changed for each other, and swings with nothing wrong."""

    def test_changed_sides_face_on_are_named_and_right_ones_are_not(self) -> None:
        dice = np.random.default_rng(5)
        named, changed, falsely = 0, 0, 0
        swings = list(trials("face-on, mat", 30, seed=4))
        for trial in swings:
            (clip,) = trial.record.clips
            falsely += any("changed for each other" in each.why for each in doubts(trial.record))
            for part in ("hip", "hip_edge", "knee", "ankle", "heel", "toe"):
                frame = clip.checkpoints[CHECKPOINTS[dice.integers(len(CHECKPOINTS))]]
                lead, trail = (clip.marks[f"{side}_{part}"] for side in ("lead", "trail"))
                if math.hypot(lead[frame].x - trail[frame].x, lead[frame].y - trail[frame].y) < 20:
                    continue
                swapped = clip.marks | {
                    f"lead_{part}": lead | {frame: trail[frame]},
                    f"trail_{part}": trail | {frame: lead[frame]},
                }
                found = doubts(replace(trial.record, clips=(replace(clip, marks=swapped),)))
                changed += 1
                named += any((each.name, each.frame) == (f"lead_{part}", frame) for each in found)
        self.assertGreater(changed, 150)
        self.assertGreaterEqual(named, 0.95 * changed)
        self.assertLessEqual(falsely, 0.05 * len(swings) + 1)


def of_pelvis(swing: SwingRecord) -> list[Reading]:
    """The readings that a school of the pelvis looks at."""
    wanted = ("pelvis_sway", "trail_hip_gap", "trail_hip_gap_share")
    return [each for each in read(swing) if each.reading in wanted and each.at in ("top", "impact")]


class NextClickTests(TestCase):
    def test_what_gives_most_at_once_comes_first(self) -> None:
        full = record_of(FACE)
        clip = full.clips[0]
        without = {name: dict(frames) for name, frames in clip.marks.items()}
        del without["trail_hip_edge"][clip.checkpoints["top"]]
        best = next_clicks(of_pelvis(replace(full, clips=(replace(clip, marks=without),))), False)[0]
        self.assertEqual(best.need, Need("mark", "trail_hip_edge", "top", "face_on"))
        self.assertEqual(best.gives, ("trail_hip_gap", "trail_hip_gap_share"))
        nothing = replace(clip, marks={}, checkpoints={}, known_length=None)
        best = next_clicks(of_pelvis(replace(full, clips=(nothing,))), False)[0]
        self.assertEqual((best.gives, best.need.kind), ((), "peg"))
        self.assertEqual(best.helps, 6)

    def test_all_that_a_refused_reading_needs_is_known(self) -> None:
        full = record_of(FACE)
        bare = replace(full.clips[0], marks={})
        reading = next(
            r for r in read(replace(full, clips=(bare,))) if (r.reading, r.at) == ("pelvis_sway", "top")
        )
        self.assertEqual(len(reading.needs), 4)
        self.assertIn("(3 more to do)", reading.reason)

    def test_a_hidden_mark_is_no_next_click(self) -> None:
        full = record_of(FACE)
        clip = full.clips[0]
        top = clip.checkpoints["top"]
        marks = {name: dict(frames) for name, frames in clip.marks.items()}
        del marks["trail_hip"][top]
        hidden = replace(clip, marks=marks, hidden={"trail_hip": frozenset({top})})
        readings = read(replace(full, clips=(hidden,)))
        refused = next(r for r in readings if (r.reading, r.at) == ("pelvis_sway", "top"))
        self.assertIn("was hidden at top", refused.reason)
        self.assertEqual(refused.needs, ())

    def test_the_budget_says_what_dominates(self) -> None:
        for reading in read(record_of(FACE)):
            if reading.status == "ok" and reading.u95:
                self.assertAlmostEqual(sum(each.share for each in reading.budget), 1.0, places=2)
                shares = [each.share for each in reading.budget]
                self.assertEqual(shares, sorted(shares, reverse=True))


class SteadinessTests(TestCase):
    def test_the_interval_holds_the_hand_that_drew(self) -> None:
        rng = np.random.default_rng(7)
        held = 0
        for _ in range(400):
            twice = rng.normal(0, 1.3, (10, 2)) - rng.normal(0, 1.3, (10, 2))
            found = steadiness([(float(x), float(y)) for x, y in twice])
            held += found.low <= 1.3 <= found.high
        self.assertTrue(0.92 <= held / 400 <= 0.98, held / 400)

    def test_a_slip_is_left_out_and_too_few_are_refused(self) -> None:
        found = steadiness([(1.0, 0.0)] * 9 + [(80.0, 3.0)])
        self.assertEqual((found.pairs, found.slips), (9, 1))
        with self.assertRaises(TooFew):
            steadiness([(1.0, 1.0)] * 4)
