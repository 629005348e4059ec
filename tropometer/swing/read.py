"""All readings of a swing record."""

from __future__ import annotations

import math

from tropometer.swing import sway, trail_hip  # noqa: F401  the readings register themselves
from tropometer.swing.camera.solve import SOURCE, Unsolved
from tropometer.swing.face_on import Blind
from tropometer.swing.face_on import look as look_face_on
from tropometer.swing.measured import Measured
from tropometer.swing.names import Checkpoint, spoken
from tropometer.swing.reading import KINDS, Kind, Look, Need, Reading, Refused, Share
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
        measured = _worked_out(kind, look, at)
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
        largest_error=max(_squares(measured).items(), key=lambda item: item[1])[0],
        budget=_budget(measured),
    )


def _worked_out(kind: Kind, look: Look, at: Checkpoint) -> Measured:
    """What the formula gives; Refused with all that it needs where something is missing."""
    try:
        measured = kind.formula(look, at)
    except (Refused, ZeroDivisionError):
        if not look.missing:
            raise
    if look.missing:
        first, *others = look.missing
        raise Refused(
            first.reason + (f" ({len(others)} more to do)" if others else ""),
            *(need for each in look.missing for need in each.needs),
        )
    return measured


def _squares(measured: Measured) -> dict[str, float]:
    """Variance by source; what the solved camera's unknowns bring counts as one."""
    squares: dict[str, float] = {}
    for source, part in measured.parts.items():
        name = SOURCE if source.startswith(f"{SOURCE} ") and source[len(SOURCE) + 1 :].isdigit() else source
        squares[name] = squares.get(name, 0.0) + part * part
    return squares


def _budget(measured: Measured) -> tuple[Share, ...]:
    """Shares of the variance by kind of source, the largest first."""
    kinds: dict[str, float] = {}
    for source, square in _squares(measured).items():
        kinds[kind_of(source)] = kinds.get(kind_of(source), 0.0) + square
    whole = sum(kinds.values()) or 1.0
    falling = sorted(kinds.items(), key=lambda item: -item[1])
    return tuple(Share(kind, square / whole) for kind, square in falling)


def kind_of(source: str) -> str:
    """The kind of a source of error: marks, camera, known length, or what is taken for granted."""
    if " on frame " in source:
        return "marks"
    if source.startswith("camera"):
        return "camera"
    if "known length" in source:
        return "known length"
    return "depth" if source.startswith("depth") else "where the player stands"


def _look(clip: Clip, record: SwingRecord) -> Look:
    """How a clip is looked at; without a camera the look is blind, and finds out what else is missing."""
    try:
        camera = look_face_on(clip, record.hand)
    except Unsolved as trouble:
        return Look(Blind(clip), missing=[Refused(str(trouble), Need("mat"))])
    if camera is None:
        words = "Set a known length in the picture, or the corners of the mat."
        return Look(Blind(clip), missing=[Refused(words, Need("known_length"))])
    return Look(camera)
