"""Draws a figure of marks that came without a picture, as a proxy: limbs, club and mat on an empty floor."""

from __future__ import annotations

import json
from collections.abc import Callable
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import numpy.typing as npt

from tropometer.video.movement import MovementMeter
from tropometer.video.opening import NotAClip, check_amount
from tropometer.video.probe import MAX_FRAMES
from tropometer.video.proxy import ALL_INTRA_FRAMES, GROUP_FRAMES, PROXY_FPS, Proxy, proxy_stream

Picture = npt.NDArray[np.uint8]
Colour = tuple[int, int, int]

GROUND, FLOOR, MAT = (0x2A, 0x3A, 0x36), (0x3F, 0x52, 0x4B), (0x5C, 0x70, 0x66)
LEAD, TRAIL, MIDDLE, CLUB = (0xF6, 0xF3, 0xEA), (0xB9, 0xC4, 0xBE), (0xD8, 0xDD, 0xD4), (0xE3, 0xC9, 0x8A)
LIMB_PX, JOINT_PX, HEAD_PX, BALL_PX = 5, 5, 26, 5
SHIFT = 4  # places are drawn to a sixteenth of a pixel
FINE = 1 << SHIFT
# Lines between marks, of each side and in the middle; a line is drawn where both its ends are seen.
OF_A_SIDE = (
    ("hip", "knee"), ("knee", "ankle"), ("ankle", "heel"), ("ankle", "toe"), ("heel", "toe"),
    ("shoulder", "elbow"), ("elbow", "wrist"), ("wrist", "@grip"), ("shoulder", "@neck"),
)  # fmt: skip
BETWEEN = (
    ("lead_hip", "trail_hip", MIDDLE), ("lead_shoulder", "trail_shoulder", MIDDLE), ("neck", "head", MIDDLE),
    ("grip_butt", "grip", CLUB), ("grip", "club_head", CLUB),
)  # fmt: skip
SPINE = (("lead_hip", "trail_hip"), ("neck",), ("lead_shoulder", "trail_shoulder"))  # from hips to neck
MOST_SIDE_PX = 1920


def make_figure(source: Path, target: Path, progress: Callable[[float], None] = lambda share: None) -> Proxy:
    """Draw every frame of a figure's file and write the proxy; NotAClip when it makes no sense.

    The file is JSON: `width`, `height`, `rate_hz`, `mat` (corners, pixels) and `marks` (name → for each frame
    [x, y] in pixels, or null).
    """
    figure, marks = _opened(source)
    width, height, rate_hz = figure["width"], figure["height"], figure["rate_hz"]
    count = len(next(iter(marks.values())))
    ground = _ground(width, height, np.array(figure["mat"], float))
    meter = MovementMeter()
    with av.open(str(target), "w", options={"movflags": "+faststart"}) as out:
        stream = proxy_stream(out, width, height, GROUP_FRAMES if count > ALL_INTRA_FRAMES else 1)
        for number in range(count):
            picture = _drawn(ground, {name: places[number] for name, places in marks.items()})
            meter.add(picture)
            frame = av.VideoFrame.from_ndarray(picture, format="rgb24").reformat(format="yuv420p")
            frame.pts, frame.time_base = number, Fraction(1, PROXY_FPS)
            out.mux(stream.encode(frame))
            progress(min(0.99, (number + 1) / count))
        out.mux(stream.encode(None))
    return Proxy(width, height, [round(number / rate_hz, 6) for number in range(count)], meter.found())


def _opened(source: Path) -> tuple[dict[str, Any], dict[str, npt.NDArray[np.float64]]]:
    try:
        figure = json.loads(source.read_text())
        width, height = int(figure["width"]), int(figure["height"])
        blank = [None, None]
        marks = {
            str(name): np.array([blank if place is None else place for place in places], float).reshape(-1, 2)
            for name, places in figure["marks"].items()
        }
        lengths = {len(places) for places in marks.values()}
        sound = np.array(figure["mat"], float).shape == (4, 2) and float(figure["rate_hz"]) > 0
    except (KeyError, TypeError, ValueError) as trouble:
        raise NotAClip(f"This figure makes no sense: {str(trouble)[:80]}") from None
    if not (sound and len(lengths) == 1 and 2 <= min(lengths) <= MAX_FRAMES):
        raise NotAClip("This figure makes no sense: its marks, its mat or its rate.")
    if not (min(width, height) >= 16 and max(width, height) <= MOST_SIDE_PX and width % 2 == height % 2 == 0):
        raise NotAClip(f"This figure is {width} by {height} pixels.")
    check_amount(min(lengths) * width * height)
    return figure, marks


def _ground(width: int, height: int, mat: npt.NDArray[np.float64]) -> Picture:
    picture = np.full((height, width, 3), GROUND, np.uint8)
    horizon = int(mat[:, 1].min()) - height // 40
    picture[max(horizon, 0) :] = FLOOR
    cv2.fillConvexPoly(picture, _fine(mat), MAT, cv2.LINE_AA, SHIFT)
    return picture


def _drawn(ground: Picture, at: dict[str, npt.NDArray[np.float64]]) -> Picture:
    picture = ground.copy()

    def line(a: str | tuple[str, ...], b: str | tuple[str, ...], colour: Colour) -> None:
        start, end = (_middle(at, (each,) if isinstance(each, str) else each) for each in (a, b))
        if np.isfinite([*start, *end]).all():
            ends = _fine(start).tolist(), _fine(end).tolist()
            cv2.line(picture, *ends, colour, LIMB_PX, cv2.LINE_AA, SHIFT)

    neck = next((names for names in SPINE[1:] if np.isfinite(_middle(at, names)).all()), SPINE[1])
    for side, colour in (("trail", TRAIL), ("lead", LEAD)):
        for a, b in OF_A_SIDE:
            line(f"{side}_{a}", b[1:] if b.startswith("@") else f"{side}_{b}", colour)
    line(SPINE[0], neck, MIDDLE)
    for a, b, colour in BETWEEN:
        line(a, b, colour)
    for name, place in at.items():
        if np.isfinite(place).all():
            radius = {"head": HEAD_PX, "ball": BALL_PX}.get(name, JOINT_PX)
            filled = 3 if name == "head" else cv2.FILLED
            colour = TRAIL if name.startswith("trail") else LEAD
            cv2.circle(
                picture, tuple(_fine(place).tolist()), radius * FINE, colour, filled, cv2.LINE_AA, SHIFT
            )
    return picture


def _middle(at: dict[str, npt.NDArray[np.float64]], names: tuple[str, ...]) -> npt.NDArray[np.float64]:
    nowhere = np.full(2, np.nan)
    middle: npt.NDArray[np.float64] = np.mean([at.get(name, nowhere) for name in names], axis=0)
    return middle


def _fine(places: npt.NDArray[np.float64]) -> npt.NDArray[np.int32]:
    return np.round(places * FINE).astype(np.int32)
