"""Follows marks from one placed mark to the next, from both ends, by optical flow.

From each end the mark is carried frame by frame by the median flow of a small grid about it (Kalal,
Mikolajczyk and Matas, Forward-backward error, ICPR 2010; Lucas-Kanade in pyramids, Bouguet 2001), started
where the body's landmarks moved to. Where the two ways agree they are blended by nearness; where not, the
one the landmarks confirm stands alone; where neither is confirmed, the track stops there and asks.
Hands blur too much for that: the grip hangs on the landmarks between its placed marks. The club's head is
followed by the line of its shaft.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from itertools import islice
from pathlib import Path
from typing import Any, Literal

import cv2
import numpy as np
import numpy.typing as npt

from tropometer.video.proxy import upright_frames
from tropometer.video.shaft import APART_FRAMES, follow_shaft

Array = npt.NDArray[np.float64]
Gray = npt.NDArray[np.uint8]

FLOW: dict[str, Any] = {
    "winSize": (21, 21),
    "maxLevel": 3,
    "criteria": (cv2.TERM_CRITERIA_COUNT | cv2.TERM_CRITERIA_EPS, 30, 0.01),
}
GRID_PX = (-7.0, 0.0, 7.0)
MOST_SIDE_PX = 1280  # larger pictures are halved and more: their flow is no better
# Pixels at a picture whose shorter side is 720.
AGREE_PX, CONFIRM_PX = 5.0, 3.0
DRIFT_OF_GAP = 0.3  # what is left of a gap between the two ways, once blended
BLEND_SD_PX, ALONE_SD_PX = 0.6, 1.6
HUNG_SD_PX = 6.0  # of the grip between two placed ones
Pixel = tuple[float, float]
How = Literal["flow", "landmarks", "shaft"]


@dataclass(frozen=True)
class Span:
    """A mark placed on frames `first` and `last`, and how it is followed between them.

    `guide` (n, 2) is where landmarks see it, if they do. A club head is followed about the grip: its guide is
    the grip's, and `grip` holds the grip's own placed ends.
    """

    name: str
    first: int
    last: int
    start: Pixel
    end: Pixel
    guide: Array | None = None
    how: How = "flow"
    grip: tuple[Pixel, Pixel] | None = None


def track(frames: Sequence[Gray], spans: Sequence[Span]) -> list[Array]:
    """x, y and the flow's own standard deviation of the spans' frames (n, 3); NaN where it stopped.

    All spans run over the same frames, `first` to `last`, and `frames` are those.
    """
    guides = [_guide(span) for span in spans]
    starts, ends = (np.array([getattr(span, end) for span in spans], float) for end in ("start", "end"))
    forward = carry(frames, starts, guides)
    backward = carry(frames[::-1], ends, [None if guide is None else guide[::-1] for guide in guides])[::-1]
    late = np.linspace(0.0, 1.0, len(frames))[:, None]
    unit = min(frames[0].shape) / 720
    found = []
    for i, guide in enumerate(guides):
        seen = None
        if guide is not None:
            seen = guide + (1 - late) * (starts[i] - guide[0]) + late * (ends[i] - guide[-1])
        found.append(_joined(forward[:, i], backward[:, i], seen, late, unit))
    return found


def hung(span: Span, unit: float) -> Array:
    """A mark that hangs on the landmarks between its placed ends (n, 3); NaN without landmarks."""
    guide = _guide(span)
    found = np.full((span.last - span.first + 1, 3), np.nan)
    if guide is not None:
        late = np.linspace(0.0, 1.0, len(guide))[:, None]
        found[:, :2] = guide + (1 - late) * (span.start - guide[0]) + late * (span.end - guide[-1])
        found[:, 2] = HUNG_SD_PX * unit
    found[0], found[-1] = (*span.start, 0.0), (*span.end, 0.0)
    return found


def _by_shaft(span: Span, frames: Sequence[Gray], first: int) -> Array:
    if span.guide is None or span.grip is None:
        return hung(Span(span.name, span.first, span.last, span.start, span.end), 1.0)
    grips = hung(Span("grip", span.first, span.last, *span.grip, span.guide), 1.0)[:, :2]
    wanted = np.arange(span.first - APART_FRAMES, span.last + APART_FRAMES + 1) - first
    around = [frames[i] for i in np.clip(wanted, 0, len(frames) - 1)]
    return follow_shaft(around, grips, np.array(span.start), np.array(span.end))


def _guide(span: Span) -> Array | None:
    return span.guide if span.guide is not None and np.isfinite(span.guide).all() else None


def _joined(forward: Array, backward: Array, seen: Array | None, late: Array, unit: float) -> Array:
    gap = np.hypot(*(forward - backward).T)
    found = np.full((len(forward), 3), np.nan)
    agree = gap <= AGREE_PX * unit
    found[:, :2] = np.where(agree[:, None], (1 - late) * forward + late * backward, np.nan)
    found[:, 2] = np.where(agree, np.hypot(BLEND_SD_PX * unit, DRIFT_OF_GAP * gap), np.nan)
    if seen is not None:
        to_forward, to_backward = np.hypot(*(forward - seen).T), np.hypot(*(backward - seen).T)
        alone = np.where((to_forward < to_backward)[:, None], forward, backward)
        confirmed = ~agree & (np.minimum(to_forward, to_backward) <= CONFIRM_PX * unit)
        found[confirmed, :2] = alone[confirmed]
        found[confirmed, 2] = ALONE_SD_PX * unit
    found[[0, -1], 2] = 0.0  # placed, not tracked
    found[0, :2], found[-1, :2] = forward[0], backward[-1]
    return found


def carry(frames: Sequence[Gray], starts: Array, guides: Sequence[Array | None] | None = None) -> Array:
    """Places (n, k, 2) of k points carried from picture to picture."""
    guides = [None] * len(starts) if guides is None else guides
    places = [starts]
    for i in range(1, len(frames)):
        moved = np.array([np.zeros(2) if guide is None else guide[i] - guide[i - 1] for guide in guides])
        places.append(places[-1] + _flow(frames[i - 1], frames[i], places[-1], moved))
    return np.array(places)


def _flow(before: Gray, after: Gray, points: Array, moved: Array) -> Array:
    """Motion of points (k, 2): each the median of its grid's better half, by how well it finds back."""
    grid = np.array([(x, y) for x in GRID_PX for y in GRID_PX])
    began = (points[:, None] + grid).reshape(-1, 1, 2).astype(np.float32)
    guess = (points[:, None] + grid + moved[:, None]).reshape(-1, 1, 2).astype(np.float32)
    there, _, _ = cv2.calcOpticalFlowPyrLK(
        before, after, began, guess, flags=cv2.OPTFLOW_USE_INITIAL_FLOW, **FLOW
    )
    back, _, _ = cv2.calcOpticalFlowPyrLK(
        after, before, there, began.copy(), flags=cv2.OPTFLOW_USE_INITIAL_FLOW, **FLOW
    )
    missed = np.hypot(*(back - began)[:, 0].T).reshape(len(points), -1)
    motion = (there - began)[:, 0].reshape(len(points), -1, 2)
    kept = np.where((missed <= np.median(missed, axis=1)[:, None])[..., None], motion, np.nan)
    found: Array = np.nanmedian(kept, axis=1).astype(float)
    return found


