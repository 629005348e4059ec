"""A scene as one reading sees it."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.error.value import Measured, where
from tropometer.swing.names import Checkpoint, Plane
from tropometer.swing.readings.reading import Refused
from tropometer.swing.scene.place import Place, middle
from tropometer.swing.scene.scene import Scene

# A mark that a reading uses, at a checkpoint, or (None) at the moment itself.
Use = tuple[str, Checkpoint | None]


@dataclass
class Look:
    """A scene as one reading sees it: hands out places, remembers which it used and what it refused."""

    scene: Scene
    used: dict[Use, None] = field(default_factory=dict)  # in the order of their first use
    refused: list[tuple[Flags, Refused]] = field(default_factory=list)

    def here(self, name: str) -> Place:
        """A mark at every moment."""
        self._use(name, None)
        return self.scene.place(name)

    def at(self, name: str, checkpoint: Checkpoint) -> Place:
        """A mark at one checkpoint."""
        self._use(name, checkpoint)
        return self.scene.at(name, checkpoint)

    def moved(self, name: str) -> Place:
        """How far a mark has gone since address."""
        self._use(name, None)
        self._use(name, "address")
        return self.scene.moved(name)

    def bend(self, near: str, joint: str, far: str, checkpoint: Checkpoint | None = None) -> Measured:
        """180° less the inside angle of a limb at its joint, at every moment or at one checkpoint."""
        for name in (near, joint, far):
            self._use(name, checkpoint)
        return self.scene.bend(near, joint, far, checkpoint)

    def middle(self, part: str) -> Place:
        """Half-way between a lead and a trail mark."""
        return middle(self.here(f"lead_{part}"), self.here(f"trail_{part}"))

    def line(self, part: str) -> Place:
        """From the trail mark to the lead one."""
        return self.here(f"lead_{part}").minus(self.here(f"trail_{part}"))

    def line_at(self, part: str, checkpoint: Checkpoint) -> Place:
        """From the trail mark to the lead one at one checkpoint."""
        return self.at(f"lead_{part}", checkpoint).minus(self.at(f"trail_{part}", checkpoint))

    def shown_in(self, plane: Plane, *names: str) -> Flags:
        """At which moments a view that shows a plane has all of some marks."""
        return self.scene.shown_in(plane, *names)

    def since_address(self, now: Measured, then: Measured) -> Measured:
        """A change since address; nothing at address itself."""
        return where(self.scene.same_as("address"), Measured(np.zeros(())), now - then)

    def refuse(self, flags: Flags | np.bool_ | bool, reason: str) -> None:
        """Refuse the reading at those moments where the flags are set: of many, one cannot raise."""
        self.refused.append((np.asarray(flags, bool), Refused(reason)))

    @property
    def through(self) -> Array:
        """How far each moment is through the checkpoints."""
        return self.scene.through

    def _use(self, name: str, checkpoint: Checkpoint | None) -> None:
        self.used[name, checkpoint] = None
