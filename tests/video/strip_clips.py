"""Clips whose every frame says its own number, in the formats phones make."""

from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import numpy.typing as npt

from tests.swings import DEMO_CLIPS
from tropometer.golfer import strip
from tropometer.video.proxy import upright_frames

SIZE = (640, 360)
FORMATS: dict[str, dict[str, Any]] = {
    "h264_b_frames.mp4": {"codec": "libx264", "options": {"bf": "3", "g": "40", "preset": "veryfast"}},
    # This container keeps no times: they come in the order in which the frames were stored.
    "stamped_as_stored.avi": {"codec": "libx264", "options": {"bf": "3", "preset": "veryfast"}},
    "hevc.mov": {
        "codec": "libx265",
        "options": {"preset": "ultrafast", "x265-params": "log-level=none:bframes=3:keyint=40"},
    },
    "rotated.mp4": {"codec": "libx264", "options": {"bf": "2", "preset": "veryfast"}, "rotation": 90},
    "vp9.webm": {"codec": "libvpx-vp9", "options": {"deadline": "realtime", "cpu-used": "8"}},
    "variable_rate.mp4": {"codec": "libx264", "options": {"preset": "veryfast"}, "uneven": True},
    "odd_size.webm": {
        "codec": "libvpx-vp9",
        "options": {"deadline": "realtime", "cpu-used": "8"},
        "size": (641, 361),
    },
    "hevc_10_bit.mov": {
        "codec": "libx265",
        "options": {"preset": "ultrafast", "x265-params": "log-level=none:bframes=2"},
        "pix_fmt": "yuv420p10le",
    },
    # Cut without encoding anew, as phones do: the first frames are in the file and must not be shown.
    "edit_list.mp4": {
        "codec": "libx264",
        "options": {"bf": "2", "g": "40", "preset": "veryfast"},
        "hidden": 10,
    },
}


def first_number(name: str) -> int:
    """The number on the first frame that a format shows."""
    hidden: int = FORMATS[name].get("hidden", 0)
    return hidden


def numbered_frames(count: int) -> list[npt.NDArray[np.uint8]]:
    """The first frames of a demo clip, small, each with its number painted in."""
    frames = []
    for number, (picture, _) in enumerate(upright_frames(DEMO_CLIPS / "tobin_first_face.mp4")):
        if number >= count:
            break
        small = np.ascontiguousarray(cv2.resize(picture, SIZE, interpolation=cv2.INTER_AREA), dtype=np.uint8)
        strip.paint(small, number)
        frames.append(small)
    return frames


def uneven_ms(number: int) -> int:
    """Presentation time of a frame in a clip of variable rate, milliseconds."""
    return number * 16 + (number % 3) * 4


def write(folder: Path, name: str, frames: list[npt.NDArray[np.uint8]]) -> Path:
    """Write the frames as the named format."""
    about = FORMATS[name]
    path = folder / name
    turns = about.get("rotation", 0) // 90
    cut = {"avoid_negative_ts": "disabled", "use_editlist": "1"} if about.get("hidden") else {}
    with av.open(str(path), "w", options=cut) as out:
        stream: Any = out.add_stream(about["codec"], rate=60, options=about["options"])
        if "size" in about:
            frames = [np.asarray(cv2.resize(frame, about["size"]), np.uint8) for frame in frames]
        stored = [np.ascontiguousarray(np.rot90(frame, -turns)) for frame in frames]
        stream.height, stream.width = stored[0].shape[:2]
        stream.pix_fmt = about.get("pix_fmt", "yuv420p")
        if turns:
            stream.set_display_rotation(about["rotation"])
        if about.get("uneven"):
            stream.time_base = stream.codec_context.time_base = Fraction(1, 1000)
        for number, picture in enumerate(stored):
            frame = av.VideoFrame.from_ndarray(picture, format="rgb24")
            frame.pts = uneven_ms(number) if about.get("uneven") else number - first_number(name)
            frame.time_base = Fraction(1, 1000) if about.get("uneven") else Fraction(1, 60)
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    return path
