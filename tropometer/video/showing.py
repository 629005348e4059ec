"""Pictures and short clips that are shown, not measured: proven by drawing them anew, smaller and silent."""

from __future__ import annotations

from fractions import Fraction
from pathlib import Path
from typing import Any, Literal

import av
import cv2
import numpy as np
import numpy.typing as npt
from av.error import FFmpegError
from av.video.reformatter import Colorspace

from tropometer.video.opening import NotAClip, check_amount, check_size, judging
from tropometer.video.proxy import upright_frames
from tropometer.video.tone import ordinary

Kind = Literal["picture", "clip"]
PICTURES = "jpeg_pipe,png_pipe,webp_pipe"
LONGEST_S = 12.0
SIDE_PX = {"picture": 1024, "clip": 720}
PICTURE_QUALITY = 86
CLIP_FPS = 30
BT_709 = 1  # of ITU-T H.273, for primaries, transfer and matrix
ENCODING = {"crf": "24", "preset": "medium"}


def make_shown(source: Path, target: Path) -> Kind:
    """Write a picture as WebP, or a clip as a silent MP4, into `target`; NotAClip when it is neither."""
    picture = _picture(source)
    if picture is not None:
        _, encoded = cv2.imencode(".webp", picture[:, :, ::-1], [cv2.IMWRITE_WEBP_QUALITY, PICTURE_QUALITY])
        target.write_bytes(encoded.tobytes())
        return "picture"
    _clip(source, target)
    return "clip"


def _picture(source: Path) -> npt.NDArray[np.uint8] | None:
    """The picture in a file, upright, RGB; None where the file is none."""
    limits = {"format_whitelist": PICTURES, "protocol_whitelist": "file"}
    try:
        opened = av.open(str(source), options=limits)
    except FFmpegError as error:
        if isinstance(error, OSError | MemoryError) and not isinstance(error, ValueError):
            raise
        return None
    with judging("This picture is damaged."), opened as container:
        told = container.streams.video[0]
        check_size(told.width, told.height)  # before it is unpacked
        frame = next(container.decode(video=0), None)
        if frame is None:
            raise NotAClip("This picture is empty.")
        check_size(frame.width, frame.height)
        upright = np.rot90(ordinary(frame), (int(frame.rotation) // 90) % 4)
        return _smaller(np.ascontiguousarray(upright, dtype=np.uint8), SIDE_PX["picture"])


def _clip(source: Path, target: Path) -> None:
    last = -1
    with av.open(str(target), "w", format="mp4", options={"movflags": "+faststart"}) as out:
        stream = out.add_stream("libx264", rate=CLIP_FPS, options=ENCODING)
        stream.pix_fmt = "yuv420p"
        codec: Any = stream.codec_context
        codec.colorspace = codec.color_primaries = codec.color_trc = BT_709
        codec.color_range = 1  # limited, as that standard has it
        for number, (picture, time_s) in enumerate(upright_frames(source)):
            check_amount((number + 1) * picture.shape[0] * picture.shape[1])
            if time_s > LONGEST_S:
                raise NotAClip(f"This clip is longer than {LONGEST_S:.0f} s; cut it down to the drill.")
            at = max(0, round(time_s * CLIP_FPS))
            if at <= last:  # faster than it is shown
                continue
            shown = _even(_smaller(picture, SIDE_PX["clip"]))
            if last < 0:
                stream.height, stream.width = shown.shape[:2]
            frame = av.VideoFrame.from_ndarray(shown, format="rgb24")
            size = (stream.width, stream.height)  # a stream may change its own on the way
            frame = frame.reformat(*size, "yuv420p", dst_colorspace=Colorspace.ITU709)
            frame.pts, frame.time_base = at, Fraction(1, CLIP_FPS)
            out.mux(stream.encode(frame))
            last = at
        if last < 1:
            raise NotAClip("This file holds no moving picture.")
        out.mux(stream.encode(None))


def _smaller(picture: npt.NDArray[np.uint8], side: int) -> npt.NDArray[np.uint8]:
    scale = side / max(picture.shape[:2])
    if scale >= 1:
        return picture
    size = (max(1, round(picture.shape[1] * scale)), max(1, round(picture.shape[0] * scale)))
    return np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA), np.uint8)


def _even(picture: npt.NDArray[np.uint8]) -> npt.NDArray[np.uint8]:
    """Without the last row or column where their number is odd: the codec wants pairs."""
    height, width = (side // 2 * 2 for side in picture.shape[:2])
    return np.ascontiguousarray(picture[:height, :width])
