"""A swing as its readings see it: every mark at the checkpoints, or at other moments."""

from __future__ import annotations

from functools import cached_property

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.error.source import HERE, Source
from tropometer.swing.error.value import Measured, combined
from tropometer.swing.names import PLANE_OF, UNSEEN, Checkpoint, Plane, View, spoken
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.place import Place, bend_between
from tropometer.swing.scene.placed import Placed


class Scene:
    """Some columns of all placed marks; what is asked for twice is worked out once.

    `here` are its moments; any checkpoint's place can be had beside them.
    """

    def __init__(self, placed: Placed, here: slice) -> None:
        self.placed, self.here = placed, here
        self.record, self.clips = placed.record, placed.clips
        self.turn, self.eyes, self.troubles = placed.turn, placed.eyes, placed.troubles
        self.count = len(placed.through[here])
        self._cuts: dict[tuple[str, Checkpoint | None], Place] = {}
        self._moves: dict[str, Place] = {}
        self._bends: dict[tuple[str, str, str, Checkpoint | None], Measured] = {}

    @classmethod
    def at_checkpoints(cls, swing: SwingRecord | Placed) -> Scene:
        """The nine checkpoints of a swing."""
        placed = swing if isinstance(swing, Placed) else Placed(swing)
        return cls(placed, slice(placed.asked, None))

    @classmethod
    def between_checkpoints(cls, placed: Placed) -> Scene:
        """The other moments that were placed."""
        return cls(placed, slice(0, placed.asked))

    @property
    def through(self) -> Array:
        """How far each moment is through the checkpoints."""
        return np.asarray(self.placed.through[self.here])

    def frame(self, view: View, at: Checkpoint) -> int:
        """A view's frame of a checkpoint; −1 where it has none."""
        return self.placed.frame(view, self.placed.column(at))

    def has(self, view: View, name: str) -> Flags:
        """At which moments a view has a mark."""
        return np.asarray(self.placed.has(view, name)[self.here])

    def shown_in(self, plane: Plane, *names: str) -> Flags:
        """At which moments a view that shows a plane has all of some marks."""
        shown = np.zeros(self.count, bool)
        for view in self.eyes:
            if PLANE_OF[view] == plane:
                shown |= np.all([self.has(view, name) for name in names], axis=0)
        return shown

    def moment_s(self) -> Array:
        """How far all views' frames together are from each moment, one standard deviation, seconds."""
        return np.sqrt(sum(np.square(self.placed.moment_s(view)[self.here]) for view in self.eyes))

    def unseen(self) -> dict[View, frozenset[tuple[str, int]]]:
        """Names and frames of the marks of each view's checkpoints that nobody looked at."""
        return {
            view: frozenset(
                (name, frame)
                for frame in set(clip.checkpoints.values())
                for name, marks in clip.marks.items()
                if frame in marks and marks[frame].source in UNSEEN
            )
            for view, clip in self.clips.items()
            if view in self.eyes
        }

    def place(self, name: str) -> Place:
        """A mark at every moment asked for; NaN where no view has it."""
        if (name, None) not in self._cuts:
            self._cuts[name, None] = self.placed.cut(name, self.here, None)
        return self._cuts[name, None]

    def at(self, name: str, checkpoint: Checkpoint) -> Place:
        """A mark at one checkpoint."""
        if (name, checkpoint) not in self._cuts:
            self._cuts[name, checkpoint] = self.placed.cut(name, self.placed.column(checkpoint), checkpoint)
        return self._cuts[name, checkpoint]

    def moved(self, name: str) -> Place:
        """How far a mark has gone since address; nothing at address itself, where both are the same mark."""
        if name not in self._moves:
            gone = self._gone
            ways = zip(self.place(name), self.at(name, "address"), strict=True)
            self._moves[name] = Place(
                *(
                    combined(np.where(gone, now.value - then.value, 0.0), (now, gone), (then, -gone))
                    for now, then in ways
                )
            )
        return self._moves[name]

    def bend(self, near: str, joint: str, far: str, checkpoint: Checkpoint | None) -> Measured:
        """180° less the inside angle of a limb at its joint: from the near part's way to the far part's."""
        key = (near, joint, far, checkpoint)
        if key not in self._bends:
            a, b, c = (
                self.at(name, checkpoint) if checkpoint else self.place(name) for name in (near, joint, far)
            )
            source = Source("depth", f"how the {spoken(joint)} stands aside", checkpoint or HERE)
            self._bends[key] = bend_between(b.minus(a), c.minus(b), source)
        return self._bends[key]

    def same_as(self, checkpoint: Checkpoint) -> Flags:
        """Which of the moments are the very frames of a checkpoint."""
        column = self.placed.column(checkpoint)
        same = np.zeros(self.count, bool)
        for frames in self.placed.frames.values():
            if frames[column] >= 0:
                same |= frames[self.here] == frames[column]
        return same

    @cached_property
    def _gone(self) -> Array:
        """0 where a moment is the very frame of address, else 1."""
        return np.where(self.same_as("address"), 0.0, 1.0)
