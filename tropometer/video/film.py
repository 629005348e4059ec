"""A walk as a film: filmed frames by number on its stages, what was drawn laid over them, and the voice."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import numpy.typing as npt
import resvg_py
from av.video.reformatter import Colorspace

from tropometer.video.proxy import PROXY_FPS

Picture = npt.NDArray[np.uint8]

ENCODING = {"crf": "23", "preset": "veryfast", "tune": "animation"}
BT_709 = 1  # of ITU-T H.273
GROUND = (0x10, 0x20, 0x1D)  # dusk, where no picture is
STYLE = "text{font-family:'Bricolage Grotesque'} .num{font-family:'JetBrains Mono'}"


class NumberedFrames:
    """Frames of a proxy by number; one after the other is cheap."""

    def __init__(self, proxy: Path) -> None:
        self._container = av.open(str(proxy))
        self._stream = self._container.streams.video[0]
        assert self._stream.time_base is not None
        self._per_frame = 1 / (PROXY_FPS * self._stream.time_base)
        self._frames: Iterator[av.VideoFrame] = iter(())
        self._at, self._picture = -1, np.zeros((2, 2, 3), np.uint8)

    def picture(self, number: int) -> Picture:
        """Frame `number`, RGB; IndexError where there is none."""
        if number == self._at:
            return self._picture
        if number != self._at + 1 or self._at < 0:
            self._container.seek(round(number * self._per_frame), stream=self._stream)
            self._frames = self._container.decode(self._stream)
        for frame in self._frames:
            if frame.pts is not None and round(frame.pts / self._per_frame) == number:
                self._at = number
                self._picture = np.ascontiguousarray(frame.to_ndarray(format="rgb24"), np.uint8)
                return self._picture
        raise IndexError(number)


def make_film(
    plan: Path,
    clips: dict[str, Path],
    fonts: list[str],
    voice: Path,
    target: Path,
    progress: Callable[[float], None],
) -> int:
    """Write the film of a plan, and return how many pictures it has.

    Each line of `plan` is one picture: its `stages` (clip, frame, left, size, view) and the SVG that lies
    over them, null for the one before; the first line says `width`, `height`, `fps` and how many `pictures`
    follow.
    """
    frames = {id: NumberedFrames(path) for id, path in clips.items()}
    with (
        plan.open() as lines,
        av.open(str(target), "w", format="mp4", options={"movflags": "+faststart"}) as out,
    ):
        head = json.loads(next(lines))
        width, height, count, fps = head["width"], head["height"], head["pictures"], head["fps"]
        stream = out.add_stream("libx264", rate=fps, options=ENCODING)
        stream.width, stream.height, stream.pix_fmt = width, height, "yuv420p"
        codec: Any = stream.codec_context
        codec.colorspace = codec.color_primaries = codec.color_trc = BT_709
        codec.color_range = 1
        spoken = av.open(str(voice))
        sound = out.add_stream_from_template(spoken.streams.audio[0])
        packets = iter(spoken.demux(spoken.streams.audio[0]))
        ahead = next(packets, None)
        over, whole, before = Overlay(width, height, fonts), np.zeros((height, width, 3), np.uint8), None
        for number, line in enumerate(lines):
            asked = json.loads(line)
            if asked["svg"] is not None:
                over.lay(asked["svg"])
            if asked["svg"] is not None or asked["stages"] != before:
                whole[:] = GROUND
                for stage in asked["stages"]:
                    _stage(whole, frames[stage["clip"]].picture(stage["frame"]), stage)
                over.over(whole)
                before = asked["stages"]
            frame = av.VideoFrame.from_ndarray(whole, format="rgb24")
            frame = frame.reformat(width, height, "yuv420p", dst_colorspace=Colorspace.ITU709)
            frame.pts, frame.time_base = number, Fraction(1, fps)
            out.mux(stream.encode(frame))
            while ahead is not None and ahead.pts is not None and _seconds(ahead) <= number / fps:
                ahead.stream = sound
                out.mux(ahead)
                ahead = next(packets, None)
            progress((number + 1) / max(count, 1))
        out.mux(stream.encode(None))
        while ahead is not None and ahead.pts is not None:
            ahead.stream = sound
            out.mux(ahead)
            ahead = next(packets, None)
    return number + 1


def _seconds(packet: Any) -> float:
    return float(packet.pts * packet.time_base)


def _stage(whole: Picture, picture: Picture, stage: dict[str, Any]) -> None:
    """Lay a frame on its stage as its view shows it."""
    view, (width, height) = stage["view"], (round(stage["size"]["width"]), round(stage["size"]["height"]))
    side, scale = (-1 if view["mirrored"] else 1), view["scale"]
    # A picture's pixel covers from its number to the next: its middle is half a pixel further.
    across = width / 2 - side * view["cx"] * scale + (side * scale - 1) / 2
    down = height / 2 - view["cy"] * scale + (scale - 1) / 2
    matrix = np.array([[side * scale, 0, across], [0, scale, down]])
    how = cv2.INTER_AREA if scale < 1 else cv2.INTER_LINEAR
    left = round(stage["left"])
    laid = cv2.warpAffine(picture, matrix, (width, height), flags=how, borderValue=GROUND)
    whole[:height, left : left + width] = laid[:, : whole.shape[1] - left]


class Overlay:
    """What is drawn over the stages, as it was drawn last."""

    def __init__(self, width: int, height: int, fonts: list[str]) -> None:
        self._fonts = fonts
        self._light = np.zeros((height, width, 3), np.uint16)
        self._through = np.full((height, width, 1), 255, np.uint16)

    def lay(self, svg: str) -> None:
        """Draw an SVG in place of the one before."""
        png = resvg_py.svg_to_bytes(
            svg_string=svg, font_files=self._fonts, skip_system_fonts=True, style_sheet=STYLE
        )
        drawn = cv2.imdecode(np.frombuffer(bytes(png), np.uint8), cv2.IMREAD_UNCHANGED)
        assert drawn is not None
        alpha = drawn[:, :, 3:].astype(np.uint16)
        self._light = drawn[:, :, 2::-1].astype(np.uint16) * alpha
        self._through = 255 - alpha

    def over(self, picture: Picture) -> None:
        """Lay it over a picture (RGB), in place."""
        picture[:] = (picture * self._through + self._light + 127) // 255
