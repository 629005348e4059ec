"""Marks as movement laboratories keep them: markers in space at an even rate."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.names import PLANE_OF
from tropometer.swing.readings.curves import placed_on_frames
from tropometer.swing.readings.series import leading_clip, swing_frames
from tropometer.swing.record.swing import SwingRecord

LEAST_FRAMES = 2
UNEVEN = 0.01  # of a frame's time, beyond which frames are not evenly spaced


@dataclass(frozen=True, kw_only=True, eq=False)
class Markers:
    """Markers over time: `places` (frames, markers, 3), metres, NaN where one is not seen.

    They are the player's own axes T, B, U, as they lie for either hand; `first_s` is the first frame's time
    from impact.
    """

    names: tuple[str, ...]
    rate_hz: float
    first_s: float
    hand: str
    places: Array

    @property
    def z_up(self) -> Array:
        """X toward the target, Z up, and Y so that the three are right-handed, millimetres."""
        away = -1.0 if self.hand == "right" else 1.0
        return self.places * [1.0, away, 1.0] * 1000

    @property
    def y_up(self) -> Array:
        """X toward the target, Y up, and Z so that the three are right-handed, millimetres."""
        x, y, z = np.moveaxis(self.z_up, -1, 0)
        return np.stack([x, z, -y], axis=-1)


def markers_of(record: SwingRecord) -> Markers:
    """The marks that were seen from two sides at once, on the frames from address to finish.

    Raises RecordError where no mark was: from one side alone a mark's depth is a guess, and a guess is no
    marker.
    """
    clip = leading_clip(record)
    if clip is None or len({PLANE_OF[each.view] for each in record.clips}) < 2:
        raise RecordError("clips", "markers in space need two of them, from the front and along the line.")
    placed = placed_on_frames(record)
    times_s = swing_frames(clip)[1]
    asked = slice(0, placed.asked)
    seen = np.sum([placed.marked(view, placed.names)[:, asked] for view in placed.eyes], axis=0)
    places = np.where(seen[None] > 1, placed.places[:, :, asked], np.nan)
    kept = np.isfinite(places).all(axis=0).sum(axis=1) >= LEAST_FRAMES
    if not kept.any():
        raise RecordError("marks", "none is marked or followed in both views at once.")
    names = tuple(name for name, keep in zip(placed.names, kept.tolist(), strict=True) if keep)
    rate_hz, evenly = _evenly(times_s, np.moveaxis(places[:, kept], -1, 0).swapaxes(1, 2))
    return Markers(names=names, rate_hz=rate_hz, first_s=float(times_s[0]), hand=record.hand, places=evenly)


def _evenly(times_s: Array, places: Array) -> tuple[float, Array]:
    """Places (n, markers, 3) at an even rate; where the frames are not so, straight between them."""
    steps = np.diff(times_s)
    step = float(np.median(steps))
    if np.abs(steps - step).max() <= UNEVEN * step:
        return 1 / step, places
    even = np.arange(times_s[0], times_s[-1] + step / 2, step)
    after = np.clip(np.searchsorted(times_s, even), 1, len(times_s) - 1)
    share = (even - times_s[after - 1]) / steps[after - 1]
    share = np.clip(share, 0.0, 1.0)[:, None, None]
    return 1 / step, places[after - 1] * (1 - share) + places[after] * share
