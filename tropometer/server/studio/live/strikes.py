"""Strikes that devices told of: kept with the hour, put together, and put to the tries whose they are."""

from __future__ import annotations

import secrets
from datetime import datetime, timedelta
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.bench.services import keep_felt, keep_shot
from tropometer.server.studio.models import Strike, StudioHour, Try
from tropometer.server.studio.services import BadTry, tries_of
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.formats.launch import launch_document, launch_from
from tropometer.swing.formats.plate import plate_document, plate_from

if TYPE_CHECKING:
    from tropometer.swing.record.launch import Launch
    from tropometer.swing.record.plate import PressurePlate

LINE_OPEN = timedelta(hours=12)
MOST_STRIKES = 400  # of an hour; more are no student's
ONE_BALL_S = 1.0  # two devices tell of one ball within this and the error of their clocks
# A swing comes in after its strike: its clip is cut and sent. By so much at most, else it is another's.
COMES_BEFORE_S, COMES_AFTER_S = 2.0, 90.0
SEEN_WITHIN = timedelta(seconds=2.5)  # a camera, or a hand, and a device tell of one ball within this
PLATE, LAUNCH_MONITOR = "Pressure plate", "Launch monitor"


class FullHour(ValueError):
    """An hour holds no more strikes."""


@transaction.atomic
def open_line(hour: StudioHour) -> None:
    """Let devices send to the hour for half a day; an open line keeps its token."""
    hour.refresh_from_db(from_queryset=StudioHour.objects.select_for_update())
    if not line_is_open(hour):
        hour.line_token = secrets.token_urlsafe(32)
    hour.line_open_until = timezone.now() + LINE_OPEN
    hour.save(update_fields=["line_token", "line_open_until"])


def close_line(hour: StudioHour) -> None:
    """Let no device send to the hour any more."""
    hour.line_token, hour.line_open_until = "", None
    hour.save(update_fields=["line_token", "line_open_until"])


def line_is_open(hour: StudioHour) -> bool:
    """Whether devices may send to the hour."""
    return hour.line_open_until is not None and timezone.now() < hour.line_open_until


def hour_of_line(token: str) -> StudioHour | None:
    """The hour that a device may send to by a token; None where there is none."""
    hours = StudioHour.objects.select_related("student")
    open_now = hours.filter(line_open_until__gt=timezone.now(), student__removed_at__isnull=True)
    return open_now.filter(line_token=token).first() if token else None


def felt(hour: StudioHour, name: str, at: datetime, sd_s: float, plate: PressurePlate) -> Strike:
    """Keep what a plate felt of a strike."""
    return _keep(hour, at, sd_s, felt=plate_document(plate), felt_by=name or PLATE)


def said(hour: StudioHour, name: str, at: datetime, sd_s: float, launch: Launch) -> Strike:
    """Keep what a launch monitor said of a strike."""
    return _keep(hour, at, sd_s, said=launch_document(launch), said_by=name or LAUNCH_MONITOR)


@transaction.atomic
def _keep(hour: StudioHour, at: datetime, sd_s: float, **told: Any) -> Strike:
    """With the strike that another device told of, if it can be of the same ball, else as a new one.

    Raises FullHour.
    """
    StudioHour.objects.select_for_update().get(pk=hour.pk)
    kind = "felt" if "felt" in told else "said"
    strikes = hour.strikes.filter(**{f"{kind}__isnull": True})
    near = [
        (apart, each)
        for each in strikes.filter(struck_at__range=(at - timedelta(seconds=60), at + timedelta(seconds=60)))
        if (apart := abs((each.struck_at - at).total_seconds()))
        <= ONE_BALL_S + NORMAL_95 * float((each.sd_s**2 + sd_s**2) ** 0.5)
    ]
    if near:
        _, strike = min(near, key=lambda pair: pair[0])
        if sd_s < strike.sd_s:
            strike.struck_at, strike.sd_s = at, sd_s
        for field, value in told.items():
            setattr(strike, field, value)
        strike.save()
    else:
        if hour.strikes.count() >= MOST_STRIKES:
            raise FullHour(f"An hour holds {MOST_STRIKES} strikes.")
        strike = Strike.objects.create(hour=hour, struck_at=at, sd_s=sd_s, **told)
    if strike.tried is None:
        strike.tried = _try_of(strike)
        strike.save(update_fields=["tried"])
    _put_to_swing(strike)
    return strike


@transaction.atomic
def put_strike_to(tried: Try) -> None:
    """Put a try that has come in to the strike that it must be of, if there is one."""
    StudioHour.objects.select_for_update().get(pk=tried.hour_id)
    if Strike.objects.filter(tried=tried).exists():
        return
    of_none = Strike.objects.filter(hour=tried.hour_id, tried__isnull=True)
    strike: Strike | None
    if tried.struck_at is not None:
        at = tried.struck_at
        near = of_none.filter(struck_at__range=(at - SEEN_WITHIN, at + SEEN_WITHIN))
        strike = min(near, key=lambda each: abs(each.struck_at - at), default=None)
    else:
        at = tried.swing.received_at
        before = of_none.filter(
            struck_at__gte=at - timedelta(seconds=COMES_AFTER_S),
            struck_at__lte=at + timedelta(seconds=COMES_BEFORE_S),
        )
        strike = before.order_by("-struck_at").first()
    if strike is not None:
        strike.tried = tried
        strike.save(update_fields=["tried"])
        _put_to_swing(strike)


def _try_of(strike: Strike) -> Try | None:
    """The try that a camera saw then, else the first that came in after a strike; and is of none yet."""
    at = strike.struck_at
    of_none = tries_of(strike.hour).filter(strike__isnull=True)
    seen = of_none.filter(struck_at__range=(at - SEEN_WITHIN, at + SEEN_WITHIN))
    nearest = min(seen, key=lambda each: abs((each.struck_at or at) - at), default=None)
    if nearest is not None:
        return nearest
    waiting = of_none.filter(
        struck_at__isnull=True,
        swing__received_at__gte=at - timedelta(seconds=COMES_BEFORE_S),
        swing__received_at__lte=at + timedelta(seconds=COMES_AFTER_S),
    )
    return waiting.order_by("swing__received_at").first()


def say_whose(hour: StudioHour, strike_id: UUID, try_id: UUID | None) -> None:
    """A strike is that try's, or nobody's; what a hand says stands against what was taken from the clocks.

    What a try has from elsewhere, a file, goes when a strike is said to be its. Raises BadTry.
    """
    with transaction.atomic():
        strike = owned(hour.strikes.select_related("tried__swing"), strike_id)
        if try_id is not None:
            tried = owned(tries_of(hour), try_id)
            other = Strike.objects.filter(tried=tried).exclude(pk=strike.pk).first()
            if other is not None:
                raise BadTry("tried: another strike is said to be this try's; say first that it is not.")
        strike.tried_id = try_id
        strike.save(update_fields=["tried"])
        if try_id is not None:
            _put_to_swing(Strike.objects.select_related("tried__swing").get(pk=strike.pk))


def forget(hour: StudioHour, strike_id: UUID) -> None:
    """Forget a strike; what was kept of it with a swing stays the swing's."""
    owned(hour.strikes.all(), strike_id).delete()


def _put_to_swing(strike: Strike) -> None:
    if strike.tried is None:
        return
    swing = strike.tried.swing
    if strike.felt is not None:
        keep_felt(swing, strike.felt_by, plate_from(strike.felt))
    if strike.said is not None:
        keep_shot(swing, strike.said_by, launch_from(strike.said))
