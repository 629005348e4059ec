"""Paths without noise: what the filter passes, what it takes off, and what it leaves open."""

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from tropometer.swing.scene.smoothing import bridge_gaps, low_pass, residual_cutoff, smooth_path

RATE = 120.0


def wave(hz: float, seconds: float = 4.0, rate: float = RATE) -> "np.ndarray":  # type: ignore[type-arg]
    return np.sin(2 * np.pi * hz * np.arange(0, seconds, 1 / rate))


class LowPassTests(TestCase):
    @given(cutoff=st.floats(3, 12), rate=st.sampled_from([30.0, 60.0, 120.0, 240.0]))
    def test_gain_at_the_cutoff_is_the_half_power_at_any_rate(self, cutoff: float, rate: float) -> None:
        values = wave(cutoff, 20, rate)
        middle = slice(len(values) // 4, -len(values) // 4)
        gain = np.std(low_pass(values, rate, cutoff)[middle]) / np.std(values[middle])
        self.assertAlmostEqual(gain, np.sqrt(0.5), delta=0.01)

    def test_nothing_is_late(self) -> None:
        values = wave(2)
        passed = low_pass(values, RATE, 10)[100:-100]
        late = np.argmax(np.correlate(passed, values[100:-100], "full")) - (len(passed) - 1)
        self.assertEqual(late, 0)

    def test_the_cutoff_lies_above_the_motion_and_takes_noise_off(self) -> None:
        rng = np.random.default_rng(3)
        motion = 40 * wave(1.0) + 10 * wave(3.0)
        cutoff = residual_cutoff(motion + rng.normal(0, 1, len(motion)), RATE)
        self.assertGreater(cutoff, 4)
        self.assertLess(cutoff, 20)
        quiet = residual_cutoff(motion + rng.normal(0, 0.05, len(motion)), RATE)
        self.assertGreater(quiet, cutoff)


class PathTests(TestCase):
    def test_short_gaps_are_bridged_and_said_long_ones_stay_open(self) -> None:
        times = np.arange(240) / RATE
        true = np.column_stack([40 * np.sin(5 * times), 20 * np.cos(4 * times)])
        rng = np.random.default_rng(1)
        raw = true + rng.normal(0, 0.8, true.shape)
        raw[50:54] = np.nan
        raw[120:160] = np.nan
        path = smooth_path(times, raw)
        self.assertEqual(np.flatnonzero(path.bridged).tolist(), [50, 51, 52, 53])
        self.assertTrue(np.isnan(path.places[120:160]).all())
        kept = np.isfinite(path.places).all(axis=1)
        self.assertEqual(kept.sum(), 200)
        left = np.sqrt(np.mean((path.places[kept] - true[kept]) ** 2))
        self.assertLess(left, 0.5)  # of 0.8

    def test_uneven_times_bend_nothing(self) -> None:
        rng = np.random.default_rng(2)
        times = np.cumsum(rng.uniform(0.005, 0.012, 300))
        raw = np.column_stack([60 * np.sin(4 * times), 30 * times]) + rng.normal(0, 0.5, (300, 2))
        true = np.column_stack([60 * np.sin(4 * times), 30 * times])
        path = smooth_path(times, raw)
        self.assertLess(np.abs(path.places - true)[10:-10].max(), 1.5)

    def test_too_short_to_filter_is_left_as_it_is(self) -> None:
        raw = np.column_stack([np.arange(8.0), np.arange(8.0)])
        path = smooth_path(np.arange(8) / RATE, raw)
        self.assertIsNone(path.cutoff_hz)
        np.testing.assert_array_equal(path.places, raw)
        filled, bridged = bridge_gaps(np.arange(8) / RATE, np.full((8, 2), np.nan))
        self.assertTrue(np.isnan(filled).all() and not bridged.any())
