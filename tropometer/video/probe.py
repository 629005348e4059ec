"""Finds out what a file is before anything is done with it."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import av
from av.error import FFmpegError

MAX_SECONDS = 60.0
MAX_FRAMES = 3600
MAX_SIDE_PX = 4096
MIN_SIDE_PX = 64


class NotAClip(ValueError):
    """A file that is refused, with one clear line for the person who sent it."""


@dataclass(frozen=True)
class Probe:
    """An upright video: size after rotation, rotation in degrees counter-clockwise, played rate."""

    width: int
    height: int
    rotation: int
    codec: str
    played_fps: float
    seconds: float


def probe(path: Path) -> Probe:
    """Look at a file by decoding its first frame; NotAClip when it is no video we can measure on."""
    try:
        with av.open(str(path)) as container:
            if not container.streams.video:
                raise NotAClip("This file holds no video.")
            stream = container.streams.video[0]
            frame = next(container.decode(stream), None)
            if frame is None:
                raise NotAClip("This video has no frame that can be read.")
            rotation = int(frame.rotation) % 360
            width, height = frame.width, frame.height
            if rotation % 180:
                width, height = height, width
            seconds = float(container.duration or 0) / av.time_base
            rate = float(stream.average_rate or 0)
            codec = stream.codec_context.name
    except (FFmpegError, EOFError) as error:
        raise NotAClip("This file is not a video, or it is damaged.") from error
    if seconds > MAX_SECONDS or rate * seconds > MAX_FRAMES:
        raise NotAClip(f"This video is longer than {MAX_SECONDS:.0f} s; cut it down to the swing.")
    if max(width, height) > MAX_SIDE_PX or min(width, height) < MIN_SIDE_PX:
        raise NotAClip(f"A picture of {width} x {height} cannot be used ({MIN_SIDE_PX} to {MAX_SIDE_PX}).")
    if rate <= 0:
        raise NotAClip("This file holds a single picture, not a video.")
    return Probe(width, height, rotation, codec, rate, seconds)
