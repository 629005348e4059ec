"""How loud a walk's voice is, by ITU-R BS.1770-4.

The filters are those of its annex 1, tables 1 and 2, for 48 000 samples a second; their numbers are from
memory, and the standard's own check holds them.
"""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np
import numpy.typing as npt
from scipy.signal import lfilter

from tests.server.voices import RATE, recorded
from tropometer.video.voice import LOUDNESS_LUFS, Stretch, make_voice, read_voice

HEAD = ([1.53512485958697, -2.69169618940638, 1.19839281085285], [1, -1.69065929318241, 0.73248077421585])
LOW_CUT = ([1.0, -2.0, 1.0], [1, -1.99004745483398, 0.99007225036621])
BLOCK_S, HOP_S = 0.4, 0.1
ABSOLUTE_LUFS, RELATIVE_LU = -70.0, -10.0
SURE_LU = 1.0


def loudness(samples: npt.NDArray[np.floating]) -> float:
    """Integrated loudness of one channel, LUFS: K-weighted, gated."""
    weighted = lfilter(*LOW_CUT, lfilter(*HEAD, samples.astype(float)))
    size, hop = round(BLOCK_S * RATE), round(HOP_S * RATE)
    power = np.array([np.mean(weighted[i : i + size] ** 2) for i in range(0, len(weighted) - size + 1, hop)])
    loud = -0.691 + 10 * np.log10(np.maximum(power, 1e-12))
    kept = power[loud > ABSOLUTE_LUFS]
    gate = -0.691 + 10 * np.log10(kept.mean()) + RELATIVE_LU
    return float(-0.691 + 10 * np.log10(power[(loud > ABSOLUTE_LUFS) & (loud > gate)].mean()))


def spoken(seconds: float, loud: float) -> npt.NDArray[np.float32]:
    """Noise that rises and falls as syllables do, with a pause every few seconds."""
    hand = np.random.default_rng(5)
    at = np.arange(round(seconds * RATE)) / RATE
    syllables = 0.55 + 0.45 * np.sin(2 * np.pi * 4 * at)
    breath = ((at % 4) < 3.3).astype(float)
    noise = lfilter([1.0], [1, -0.95], hand.normal(0, 1, len(at)))
    return np.asarray(loud * syllables * breath * noise / np.abs(noise).max(), np.float32)


class LoudnessTests(TestCase):
    def test_the_meter_is_the_standard_s(self) -> None:
        """A full sine of 997 Hz in one front channel reads −3.01 LKFS (annex 1 of the recommendation)."""
        sine = np.sin(2 * np.pi * 997 * np.arange(10 * RATE) / RATE)
        self.assertAlmostEqual(loudness(sine), -3.01, delta=0.01)

    def test_a_whispered_and_a_shouted_walk_come_out_alike(self) -> None:
        for loud in (0.02, 0.15, 0.9):
            with tempfile.TemporaryDirectory() as folder:
                source, target = Path(folder) / "said.webm", Path(folder) / "voice.m4a"
                source.write_bytes(recorded(spoken(24, loud)))
                made = make_voice([Stretch(source, 0, 10), Stretch(source, 12, None)], target)
                heard = np.concatenate(list(read_voice(target)))
            self.assertAlmostEqual(loudness(heard), LOUDNESS_LUFS, delta=SURE_LU, msg=str(loud))
            self.assertAlmostEqual(made.length_s, 22, delta=0.03)
            self.assertLessEqual(float(np.abs(heard).max()), 1.0)
