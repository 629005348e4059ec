"""The front door: all that is read off a swing record."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import cast

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.error.source import covariance
from tropometer.swing.error.value import NORMAL_95, Measured
from tropometer.swing.names import CHECKPOINTS, Checkpoint
from tropometer.swing.readings.at_checkpoints import Measurements, readings_of_marks
from tropometer.swing.readings.curves import curves_of_marks, placed_on_frames
from tropometer.swing.readings.extremes import extremes
from tropometer.swing.readings.from_plate import curves_of_plate, readings_of_plate
from tropometer.swing.readings.from_readings import readings_of_readings
from tropometer.swing.readings.from_times import readings_of_times
from tropometer.swing.readings.reading import Reading
from tropometer.swing.readings.series import Series, leading_clip
from tropometer.swing.readings.two_swings import merged, one_by_one
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.placed import Placed
from tropometer.swing.scene.scene import Scene

Key = tuple[str, str]  # a reading, and the checkpoint or the part that it is of


@dataclass(frozen=True, kw_only=True, eq=False)
class OneSwing:
    """What is read off one swing, from one scene."""

    scene: Scene
    readings: list[Reading]
    curves: list[Series]
    measurements: Measurements

    def measured(self, key: Key) -> Measured | None:
        """The values of a reading of marks at the nine checkpoints; None where the key is of no such one."""
        reading, at = key
        kinds = [kind.id for kind in self.measurements.kinds]
        return (
            self.measurements.values[kinds.index(reading)] if reading in kinds and at in CHECKPOINTS else None
        )


@dataclass(frozen=True, kw_only=True, eq=False)
class SwingRead:
    """All that is read off a record: its readings, its curves where they were asked for, and its scenes.

    A record whose views are two swings has two `swings`; `readings` are then the surest of either.
    """

    record: SwingRecord
    swings: tuple[OneSwing, ...]
    readings: list[Reading]
    curves: list[Series]

    def given(self, reading: str, at: str) -> Reading | None:
        """A reading that is given; None where it is refused, or there is none."""
        found = self._by_key.get((reading, at))
        return found if found is not None and found.status == "ok" else None

    def scene_of(self, clip_id: str) -> Scene | None:
        """The scene that a clip is in; None of a second clip of the same view."""
        return next((each.scene for each in self.swings if _shows(each, clip_id)), None)

    def covariance(self, keys: Sequence[Key]) -> Array:
        """How the errors of given readings hang together (n, n), in their units.

        Readings of marks in one swing share what their marks, cameras and depths share. All others are taken
        to be independent.
        """
        shown = [self._by_key[key] for key in keys]
        found = np.diag([((each.u95 or 0.0) / NORMAL_95) ** 2 for each in shown])
        for swing in self.swings:
            of = [i for i, each in enumerate(shown) if each.clips and _shows(swing, each.clips[0])]
            measured = [(i, value) for i in of if (value := swing.measured(keys[i])) is not None]
            rows = [i for i, _ in measured]
            columns = [CHECKPOINTS.index(cast(Checkpoint, keys[i][1])) for i in rows]
            found[np.ix_(rows, rows)] = covariance([value.slopes for _, value in measured], columns)
        return found

    @cached_property
    def _by_key(self) -> dict[Key, Reading]:
        return {(each.reading, each.at): each for each in self.readings}


def read(record: SwingRecord, *, curves: bool = False) -> SwingRead:
    """Every registered reading at every checkpoint it is defined for, given or refused.

    Checkpoints are those pegged in any clip, with address, top and impact always. With `curves` also the
    readings on every frame, and from them the events that nobody pegged.
    """
    records = one_by_one(record)
    swings = tuple(_read(each, curves) for each in records)
    # Curves are drawn on the frames of one clip: those of the swing that it shows.
    leading = leading_clip(record)
    drawn = next((each for each in swings if leading and _shows(each, leading.id)), None)
    return SwingRead(
        record=record,
        swings=swings,
        readings=merged([each.readings for each in swings], record),
        curves=drawn.curves if drawn else [],
    )


def _read(record: SwingRecord, with_curves: bool) -> OneSwing:
    placed = placed_on_frames(record) if with_curves else Placed(record)
    scene = Scene.at_checkpoints(placed)
    pegged: set[Checkpoint] = {name for clip in record.clips for name in clip.checkpoints}
    pegged |= {"address", "top", "impact"}
    made = Measurements.at_checkpoints(scene)
    found = list(readings_of_marks(made, pegged))
    curves = [*curves_of_marks(placed), *curves_of_plate(record)] if with_curves else []
    by_id = {curve.reading: curve for curve in curves}
    found += readings_of_times(record, by_id)
    found += readings_of_readings(found)
    found += extremes(found, by_id)
    return OneSwing(scene=scene, readings=found + readings_of_plate(record), curves=curves, measurements=made)


def _shows(swing: OneSwing, clip_id: str) -> bool:
    return any(clip.id == clip_id for clip in swing.scene.clips.values())
