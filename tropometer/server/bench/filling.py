"""All that is put on a clip at once: pegs, marks and what is known of its picture, brought with a swing."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

from tropometer.server.bench.edit_schemas import CalibrationValue, FactsValue, MatValue
from tropometer.server.bench.models import Calibration, CameraFacts, Mark, Mat, Peg

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip


@dataclass(frozen=True, kw_only=True)
class Placed:
    """A mark on a frame, pixels, with one standard deviation."""

    name: str
    frame: int
    x: float
    y: float
    sd_px: float


def fill(
    clip: Clip,
    *,
    pegs: Mapping[str, int],
    marks: Iterable[Placed],
    length: CalibrationValue | None = None,
    mat: MatValue | None = None,
    facts: FactsValue | None = None,
) -> None:
    """Put them on a clip on which nothing is yet."""
    Peg.objects.bulk_create(Peg(clip=clip, name=name, frame=frame) for name, frame in pegs.items())
    Mark.objects.bulk_create(Mark(clip=clip, **vars(mark)) for mark in marks)
    for model, value in ((Calibration, length), (Mat, mat), (CameraFacts, facts)):
        if value is not None:
            model.objects.create(clip=clip, **value.dict())
