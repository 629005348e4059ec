"""What a reading is, and the register every reading enters itself into."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array, Flags
from tropometer.swing.measured import Measured, where
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View
from tropometer.swing.scene.place import Place, middle
from tropometer.swing.scene.scene import Scene

Unit = Literal["m", "deg", "ratio", "to_one", "s", "hours", "sd"]
Group = Literal["feet", "knees", "pelvis", "trunk", "sequence", "pressure"]
AFTER_ADDRESS: tuple[Checkpoint, ...] = CHECKPOINTS[1:]
ADDRESS: tuple[Checkpoint, ...] = ("address",)
FACE_ON: tuple[View, ...] = ("face_on",)
DOWN_THE_LINE: tuple[View, ...] = ("down_the_line",)
BOTH: tuple[View, ...] = ("face_on", "down_the_line")


@dataclass(frozen=True)
class Need:
    """The next thing to do for a refused reading: a peg, a mark, or something about the camera."""

    kind: Literal["peg", "mark", "known_length", "mat", "plumb", "view"]
    name: str = ""
    at: Checkpoint | None = None
    view: View | None = None


@dataclass(frozen=True)
class Share:
    """How much of a reading's variance comes from one kind of source, 0 to 1."""

    source: str
    share: float


@dataclass(frozen=True)
class Reading:
    """A value with its error, or a refusal with its reason.

    `at` is a checkpoint, or what a reading without one is of (a part of the body, the whole swing). `said`
    holds what a reading finds in words. It is provisional while it hangs on a mark that nobody looked at.
    """

    reading: str
    at: str
    unit: Unit
    status: Literal["ok", "refused"]
    method: str
    value: float | None = None
    u95: float | None = None
    reason: str = ""
    clips: tuple[str, ...] = ()
    frames: tuple[int, ...] = ()
    needs: tuple[Need, ...] = ()
    largest_error: str = ""
    budget: tuple[Share, ...] = ()
    said: str = ""
    provisional: bool = False


class Refused(Exception):
    """Raised inside a reading that cannot be given; becomes a refusal."""

    def __init__(self, reason: str, *needs: Need) -> None:
        super().__init__(reason)
        self.reason = reason
        self.needs = needs


# A mark that a reading uses, at a checkpoint, or (None) at the moment itself.
Use = tuple[str, Checkpoint | None]


@dataclass
class Look:
    """A scene as one reading sees it: hands out places, remembers which it used and what it refused."""

    scene: Scene
    used: dict[Use, None] = field(default_factory=dict)  # in the order of their first use
    refused: list[tuple[Flags, str]] = field(default_factory=list)

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

    def seen_from(self, view: View, *names: str) -> Flags:
        """At which moments a view has all of some marks."""
        return np.asarray(np.all([self.scene.has(view, name)[self.scene.here] for name in names], axis=0))

    def since_address(self, now: Measured, then: Measured) -> Measured:
        """A change since address; nothing at address itself."""
        return where(self.scene.same_as("address"), Measured(np.zeros(())), now - then)

    def refuse(self, flags: Flags | np.bool_ | bool, reason: str) -> None:
        """Refuse the reading where the flags are set."""
        self.refused.append((np.asarray(flags, bool), reason))

    @property
    def through(self) -> Array:
        """How far each moment is through the checkpoints."""
        return np.asarray(self.scene.through[self.scene.here])

    def _use(self, name: str, checkpoint: Checkpoint | None) -> None:
        self.used[name, checkpoint] = None


Formula = Callable[[Look], Measured]


@dataclass(frozen=True)
class Kind:
    """A registered reading.

    `seen` lists, best first, the sets of views of which one must have all its marks; `scale` says what the
    views must be measured by: nothing, a length, or the mat.
    """

    id: str
    unit: Unit
    group: Group
    seen: tuple[tuple[View, ...], ...]
    at: tuple[Checkpoint, ...]
    sign: str
    scale: Literal["none", "length", "mat"]
    method: str
    formula: Formula
    changing: bool  # whether it has a value at any moment, not at its checkpoints alone


KINDS: dict[str, Kind] = {}


def reading(
    id: str,
    *,
    unit: Unit,
    group: Group,
    seen: tuple[tuple[View, ...], ...],
    at: tuple[Checkpoint, ...] = CHECKPOINTS,
    sign: str,
    scale: Literal["none", "length", "mat"] | None = None,
    changing: bool = True,
) -> Callable[[Formula], Formula]:
    """Register a formula as the reading `id`; the first line of its docstring becomes the method.

    Lengths need a scale, others do not, unless something else is said.
    """

    def register(formula: Formula) -> Formula:
        method = (formula.__doc__ or "").strip().splitlines()[0]
        needed = scale or ("length" if unit == "m" else "none")
        KINDS[id] = Kind(id, unit, group, seen, at, sign, needed, method, formula, changing)
        return formula

    return register
