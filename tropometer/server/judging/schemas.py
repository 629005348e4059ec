"""What the API says about a judged swing."""

from datetime import date, datetime
from typing import Literal, Self
from uuid import UUID

from ninja import Schema
from pydantic import Field, FiniteFloat, model_validator

from tropometer.server.bench.measured_schemas import NeedOut
from tropometer.server.judging.over_time import GoalNow
from tropometer.server.teaching.schemas import ShownOut
from tropometer.server.text import Line
from tropometer.swing.names import ClubClass, SwingLength, View
from tropometer.swing.readings.reading import Unit
from tropometer.teaching.judging.finding import Decision, Size, Verdict
from tropometer.teaching.judging.focus import MOST
from tropometer.teaching.judging.goals import MOST_SWINGS
from tropometer.teaching.knowledge.band import Standing
from tropometer.teaching.knowledge.trade_words import BallMiss, Id, Phase
from tropometer.teaching.over_time.change import Moved


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


class Decided(Schema):
    """What the instructor decided on a fault, why, and whether another verdict is read now than then."""

    decision: Decision
    reason: str
    verdict_then: Verdict
    changed: bool


class DrillOffer(Schema):
    """A drill against a fault: for whom it is not it is barred, for whom it waits it is held."""

    id: str
    name: str
    dose: str
    barred: bool
    held: bool
    cautions: list[str]


class GoalOut(Schema):
    """Where a reading should come to lie, in its unit; null ends are not asked for.

    So many swings a check needs; null: no count of them tells it.
    """

    reading: str
    at: str
    low: float | None
    high: float | None
    swings: int | None
    unit: Unit


class FindingOut(Schema):
    """A fault judged on a swing, with what is said of it in three voices, and what there is against it.

    `phrase` is what this instructor last said of it in words of their own.
    """

    fault: str
    name: str
    moment: str
    phase: Phase
    verdict: Verdict
    active: bool
    certainty: float
    size: Size
    provisional: bool
    ball: list[BallMiss]
    teacher: str
    student: str
    line: str
    phrase: str
    witnesses: list[WitnessOut]
    settled_by: list[SettlesOut]
    decided: Decided | None
    drills: list[DrillOffer]
    goal: GoalOut | None
    unproved: str


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


class FocusOut(Schema):
    """What the lesson is best about, and why."""

    fault: str
    why: str
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


class DrillChosen(Schema):
    """A drill of a plan, and how much of it."""

    drill: Id
    dose: Line = Field(default="", max_length=200)


class GoalChosen(Schema):
    """Where a reading should come to lie, in its unit, and by when."""

    reading: str = Field(max_length=40)
    at: str = Field(max_length=24)
    low: FiniteFloat | None = None
    high: FiniteFloat | None = None
    by: date | None = None
    swings: int | None = Field(1, ge=1, le=MOST_SWINGS, description="that a check needs; null: none tells it")

    @model_validator(mode="after")
    def _asks_for_something(self) -> Self:
        if self.low is None and self.high is None:
            raise ValueError("goal: it has neither low nor high")
        if self.low is not None and self.high is not None and self.low >= self.high:
            raise ValueError("goal: it is upside down")
        return self


class FocusChosen(Schema):
    """A fault the lesson is about, what the student is told (empty: the book's words), drills and a goal."""

    fault: Id
    words: str = Field("", max_length=600)
    drills: list[DrillChosen] = Field(default_factory=list, max_length=4)
    goal: GoalChosen | None = None


class PlanIn(Schema):
    """What the lesson is about: at most three faults, the first before the others."""

    focus: list[FocusChosen] = Field(max_length=MOST)

    @model_validator(mode="after")
    def _each_once(self) -> Self:
        if len({each.fault for each in self.focus}) < len(self.focus):
            raise ValueError("focus: a fault is there twice")
        return self


class PlanChange(Schema):
    """A plan in place of the one before; null: nothing is chosen again."""

    id: UUID | None = None  # the sender's name for the change: sent twice, it is made once
    plan: PlanIn | None


class DecisionIn(Schema):
    """A decision on a fault, and what was said of it when it was made; null: what was read speaks again."""

    id: UUID | None = None  # the sender's name for it: sent twice, it is made once
    decision: Decision | None
    reason: Line = Field("", max_length=300)
    verdict_then: Verdict = "cannot_be_seen"
    certainty_then: float = Field(0.0, ge=0, le=1)


class StepSent(Schema):
    do: str
    dose: str


class DrillSent(Schema):
    """A drill in the words in which it was sent."""

    id: str
    name: str
    set_up: str
    feel: str
    not_felt: str
    cue: str
    steps: list[StepSent]
    dose: str
    camera_shows: str
    view: View | None
    caution: str
    done_wrong: str
    cautions: list[str]
    shown: list[ShownOut]


class ValueThen(Schema):
    value: float
    u95: float


class GoalSent(GoalChosen):
    """A goal, and what was read when it was set."""

    unit: Unit
    then: ValueThen | None


class FocusSent(Schema):
    """A fault, in a student's words, with its drills and goal."""

    fault: str
    name: str
    words: str
    drills: list[DrillSent]
    goal: GoalSent | None
    cautions: list[str]


class ChainPlate(Schema):
    """A fault that follows from the one before, in a student's words; or, at the end, the usual miss."""

    name: str
    miss: BallMiss | Literal[""]


class MeasuredSent(Schema):
    """A reading that the model asks for, as it was read."""

    reading: str
    at: str
    unit: Unit
    value: float
    u95: float
    low: float | None
    high: float | None


class SentPlan(Schema):
    """A plan in the words in which it was, or would be, sent, and what stands beside it on the sheet."""

    model: str
    focus: list[FocusSent]
    strengths: list[str] = []
    chain: list[ChainPlate] = []
    measured: list[MeasuredSent] = []


class SettlesChange(Schema):
    """So many more swings on so many further days would tell; 0 swings: no count of them would.

    `measuring`: most of what is unsure is how it is measured.
    """

    swings: int
    days: int
    measuring: bool


class ChangeOut(Schema):
    """How the mean of the swings went from then to now, by `low` to `high`, and how sure it is which way."""

    then: float
    then_u95: float
    then_swings: int
    now: float
    now_u95: float
    now_swings: int
    by: float
    low: float
    high: float
    u95: float
    sure: float
    moved: Moved
    settles: SettlesChange | None


class FocusBefore(Schema):
    """A focus of the last lesson that was sent, and what has become of it."""

    swing_id: UUID
    on: datetime
    fault: str
    name: str
    goal: GoalOut | None
    change: ChangeOut | None
    now_provisional: bool
    state: GoalNow | None


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
    misses: list[BallMiss]
    earlier: list[FocusBefore]
    plan: PlanIn | None
    plan_sent: bool
