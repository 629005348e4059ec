"""Two views that are two swings: what stands, what is refused, how they are told apart."""

from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.filming import film
from tests.strangers.trials import BOTH, TWO_SWINGS, trials
from tests.swing.keyed import by_key
from tropometer.swing.formats.swing_record import from_document, to_document
from tropometer.swing.read import read
from tropometer.swing.readings.two_swings import unlike


class TwoSwingsTests(TestCase):
    """A student with one phone films face-on, walks round, and films another swing down the line."""

    def test_what_needs_both_at_one_moment_is_refused_and_the_rest_stands(self) -> None:
        (trial,) = trials(TWO_SWINGS, 1, seed=3)
        found = by_key(read(trial.record).readings)
        for key in (("hip_travel_clock", "impact"), ("going_back", "top")):
            self.assertIn("two swings", found[key].reason)
            self.assertEqual(found[key].needs, ())
        self.assertEqual(found["pelvis_sway", "top"].clips, ("face_on",))
        self.assertEqual(found["pelvis_depth", "top"].clips, ("down_the_line",))
        alone = replace(trial.record, clips=trial.record.clips[:1])
        self.assertEqual(found["pelvis_sway", "top"], by_key(read(alone).readings)["pelvis_sway", "top"])
        self.assertEqual(to_document(from_document(to_document(trial.record))), to_document(trial.record))

    def test_two_swings_take_longer_and_shorter_and_one_does_not(self) -> None:
        """At 240 frames a second; a golfer's next swing takes 4 % longer or shorter."""
        self.assertLessEqual(self.unlike(one_swing=True), 1)
        self.assertGreater(self.unlike(one_swing=False), 10)

    def unlike(self, one_swing: bool) -> int:
        """Of 30 strangers' pairs of clips, those that cannot be one swing."""
        told = 0
        for seed in range(30):
            filmed = film(BOTH, "none", np.random.default_rng([6, seed]), rate_hz=240, one_swing=one_swing)
            told += unlike(filmed.record) is not None
        return told

    def test_what_nobody_said_is_tested(self) -> None:
        (trial,) = trials("both, mat", 1, seed=3)
        for kept, seconds in ((True, 0.0), (False, 0.15)):
            record = replace(trial.record, one_swing=None)
            (other,) = (clip for clip in record.clips if clip.view == "down_the_line")
            impact = other.checkpoints["impact"]
            times = (t + seconds * (frame >= impact) for frame, t in enumerate(other.frame_times_s))
            later = replace(other, frame_times_s=tuple(times))
            record = replace(record, clips=tuple(later if clip is other else clip for clip in record.clips))
            going = by_key(read(record).readings)["going_back", "top"]
            self.assertEqual(going.status == "ok", kept, going.reason)
            # Where somebody stands still, any frame is as good a peg as another.
            still = later.checkpoints | {"address": 0, "finish": len(later.frame_times_s) - 1}
            clips = (record.clips[0], replace(later, checkpoints=still))
            self.assertEqual(unlike(replace(record, clips=clips)) is None, kept)
        self.assertRegex(going.reason, r"took \d\.\d\d s in one and \d\.\d\d s in the other")
