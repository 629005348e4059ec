"""Hears the strike: the sharpest sound of a clip, if one stands out."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import av
import numpy as np
import numpy.typing as npt
from av.error import FFmpegError
from scipy.signal import butter, sosfiltfilt

from tropometer.video.opening import open_file

RATE_HZ = 16_000
WINDOW_S = 0.002
LOW_HZ = 1500  # wind and voices lie below
LEAST_OVER_USUAL = 8.0  # times the usual loudness; a strike is 20 and more


@dataclass(frozen=True)
class Strike:
    """When the ball was heard to be hit, seconds of the file's own time; how sure, 0 to 1."""

    played_s: float
    confidence: float


def hear_strike(path: Path) -> Strike | None:
    """The strike, or None where there is no sound or nothing that stands out.

    Sound comes later than the picture by the camera's distance over 343 m/s, 13 ms at 4.5 m; that is not
    taken off, because nobody has said yet where the camera stood.
    """
    try:
        samples, start_s = _sound(path)
    except FFmpegError:
        return None
    if len(samples) < RATE_HZ // 4:
        return None
    sharp = sosfiltfilt(butter(4, LOW_HZ, "high", fs=RATE_HZ, output="sos"), samples)
    window = int(WINDOW_S * RATE_HZ)
    loud = np.sqrt(np.convolve(sharp**2, np.ones(window) / window, "same"))
    usual = float(np.median(loud)) + 1e-6
    loudest = int(np.argmax(loud))
    over = float(loud[loudest]) / usual
    if over < LEAST_OVER_USUAL:
        return None
    # The onset: where the sound first rises to a third of its peak.
    before = loud[max(0, loudest - RATE_HZ // 50) : loudest + 1]
    onset = loudest - len(before) + 1 + int(np.argmax(before > loud[loudest] / 3))
    # Something as loud elsewhere makes the choice less sure.
    elsewhere = np.concatenate([loud[: max(0, loudest - RATE_HZ // 10)], loud[loudest + RATE_HZ // 10 :]])
    rival = float(elsewhere.max()) / float(loud[loudest]) if len(elsewhere) else 0.0
    return Strike(start_s + onset / RATE_HZ, round(float(np.clip(1 - rival, 0, 1)), 2))


def _sound(path: Path) -> tuple[npt.NDArray[np.float64], float]:
    """One channel of samples, and when the first is heard against the first picture."""
    with open_file(path) as container:
        if not container.streams.audio:
            return np.zeros(0), 0.0
        stream = container.streams.audio[0]
        resampler = av.AudioResampler(format="flt", layout="mono", rate=RATE_HZ)
        pieces = [
            piece.to_ndarray().ravel()
            for frame in container.decode(stream)
            for piece in resampler.resample(frame)
        ]
        pictures = container.streams.video[0]
        began = float((stream.start_time or 0) * (stream.time_base or 0))
        shown = float((pictures.start_time or 0) * (pictures.time_base or 0))
    return np.concatenate(pieces).astype(float) if pieces else np.zeros(0), began - shown
