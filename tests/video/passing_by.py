"""Somebody else in a demo clip while the player swings: who walks through it, or stands beside."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from typing import Any

import numpy as np
from scipy.ndimage import zoom

from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.cast import TAKES
from tropometer.golfer.clips import body_of
from tropometer.golfer.footage import Film, Footage
from tropometer.golfer.motion import Motion
from tropometer.video.proxy import upright_frames

PACE_M_S = 1.3
MAGENTA = (1.0, 0.0, 1.0)


@lru_cache
def cut_out(take_name: str) -> tuple[Any, Any]:
    """A made-up golfer who stands upright: the picture (h, w, 3), and where it is theirs (h, w)."""
    take = next(each for each in TAKES if each.name == take_name)
    motion = Motion(body_of(take.person), take.settings)
    footage = Footage(motion, take.camera, take.person.colours, Film())
    footage.renderer.draw_plain(MAGENTA)
    picture = footage.picture(motion.end_s)
    red, green, blue = (picture[:, :, i].astype(int) for i in range(3))
    theirs = (green > 35) | (abs(red - blue) > 35)
    rows, columns = np.nonzero(theirs)
    part = np.s_[rows.min() : rows.max() + 1, columns.min() : columns.max() + 1]
    return picture[part], theirs[part]


def stood_beside(name: str, by: str, nearer: float, away_px: float) -> Iterator[Any]:
    """The frames of a demo clip with somebody who stands so far beside the middle all the time."""
    times = np.array(truth(name)["times_s"]["frames"])
    return _with_somebody(name, by, nearer, np.full(len(times), away_px))


def walked_through(name: str, by: str, nearer: float) -> Iterator[Any]:
    """The frames of a demo clip (h, w, 3) with somebody walking across, so many times as large as the player.

    They are in the middle of the picture half way through the clip. Who is larger walks before the player.
    """
    known = truth(name)
    times = np.array(known["times_s"]["frames"])
    pace_px = PACE_M_S * nearer * known["camera"]["focal_px"] / known["camera"]["distance_m"]
    return _with_somebody(name, by, nearer, pace_px * (times - times.mean()))


def _with_somebody(name: str, by: str, nearer: float, away_px: Any) -> Iterator[Any]:
    known = truth(name)
    picture, theirs = cut_out(by)
    tall = known["stature_m"] * known["camera"]["focal_px"] / known["camera"]["distance_m"]
    scale = nearer * tall / len(picture)
    passer = zoom(picture, (scale, scale, 1), order=1)
    mask = zoom(theirs.astype(float), scale, order=1) > 0.5
    ground = max(max(y for _, y in known["pixels"][toe]) for toe in ("lead_toe", "trail_toe"))
    for number, (frame, _) in enumerate(upright_frames(DEMO_CLIPS / f"{name}.mp4")):
        out = frame.copy()
        middle = frame.shape[1] / 2 + away_px[number]
        left, top = round(middle - mask.shape[1] / 2), round(ground + 30 * (nearer - 1) - mask.shape[0])
        rows, columns = np.nonzero(mask)
        at_y, at_x = rows + top, columns + left
        inside = (at_x >= 0) & (at_x < frame.shape[1]) & (at_y >= 0) & (at_y < frame.shape[0])
        out[at_y[inside], at_x[inside]] = passer[rows[inside], columns[inside]]
        yield out
