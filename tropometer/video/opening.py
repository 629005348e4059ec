"""Opening a foreign file: only formats that phones and editors write, only from the disk, only in bounds."""

from __future__ import annotations

from pathlib import Path

import av
from av.container import InputContainer

MAX_SIDE_PX = 4096
MIN_SIDE_PX = 64
# Playlists and concatenation scripts are not among them: they would make the decoder open other files.
FORMATS = "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,avi,mpegts,mpeg,flv,asf,ogg,ivf,h264,hevc"


class NotAClip(ValueError):
    """A file that is refused, with one clear line for the person who sent it."""


def open_file(path: Path) -> InputContainer:
    """A container to read; FFmpegError when it is none of the known formats."""
    limits = {"format_whitelist": FORMATS, "protocol_whitelist": "file", "enable_drefs": "0"}
    return av.open(str(path), options=limits)


def check_size(width: int, height: int) -> None:
    """NotAClip when a picture is too small to measure on, or so large that it is meant to do harm."""
    if max(width, height) > MAX_SIDE_PX or min(width, height) < MIN_SIDE_PX:
        raise NotAClip(f"A picture of {width} x {height} cannot be used ({MIN_SIDE_PX} to {MAX_SIDE_PX}).")
