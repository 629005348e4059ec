"""What moves is told from what shakes, flickers or is noise."""

from unittest import TestCase

import numpy as np
import numpy.typing as npt

from tropometer.video.movement import MovementMeter

FRAMES = 40
MOVES = range(20, 26)
SIZE = (180, 320)


class MovementTests(TestCase):
    def setUp(self) -> None:
        self.dice = np.random.default_rng(2)
        # A picture with edges everywhere, smooth over a few pixels as real ones are.
        rough = self.dice.uniform(40, 200, (SIZE[0] // 4 + 8, SIZE[1] // 4 + 8))
        self.scene = np.kron(rough, np.ones((4, 4)))

    def frame(
        self, number: int, shake: int = 0, flicker: bool = False, swing: bool = True
    ) -> npt.NDArray[np.uint8]:
        grey = self.scene[shake : shake + SIZE[0], shake : shake + SIZE[1]].copy()
        if flicker:
            grey[20:40, 20:40] = 255 * (number % 2)
        if swing and number in MOVES:
            at = 60 + 20 * (number - MOVES.start)
            grey[60:110, at : at + 40] = 250
        noisy = np.clip(grey + self.dice.normal(0, 3, grey.shape), 0, 255).astype(np.uint8)
        return np.repeat(noisy[:, :, None], 3, axis=2)

    def measure(self, **about: bool) -> npt.NDArray[np.float64]:
        meter = MovementMeter()
        shakes = about.pop("shaking", False)
        for number in range(FRAMES):
            meter.add(self.frame(number, shake=number % 3 if shakes else 0, **about))
        found = np.array(meter.found())
        self.assertEqual((len(found), found[0]), (FRAMES, 0.0))
        return found

    def stands_out(self, found: npt.NDArray[np.float64]) -> float:
        """How many times more moves while the swing is on than in any frame outside it."""
        on = [*MOVES, MOVES.stop]
        return float(np.median(found[on]) / np.delete(found, on).max())

    def test_a_swing_stands_out_of_noise(self) -> None:
        self.assertGreater(self.stands_out(self.measure()), 10)

    def test_a_screen_that_flickers_counts_for_nothing(self) -> None:
        self.assertGreater(self.stands_out(self.measure(flicker=True)), 10)

    def test_a_shaking_hand_moves_everything_and_so_nothing(self) -> None:
        self.assertGreater(self.stands_out(self.measure(shaking=True)), 2)

    def test_where_nothing_moves_little_is_found(self) -> None:
        self.assertLess(self.measure(swing=False).max(), 1.0)
