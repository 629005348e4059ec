"""What a machine alone says of a drill, on golfers that the core has not seen, filmed without a mat."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.filming import film
from tests.strangers.swing import Swing
from tests.strangers.trials import true_readings
from tests.swing.test_first_look import bare, seen_as
from tropometer.swing.error.value import NORMAL_95, NORMAL_95_ONE_SIDED
from tropometer.swing.proposals.body_length import body_length
from tropometer.swing.proposals.provisional import SeenClip, with_proposals
from tropometer.swing.read import SwingRead, read
from tropometer.teaching.judging.drill_check import drill_check
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.knowledge.rule import Condition, Reads

STRANGERS = 60
DRILLS = [
    check.holds
    for drill in shipped().drills.values()
    if drill.camera.view == "face_on" and (check := drill.camera.told_alone)
]
SWAY = Condition(reading="pelvis_sway", at="top", above=-0.06)


def alone(seed: int) -> tuple[SwingRead, SeenClip, Swing]:
    """A stranger filmed face-on with nothing on the floor, as a machine reads it; and what was swung."""
    random = np.random.default_rng([5, seed])
    filmed = film(("face_on",), "none", random, rate_hz=60)
    record = filmed.record if seed % 2 else replace(filmed.record, stature_m=None)
    (clip,) = record.clips
    seen = seen_as(clip, random)
    seen = replace(seen, length=body_length(seen, record.stature_m))
    return read(with_proposals(bare(record), {clip.id: seen})), seen, filmed.swing


class DrillCheckTests(TestCase):
    def test_what_it_says_of_strangers_is_right_and_it_says_something(self) -> None:
        told, right, asked = 0, 0, 0
        for seed in range(STRANGERS):
            found, _, swing = alone(seed)
            true = true_readings(swing)
            for holds in DRILLS:
                check, truly = drill_check(holds, found), true[holds.key]
                assert isinstance(truly, float) and isinstance(holds.limit, float)
                asked += 1
                if check.answer in ("inside", "outside"):
                    told += 1
                    right += (check.answer == "inside") == ((truly - holds.limit) * holds.way > 0)
        self.assertGreaterEqual(right / told, 0.95)
        self.assertGreaterEqual(told / asked, 0.4)  # most strangers lie near the limits, which are their own

    def test_the_legs_tell_the_scale_as_surely_as_they_say(self) -> None:
        missed = []
        for seed in range(STRANGERS):
            _, seen, swing = alone(seed)
            length, places = seen.length, swing.places(np.array([swing.timing.checkpoints_s["address"]]))
            assert length is not None
            hip, ankle = (
                np.mean([places[f"{side}_{part}"][0, 2] for side in ("lead", "trail")])
                for part in ("hip", "ankle")
            )
            missed.append((float(hip - ankle) - length.length_m) / length.length_sd_m)
        self.assertGreaterEqual(np.mean(np.abs(missed) <= NORMAL_95), 0.9)

    def test_inside_is_never_said_while_the_bound_holds_the_limit(self) -> None:
        found, _, _ = alone(1)
        sway = found.given("pelvis_sway", "top")
        assert sway is not None and sway.value is not None and sway.u95 is not None
        for far, answer in ((1.01, "inside"), (0.99, "unsure"), (-0.99, "unsure"), (-1.01, "outside")):
            bound = far * sway.u95 * NORMAL_95_ONE_SIDED / NORMAL_95
            holds = SWAY.model_copy(update={"above": sway.value - bound})
            self.assertEqual(drill_check(holds, found).answer, answer)
            turned = Condition(reading="pelvis_sway", at="top", below=sway.value + bound)
            self.assertEqual(drill_check(turned, found).answer, answer)

    def test_what_two_readings_share_goes_out_of_their_difference(self) -> None:
        found, _, _ = alone(1)
        both = [found.given("pelvis_sway", at) for at in ("top", "arm_back")]
        apart = float(np.hypot(*(each.u95 or 0.0 for each in both if each)))
        since = Condition(reading="pelvis_sway", at="top", since="arm_back", above=-1.0)
        less = Condition(
            reading="pelvis_sway", at="top", less=Reads(reading="pelvis_sway", at="arm_back"), above=-1.0
        )
        for holds in (since, less):
            check = drill_check(holds, found)
            assert check.give_or_take is not None
            self.assertLess(check.give_or_take / NORMAL_95_ONE_SIDED, apart / NORMAL_95)

    def test_what_cannot_be_read_is_said_with_its_reason(self) -> None:
        found, _, _ = alone(1)
        check = drill_check(Condition(reading="grip_plumb", at="top", below=0.5), found)
        self.assertEqual(check.answer, "not_read")
        self.assertIn("down", check.reason)
        self.assertIsNone(check.beyond)
        band = drill_check(Condition(reading="pelvis_sway", at="top", below="low"), found)
        self.assertEqual(band.answer, "not_read")
