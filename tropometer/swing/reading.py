"""What a reading is, and the register every reading enters itself into."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Literal

from tropometer.swing.face_on import FaceOn
from tropometer.swing.measured import Measured
from tropometer.swing.names import Checkpoint, View, spoken

Unit = Literal["m", "ratio"]


@dataclass(frozen=True)
class Need:
    """The next thing to do for a refused reading: a peg, a mark at a checkpoint, or a known length."""

    kind: Literal["peg", "mark", "known_length", "mat", "plumb", "view"]
    name: str = ""
    at: Checkpoint | None = None


@dataclass(frozen=True)
class Share:
    """How much of a reading's variance comes from one kind of source, 0 to 1."""

    source: str
    share: float


@dataclass(frozen=True)
class Reading:
    """A value at a checkpoint with its error, or a refusal with its reason."""

    reading: str
    at: Checkpoint
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


class Refused(Exception):
    """Raised inside a reading that cannot be given; becomes a refusal."""

    def __init__(self, reason: str, *needs: Need) -> None:
        super().__init__(reason)
        self.reason = reason
        self.needs = needs


@dataclass
class Look:
    """One clip seen by one reading: hands out positions, and remembers the frames it used and what it missed.

    Where something is missing a zero stands in, so that a formula runs on and all that it needs is known.
    """

    camera: FaceOn
    frames: list[int] = field(default_factory=list)
    missing: list[Refused] = field(default_factory=list)

    def frame(self, at: Checkpoint) -> int | None:
        """Frame of a checkpoint; None, and noted as missing, while it is not pegged."""
        frame = self.camera.clip.checkpoints.get(at)
        if frame is None:
            self._miss(f"Set the {spoken(at)} peg.", Need("peg", at, at))
        elif frame not in self.frames:
            self.frames.append(frame)
        return frame

    def along_target(self, name: str, at: Checkpoint) -> Measured:
        """T of a mark at a checkpoint, metres; zero, and noted as missing, while it is not marked."""
        frame = self.frame(at)
        if frame is None:
            return Measured(0.0)
        clip = self.camera.clip
        if frame in clip.hidden.get(name, ()):
            self._miss(f"The {spoken(name)} was hidden at {spoken(at)} (frame {frame}).")
            return Measured(0.0)
        if frame not in clip.marks.get(name, {}):
            self._miss(f"Mark the {spoken(name)} at {spoken(at)} (frame {frame}).", Need("mark", name, at))
            return Measured(0.0)
        return self.camera.along_target(name, frame, at)

    def _miss(self, reason: str, *needs: Need) -> None:
        if all(each.reason != reason for each in self.missing):
            self.missing.append(Refused(reason, *needs))


Formula = Callable[[Look, Checkpoint], Measured]


@dataclass(frozen=True)
class Kind:
    """A registered reading: its id, unit, view, checkpoints, sign in words, and formula."""

    id: str
    unit: Unit
    view: View
    at: tuple[Checkpoint, ...]
    sign: str
    method: str
    formula: Formula


KINDS: dict[str, Kind] = {}


def reading(
    id: str, *, unit: Unit, view: View, at: tuple[Checkpoint, ...], sign: str
) -> Callable[[Formula], Formula]:
    """Register a formula as the reading `id`; the first line of its docstring becomes the method."""

    def register(formula: Formula) -> Formula:
        method = (formula.__doc__ or "").strip().splitlines()[0]
        KINDS[id] = Kind(id, unit, view, at, sign, method, formula)
        return formula

    return register
