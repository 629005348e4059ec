"""What the API says about a judged swing."""

from typing import Literal

from ninja import Schema

from tropometer.server.bench.measured_schemas import NeedOut
from tropometer.swing.names import ClubClass, SwingLength
from tropometer.swing.readings.reading import Unit
from tropometer.teaching.judging.finding import Size, Verdict
from tropometer.teaching.knowledge.band import Standing
from tropometer.teaching.knowledge.trade_words import BallMiss, Phase


class StrengthOut(Schema):
    """What a swing does well; the reading that shows it, if one does."""

    words: str
    certainty: float
    reading: str
    at: str


class WitnessOut(Schema):
    """One condition of the evidence: past which limit, which way, how sure; null where it cannot be seen."""

    reading: str
    at: str
    since: str | None
    less: list[str] | None
    unit: Unit
    limit: float
    way: Literal[1, -1]
    value: float | None
    u95: float | None
    certainty: float | None
    clips: list[str]
    frames: list[int]


class SettlesOut(Schema):
    """What would settle a finding, and how sure one would be then, on average; null where nothing is read."""

    need: NeedOut
    reading: str
    at: str
    certainty: float | None


class FindingOut(Schema):
    """A fault judged on a swing, with what is said of it in three voices."""

    fault: str
    name: str
    moment: str
    phase: Phase
    verdict: Verdict
    certainty: float
    size: Size
    provisional: bool
    ball: list[BallMiss]
    teacher: str
    student: str
    line: str
    witnesses: list[WitnessOut]
    settled_by: list[SettlesOut]


class LinkOut(Schema):
    cause: str
    effect: str
    strength: float
    makes_room: bool


class RootOut(Schema):
    """A fault without an active cause, and what it explains."""

    fault: str
    weight: float
    explains: list[str]
    misses: list[BallMiss]


class DrillName(Schema):
    id: str
    name: str


class FocusOut(Schema):
    """What the lesson is best about, why, and the drills for it."""

    fault: str
    why: str
    drills: list[DrillName]
    cautions: list[str]


class LeftOutOut(Schema):
    fault: str
    why: str


class SetUpOut(Schema):
    """A set-up reading against the model."""

    reading: str
    unit: Unit
    low: float | None
    high: float | None
    value: float | None
    u95: float | None
    standing: Standing | None
    reason: str


class JudgementOut(Schema):
    """What a swing means to a teaching model."""

    model: str
    name: str
    club_class: ClubClass
    swing_length: SwingLength
    strengths: list[StrengthOut]
    findings: list[FindingOut]
    links: list[LinkOut]
    roots: list[RootOut]
    focus: list[FocusOut]
    left_out: list[LeftOutOut]
    clashes: list[str]
    set_up: list[SetUpOut]
