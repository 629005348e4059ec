"""The readings of marks at a swing's checkpoints."""

from __future__ import annotations

from collections.abc import Container, Iterator, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from tropometer.swing.error.budget import Budgets
from tropometer.swing.error.value import Measured
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.readings.asked import refusal
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.missing import check, usable
from tropometer.swing.readings.presence import Presence
from tropometer.swing.readings.reading import Need, Reading, Refused
from tropometer.swing.readings.register import kinds_of
from tropometer.swing.scene.scene import Scene


@dataclass(frozen=True, kw_only=True, eq=False)
class Measurements:
    """The values (n,) of some readings at a scene's moments, and which marks each used."""

    scene: Scene
    kinds: Sequence[FromMarks]
    looks: Sequence[Look]
    values: Sequence[Measured]

    @classmethod
    def at_checkpoints(cls, scene: Scene) -> Measurements:
        """All readings of marks in a scene of the checkpoints."""
        return cls.of(scene, kinds_of(FromMarks))

    @classmethod
    def of(cls, scene: Scene, kinds: Sequence[FromMarks]) -> Measurements:
        """What these readings are in a scene."""
        looks = [Look(scene) for _ in kinds]
        values = [kind.formula(look) for kind, look in zip(kinds, looks, strict=True)]
        return cls(scene=scene, kinds=kinds, looks=looks, values=values)


def readings_of_marks(made: Measurements, wanted: Container[Checkpoint]) -> Iterator[Reading]:
    """Every reading of marks at those of its checkpoints that are wanted, given or refused."""
    scene = made.scene
    presence = Presence(scene, made.looks)
    given = usable(presence, made.kinds, made.looks).tolist()
    budgets = Budgets(made.values, len(CHECKPOINTS))
    rows = np.empty_like(budgets.u95)
    for row, each in zip(rows, made.values, strict=True):
        row[:] = each.value
    finite = (np.isfinite(rows) & np.isfinite(budgets.u95)).tolist()
    values, u95 = rows.tolist(), budgets.u95.tolist()
    unseen = scene.unseen()
    for i, (kind, look) in enumerate(zip(made.kinds, made.looks, strict=True)):
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
            except Refused as why:
                yield refusal(kind, at, why, clips, frames)
                continue
            yield Reading(
                reading=kind.id,
                at=at,
                unit=kind.unit,
                status="ok",
                method=kind.method,
                value=values[i][column],
                u95=u95[i][column],
                largest_source=budgets.largest(i, column),
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
        (name, scene.frame(view, moment or at)) in marks
        for view, marks in unseen.items()
        if marks
        for name, moment in look.used
    )
