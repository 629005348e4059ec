"""A finding: a fault judged on one swing."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tropometer.swing.readings.reading import Need, Unit
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.knowledge.trade_words import Phase

Verdict = Literal["shown", "likely", "open", "not_shown", "cannot_be_seen"]
Size = Literal["slight", "plain", "strong"]
Decision = Literal["accepted", "rejected", "added"]  # an instructor's, by eye
SHOWN, LIKELY, OPEN = 0.90, 0.60, 0.10
SLIGHT, PLAIN = 0.5, 1.5  # half-widths of the band past its limit
ACTIVE: tuple[Verdict, ...] = ("shown", "likely")


@dataclass(frozen=True, kw_only=True)
class Witness:
    """One condition of a finding's evidence: what was read, which limit, and how sure that it is past that.

    `value` and `certainty` are None where it cannot be seen.
    """

    reading: str
    at: str
    since: str | None
    less: Key | None
    unit: Unit
    limit: float
    way: Literal[1, -1]
    value: float | None
    u95: float | None
    certainty: float | None
    clips: tuple[str, ...] = ()
    frames: tuple[int, ...] = ()


@dataclass(frozen=True, kw_only=True)
class Settles:
    """What would settle a finding, and how sure one would be of it afterwards, on average."""

    need: Need
    reading: str
    at: str
    certainty: float | None  # None where the reading is not there yet


@dataclass(frozen=True, kw_only=True)
class Finding:
    """A fault judged on one swing. It is provisional while it hangs on a mark that nobody looked at."""

    fault: str
    moment: str
    phase: Phase
    verdict: Verdict
    certainty: float
    size: float  # half-widths past the limit; not above nothing where the measured values do not pass it
    witnesses: tuple[Witness, ...]
    settled_by: tuple[Settles, ...] = ()
    provisional: bool = False
    decision: Decision | None = None

    @property
    def is_active(self) -> bool:
        """Whether it takes part in the chain: what an instructor decided goes before what was read."""
        return self.verdict in ACTIVE if self.decision is None else self.decision != "rejected"

    @property
    def counts(self) -> float:
        """How sure it is, with the instructor's word for it where they gave it."""
        return self.certainty if self.decision is None else float(self.is_active)

    @property
    def sized(self) -> Size:
        """Its size in a word."""
        return "slight" if self.size < SLIGHT else "plain" if self.size < PLAIN else "strong"


@dataclass(frozen=True, kw_only=True)
class Strength:
    """A band that the swing holds, or a fault of last time that is gone."""

    words: str
    certainty: float
    band: Band | None = None
    fault: str | None = None


def verdict_of(certainty: float) -> Verdict:
    """What a certainty is said as."""
    if certainty >= SHOWN:
        return "shown"
    return "likely" if certainty >= LIKELY else "open" if certainty >= OPEN else "not_shown"
