"""Carries points from one frame to others by optical flow, and back again to see whether they hold."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
import numpy.typing as npt

from tropometer.video.tracking import Gray, carry, gray_frames

Array = npt.NDArray[Any]


@dataclass(frozen=True)
class Start:
    """A point on a frame, and the frames it is to be carried to."""

    frame: int
    x: float
    y: float
    to: tuple[int, ...]


def carried_from(frames: Sequence[Gray], first: int, starts: Sequence[Start]) -> list[Array]:
    """Of each start, for each of its frames: x, y, the farthest it went, and by how much it missed the start
    on the way back (n, 4). `frames` are the pictures from frame `first` on.
    """
    found = [np.full((len(start.to), 4), np.nan) for start in starts]
    for begin in sorted({start.frame for start in starts}):
        own = [i for i, start in enumerate(starts) if start.frame == begin]
        points = np.array([[starts[i].x, starts[i].y] for i in own])
        for way in (1, -1):
            ends = sorted({to for i in own for to in starts[i].to if (to - begin) * way > 0})
            if not ends:
                continue
            far = ends[-1] if way > 0 else ends[0]
            there = carry(_between(frames, begin - first, far - first), points)
            gone = np.maximum.accumulate(np.linalg.norm(there - points, axis=2), axis=0)
            for end in ends:
                steps = abs(end - begin)
                back = carry(_between(frames, end - first, begin - first), there[steps])[-1]
                missed = np.linalg.norm(back - points, axis=1)
                for row, i in enumerate(own):
                    if end in starts[i].to:
                        place = there[steps, row]
                        found[i][starts[i].to.index(end)] = *place, gone[steps, row], missed[row]
    return found


def carry_file(proxy: Path, starts: Sequence[Start], progress: Callable[[float], None]) -> list[Array]:
    """The same in a proxy's frames."""
    all_frames = [frame for start in starts for frame in (start.frame, *start.to)]
    first, last = min(all_frames), max(all_frames)
    frames, scale = gray_frames(proxy, first, last)
    small = [Start(start.frame, start.x * scale, start.y * scale, start.to) for start in starts]
    progress(0.5)
    return [rows / scale for rows in carried_from(frames, first, small)]


def _between(frames: Sequence[Gray], begin: int, end: int) -> Sequence[Gray]:
    return frames[begin : end + 1] if end >= begin else frames[end : begin + 1][::-1]
