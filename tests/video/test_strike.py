"""The strike is heard where it is, and nothing is heard where nothing is struck."""

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np

from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.cast import TAKES
from tropometer.golfer.formats import Recording, write
from tropometer.video.strike import hear_strikes


class StrikeTests(TestCase):
    def test_within_a_frame_in_every_demo_clip(self) -> None:
        for take in TAKES:
            known = truth(take.name)
            (heard,) = hear_strikes(DEMO_CLIPS / f"{take.name}.{take.recording.container}")
            slow = known["capture_fps"] / known["played_fps"]
            sounded = known["times_s"]["strike_heard"] - known["times_s"]["frames"][0]
            with self.subTest(take.name):
                self.assertAlmostEqual(heard.played_s / slow, sounded, delta=1 / known["capture_fps"])
                self.assertGreater(heard.confidence, 0.9)

    def test_silence_and_wind_are_no_strike(self) -> None:
        pictures = [np.full((96, 160, 3), 90, np.uint8)] * 60
        with tempfile.TemporaryDirectory() as folder:
            silent, windy = Path(folder) / "silent.mp4", Path(folder) / "windy.mp4"
            write(silent, pictures, 60, Recording(sound=False), [0.5])
            write(windy, pictures, 60, Recording(), [])
            self.assertEqual(hear_strikes(silent), [])
            self.assertEqual(hear_strikes(windy), [])
