"""Demo clips as worse phones, worse light and worse places would have filmed them, with their truths."""

from __future__ import annotations

import io
from collections.abc import Callable
from copy import deepcopy
from typing import Any

import av
import cv2
import numpy as np
import numpy.typing as npt

from tropometer.golfer.cast import Take

Picture = npt.NDArray[np.uint8]
Spoilt = tuple[list[Picture], dict[str, Any]]
Spoil = Callable[[list[Picture], dict[str, Any]], Spoilt]

DARK, GRAIN = 0.28, 14.0  # share of the light, grey levels of noise
SLOW_SHUTTER = 1  # frames to either side that one of a clip at 60 a second runs into
ROLLED = 0.5  # share of a frame's time in which its rows are read
COARSE_CRF = "40"
BARREL = -0.22  # of an ultra-wide lens, as the first radial term about the picture's middle
NET_PX, CLUTTER = 26, 60
SEED = 5


def long_shutter(pictures: list[Picture], known: dict[str, Any]) -> Spoilt:
    """The shutter stays open for two frames: what goes fast is smeared along its way."""
    stack = np.array(pictures, np.float32)
    padded = np.concatenate([stack[:1], stack, stack[-1:]])
    smeared = (0.5 * padded[:-2] + padded[1:-1] + 0.5 * padded[2:]) / 2
    return list(np.rint(smeared).astype(np.uint8)), known


def low_light(pictures: list[Picture], known: dict[str, Any]) -> Spoilt:
    """A third of the light, and the grain that comes with it."""
    random = np.random.default_rng(SEED)
    dark = []
    for picture in pictures:
        noise = random.normal(0, GRAIN, picture.shape[:2])[:, :, None]
        dark.append(np.clip(picture * DARK + noise, 0, 255).astype(np.uint8))
    return dark, known


def coarse(pictures: list[Picture], known: dict[str, Any]) -> Spoilt:
    """As a messenger sends it: H.264 at crf 40."""
    file = io.BytesIO()
    height, width = pictures[0].shape[:2]
    with av.open(file, "w", format="mp4") as out:
        stream = out.add_stream("libx264", rate=30)
        stream.width, stream.height, stream.pix_fmt = width, height, "yuv420p"
        stream.options = {"crf": COARSE_CRF, "preset": "veryfast"}
        for picture in pictures:
            out.mux(stream.encode(av.VideoFrame.from_ndarray(picture, format="rgb24")))
        out.mux(stream.encode())
    file.seek(0)
    with av.open(file, "r") as back:
        return [frame.to_ndarray(format="rgb24") for frame in back.decode(video=0)], known


def rolling_30(pictures: list[Picture], known: dict[str, Any]) -> Spoilt:
    """A clip at 240 a second as one at 30 whose rows are read one after the other; the truth of each row."""
    every = 8
    height = pictures[0].shape[0]
    later = np.rint(np.arange(height) / height * ROLLED * every).astype(int)
    firsts = range(0, len(pictures) - every, every)
    stack = np.array(pictures)
    rolled = [stack[first + later, np.arange(height)] for first in firsts]
    spoilt = deepcopy(known)
    spoilt["times_s"]["frames"] = [known["times_s"]["frames"][first] for first in firsts]
    spoilt["checkpoints"] = {
        at: int(np.clip(round(frame / every), 0, len(rolled) - 1))
        for at, frame in known["checkpoints"].items()
    }
    for name, rows in known["pixels"].items():
        places = np.array(rows)
        rows_at = np.clip(places[firsts, 1], 0, height - 1).astype(int)
        spoilt["pixels"][name] = places[np.array(firsts) + later[rows_at]].tolist()
    return rolled, spoilt


def wide_lens(pictures: list[Picture], known: dict[str, Any]) -> Spoilt:
    """An ultra-wide lens bends what is straight; the marks bend with it."""
    height, width = pictures[0].shape[:2]
    middle, scale = np.array([width / 2, height / 2]), max(width, height) / 2

    def bent(places: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
        off = (places - middle) / scale
        return middle + off * (1 + BARREL * np.sum(off**2, axis=-1, keepdims=True)) * scale

    # Where each pixel of the bent picture comes from: the same map turned round by steps.
    ys, xs = np.mgrid[0:height, 0:width]
    wanted = np.stack([xs, ys], axis=-1) + 0.5
    source = wanted.copy()
    for _ in range(8):
        source += wanted - bent(source)
    at = (source - 0.5).astype(np.float32)
    out = [cv2.remap(picture, at[..., 0], at[..., 1], cv2.INTER_LINEAR) for picture in pictures]
    spoilt = deepcopy(known)
    for name, rows in known["pixels"].items():
        spoilt["pixels"][name] = bent(np.array(rows, float)).tolist()
    return [np.asarray(each, np.uint8) for each in out], spoilt


def indoor_bay(pictures: list[Picture], known: dict[str, Any]) -> Spoilt:
    """A net before the player, and things behind that stand about everywhere but where the player is."""
    random = np.random.default_rng(SEED)
    height, width = pictures[0].shape[:2]
    changes = np.ptp(np.array(pictures[::6], np.int16), axis=0).max(axis=2) > 40
    players = np.array(list(known["pixels"].values()), float).reshape(-1, 2)
    left, right = np.nanpercentile(players[:, 0], [1, 99])
    behind = pictures[0].copy()
    for _ in range(CLUTTER):
        x, y = int(random.integers(0, width)), int(random.integers(0, height * 0.75))
        size = random.integers(20, 110, 2)
        colour = tuple(int(each) for each in random.integers(20, 235, 3))
        cv2.rectangle(behind, (x, y), (x + int(size[0]), y + int(size[1])), colour, -1)
    still = np.ones((height, width), bool)
    still[:, int(max(left - 40, 0)) : int(right + 40)] = False
    still &= ~changes
    out = []
    for picture in pictures:
        bay = np.where(still[..., None], behind, picture)
        bay[::NET_PX] = (bay[::NET_PX] * 0.6).astype(np.uint8)
        bay[:, ::NET_PX] = (bay[:, ::NET_PX] * 0.6).astype(np.uint8)
        out.append(np.ascontiguousarray(bay, np.uint8))
    return out, known


WAYS: dict[str, Spoil] = {
    "as it is": lambda pictures, known: (pictures, known),
    "long shutter": long_shutter,
    "low light": low_light,
    "crf 40": coarse,
    "wide lens": wide_lens,
    "indoor bay": indoor_bay,
}


def ways_for(take: Take) -> dict[str, Spoil]:
    """How a take's clip can be spoilt: rows one after the other only where there are frames enough."""
    fast = take.recording.capture_fps >= 240
    return {"as it is": WAYS["as it is"], "30/s rolling": rolling_30} if fast else WAYS
