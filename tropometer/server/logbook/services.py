"""What the log knows of a student, for the apps above it."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from datetime import date, datetime
from typing import TYPE_CHECKING
from uuid import UUID

from django.utils import timezone

from tropometer.server.bench.asking import swung
from tropometer.server.bench.services import swings_of, swings_sent
from tropometer.server.clips.services import is_filmed
from tropometer.server.logbook.models import LoggedReading
from tropometer.swing.error.budget import BUDGET
from tropometer.swing.readings.reading import Reading
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.asked import Swung
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.over_time.series import Point

if TYPE_CHECKING:
    from tropometer.server.people.models import Student, User


# What is the same for all swings of one body before one camera, seen by one eye.
OF_THE_SET_UP = {BUDGET[kind] for kind in ("camera", "mat", "stand", "depth", "eye")}


@dataclass(frozen=True, kw_only=True)
class SwingInTime:
    """A student's swing, and how many lessons went out before it came."""

    id: UUID
    received_at: datetime
    answered_at: datetime | None
    club: str
    kind: Swung  # swings of one kind are compared with each other
    stretch: int
    filmed: bool  # else it was measured before, and no clip is kept

    @property
    def day(self) -> int:
        """Its local day, counted."""
        return timezone.localtime(self.received_at).date().toordinal()


@dataclass(frozen=True, kw_only=True)
class Logged:
    """A reading of a swing in the log; `worst` is the kind of its largest error."""

    swing: UUID
    value: float
    u95: float
    set_up_share: float
    worst: str
    provisional: bool

    def point(self, swing: SwingInTime) -> Point:
        """As it is compared with others."""
        return Point(
            value=self.value,
            u95=self.u95,
            day=swing.day,
            stretch=swing.stretch,
            set_up_share=self.set_up_share,
        )


def as_logged(swing_id: UUID, reading: Reading) -> Logged:
    """A reading that is given, as the log keeps it."""
    assert reading.value is not None
    shares = {share.source: share.share for share in reading.budget}
    shared = sum(shares.get(each, 0.0) for each in OF_THE_SET_UP)
    return Logged(
        swing=swing_id,
        value=reading.value,
        u95=reading.u95 or 0.0,
        set_up_share=round(min(shared, 1.0), 4),
        worst=reading.largest_source.kind if reading.largest_source else "",
        provisional=reading.provisional,
    )


def swings_in_time(student: Student) -> list[SwingInTime]:
    """All swings of a student but those in the bin, the first one first."""
    sent = swings_sent(student).prefetch_related(None).order_by("received_at", "part", "pk")
    swings = list(sent)
    filmed = set(sent.filter(is_filmed()).order_by().values_list("pk", flat=True))
    answers = sorted(swing.answered_at for swing in swings if swing.answered_at)
    return [
        SwingInTime(
            id=swing.pk,
            received_at=swing.received_at,
            answered_at=swing.answered_at,
            club=swing.club,
            kind=swung(swing),
            stretch=sum(at < swing.received_at for at in answers),
            filmed=swing.pk in filmed,
        )
        for swing in swings
    ]


def logged_of(swings: Iterable[UUID], keys: Collection[Key] | None = None) -> dict[Key, list[Logged]]:
    """What is in the log of some swings, by reading and place; of all of them, or of `keys`."""
    rows = LoggedReading.objects.filter(swing__in=list(swings), replaced_at__isnull=True)
    if keys is not None:
        rows = rows.filter(reading__in={reading for reading, _ in keys})
    found: dict[Key, list[Logged]] = {}
    values = rows.values_list(
        "reading", "at", "swing_id", "value", "u95", "set_up_share", "worst", "provisional"
    )
    for reading, at, swing, value, u95, share, worst, provisional in values:
        if reading in KINDS and (keys is None or (reading, at) in keys):  # another core had others
            found.setdefault((reading, at), []).append(
                Logged(
                    swing=swing,
                    value=value,
                    u95=u95,
                    set_up_share=share,
                    worst=worst,
                    provisional=provisional,
                )
            )
    return found


def in_order(key: Key) -> tuple[int, int]:
    """As the register has it: from the feet up, and through the swing."""
    kind = KINDS[key[0]]
    return list(KINDS).index(key[0]), kind.at.index(key[1]) if key[1] in kind.at else 0


def repeated(instructor: User, key: Key, kind: Swung) -> list[list[float]]:
    """What was looked at of one reading on a day, by student: the latest day with more than one swing."""
    rows = LoggedReading.objects.filter(
        swing__in=swings_of(instructor).filter(student__isnull=False).values("pk"),
        reading=key[0],
        at=key[1],
        replaced_at__isnull=True,
        provisional=False,
    ).select_related("swing")
    days: dict[UUID, dict[date, list[float]]] = {}
    for row in rows.order_by("swing__received_at"):
        if row.swing.student_id and swung(row.swing) == kind:
            day = timezone.localtime(row.swing.received_at).date()
            days.setdefault(row.swing.student_id, {}).setdefault(day, []).append(row.value)
    several = [[each for each in theirs.values() if len(each) > 1] for theirs in days.values()]
    return [theirs[-1] for theirs in several if theirs]
