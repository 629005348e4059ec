"""The swing from above, against the truth of made-up golfers."""

from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.trials import trials
from tropometer.swing.gauges.floor_plan import FloorPlan, floor_plan
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.scene import Scene


def plan_of(record: SwingRecord) -> FloorPlan:
    """A record's swing from above."""
    return floor_plan(Scene.at_checkpoints(record))


class FloorTests(TestCase):
    def test_feet_are_where_their_readings_say(self) -> None:
        for trial in trials("both, mat", 6, seed=3):
            plan = plan_of(trial.record)
            at = {(mark.name, mark.at): mark for mark in plan.marks}
            lead, trail = at["lead_heel", "address"], at["trail_heel", "address"]
            self.assertAlmostEqual(lead.t - trail.t, trial.true["stance_width", "address"], delta=0.03)
            self.assertAlmostEqual(lead.t + trail.t, 0, delta=0.01)  # the middle of the heels is the origin
            toe = at["lead_toe", "address"]
            flare = np.degrees(np.arctan2(toe.t - lead.t, toe.b - lead.b))
            self.assertAlmostEqual(float(flare), trial.true["foot_flare_lead", "address"], delta=7)
            self.assertGreater(at["ball", "address"].b, toe.b)
            self.assertIn(("lead_hip", "impact"), at)

    def test_cameras_stand_before_the_player_and_behind_the_line(self) -> None:
        (trial,) = trials("both, mat", 1, seed=5)
        cameras = {camera.view: camera for camera in plan_of(trial.record).cameras}
        self.assertGreater(cameras["face_on"].b, 2)
        self.assertLess(cameras["down_the_line"].t, -2)

    def test_hips_seen_from_one_side_have_no_way_over_the_floor(self) -> None:
        for set_up in ("face-on, mat", "face-on, stick", "line, mat"):
            for trial in trials(set_up, 2, seed=1):
                unscaled = tuple(replace(clip, mat=None, known_length=None) for clip in trial.record.clips)
                self.assertEqual(plan_of(replace(trial.record, clips=unscaled)).marks, ())
                names = {mark.name for mark in plan_of(trial.record).marks}
                self.assertFalse({"lead_hip", "trail_hip"} & names, set_up)
