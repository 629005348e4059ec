"""Hears strikes: the sharp sounds of a clip that stand out."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import av
import numpy as np
import numpy.typing as npt
from av.error import FFmpegError
from scipy.signal import butter, find_peaks, sosfiltfilt

from tropometer.video.opening import open_file
from tropometer.video.probe import MAX_SECONDS

Array = npt.NDArray[np.float64]

RATE_HZ = 16_000
WINDOW_S = 0.002
LOW_HZ = 1500  # wind and voices lie below
LEAST_OVER_USUAL = 8.0  # times the usual loudness; a strike is 20 and more
MOST = 12
APART_S = 0.35  # played: an echo comes sooner
MOST_SAMPLES = int(RATE_HZ * MAX_SECONDS)  # a sound that outlasts the picture is not heard to its end
MOST_SOURCE_HZ, MOST_CHANNELS = 192_000, 16


@dataclass(frozen=True)
class Strike:
    """A sharp sound, seconds of the file's own time; how far it stands out, 0 to 1."""

    played_s: float
    confidence: float


def hear_strikes(path: Path) -> list[Strike]:
    """The sounds that may be a strike, in order; none where there is no sound or nothing stands out.

    When they are heard, not when they were made: sound comes later than the picture by the camera's
    distance over 343 m/s, 12 ms at 4 m.
    """
    try:
        samples, start_s = _sound(path)
    except FFmpegError:
        return []
    if len(samples) < RATE_HZ // 4:
        return []
    sharp = sosfiltfilt(butter(4, LOW_HZ, "high", fs=RATE_HZ, output="sos"), samples)
    window = int(WINDOW_S * RATE_HZ)
    loud = np.sqrt(np.convolve(sharp**2, np.ones(window) / window, "same"))
    least = LEAST_OVER_USUAL * (float(np.median(loud)) + 1e-6)
    peaks, _ = find_peaks(loud, height=least, distance=round(APART_S * RATE_HZ))
    loudest = sorted(peaks, key=lambda peak: -loud[peak])[:MOST]
    return [
        Strike(start_s + _onset(loud, int(peak)) / RATE_HZ, _standing_out(loud, int(peak), peaks))
        for peak in sorted(loudest)
    ]


def _onset(loud: Array, peak: int) -> int:
    """Where the sound first rises to a third of its peak."""
    before = loud[max(0, peak - RATE_HZ // 50) : peak + 1]
    return peak - len(before) + 1 + int(np.argmax(before > loud[peak] / 3))


def _standing_out(loud: Array, peak: int, peaks: npt.NDArray[np.int_]) -> float:
    """1 less the loudness of the loudest sound that is no peak itself, as a share of this peak's."""
    others = loud.copy()
    for each in peaks:
        others[max(0, each - RATE_HZ // 10) : each + RATE_HZ // 10] = 0
    return round(float(np.clip(1 - others.max() / loud[peak], 0, 1)), 2)


def _sound(path: Path) -> tuple[npt.NDArray[np.float64], float]:
    """One channel of samples, and when the first is heard against the first picture."""
    with open_file(path) as container:
        if not container.streams.audio:
            return np.zeros(0), 0.0
        stream = container.streams.audio[0]
        if stream.rate > MOST_SOURCE_HZ or stream.channels > MOST_CHANNELS:
            return np.zeros(0), 0.0
        resampler = av.AudioResampler(format="flt", layout="mono", rate=RATE_HZ)
        pieces: list[npt.NDArray[np.float32]] = []
        heard = 0
        for frame in container.decode(stream):
            for piece in resampler.resample(frame):
                pieces.append(piece.to_ndarray().ravel().astype(np.float32))
                heard += len(pieces[-1])
            if heard >= MOST_SAMPLES:
                break
        pictures = container.streams.video[0]
        began = float((stream.start_time or 0) * (stream.time_base or 0))
        shown = float((pictures.start_time or 0) * (pictures.time_base or 0))
    return np.concatenate(pieces).astype(float) if pieces else np.zeros(0), began - shown
