"""All readings of a swing record."""

from __future__ import annotations

import math

from tropometer.swing import sway, trail_hip  # noqa: F401  the readings register themselves
from tropometer.swing.camera.solve import SOURCE, Unsolved
from tropometer.swing.face_on import look as look_face_on
from tropometer.swing.measured import Measured
from tropometer.swing.names import Checkpoint, spoken
from tropometer.swing.reading import KINDS, Kind, Look, Need, Reading, Refused
from tropometer.swing.record import Clip, SwingRecord


def read(record: SwingRecord, at: tuple[Checkpoint, ...] | None = None) -> list[Reading]:
    """Every registered reading at every checkpoint it is defined for, given or refused.

    `at` limits the checkpoints; left out, those pegged in any clip are read, with top and impact always.
    """
    wanted = at or tuple(
        dict.fromkeys([*(name for clip in record.clips for name in clip.checkpoints), "top", "impact"])
    )
    return [
        _one(record, kind, checkpoint)
        for kind in KINDS.values()
        for checkpoint in kind.at
        if checkpoint in wanted
    ]


def _one(record: SwingRecord, kind: Kind, at: Checkpoint) -> Reading:
    clip = next((clip for clip in record.clips if clip.view == kind.view), None)
    look: Look | None = None
    try:
        if clip is None:
            raise Refused(f"Needs a {spoken(kind.view).replace(' ', '-')} clip.", Need("view", kind.view))
        look = _look(clip, record)
        measured = kind.formula(look, at)
        if not math.isfinite(measured.value) or not math.isfinite(measured.sd):
            raise Refused(
                "A mark lies where the mat's camera sees no floor: check it and the mat.", Need("mat")
            )
    except Refused as refusal:
        return Reading(
            kind.id,
            at,
            kind.unit,
            "refused",
            kind.method,
            reason=refusal.reason,
            needs=refusal.needs,
            clips=(clip.id,) if clip else (),
            frames=tuple(look.frames) if look else (),
        )
    return Reading(
        kind.id,
        at,
        kind.unit,
        "ok",
        kind.method,
        value=measured.value,
        u95=measured.u95,
        clips=(clip.id,),
        frames=tuple(look.frames),
        largest_error=_largest(measured),
    )


def _largest(measured: Measured) -> str:
    """The source that brings the most error; what the solved camera's unknowns bring counts as one."""
    squares: dict[str, float] = {}
    for source, part in measured.parts.items():
        name = SOURCE if source.startswith(f"{SOURCE} ") and source[len(SOURCE) + 1 :].isdigit() else source
        squares[name] = squares.get(name, 0.0) + part * part
    return max(squares, key=lambda name: squares[name])


def _look(clip: Clip, record: SwingRecord) -> Look:
    try:
        camera = look_face_on(clip, record.hand)
    except Unsolved as trouble:
        raise Refused(str(trouble), Need("mat")) from None
    if camera is None:
        raise Refused("Set a known length in the picture, or the corners of the mat.", Need("known_length"))
    return Look(camera)
