"""A swing's readings beyond those of its pegs: over time, in the past, and as files to take away."""

import json
from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Field, Query, Router, Schema

from tropometer.server.access import asking
from tropometer.server.bench import exports, services
from tropometer.server.bench import first_look as first_looks
from tropometer.server.bench.answers import answered
from tropometer.server.bench.c3d import c3d_of
from tropometer.server.bench.course import course, earlier
from tropometer.server.bench.measure import Told, measured
from tropometer.server.bench.measured_schemas import (
    BudgetOut,
    CourseOut,
    EarlierOut,
    EditAnswer,
    FirstLookOut,
)
from tropometer.server.bench.models import Pressure
from tropometer.server.bench.record import ready_clips, record_of
from tropometer.server.bench.schemas import PressureFile
from tropometer.swing.formats.swing_record import to_document
from tropometer.swing.formats.trc import trc_of

router = Router(tags=["bench"])


class Curves(Schema):
    reading: list[str] = Field([], max_length=8)


class Asked(Schema):
    reading: list[str] = Field([], max_length=100)


@router.get("/swings/{uuid:id}/course", response=CourseOut)
def swing_over_time(request: HttpRequest, id: UUID, asked: Query[Curves]) -> dict[str, Any]:
    """The curves of some readings, and when things happen in the swing."""
    return course(services.swing_of(asking(request), id), asked.reading)


@router.get("/swings/{uuid:id}/first-look", response=FirstLookOut)
def first_look(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """What a machine reads of a swing where nobody has looked yet; none of it is on the swing."""
    return first_looks.told(services.swing_of(asking(request), id))


@router.get("/swings/{uuid:id}/budgets", response=list[BudgetOut])
def budgets(request: HttpRequest, id: UUID, asked: Query[Asked]) -> list[Any]:
    """Where the intervals of some readings come from, at every moment at which they are given."""
    told: Told = measured(services.swing_of(asking(request), id))["told"]
    return [each for each in told.readings if each.reading in asked.reading and each.budget]


@router.get("/swings/{uuid:id}/earlier", response=list[EarlierOut])
def earlier_swings(request: HttpRequest, id: UUID) -> list[dict[str, Any]]:
    """What was read on the same student's swings before this one, the latest first."""
    return earlier(services.swing_of(asking(request), id))


@router.get("/swings/{uuid:id}/pressure", response=PressureFile)
def pressure(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """The pressure plate's data as they were kept, in a form that can be kept again."""
    stored = get_object_or_404(Pressure, swing=services.swing_of(asking(request), id))
    return {"file_name": stored.file_name, "text": json.dumps(stored.felt)}


@router.put("/swings/{uuid:id}/pressure", response=EditAnswer)
def keep_pressure(request: HttpRequest, id: UUID, data: PressureFile) -> dict[str, Any]:
    """Keep a pressure plate's data with the swing, and answer with what follows."""
    found = services.swing_of(asking(request), id)
    services.keep_pressure(found, data.file_name, data.text, data.impact_s)
    return answered(found)


@router.delete("/swings/{uuid:id}/pressure", response=EditAnswer)
def drop_pressure(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """Forget the pressure plate's data, and answer with what is left."""
    services.drop_pressure(services.swing_of(asking(request), id))
    return answered(services.swing_of(asking(request), id))


@router.get("/swings/{uuid:id}/record", response=dict[str, Any])
def export_record(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """The swing record in the open format."""
    found = services.swing_of(asking(request), id)
    return to_document(record_of(found, ready_clips(found)))


@router.get("/swings/{uuid:id}/readings.csv", include_in_schema=False)
def export_readings(request: HttpRequest, id: UUID) -> HttpResponse:
    """All readings as a table."""
    found = services.swing_of(asking(request), id)
    return HttpResponse(exports.readings_csv(found), content_type="text/csv; charset=utf-8")


@router.get("/swings/{uuid:id}/marks.c3d", include_in_schema=False)
def export_c3d(request: HttpRequest, id: UUID) -> HttpResponse:
    """Marks in space for a movement laboratory."""
    markers = exports.markers_in(services.swing_of(asking(request), id))
    return HttpResponse(c3d_of(markers), content_type="application/octet-stream")


@router.get("/swings/{uuid:id}/marks.trc", include_in_schema=False)
def export_trc(request: HttpRequest, id: UUID) -> HttpResponse:
    """The same as a table of tracked markers."""
    markers = exports.markers_in(services.swing_of(asking(request), id))
    return HttpResponse(trc_of(markers, "marks.trc"), content_type="text/plain; charset=utf-8")


@router.get("/swings/{uuid:id}/curves.csv", include_in_schema=False)
def export_curves(request: HttpRequest, id: UUID) -> HttpResponse:
    """Readings over time as a table."""
    found = services.swing_of(asking(request), id)
    return HttpResponse(exports.curves_csv(found), content_type="text/csv; charset=utf-8")
