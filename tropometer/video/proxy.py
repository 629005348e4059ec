"""The frame-exact proxy: frame N of the original is frame N of an H.264 file, and its time is kept aside.

The proxy has no B-frames and frame N carries presentation time N on a constant time line, so a
decoder can be asked for a frame by number. Rotation is baked in. Every frame is a key frame in clips
short enough for that, so any frame decodes alone.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
import numpy.typing as npt
from av.video.stream import VideoStream

from tropometer.video.movement import MovementMeter
from tropometer.video.opening import NotAClip, check_amount, check_size, judging, open_file
from tropometer.video.probe import MAX_FRAMES, Probe
from tropometer.video.tone import ordinary

PROXY_FPS = 30
ALL_INTRA_FRAMES = 900
GROUP_FRAMES = 8
MAX_PROXY_SIDE_PX = 1920


@dataclass(frozen=True)
class Proxy:
    """What was made: size, and of every frame its played time in seconds from the first and its movement."""

    width: int
    height: int
    played_times_s: list[float]
    movement: list[float]


def make_proxy(
    source: Path,
    target: Path,
    found: Probe,
    progress: Callable[[float], None] = lambda share: None,
    flip: bool = False,
) -> Proxy:
    """Decode every frame of `source` and write the proxy; NotAClip when it breaks on the way.

    `flip` turns a clip round that was filmed in a mirror.
    """
    scale = min(1.0, MAX_PROXY_SIDE_PX / max(found.width, found.height))
    width, height = (2 * round(side * scale / 2) for side in (found.width, found.height))
    expected = max(1.0, found.seconds * found.played_fps)
    times: list[float] = []
    meter = MovementMeter()
    with av.open(str(target), "w", options={"movflags": "+faststart"}) as out:
        stream = proxy_stream(out, width, height, GROUP_FRAMES if expected > ALL_INTRA_FRAMES else 1)
        for number, (picture, time_s) in enumerate(upright_frames(source)):
            if number >= MAX_FRAMES:
                raise NotAClip(f"This video has more than {MAX_FRAMES} frames; cut it down to the swing.")
            check_amount((number + 1) * picture.shape[0] * picture.shape[1])
            if flip:
                picture = np.ascontiguousarray(picture[:, ::-1])
            frame = av.VideoFrame.from_ndarray(picture, format="rgb24")
            frame = frame.reformat(width, height, "yuv420p", interpolation="AREA")
            frame.pts, frame.time_base = number, Fraction(1, PROXY_FPS)
            out.mux(stream.encode(frame))
            times.append(time_s)
            meter.add(picture)
            progress(min(0.99, (number + 1) / expected))
        out.mux(stream.encode(None))
    if len(times) < 2:
        raise NotAClip("This file holds a single picture, not a video.")
    return Proxy(width, height, _rising(times, 1 / found.played_fps), meter.found())


def upright_frames(
    source: Path, wanted: Callable[[float], bool] = lambda time_s: True
) -> Iterator[tuple[npt.NDArray[np.uint8], float]]:
    """Every frame as RGB (h, w, 3), rotation applied, in order of presentation, with its played time.

    Or only those whose time is `wanted`.
    """
    with judging("This video is damaged: it stops in the middle."), open_file(source) as container:
        stream = container.streams.video[0]
        stream.thread_type = "AUTO"
        start: float | None = None
        for frame in container.decode(stream):
            check_size(frame.width, frame.height)  # a stream may change its size on the way
            time_s = float(frame.time or 0.0)
            start = time_s if start is None else start
            if not wanted(time_s - start):
                continue
            quarter_turns = (int(frame.rotation) // 90) % 4
            picture = np.rot90(ordinary(frame), quarter_turns)
            yield np.ascontiguousarray(picture, dtype=np.uint8), time_s - start


def proxy_stream(out: av.container.OutputContainer, width: int, height: int, group: int) -> VideoStream:
    keys = f"keyint={group}:min-keyint={group}:scenecut=0:bframes=0"
    # Decoding one frame decides how quick a jump is: without CABAC and deblocking it takes half as
    # long, for a sixth more bytes.
    options = {"preset": "veryfast", "tune": "fastdecode", "crf": "20", "x264-params": keys}
    stream = out.add_stream("libx264", rate=PROXY_FPS, options=options)
    stream.width, stream.height, stream.pix_fmt = width, height, "yuv420p"
    stream.codec_context.thread_type = "AUTO"
    return stream


def _rising(times: list[float], usual_step: float) -> list[float]:
    """Times that rise strictly from nought, of frames that came in the order in which they are shown.

    A file that stamps its frames in the order in which they were stored (AVI, with B-frames) has the right
    stamps in the wrong order; what is broken still is put one usual step after the frame before.
    """
    earliest = min(times)
    times = sorted(time - earliest for time in times)
    for i in range(1, len(times)):
        if times[i] <= times[i - 1]:
            times[i] = times[i - 1] + usual_step
    return [round(t, 6) for t in times]
