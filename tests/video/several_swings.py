"""A clip as range cameras make them: a swing, a practice swing without a ball, one more swing."""

from dataclasses import dataclass
from pathlib import Path

import cv2
import numpy as np
import numpy.typing as npt

from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.formats import Recording, write
from tropometer.video.proxy import upright_frames

SIZE = (640, 360)
FPS = 60
STILL_S = 1.2
FADE_S = 0.5
SWINGS = ("tobin_first_face", "model_loaded_face", "tobin_month_face")
STRUCK = (True, False, True)


@dataclass(frozen=True)
class SeveralSwings:
    """The file, and the frames of address and impact of every swing in it."""

    path: Path
    address: list[int]
    impact: list[int]


def write_several(folder: Path, name: str = "several.mp4") -> SeveralSwings:
    """Write the clip; between swings the player stands, then the picture fades into the next address."""
    frames: list[npt.NDArray[np.uint8]] = []
    address, impact, heard = [], [], []
    dice = np.random.default_rng(3)
    grain = dice.normal(0, 2, (7, SIZE[1], SIZE[0], 3)).astype(np.float32)
    for swing, struck in zip(SWINGS, STRUCK, strict=True):
        known = truth(swing)
        pictures = [_small(picture) for picture, _ in upright_frames(DEMO_CLIPS / f"{swing}.mp4")]
        if frames:
            frames += [_mix(frames[-1], pictures[0], k / (FADE_S * FPS)) for k in range(int(FADE_S * FPS))]
        frames += [_grainy(pictures[0], grain[n % len(grain)]) for n in range(int(STILL_S * FPS))]
        address.append(len(frames) + known["checkpoints"]["address"])
        impact.append(len(frames) + known["checkpoints"]["impact"])
        if struck:
            began = len(frames) / FPS
            heard.append(began + known["times_s"]["strike_heard"] - known["times_s"]["frames"][0])
        frames += pictures
        frames += [_grainy(pictures[-1], grain[n % len(grain)]) for n in range(int(STILL_S * FPS))]
    path = folder / name
    write(path, frames, len(frames), Recording(), heard)
    return SeveralSwings(path, address, impact)


def _small(picture: npt.NDArray[np.uint8]) -> npt.NDArray[np.uint8]:
    return np.asarray(cv2.resize(picture, SIZE, interpolation=cv2.INTER_AREA), np.uint8)


def _grainy(picture: npt.NDArray[np.uint8], grain: npt.NDArray[np.float32]) -> npt.NDArray[np.uint8]:
    return np.clip(picture + grain, 0, 255).astype(np.uint8)


def _mix(a: npt.NDArray[np.uint8], b: npt.NDArray[np.uint8], share: float) -> npt.NDArray[np.uint8]:
    return (a * (1 - share) + b * share).astype(np.uint8)
