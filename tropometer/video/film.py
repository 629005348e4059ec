"""A walk as a film: filmed frames by number on its stages, what was drawn laid over them, and the voice."""

from __future__ import annotations

import json
from collections import deque
from collections.abc import Callable, Iterable, Iterator
from concurrent.futures import Future, ProcessPoolExecutor
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import numpy.typing as npt
import resvg_py
from av.video.reformatter import Colorspace

from tropometer.video.parent import die_with_parent
from tropometer.video.proxy import PROXY_FPS

Picture = npt.NDArray[np.uint8]

ENCODING = {"crf": "23", "preset": "veryfast", "tune": "animation"}
BT_709 = 1  # of ITU-T H.273
GROUND = (0x10, 0x20, 0x1D)  # dusk, where no picture is
HANDS = 2  # that draw what lies over the pictures to come, which takes longer than all the rest
AHEAD = 12  # pictures
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

    Each line of `plan` is one picture: its `stages` (clip, frame, left, size, view) and the `layers` that lie
    over them (name, left, top, SVG), an SVG null where that layer is as it was; the first line says `width`,
    `height`, `fps` and how many `pictures` follow.
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
        layers: dict[str, Layer] = {}
        whole, before = np.zeros((height, width, 3), np.uint8), None
        for number, (asked, drawn) in enumerate(_drawn_ahead(lines, fonts)):
            layers |= {name: Layer(*each.result()) for name, each in drawn.items()}
            places = [(layer["name"], layer["left"], layer["top"]) for layer in asked["layers"]]
            if drawn or (asked["stages"], places) != before:
                whole[:] = GROUND
                for stage in asked["stages"]:
                    _stage(whole, frames[stage["clip"]].picture(stage["frame"]), stage)
                for name, left, top in places:
                    layers[name].lay_over(whole, round(left), round(top))
                before = (asked["stages"], places)
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


Drawn = tuple[npt.NDArray[np.uint8], int, int]


def _drawn_ahead(
    lines: Iterable[str], fonts: list[str]
) -> Iterator[tuple[dict[str, Any], dict[str, Future[Drawn]]]]:
    """Each picture of a plan with those of its layers that are drawn anew."""
    with ProcessPoolExecutor(HANDS, initializer=die_with_parent) as hands:
        ahead: deque[tuple[dict[str, Any], dict[str, Future[Drawn]]]] = deque()
        for line in lines:
            asked = json.loads(line)
            new = {layer["name"]: layer["svg"] for layer in asked["layers"] if layer["svg"] is not None}
            ahead.append((asked, {name: hands.submit(_draw, svg, fonts) for name, svg in new.items()}))
            if len(ahead) > AHEAD:
                yield ahead.popleft()
        yield from ahead


def _draw(svg: str, fonts: list[str]) -> Drawn:
    """An SVG as a picture (RGBA), cut down to where anything is drawn, and where its corner lies."""
    png = resvg_py.svg_to_bytes(svg_string=svg, font_files=fonts, skip_system_fonts=True, style_sheet=STYLE)
    drawn = cv2.imdecode(np.frombuffer(bytes(png), np.uint8), cv2.IMREAD_UNCHANGED)
    assert drawn is not None
    left, top, width, height = cv2.boundingRect(np.ascontiguousarray(drawn[:, :, 3]))
    cut = drawn[top : top + height, left : left + width, [2, 1, 0, 3]]
    return np.ascontiguousarray(cut, np.uint8), left, top


class Layer:
    """A part of what lies over the stages, as it was drawn last."""

    def __init__(self, drawn: npt.NDArray[np.uint8], left: int, top: int) -> None:
        self._left, self._top = left, top
        alpha = np.repeat(drawn[:, :, 3:], 3, axis=2).astype(np.uint16)
        self._light = drawn[:, :, :3] * alpha + 127
        self._through = 255 - alpha

    def lay_over(self, picture: Picture, left: int, top: int) -> None:
        """Lay it over a picture (RGB), in place, its corner at (left, top)."""
        left, top = left + self._left, top + self._top
        height, width = self._through.shape[:2]
        part = picture[top : top + height, left : left + width]
        light, through = (each[: part.shape[0], : part.shape[1]] for each in (self._light, self._through))
        part[:] = (part * through + light) // 255
