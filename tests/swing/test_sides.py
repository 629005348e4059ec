"""Four sides to film from: what each tells, alone and beside others, and what it says it cannot."""

import re
from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.filming import film
from tests.swing.keyed import by_key
from tests.swings import ROOT
from tropometer.swing.gauges.drawing import gauges
from tropometer.swing.names import VIEWS, View
from tropometer.swing.read import read
from tropometer.swing.readings.reading import Reading
from tropometer.swing.readings.register import KINDS
from tropometer.swing.readings.round import wanted_marks
from tropometer.swing.readings.two_swings import unlike
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.scene import Scene


def filmed(*views: View) -> SwingRecord:
    return film(views, "mat", np.random.default_rng(11)).record


def readings(record: SwingRecord) -> dict[tuple[str, str], Reading]:
    return by_key(read(record).readings)


class GaugeTests(TestCase):
    def test_each_gauge_shows_readings_that_exist_and_has_words_on_the_screens(self) -> None:
        words = (ROOT / "web/src/words.ts").read_text()
        for view in VIEWS:
            record = filmed(view)
            found = read(record).readings
            drawn = gauges(Scene.at_checkpoints(record), view, found)
            told = {shape.reading for each in drawn for shape in each.shapes} - {"hip_moved"}
            self.assertLessEqual(told, set(KINDS))
            for each in drawn:
                self.assertIn(f'{each.id}: "{each.label}"', words)
            given = {(each.reading, each.at) for each in found if each.status == "ok"}
            short = words[words.index("SHORT_WORDS") : words.index("SIGNED")]
            for each in drawn:
                for shape in each.shapes:
                    named = {each.id, shape.reading} & set(re.findall(r"(\w+): \"", short))
                    self.assertTrue(named, f"{each.id} shows {shape.reading} under its bare name")
                    if shape.reading in KINDS:
                        self.assertEqual(shape.value is not None, (shape.reading, shape.at) in given)


class SideTests(TestCase):
    def test_what_a_side_does_not_show_is_not_asked_for_and_refused_with_the_side_that_does(self) -> None:
        asked = {view: {each.name for each in wanted_marks() if each.view == view} for view in VIEWS}
        self.assertNotIn("lead_toe", asked["from_behind"])
        self.assertNotIn("seat", asked["from_behind"])
        self.assertNotIn("grip_butt", asked["up_the_line"])
        self.assertTrue({"lead_heel", "lead_hip_edge"} <= asked["from_behind"])
        self.assertIn("seat", asked["up_the_line"])
        found = readings(filmed("from_behind"))
        told = found["toe_lift_lead", "top"]
        self.assertEqual(told.reason, "The lead toe is not seen back-on: needs a face-on clip.")
        self.assertEqual({need.view for need in told.needs}, {"face_on"})
        self.assertEqual(found["sternum_offset", "address"].needs[0].kind, "view")
        for name in ("pelvis_sway", "heel_lift_trail", "trail_hip_gap"):
            self.assertEqual(found[name, "top"].status, "ok", name)
        self.assertEqual(found["pelvis_depth", "top"].reason, "Needs a down-the-line clip.")

    def test_opposite_sides_show_one_plane_and_no_depth(self) -> None:
        both, front = filmed("face_on", "from_behind"), filmed("face_on")
        found, alone = readings(both), readings(front)
        sway = found["pelvis_sway", "top"]
        self.assertEqual((sway.status, len(sway.clips)), ("ok", 2))
        self.assertLess(sway.u95 or 0, alone["pelvis_sway", "top"].u95 or 0)
        for name in ("pelvis_depth", "knee_flex_lead"):
            self.assertIn("down-the-line", found[name, "top"].reason)

    def test_four_cameras_at_once_are_read_as_one_swing(self) -> None:
        record = filmed(*VIEWS)
        lacking = [each for each in read(record).readings if any(need.kind == "view" for need in each.needs)]
        self.assertEqual(lacking, [])
        elsewhere = tuple(
            replace(clip, frame_times_s=tuple(1.4 * time for time in clip.frame_times_s))
            if clip.view == "up_the_line"
            else clip
            for clip in record.clips
        )
        self.assertIsNone(unlike(record))
        told = unlike(replace(record, clips=elsewhere))
        self.assertEqual(told and told.b_view, "up_the_line")

    def test_gauges_stand_in_the_pictures_of_all_sides(self) -> None:
        stands: dict[View, tuple[str, str]] = {
            "from_behind": ("lead_hip_gate", "lead_hip_edge"),
            "up_the_line": ("seat_wall", "seat"),
        }
        for view, (drawn, mark) in stands.items():
            record = filmed(view)
            there = {each.id: each for each in gauges(Scene.at_checkpoints(record), view, [])}
            (line,) = there[drawn].lines
            clip = record.clips[0]
            clicked = clip.marks[mark][clip.checkpoints["address"]]
            x = line.a.x + (line.b.x - line.a.x) * (clicked.y - line.a.y) / (line.b.y - line.a.y)
            self.assertAlmostEqual(x, clicked.x, delta=8)
