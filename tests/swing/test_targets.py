"""Where a band lies in the picture: a mark that is moved there is read inside it."""

from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.filming import film
from tests.swing.keyed import by_key
from tropometer.swing.gauges.drawing import gauges
from tropometer.swing.gauges.gauge import GaugeShape, Point
from tropometer.swing.names import Checkpoint, View
from tropometer.swing.read import read
from tropometer.swing.readings.reading import Reading
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.placed import Placed
from tropometer.swing.scene.scene import Scene

# A gauge's reading, where and from which side it is seen, the mark at its end, and how far off a band lies.
LENGTHS: tuple[tuple[str, Checkpoint, View, str, float], ...] = (
    ("trail_hip_gap", "top", "face_on", "trail_hip_edge", 0.04),
    ("post_gap", "impact", "face_on", "lead_hip_edge", 0.04),
    ("heel_lift_trail", "impact", "face_on", "trail_heel", 0.03),
    ("pelvis_depth", "impact", "down_the_line", "seat", 0.04),
    ("stance_ratio", "address", "face_on", "lead_heel", 0.1),
)
ANGLES: tuple[tuple[str, Checkpoint, View, str, float], ...] = (
    ("pelvis_slant", "address", "face_on", "lead_hip", 8.0),
    ("shoulder_slant", "address", "face_on", "lead_shoulder", 8.0),
    ("lead_leg_lean", "arm_down", "face_on", "lead_hip", 5.0),
    ("spine_incline", "address", "down_the_line", "neck", 6.0),
    ("knee_flex_lead", "address", "down_the_line", "lead_ankle", 6.0),
    ("foot_flare_lead", "address", "face_on", "lead_toe", 8.0),
    ("foot_flare_trail", "address", "face_on", "trail_toe", 8.0),
    ("toe_line", "address", "down_the_line", "lead_toe", 4.0),
    ("foot_roll_trail", "impact", "face_on", "trail_foot_outer", 8.0),
)


# The reading of the gauge that shows another one's band.
SHOWN_BY = {"stance_ratio": "stance_width"}


class TargetTests(TestCase):
    def test_a_mark_that_is_moved_onto_the_target_is_read_inside_the_band(self) -> None:
        seeds = (11, 12, 14)
        hands = {film(("face_on",), "mat", np.random.default_rng(seed)).record.hand for seed in seeds}
        self.assertEqual(hands, {"left", "right"})
        for hand_seed in seeds:
            for cases, least in ((LENGTHS, 0.006), (ANGLES, 1.5)):
                for reading, at, view, mark, off in cases:
                    for low in (off, -off):
                        with self.subTest(reading=reading, seed=hand_seed, low=low):
                            self.moved_there(hand_seed, reading, at, view, mark, low, least)

    def moved_there(
        self, seed: int, reading: str, at: Checkpoint, view: View, mark: str, off: float, least: float
    ) -> None:
        record = film((view,), "mat", np.random.default_rng(seed)).record
        now = _value(record, reading, at)
        shape = drawn(record, view, reading, at, (now + off, now + off + abs(off)))
        self.assertGreaterEqual(len(shape.target), 2)
        moved = with_mark(record, view, mark, at, shape.target[0])
        self.assertAlmostEqual(_value(moved, reading, at), now + off, delta=least)

    def test_a_knee_moved_onto_the_target_from_both_sides_points_where_it_is_asked_to(self) -> None:
        for seed in (11, 12, 14):
            record = film(("face_on", "down_the_line"), "mat", np.random.default_rng(seed)).record
            for off in (15.0, -15.0):
                now = _value(record, "knee_points_lead", "top")
                asked = (now + off, now + off + 15.0)
                moved = record
                for view in ("face_on", "down_the_line"):
                    shape = drawn(record, view, "knee_points_lead", "top", asked)
                    moved = with_mark(moved, view, "lead_knee", "top", shape.target[0])
                self.assertAlmostEqual(_value(moved, "knee_points_lead", "top"), now + off, delta=2.5)

    def test_hands_moved_as_far_as_their_plumb_is_from_the_target_are_over_it(self) -> None:
        record = film(("down_the_line",), "mat", np.random.default_rng(12)).record
        now = _value(record, "grip_plumb", "top")
        shape = drawn(record, "down_the_line", "grip_plumb", "top", (now + 0.3, now + 0.5))
        butt, foot = shape.points
        there = Point(butt.x + shape.target[0].x - foot.x, butt.y + shape.target[0].y - foot.y)
        moved = with_mark(record, "down_the_line", "grip_butt", "top", there)
        self.assertAlmostEqual(_value(moved, "grip_plumb", "top"), now + 0.3, delta=0.06)

    def test_nothing_is_drawn_where_nothing_is_asked_and_something_beyond_an_open_end(self) -> None:
        record = film(("face_on",), "mat", np.random.default_rng(11)).record
        now = _value(record, "trail_hip_gap", "top")
        self.assertEqual(drawn(record, "face_on", "trail_hip_gap", "top", None).target, ())
        low, high = drawn(record, "face_on", "trail_hip_gap", "top", (now, None)).target
        end = drawn(record, "face_on", "trail_hip_gap", "top", None).points[-1]
        self.assertLess(np.hypot(low.x - end.x, low.y - end.y), 2.0)
        self.assertGreater(np.hypot(high.x - low.x, high.y - low.y), 5.0)


def with_mark(record: SwingRecord, view: View, mark: str, at: Checkpoint, there: Point) -> SwingRecord:
    """The same swing with one mark of one clip elsewhere."""
    clips = list(record.clips)
    index = next(i for i, clip in enumerate(clips) if clip.view == view)
    clip = clips[index]
    frame = clip.checkpoints[at]
    placed = {**clip.marks[mark], frame: replace(clip.marks[mark][frame], x=there.x, y=there.y)}
    clips[index] = replace(clip, marks={**clip.marks, mark: placed})
    return replace(record, clips=tuple(clips))


def drawn(
    record: SwingRecord,
    view: View,
    reading: str,
    at: Checkpoint,
    ends: tuple[float | None, float | None] | None,
) -> GaugeShape:
    """What a gauge draws at a checkpoint when its reading is asked to lie between two ends."""
    found: list[Reading] = read(record).readings
    bands = {(reading, at): ends} if ends else {}
    all_of_it = gauges(Scene.at_checkpoints(Placed(record)), view, found, bands)
    return next(
        shape
        for each in all_of_it
        for shape in each.shapes
        if (shape.reading, shape.at) == (SHOWN_BY.get(reading, reading), at)
    )


def _value(record: SwingRecord, reading: str, at: Checkpoint) -> float:
    value = by_key(read(record).readings)[reading, at].value
    assert value is not None
    return value
