"""A student over the months: trends, changes, goals, and the log as a table."""

from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Field, Query, Router, Schema

from tropometer.server.access import asking
from tropometer.server.judging import trends
from tropometer.server.judging.time_schemas import ChangeSince, GoalChecked, TrendsOut
from tropometer.server.people.services import student_of
from tropometer.swing.names import ClubClass, SwingLength
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.asked import Swung

router = Router(tags=["over time"])


class OfKind(Schema):
    """Which swings are compared; the kind there are most of, where nothing is said."""

    club_class: ClubClass | None = None
    swing_length: SwingLength = "full"

    @property
    def kind(self) -> Swung | None:
        """None where nothing was said."""
        if self.club_class is None:
            return None
        return Swung(club=self.club_class, length=self.swing_length)


class ChangeAsked(OfKind):
    since_first: bool = Field(False, description="since the first swings, not since the last lesson")


@router.get("/students/{uuid:id}/trends", response=TrendsOut)
def student_trends(request: HttpRequest, id: UUID, asked: Query[OfKind]) -> dict[str, Any]:
    """All that was read of a student's swings of one kind."""
    return trends.trends_of(student_of(asking(request), id), asked.kind)


@router.get("/students/{uuid:id}/change/{reading}/{at}", response=ChangeSince)
def student_change(
    request: HttpRequest, id: UUID, reading: str, at: str, asked: Query[ChangeAsked]
) -> dict[str, Any]:
    """Whether one reading changed, and how sure that is."""
    student = student_of(asking(request), id)
    if reading not in KINDS:
        raise Http404("There is no such reading.")
    kind = asked.kind or Swung()
    return trends.change_of(student, (reading, at), kind, asked.since_first)


@router.get("/students/{uuid:id}/goals", response=list[GoalChecked])
def student_goals(request: HttpRequest, id: UUID) -> list[dict[str, Any]]:
    """The goals of sent lessons, and what has become of them."""
    return trends.goals_of(student_of(asking(request), id))


@router.get("/students/{uuid:id}/log.csv", include_in_schema=False)
def student_log(request: HttpRequest, id: UUID) -> HttpResponse:
    """The whole log as a table."""
    found = student_of(asking(request), id)
    answer = HttpResponse(trends.log_csv(found), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="log.csv"'
    return answer
