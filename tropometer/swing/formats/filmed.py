"""Marks in space as two cameras would have filmed them: for a swing that came without a picture."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.camera.pinhole import Pinhole
from tropometer.swing.formats.laboratory import off_m
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.names import Hand, View

WIDTH, HEIGHT, FOCAL_PX = 1280, 960, 1480.0
EYE_M: dict[View, tuple[float, float, float]] = {
    "face_on": (0.0, 4.6, 1.1),
    "down_the_line": (-4.6, 0.35, 1.1),
}
MAT_M = (2.0, 1.6)  # along the target line, and across it; about the middle of the feet
PLACED_PX = 0.3  # one standard deviation of where a point is drawn
MOST_HZ = 250.0
BEFORE_FASTEST_S, AFTER_FASTEST_S = 2.6, 1.6  # what is kept of a long recording
HANDS = ("grip", "lead_wrist", "trail_wrist", "club_head", "grip_butt")


@dataclass(frozen=True, kw_only=True, eq=False)
class Filmed:
    """One camera's picture of the marks: pixels (frames, 2) of each, and its standard deviation (frames,)."""

    view: View
    marks: dict[str, Array]
    sd_px: dict[str, Array]
    mat_px: Array
    distance_m: float


def swing_of(places: Mapping[str, Array], rate_hz: float) -> tuple[range, float]:
    """The frames that are kept of a recording, and how many of them a second.

    All of a short one; of a long one what lies about the hands' fastest. Each second, third … where there are
    more than a bench steps through.
    """
    every = int(np.ceil(rate_hz / MOST_HZ))
    count = len(next(iter(places.values())))
    first, last = 0, count
    if count > (BEFORE_FASTEST_S + AFTER_FASTEST_S) * rate_hz:
        hands = [places[name] for name in HANDS if name in places]
        if not hands:
            raise RecordError(
                "marks", "for a recording so long the hands must be among them, to find the swing."
            )
        steps = np.linalg.norm(np.diff(np.stack(hands), axis=1), axis=2)
        speed = np.nanmedian(np.where(np.isfinite(steps), steps, 0.0), axis=0)
        fastest = int(speed.argmax())
        first = max(0, fastest - int(BEFORE_FASTEST_S * rate_hz))
        last = min(count, fastest + int(AFTER_FASTEST_S * rate_hz))
    return range(first, last, every), rate_hz / every


def film(places: Mapping[str, Array], hand: Hand) -> tuple[Filmed, ...]:
    """Marks along T, B, U (frames, 3) from the front and down the line, in the picture as it would be filmed.

    A left-hander's is mirrored, as theirs is.
    """
    return tuple(_filmed(view, places, hand) for view in EYE_M)


def _filmed(view: View, places: Mapping[str, Array], hand: Hand) -> Filmed:
    eye = np.array(EYE_M[view])
    camera = Pinhole(view=view, width=WIDTH, height=HEIGHT, focal_px=FOCAL_PX, eye=eye)

    def picture(points: Array) -> Array:
        pixels = camera.project(points)
        if hand == "left":
            pixels[:, 0] = WIDTH - pixels[:, 0]
        inside = np.all((pixels >= 0) & (pixels <= [WIDTH, HEIGHT]), axis=1, keepdims=True)
        return np.where(inside, pixels, np.nan)

    ahead = {name: (place - eye) @ camera.rotation[2] for name, place in places.items()}
    along, across = (side / 2 for side in MAT_M)
    round_it = ((-along, -across), (along, -across), (along, across), (-along, across))
    corners = np.array([[t, b, 0.0] for t, b in round_it])
    return Filmed(
        view=view,
        marks={name: picture(place) for name, place in places.items()},
        sd_px={name: np.hypot(PLACED_PX, off_m(name) * FOCAL_PX / far) for name, far in ahead.items()},
        mat_px=picture(corners),
        distance_m=float(np.abs(eye[:2]).max()),
    )
