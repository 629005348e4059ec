"""All readings of a swing record: at its checkpoints, and as a whole."""

from __future__ import annotations

from collections.abc import Container, Iterator, Mapping

import numpy as np

from tropometer.swing.error.budget import Budgets
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.readings import by_part  # noqa: F401  they register themselves
from tropometer.swing.readings.curves import Series, leading_clip, series
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.plate import PRESSURE, plate_readings, plate_series
from tropometer.swing.readings.presence import Presence
from tropometer.swing.readings.reading import Group, Need, Reading, Refused, Unit
from tropometer.swing.readings.refusal import check, usable
from tropometer.swing.readings.register import KINDS
from tropometer.swing.readings.times import EXTREME_BACK, TIMED, timed_readings
from tropometer.swing.readings.two_swings import merged, one_by_one
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.scene import Scene

# Readings that are not measured mark by mark at a moment.
OTHERS = {**TIMED, **PRESSURE}


def read(record: SwingRecord, scene: Scene | None = None) -> list[Reading]:
    """Every registered reading at every checkpoint it is defined for, given or refused, and those of times.

    Checkpoints are those pegged in any clip, with address, top and impact always. A `scene` of the record's
    checkpoints that is there already need not be made again.
    """
    swings = one_by_one(record)
    if len(swings) > 1:
        return merged([read(each) for each in swings], record)
    pegged = {name for clip in record.clips for name in clip.checkpoints} | {"address", "top", "impact"}
    wanted = tuple(name for name in CHECKPOINTS if name in pegged)
    scene = scene or Scene(record)
    found = list(_at_checkpoints(scene, wanted))
    return found + timed_readings(record, found) + plate_readings(record)


def read_whole(record: SwingRecord) -> tuple[list[Reading], list[Series]]:
    """Readings and series of a record; events that nobody pegged are read from the series."""
    swings = one_by_one(record)
    if len(swings) > 1:
        found = [read_whole(each) for each in swings]
        # Curves are drawn on the frames of one clip: those of the swing that it shows.
        leading = leading_clip(record)
        (drawn,) = (curves for (_, curves), each in zip(found, swings, strict=True) if leading in each.clips)
        return merged([readings for readings, _ in found], record), drawn
    curves = [*series(record), *plate_series(record)]
    marked = [each for each in read(record) if each.reading in KINDS and each.at != EXTREME_BACK]
    timed = timed_readings(record, marked, {curve.reading: curve for curve in curves})
    return marked + timed + plate_readings(record), curves


def kinds() -> dict[str, str]:
    """Every reading that there is, and how it is measured."""
    marked = {id: kind.method for id, kind in KINDS.items()}
    return marked | {id: other.method for id, other in OTHERS.items()}


def unit_of(reading: str) -> Unit:
    """The unit of a reading."""
    return KINDS[reading].unit if reading in KINDS else OTHERS[reading].unit


def sign_of(reading: str) -> str:
    """What a reading's sign means, in words."""
    return KINDS[reading].sign if reading in KINDS else OTHERS[reading].sign


def group_of(reading: str) -> Group:
    """Where in the body a reading belongs, from the floor up."""
    return KINDS[reading].group if reading in KINDS else OTHERS[reading].group


def _at_checkpoints(scene: Scene, wanted: Container[Checkpoint]) -> Iterator[Reading]:
    """Every reading of marks, at those of its checkpoints that are wanted."""
    count = len(CHECKPOINTS)
    kinds = tuple(KINDS.values())
    looks = [Look(scene) for _ in kinds]
    measured = [kind.formula(look) for kind, look in zip(kinds, looks, strict=True)]
    presence = Presence(scene, looks)
    given = usable(presence, kinds, looks).tolist()
    budgets = Budgets(measured, count)
    rows = np.empty_like(budgets.u95)
    for row, each in zip(rows, measured, strict=True):
        row[:] = each.value
    finite = (np.isfinite(rows) & np.isfinite(budgets.u95)).tolist()
    values, u95 = rows.tolist(), budgets.u95.tolist()
    unseen = scene.unseen()
    for i, (kind, look) in enumerate(zip(kinds, looks, strict=True)):
        for at in kind.at:
            if at not in wanted:
                continue
            column = CHECKPOINTS.index(at)
            clips, frames = presence.origins(i, at)
            try:
                if not given[i][column]:
                    check(scene, kind, look, at)
                if not finite[i][column]:
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
                value=values[i][column],
                u95=u95[i][column],
                largest_error=budgets.largest(i, column),
                budget=budgets.shares(i, column),
                clips=clips,
                frames=frames,
                provisional=_hangs_on(unseen, scene, look, at),
            )


def _hangs_on(
    unseen: Mapping[View, frozenset[tuple[str, int]]], scene: Scene, look: Look, at: Checkpoint
) -> bool:
    """Whether a reading at a checkpoint used one of these marks."""
    return any(
        (name, scene.frame(view, scene.column(moment or at))) in marks
        for view, marks in unseen.items()
        if marks
        for name, moment in look.used
    )
