"""Where a band lies in the picture: a mark that is moved there is read inside it."""

from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.filming import film
from tests.swing.keyed import by_key
from tropometer.swing.gauges.drawing import gauges
from tropometer.swing.gauges.gauge import GaugeShape
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
)
ANGLES: tuple[tuple[str, Checkpoint, View, str, float], ...] = (
    ("pelvis_slant", "address", "face_on", "lead_hip", 8.0),
    ("shoulder_slant", "address", "face_on", "lead_shoulder", 8.0),
    ("lead_leg_lean", "arm_down", "face_on", "lead_hip", 5.0),
    ("spine_incline", "address", "down_the_line", "neck", 6.0),
)


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
        there = shape.target[0]
        (clip,) = record.clips
        frame = clip.checkpoints[at]
        placed = {**clip.marks[mark], frame: replace(clip.marks[mark][frame], x=there.x, y=there.y)}
        moved = replace(record, clips=(replace(clip, marks={**clip.marks, mark: placed}),))
        self.assertAlmostEqual(_value(moved, reading, at), now + off, delta=least)

    def test_nothing_is_drawn_where_nothing_is_asked_and_something_beyond_an_open_end(self) -> None:
        record = film(("face_on",), "mat", np.random.default_rng(11)).record
        now = _value(record, "trail_hip_gap", "top")
        self.assertEqual(drawn(record, "face_on", "trail_hip_gap", "top", None).target, ())
        low, high = drawn(record, "face_on", "trail_hip_gap", "top", (now, None)).target
        end = drawn(record, "face_on", "trail_hip_gap", "top", None).points[-1]
        self.assertLess(np.hypot(low.x - end.x, low.y - end.y), 2.0)
        self.assertGreater(np.hypot(high.x - low.x, high.y - low.y), 5.0)


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
        shape for each in all_of_it for shape in each.shapes if (shape.reading, shape.at) == (reading, at)
    )


def _value(record: SwingRecord, reading: str, at: Checkpoint) -> float:
    value = by_key(read(record).readings)[reading, at].value
    assert value is not None
    return value
