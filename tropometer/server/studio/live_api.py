"""The line of an hour: opened and closed, and the strikes that devices told of."""

from datetime import datetime
from typing import Any
from uuid import UUID

from django.conf import settings
from django.http import HttpRequest
from ninja import Router, Schema

from tropometer.server.access import asking
from tropometer.server.studio import services
from tropometer.server.studio.film_api import film_link
from tropometer.server.studio.ladder import ladder_of, shot_columns, shot_values
from tropometer.server.studio.live import strikes
from tropometer.server.studio.live.set_up import set_up_of
from tropometer.server.studio.models import Strike, StudioHour
from tropometer.server.studio.schemas import ColumnOut, ColumnValue, LadderOut
from tropometer.swing.formats.launch import launch_from
from tropometer.swing.readings.reading import Unit

router = Router(tags=["studio"])


class StrikeOut(Schema):
    """A ball that was struck, as devices told it; `try_id` is whose it is, null while nobody's."""

    id: UUID
    struck_at: datetime
    felt_by: str  # empty: no plate felt it
    said_by: str
    values: list[ColumnValue]
    try_id: UUID | None


class SetUpRead(Schema):
    value: float
    u95: float
    provisional: bool


class SetUpOut(Schema):
    """A reading of the set-up: what is asked of it, and what was read of the latest try."""

    reading: str
    unit: Unit
    low: float | None
    high: float | None
    read: SetUpRead | None


class HourLineOut(Schema):
    """Where devices send to while the line is open, and what they told; `address` null: it is not open."""

    address: str | None
    film: str | None  # where a phone films for the hour
    open_until: datetime | None
    strikes: list[StrikeOut]
    columns: list[ColumnOut]  # what any strike's shot holds
    set_up: list[SetUpOut]


class WhoseStrike(Schema):
    try_id: UUID | None


@router.get("/hours/{uuid:id}/line", response=HourLineOut)
def line(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """Where devices send to, and what they told of strikes."""
    return _line(services.hour_of(asking(request), id))


@router.post("/hours/{uuid:id}/line", response=HourLineOut)
def open_line(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """Let devices send to the hour, for half a day."""
    hour = services.hour_of(asking(request), id)
    strikes.open_line(hour)
    return _line(hour)


@router.delete("/hours/{uuid:id}/line", response=HourLineOut)
def close_line(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """Let no device send any more; what they told stays."""
    hour = services.hour_of(asking(request), id)
    strikes.close_line(hour)
    return _line(hour)


@router.put("/hours/{uuid:id}/strikes/{uuid:strike_id}", response=LadderOut)
def say_whose_strike(request: HttpRequest, id: UUID, strike_id: UUID, data: WhoseStrike) -> dict[str, Any]:
    """Say which try a strike is of, or that it is of none."""
    hour = services.hour_of(asking(request), id)
    strikes.say_whose(hour, strike_id, data.try_id)
    return ladder_of(hour)


@router.delete("/hours/{uuid:id}/strikes/{uuid:strike_id}", response=HourLineOut)
def forget_strike(request: HttpRequest, id: UUID, strike_id: UUID) -> dict[str, Any]:
    """Forget a strike; what a try has of it stays the try's."""
    hour = services.hour_of(asking(request), id)
    strikes.forget(hour, strike_id)
    return _line(hour)


def _line(hour: StudioHour) -> dict[str, Any]:
    is_open = strikes.line_is_open(hour)
    told = list(hour.strikes.all())
    base = settings.SITE_URL.replace("http", "ws", 1)
    return {
        "address": f"{base}/live/devices/{hour.line_token}" if is_open else None,
        "film": film_link(hour) if is_open else None,
        "open_until": hour.line_open_until if is_open else None,
        "strikes": [_told(each) for each in told],
        "columns": shot_columns(launch_from(each.said) for each in told if each.said),
        "set_up": set_up_of(hour),
    }


def _told(strike: Strike) -> dict[str, Any]:
    return {
        "id": strike.pk,
        "struck_at": strike.struck_at,
        "felt_by": strike.felt_by,
        "said_by": strike.said_by,
        "values": shot_values(launch_from(strike.said)) if strike.said else [],
        "try_id": strike.tried_id,
    }
