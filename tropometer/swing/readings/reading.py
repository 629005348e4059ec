"""What a reading is: a value with its error, or a refusal with its reason."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tropometer.swing.error.budget import Share, in_words
from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured
from tropometer.swing.names import Checkpoint, View

Unit = Literal["m", "m_s", "deg", "ratio", "to_one", "s", "hours", "sd"]
NeedKind = Literal["peg", "check", "mark", "look", "known_length", "mat", "plumb", "view", "one_swing"]
Group = Literal["feet", "knees", "pelvis", "trunk", "club", "sequence", "pressure"]


@dataclass(frozen=True)
class Need:
    """The next thing to do for a refused reading: a peg, a mark, or something about the camera."""

    kind: NeedKind
    name: str = ""
    at: Checkpoint | None = None
    view: View | None = None


@dataclass(frozen=True, kw_only=True)
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
    largest_source: Source | None = None
    budget: tuple[Share, ...] = ()
    said: str = ""
    provisional: bool = False

    @property
    def largest_error(self) -> str:
        """What brings most of its error, in words."""
        return in_words(self.largest_source) if self.largest_source else ""


@dataclass(frozen=True, kw_only=True, eq=False)
class Given:
    """What a formula of times, of a plate or of other readings finds: one value, and where it comes from.

    It is `provisional` where nobody looked at what it was read off; `said` is what it says in words.
    """

    value: Measured
    clips: tuple[str, ...] = ()
    frames: tuple[int, ...] = ()
    said: str = ""
    provisional: bool = False


class Refused(Exception):
    """Raised where a reading cannot be given, with the reason and what would help; becomes a refusal."""

    def __init__(self, reason: str, *needs: Need) -> None:
        super().__init__(reason)
        self.reason = reason
        self.needs = needs
