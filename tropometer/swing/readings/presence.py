"""Which of the marks that readings are made of are there, and on which frames."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np

from tropometer.swing.arrays import Flags, Frames
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.readings.look import Look, Use
from tropometer.swing.scene.scene import Scene

NOBODY = ""  # no mark is called so: where a reading uses none at the moment itself


class Presence:
    """The presence of all marks that the looks of some readings used, in each view of a scene.

    `complete` says where each reading has all of its marks (readings, moments).
    """

    def __init__(self, scene: Scene, looks: Sequence[Look]) -> None:
        used = _used(tuple(tuple(look.used) for look in looks))
        self.scene = scene
        self.complete: dict[View, Flags] = {}
        self._some: dict[View, list[list[bool]]] = {}
        self._then: dict[View, list[list[Checkpoint]]] = {}
        for view in scene.clips:
            here = np.add.reduceat(scene.placed.marked(view, used.now), used.firsts[:-1], axis=0, dtype=int)
            columns = [scene.placed.column(at) for at in used.moments]
            then = scene.placed.marked(view, used.then)[range(len(columns)), columns]
            missing = np.bincount(used.readings, ~then, len(looks)) > 0
            self.complete[view] = (here[:, scene.here] == used.counts[:, None]) & ~missing[:, None]
            self._some[view] = (here[:, -len(CHECKPOINTS) :] > 0).tolist()
            self._then[view] = [
                list(dict.fromkeys(at for at, there in zip(used.moments[a:b], row, strict=True) if there))
                for a, b, row in used.parts(then.tolist())
            ]

    def origins(self, reading: int, at: Checkpoint) -> tuple[tuple[str, ...], tuple[int, ...]]:
        """The clips and frames that a reading comes from at a checkpoint: first its own moment's."""
        clips: list[str] = []
        frames: tuple[int, ...] = ()
        for view, clip in self.scene.clips.items():
            then = self._then[view][reading]
            here = self._some[view][reading][CHECKPOINTS.index(at)]
            if here or then:
                clips.append(clip.id)
                if not frames:
                    moments = dict.fromkeys((at, *then) if here or at in then else then)
                    frames = tuple([clip.checkpoints[moment] for moment in moments])
        return tuple(clips), frames


@dataclass(frozen=True, eq=False)
class _Used:
    """Marks that readings use, one reading's after the other's.

    `now` are those of the moment itself with one more that is nobody's: a reading's begin at its `firsts`,
    and are `counts`. `then` are those at one of the `moments`, of these `readings`.
    """

    now: tuple[str, ...]
    firsts: Frames
    counts: Frames
    then: tuple[str, ...]
    moments: tuple[Checkpoint, ...]
    readings: Frames
    bounds: tuple[tuple[int, int], ...]

    def parts(self, row: list[bool]) -> list[tuple[int, int, list[bool]]]:
        """A row along `then`, cut by reading."""
        return [(a, b, row[a:b]) for a, b in self.bounds]


@lru_cache(maxsize=64)
def _used(looks: tuple[tuple[Use, ...], ...]) -> _Used:
    now = [[name for name, at in used if at is None] for used in looks]
    then = [[(name, at) for name, at in used if at is not None] for used in looks]
    ends = np.cumsum([0, *map(len, then)]).tolist()
    return _Used(
        now=tuple(name for names in now for name in (*names, NOBODY)),
        firsts=np.cumsum([0, *(len(names) + 1 for names in now)]),
        counts=np.array([len(names) for names in now], int),
        then=tuple(name for row in then for name, _ in row),
        moments=tuple(at for row in then for _, at in row),
        readings=np.repeat(np.arange(len(then)), [len(row) for row in then]),
        bounds=tuple(pairwise(ends)),
    )