def track_file(proxy: Path, spans: Sequence[Span], progress: Callable[[float], None]) -> list[Array]:
    """Each span tracked in a proxy's frames, in the order of the spans, as `track` gives it."""
    first = max(0, min(span.first for span in spans) - APART_FRAMES)
    frames, scale = gray_frames(proxy, first, max(span.last for span in spans) + APART_FRAMES)
    alike: dict[tuple[int, int], list[int]] = {}
    found: dict[int, Array] = {}
    for i, span in enumerate(spans):
        if span.how == "flow":
            alike.setdefault((span.first, span.last), []).append(i)
        elif span.how == "shaft":
            found[i] = _by_shaft(_scaled(span, scale), frames, first) / scale
        else:
            found[i] = hung(span, min(frames[0].shape) / scale / 720)
    for (begin, end), indices in alike.items():
        small = [_scaled(spans[i], scale) for i in indices]
        tracked = track(frames[begin - first : end - first + 1], small)
        found.update(zip(indices, (each / scale for each in tracked), strict=True))
        progress(len(found) / len(spans))
    return [found[i] for i in range(len(spans))]


def gray_frames(proxy: Path, first: int, last: int) -> tuple[list[Gray], float]:
    """A proxy's frames `first` to `last` in grey, no larger than flow makes use of, and their scale."""
    frames: list[Gray] = []
    scale = 1.0
    for picture, _ in islice(upright_frames(proxy), first, last + 1):
        gray = cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY)
        scale = min(1.0, MOST_SIDE_PX / max(gray.shape))
        if scale < 1:
            gray = cv2.resize(gray, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA)
        frames.append(np.asarray(gray, np.uint8))
    return frames, scale


def _scaled(span: Span, scale: float) -> Span:
    def small(pixel: Pixel) -> Pixel:
        return pixel[0] * scale, pixel[1] * scale

    return replace(
        span,
        start=small(span.start),
        end=small(span.end),
        guide=None if span.guide is None else span.guide * scale,
        grip=None if span.grip is None else (small(span.grip[0]), small(span.grip[1])),
    )
