"""All readings of a swing record: at its checkpoints, and as a whole."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from tropometer.swing import readings  # noqa: F401  they register themselves
from tropometer.swing.budget import Budget
from tropometer.swing.curves import Series, series
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.pressure import PRESSURE, pressure_readings
from tropometer.swing.reading import KINDS, Group, Kind, Look, Need, Reading, Refused
from tropometer.swing.record import SwingRecord
from tropometer.swing.refusal import check, usable
from tropometer.swing.scene.scene import Scene
from tropometer.swing.timed import EXTREME_BACK, TIMED, timed_readings

# Readings that are not measured mark by mark at a moment.
OTHERS = {**TIMED, **PRESSURE}


def read(record: SwingRecord, scene: Scene | None = None) -> list[Reading]:
    """Every registered reading at every checkpoint it is defined for, given or refused, and those of times.

    Checkpoints are those pegged in any clip, with address, top and impact always. A `scene` of the record's
    checkpoints that is there already need not be made again.
    """
    pegged = {name for clip in record.clips for name in clip.checkpoints} | {"address", "top", "impact"}
    wanted = tuple(name for name in CHECKPOINTS if name in pegged)
    scene = scene or Scene(record)
    found = [
        each
        for kind in KINDS.values()
        for each in _at_checkpoints(scene, kind, [name for name in kind.at if name in wanted])
    ]
    return found + timed_readings(record, found) + pressure_readings(record)


def read_whole(record: SwingRecord) -> tuple[list[Reading], list[Series]]:
    """Readings and series of a record; events that nobody pegged are read from the series."""
    curves = series(record)
    marked = [each for each in read(record) if each.reading in KINDS and each.at != EXTREME_BACK]
    timed = timed_readings(record, marked, {curve.reading: curve for curve in curves})
    return marked + timed + pressure_readings(record), curves


def sign_of(reading: str) -> str:
    """What a reading's sign means, in words."""
    return KINDS[reading].sign if reading in KINDS else OTHERS[reading].sign


def group_of(reading: str) -> Group:
    """Where in the body a reading belongs, from the floor up."""
    return KINDS[reading].group if reading in KINDS else OTHERS[reading].group


def _at_checkpoints(scene: Scene, kind: Kind, names: list[Checkpoint]) -> Iterator[Reading]:
    look = Look(scene)
    count = len(CHECKPOINTS)
    measured = kind.formula(look)
    errors = Budget(measured, count)
    row = np.broadcast_to(measured.value, count)
    finite = (np.isfinite(row) & np.isfinite(errors.u95)).tolist()
    values, u95 = row.tolist(), errors.u95.tolist()
    given = usable(scene, kind, look, count).tolist()
    origins = _Origins(scene, look)
    for at in names:
        column = CHECKPOINTS.index(at)
        clips, frames = origins.of(at)
        try:
            if not given[column]:
                check(scene, kind, look, at)
            if not finite[column]:
                raise Refused(
                    "A mark lies where the camera sees no floor: check it and the mat.", Need("mat")
                )
        except Refused as refusal:
            yield Reading(
                kind.id,
                at,
                kind.unit,
                "refused",
                kind.method,
                reason=refusal.reason,
                needs=refusal.needs,
                clips=clips,
                frames=frames,
            )
            continue
        yield Reading(
            kind.id,
            at,
            kind.unit,
            "ok",
            kind.method,
            value=values[column],
            u95=u95[column],
            largest_error=errors.largest(column),
            budget=errors.shares(column),
            clips=clips,
            frames=frames,
        )


class _Origins:
    """The clips and frames that a reading comes from."""

    def __init__(self, scene: Scene, look: Look) -> None:
        self.clips = scene.clips
        self.moments = list(dict.fromkeys(at for _, at in look.used if at is not None))
        self.frames = {
            view: dict(zip(CHECKPOINTS, scene.frames[view][-len(CHECKPOINTS) :].tolist(), strict=True))
            for view in scene.clips
        }
        self.having: dict[tuple[View, Checkpoint | None], dict[Checkpoint, bool]] = {}
        for view in scene.clips:
            for moment in (None, *self.moments):
                flags = np.zeros(len(scene.through), bool)
                for name, at in look.used:
                    if at == moment:
                        flags |= scene.has(view, name)
                row = flags[-len(CHECKPOINTS) :].tolist()
                self.having[view, moment] = dict(zip(CHECKPOINTS, row, strict=True))

    def of(self, at: Checkpoint) -> tuple[tuple[str, ...], tuple[int, ...]]:
        """Of a reading at one checkpoint: first its own moment's."""
        clips: list[str] = []
        frames: tuple[int, ...] = ()
        for view, clip in self.clips.items():
            now = (
                [at]
                if self.having[view, None][at] or (at in self.moments and self.having[view, at][at])
                else []
            )
            then = [moment for moment in self.moments if moment != at and self.having[view, moment][moment]]
            if now or then:
                clips.append(clip.id)
                frames = frames or tuple(self.frames[view][moment] for moment in now + then)
        return tuple(clips), frames
