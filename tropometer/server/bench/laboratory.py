"""A swing that came as markers in space: two drawn clips, with a mark on every frame."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TYPE_CHECKING, cast

import numpy as np
from django.db import transaction

from tropometer.server.bench.edit_schemas import FactsValue, MatValue
from tropometer.server.bench.filling import Placed, fill
from tropometer.server.bench.models import HiddenMark, Swing
from tropometer.server.bench.services import KIND
from tropometer.server.clips.services import take_in_figure
from tropometer.swing.arrays import Array
from tropometer.swing.formats.filmed import EYE_M, HEIGHT, MAT_M, WIDTH, Filmed, film, swing_of
from tropometer.swing.names import Hand

if TYPE_CHECKING:
    from tropometer.server.bench.schemas import SwingKind
    from tropometer.server.people.models import User

DIGITS = 3  # of a pixel


def receive_markers(
    instructor: User, hand: str, kind: SwingKind, places: Mapping[str, Array], rate_hz: float, name: str
) -> Swing:
    """A reference of marks along T, B, U (frames, 3), metres, as both views would have filmed it.

    Whoever said what the markers stand for has looked at them; pegs are only proposed. Raises RecordError
    where a recording is too long to find the swing in.
    """
    kept, kept_hz = swing_of(places, rate_hz)
    seen = {mark: place[kept.start : kept.stop : kept.step] for mark, place in places.items()}
    swing = Swing(instructor=instructor, reference_hand=hand, one_swing=True, **kind.dict(include=set(KIND)))
    with transaction.atomic():
        swing.save()
        for filmed in film(seen, cast(Hand, hand)):
            _put(swing, filmed, kept_hz, name)
    return swing


def _put(swing: Swing, filmed: Filmed, rate_hz: float, name: str) -> None:
    corners = filmed.mat_px.round(DIGITS).tolist()
    pixels = {mark: place.round(DIGITS) for mark, place in filmed.marks.items()}
    figure = {
        "width": WIDTH,
        "height": HEIGHT,
        "rate_hz": rate_hz,
        "mat": corners,
        "marks": {
            mark: [None if np.isnan(x) else [x, y] for x, y in place.tolist()]
            for mark, place in pixels.items()
        },
    }
    clip = take_in_figure(swing, filmed.view, name, figure)
    along_m, across_m = MAT_M
    fill(
        clip,
        pegs={},
        marks=(
            Placed(name=mark, frame=frame, x=x, y=y, sd_px=float(filmed.sd_px[mark][frame]))
            for mark, place in pixels.items()
            for frame, (x, y) in enumerate(place.tolist())
            if not np.isnan(x)
        ),
        mat=MatValue.model_validate(
            {"corners": [{"x": x, "y": y} for x, y in corners], "along_m": along_m, "across_m": across_m}
        ),
        facts=FactsValue(distance_m=filmed.distance_m, height_m=EYE_M[filmed.view][2], squared=True),
    )
    # Nothing follows a mark over frames on which the laboratory did not see it.
    HiddenMark.objects.bulk_create(
        HiddenMark(clip=clip, name=mark, frame=frame)
        for mark, place in pixels.items()
        for frame in np.flatnonzero(np.isnan(place[:, 0])).tolist()
    )
