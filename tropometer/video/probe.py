"""Finds out what a file is before anything is done with it."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import av

from tropometer.video.opening import NotAClip, check_amount, check_size, judging, open_file

MAX_SECONDS = 60.0
MAX_FRAMES = 3600
# How phones write down that a file runs slower than it was shot.
CAPTURE_TAGS = ("com.android.capture.fps", "com.apple.quicktime.capture-fps")


@dataclass(frozen=True)
class Probe:
    """An upright video: size after rotation, rotation in degrees counter-clockwise, played rate.

    `capture_fps` is what the file itself says of the rate it was shot at, if that is not the played one.
    """

    width: int
    height: int
    rotation: int
    codec: str
    played_fps: float
    seconds: float
    capture_fps: float | None = None


def probe(path: Path) -> Probe:
    """Look at a file by decoding its first frame; NotAClip when it is no video we can measure on."""
    with judging("This file is not a video, or it is damaged."), open_file(path) as container:
        if not container.streams.video:
            raise NotAClip("This file holds no video.")
        stream = container.streams.video[0]
        check_size(stream.codec_context.width, stream.codec_context.height)  # before any picture is made
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
        tags = {**container.metadata, **stream.metadata}
    if seconds > MAX_SECONDS or rate * seconds > MAX_FRAMES:
        raise NotAClip(f"This video is longer than {MAX_SECONDS:.0f} s; cut it down to the swing.")
    check_size(width, height)
    check_amount(width * height * rate * seconds)
    if rate <= 0:
        raise NotAClip("This file holds a single picture, not a video.")
    return Probe(width, height, rotation, codec, rate, seconds, _capture_rate(tags, rate))


def _capture_rate(tags: dict[str, str], played: float) -> float | None:
    """What the tags say of the rate it was shot at; None where they say nothing new or nothing sane."""
    for tag in CAPTURE_TAGS:
        try:
            rate = float(tags.get(tag, ""))
        except ValueError:
            continue
        if 1 < rate <= 2000 and abs(rate / played - 1) > 0.05:
            return rate
    return None
