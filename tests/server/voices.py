"""Voices as browsers record them: a tone that says by its pitch which second it is."""

from __future__ import annotations

import io
from fractions import Fraction
from typing import Any

import av
import numpy as np
import numpy.typing as npt

Samples = npt.NDArray[np.float32]
RATE = 48_000
CODECS = {"webm": "libopus", "mp4": "aac", "wav": "pcm_s16le"}


def pitch(second: int) -> float:
    """Hertz of the tone in a second."""
    return 300.0 + 50.0 * second


def counted(seconds: float, loud: float = 0.1, silent: tuple[float, float] = (0, 0)) -> Samples:
    """A tone whose pitch counts the seconds, with silence in one stretch."""
    at = np.arange(round(seconds * RATE)) / RATE
    phase = 2 * np.pi * np.cumsum(300.0 + 50.0 * np.floor(at)) / RATE
    tone = loud * np.sin(phase) * ((at < silent[0]) | (at >= silent[1]))
    return np.asarray(tone, np.float32)


def recorded(samples: Samples, container: str = "webm") -> bytes:
    """Samples as a browser would send them."""
    file = io.BytesIO()
    options = {"movflags": "frag_keyframe+empty_moov+default_base_moof"} if container == "mp4" else {}
    with av.open(file, "w", format=container, options=options) as out:
        stream: Any = out.add_stream(CODECS[container], rate=RATE, layout="mono")
        for first in range(0, len(samples), 960):
            frame = av.AudioFrame.from_ndarray(
                samples[None, first : first + 960], format="flt", layout="mono"
            )
            frame.sample_rate, frame.pts, frame.time_base = RATE, first, Fraction(1, RATE)
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    return file.getvalue()


def heard_pitch(samples: Samples, at_s: float, over_s: float = 0.2) -> float:
    """The strongest pitch about a time, hertz."""
    first = max(0, round((at_s - over_s / 2) * RATE))
    part = samples[first : first + round(over_s * RATE)]
    spectrum = np.abs(np.fft.rfft(part * np.hanning(len(part)), 8 * len(part)))
    return float(spectrum.argmax() * RATE / (8 * len(part)))


def tones(voice: Samples) -> list[float]:
    """When a tone begins, seconds."""
    loud = np.abs(voice) > 0.25 * np.abs(voice).max()
    at = np.flatnonzero(loud)
    return [at[i] / RATE for i in range(len(at)) if i == 0 or at[i] - at[i - 1] > 0.1 * RATE]
