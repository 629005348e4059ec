"""What the API says of a student over the months."""

from datetime import date, datetime
from uuid import UUID

from ninja import Schema

from tropometer.server.judging.over_time import GoalNow
from tropometer.server.judging.schemas import ChangeOut, GoalSent
from tropometer.swing.error.source import SourceKind
from tropometer.swing.names import ClubClass, SwingLength
from tropometer.swing.readings.reading import Group, Unit


class KindCount(Schema):
    """Swings that are compared with each other, and how many of them there are."""

    club_class: ClubClass
    swing_length: SwingLength
    swings: int


class TrendSwing(Schema):
    """A swing of a trend; `stretch` counts the lessons that went out before it."""

    id: UUID
    received_at: datetime
    club: str
    stretch: int
    filmed: bool


class TrendLesson(Schema):
    """A lesson that went out: what it was about, and the drills that it gave."""

    swing_id: UUID
    on: datetime
    about: list[str]
    drills: list[str]


class TrendOut(Schema):
    """A reading over time, in columns: `swing` is a place among the swings, `low` and `high` the band.

    A value that is provisional was looked at by nobody.
    """

    reading: str
    at: str
    unit: Unit
    group: Group
    low: float | None
    high: float | None
    swing: list[int]
    value: list[float]
    u95: list[float]
    provisional: list[bool]


class TrendsOut(Schema):
    """All that was read of a student's swings of one kind, the first swing first, and what else happened."""

    kinds: list[KindCount]
    club_class: ClubClass
    swing_length: SwingLength
    swings: list[TrendSwing]
    trends: list[TrendOut]
    lessons: list[TrendLesson]


class GoalChecked(Schema):
    """A goal of a sent lesson, and what has become of it."""

    fault: str
    name: str
    goal: GoalSent
    club_class: ClubClass
    swing_length: SwingLength
    swing_id: UUID
    filmed: bool  # whether the swing has a clip to look at
    set_on: datetime
    overdue: bool
    state: GoalNow
    inside: float | None
    change: ChangeOut | None


class DayTogether(Schema):
    """A day's swings read together; one is `unlike` the others, by which it lay between `low` and `high`."""

    day: date
    swings: int
    mean: float
    u95: float
    scatter: float
    unlike: UUID | None
    value: float | None
    low: float | None
    high: float | None


class RepeatsOut(Schema):
    """How far one swing repeats within a day, over students: its standard error, and the least change of one
    swing that is more than that; `single` is the part of all differences that is between students.
    """

    subjects: int
    swings: int
    sem: float
    least_change: float
    single: float


class ChangeSince(Schema):
    """How a reading changed between two stretches; null where one of them has nothing that was looked at."""

    reading: str
    at: str
    unit: Unit
    since: date | None
    change: ChangeOut | None
    worst: SourceKind | None  # the kind of error that is largest in the latest swing
    repeats: RepeatsOut | None  # over all students of the instructor; None: fewer than two repeat
    together: DayTogether | None  # of the latest day with enough swings
