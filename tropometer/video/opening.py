"""Opening a foreign file: only formats that phones and editors write, only from the disk, only in bounds."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import av
from av.container import InputContainer
from av.error import FFmpegError

MAX_SIDE_PX = 4096
MIN_SIDE_PX = 64
MAX_PICTURE_PX = 4096 * 2304  # the largest that phones film, either way up
MAX_CLIP_PX = 10_000_000_000  # of all frames together: 40 s of 1080 lines at 120 a second, 20 s of 2160 at 60
# Playlists and concatenation scripts are not among them: they would make the decoder open other files.
FORMATS = "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,avi,mpegts,mpeg,flv,asf,ogg,ivf,h264,hevc"


class NotAClip(ValueError):
    """A file that is refused, with one clear line for the person who sent it."""


def open_file(path: Path) -> InputContainer:
    """A container to read; FFmpegError when it is none of the known formats."""
    limits = {"format_whitelist": FORMATS, "protocol_whitelist": "file", "enable_drefs": "0"}
    return av.open(str(path), options=limits)


@contextmanager
def judging(words: str) -> Iterator[None]:
    """Refuses a file with `words` when the decoder cannot make sense of it.

    What the machine could not do, for want of memory, of room on the disk or of the file, passes through: it
    says nothing about the file.
    """
    try:
        yield
    except (FFmpegError, EOFError) as error:
        if isinstance(error, OSError | MemoryError):
            raise
        raise NotAClip(words) from error


def check_size(width: int, height: int) -> None:
    """NotAClip when a picture is too small to measure on, or so large that it is meant to do harm."""
    if max(width, height) > MAX_SIDE_PX or min(width, height) < MIN_SIDE_PX:
        raise NotAClip(f"A picture of {width} x {height} cannot be used ({MIN_SIDE_PX} to {MAX_SIDE_PX}).")
    if width * height > MAX_PICTURE_PX:
        raise NotAClip(f"A picture of {width} x {height} is too large; film at 1080 or 2160 lines.")


def check_amount(pixels: float) -> None:
    """NotAClip when all frames together hold more pixels than a swing needs."""
    if pixels > MAX_CLIP_PX:
        raise NotAClip(
            "This video is too much to work through; cut it down to the swing, or film at 1080 lines."
        )
