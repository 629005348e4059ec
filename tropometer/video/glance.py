"""A quick look at a swing while somebody waits: at fewer frames, about its strike, straight off the file.

A look at every frame, once the proxy is there, follows it and goes before it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import cv2
import numpy as np

from tropometer.video.landmarks import LandmarkFinder, Picture
from tropometer.video.movement import MovementMeter
from tropometer.video.opening import NotAClip
from tropometer.video.player import bodies_of_player, save
from tropometer.video.proxy import upright_frames

BEFORE_S, AFTER_S = 1.8, 0.9  # address to finish of a full swing, about its strike
FRAMES_A_SECOND = 30
THREADS = 2  # somebody waits; all else in the room takes one
MOST_SIDE_PX = 1280  # the network looks at 256 pixels of it


@dataclass(frozen=True)
class Glance:
    """The size of the pictures that were looked at."""

    width: int
    height: int


def save_glance(
    source: Path, target: Path, models: Path, struck_s: float, progress: Callable[[float], None]
) -> Glance:
    """Write what `player.save` writes, and `times_s` (n,) and `movement` (n,), of frames about the strike.

    `struck_s` is played time from the first picture. Raises NotAClip where hardly a picture lies about it.
    """
    step_s = 0.9 / FRAMES_A_SECOND  # a camera's own steps are not quite even
    last_s = -np.inf

    def wanted(time_s: float) -> bool:
        nonlocal last_s
        near = -BEFORE_S <= time_s - struck_s <= AFTER_S and time_s - last_s >= step_s
        last_s = time_s if near else last_s
        return near

    pictures: list[Picture] = []
    times: list[float] = []
    meter = MovementMeter()
    for picture, time_s in upright_frames(source, wanted):
        meter.add(picture)
        pictures.append(_small(picture))
        times.append(time_s)
    if len(pictures) < FRAMES_A_SECOND / 2:
        raise NotAClip("There is hardly a picture about the strike.")
    bodies = bodies_of_player(
        LandmarkFinder(models, threads=THREADS),
        lambda: iter(pictures),
        lambda done: progress(done / len(pictures)),
    )
    save(bodies, target, times_s=np.array(times), movement=np.array(meter.found()))
    height, width = pictures[0].shape[:2]
    return Glance(width, height)


def _small(picture: Picture) -> Picture:
    scale = MOST_SIDE_PX / max(picture.shape[:2])
    if scale >= 1:
        return picture
    size = (round(picture.shape[1] * scale), round(picture.shape[0] * scale))
    return np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA), np.uint8)
