"""How a phone writes what it saw: codecs, rates, rotation, uneven frames, and a sound with the strike."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path
from typing import Any, Literal

import av
import numpy as np
import numpy.typing as npt

from tropometer.golfer.renderer import Picture

Codec = Literal["libx264", "libx265"]
CLOCK = Fraction(1, 90_000)  # of a clip with uneven frames, and of every other
SOUND_HZ = 44_100
UNEVEN_S = np.array([0.0, 0.0018, -0.0012, 0.0021])  # what phones do to a frame's time when they are busy
STRIKE_S = 0.004
ENCODER: dict[Codec, dict[str, str]] = {
    "libx264": {"crf": "20", "preset": "medium", "bf": "2", "g": "60"},
    "libx265": {"crf": "23", "preset": "medium", "g": "60", "x265-params": "log-level=none"},
}


@dataclass(frozen=True)
class Recording:
    """What the file is like. Rotation is how far a player must turn the stored picture to show it upright."""

    codec: Codec = "libx264"
    container: Literal["mp4", "mov"] = "mp4"
    capture_fps: int = 60
    played_fps: int = 60
    rotation: Literal[0, 90, 180, 270] = 0
    variable_rate: bool = False
    sound: bool = True

    def captured_s(self, count: int) -> npt.NDArray[np.float64]:
        """Real time of each frame from the first."""
        times = np.arange(count) / self.capture_fps
        if self.variable_rate:
            times = times + UNEVEN_S[np.arange(count) % len(UNEVEN_S)]
        return times

    def played_s(self, count: int) -> npt.NDArray[np.float64]:
        """Time of each frame when the file is played."""
        return self.captured_s(count) * self.capture_fps / self.played_fps


def write(
    path: Path, pictures: Iterable[Picture], count: int, recording: Recording, heard_s: Sequence[float]
) -> None:
    """Write `count` pictures as a clip; `heard_s`: when hits are heard, real seconds from the first frame."""
    played = recording.played_s(count)
    turns = recording.rotation // 90
    with av.open(str(path), "w") as out:
        video: Any = out.add_stream(
            recording.codec, rate=recording.played_fps, options=ENCODER[recording.codec]
        )
        video.pix_fmt = "yuv420p"
        video.time_base = video.codec_context.time_base = CLOCK
        if recording.codec == "libx265":
            video.codec_context.codec_tag = "hvc1"
        if turns:
            video.set_display_rotation(recording.rotation)
        audio: Any = out.add_stream("aac", rate=SOUND_HZ) if recording.sound else None
        for number, picture in enumerate(pictures):
            stored = np.ascontiguousarray(np.rot90(picture, -turns))
            if number == 0:
                video.height, video.width = stored.shape[:2]
                if audio is not None:  # before the first packet: the container wants all its streams by then
                    slow = recording.capture_fps / recording.played_fps
                    _write_sound(out, audio, float(played[-1]), [heard * slow for heard in heard_s])
            frame = av.VideoFrame.from_ndarray(stored, format="rgb24")
            frame.pts, frame.time_base = round(played[number] / CLOCK), CLOCK
            out.mux(video.encode(frame))
        out.mux(video.encode(None))


def _write_sound(out: Any, stream: Any, seconds: float, heard_s: Sequence[float]) -> None:
    """Wind, and a short click for every ball that is struck."""
    stream.layout = "mono"
    clock = np.arange(round(seconds * SOUND_HZ)) / SOUND_HZ
    dice = np.random.default_rng(11)
    wind = np.convolve(dice.normal(0, 0.02, len(clock)), np.ones(60) / 60, "same")
    samples = wind
    for heard in heard_s:
        since = clock - heard
        fading = np.where(since >= 0, np.exp(-np.maximum(since, 0) / STRIKE_S), 0)
        samples = samples + fading * dice.normal(0, 0.5, len(clock))
    samples = np.clip(samples, -1, 1).astype(np.float32)
    size = stream.codec_context.frame_size or 1024
    for start in range(0, len(samples), size):
        frame = av.AudioFrame.from_ndarray(samples[None, start : start + size], format="fltp", layout="mono")
        frame.sample_rate, frame.pts = SOUND_HZ, start
        out.mux(stream.encode(frame))
    out.mux(stream.encode(None))
