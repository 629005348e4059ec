"""A launch monitor's table taken in: what its columns are, and which line is the shot of which try."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, time
from typing import TYPE_CHECKING, cast
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from tropometer.server.bench.services import forget_shots, keep_shot
from tropometer.server.studio.models import LaunchProfile, StudioHour
from tropometer.server.studio.services import BadTry, tries_of
from tropometer.swing.formats.launch_columns import Use
from tropometer.swing.formats.launch_table import Decimal, LaunchTable, TableShot, proposed, read_table, shots
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.names import Hand

if TYPE_CHECKING:
    from tropometer.server.people.models import User

NEAR_S = 45  # a shot and its try are of one swing where their clocks are no farther apart


@dataclass(frozen=True, kw_only=True)
class Looked:
    """A table as it would be taken in; `trouble` says what is wrong with it, and then there are no shots."""

    table: LaunchTable
    uses: Mapping[str, Use]
    decimal: Decimal
    profile: str
    shots: Sequence[TableShot]
    tries: Mapping[int, UUID]  # by line
    trouble: str = ""


def look(
    hour: StudioHour,
    instructor: User,
    text: str,
    uses: Mapping[str, Use] | None,
    decimal: Decimal | None,
) -> Looked:
    """What a table holds, by what is said of its columns, else by a profile that knows them or their names.

    Raises RecordError for a text that is no table.
    """
    table = read_table(text)
    profile = ""
    if uses is None:
        profile, uses = _known(instructor, table) or ("", proposed(table))
    try:
        found = shots(table, uses, _hand(hour), decimal)
        trouble = "" if _measured(uses) else "Say of one column at least what it is."
    except RecordError as error:
        found, trouble = [], str(error)
    return Looked(
        table=table,
        uses=uses,
        decimal=decimal or table.decimal,
        profile=profile,
        shots=found,
        tries=_paired(found, [(each.pk, each.swing.received_at) for each in tries_of(hour)]),
        trouble=trouble,
    )


@transaction.atomic
def take_in(
    hour: StudioHour,
    instructor: User,
    file_name: str,
    text: str,
    uses: Mapping[str, Use],
    decimal: Decimal | None,
    tries: Mapping[int, UUID],
    profile: str,
) -> int:
    """Keep each line's shot with its try's swing, all or none; how many there are.

    RecordError for what is wrong with the table, BadTry for a line or a try that is not there or named twice.
    """
    found = {shot.line: shot for shot in shots(read_table(text), uses, _hand(hour), decimal)}
    if not _measured(uses):
        raise BadTry("columns: say of one at least what it is.")
    swings = {each.pk: each.swing for each in tries_of(hour)}
    if len(set(tries.values())) < len(tries):
        raise BadTry("tries: two lines are said to be the shot of one try.")
    for line, id in tries.items():
        if line not in found:
            raise BadTry(f"tries: the table has no shot on line {line}.")
        if id not in swings:
            raise BadTry(f"tries: the try of line {line} is not of this hour; look at it anew.")
        keep_shot(swings[id], file_name, found[line].launch)
    if profile:
        said = {
            name: {"field": use.field, "unit": use.unit, "positive": use.positive}
            for name, use in uses.items()
        }
        LaunchProfile.objects.update_or_create(
            instructor=instructor, name=profile, defaults={"columns": said}
        )
    return len(tries)


def forget(hour: StudioHour) -> None:
    """Forget what a launch monitor said at an hour's tries."""
    forget_shots(each.swing for each in tries_of(hour))


def _known(instructor: User, table: LaunchTable) -> tuple[str, dict[str, Use]] | None:
    """The profile that knows the most columns, of those whose columns are all there."""
    fitting = [
        profile
        for profile in LaunchProfile.objects.filter(instructor=instructor)
        if profile.columns and set(profile.columns) <= set(table.names)
    ]
    if not fitting:
        return None
    best = max(fitting, key=lambda profile: len(profile.columns))
    return best.name, {name: Use(**said) for name, said in best.columns.items()}


def _measured(uses: Mapping[str, Use]) -> bool:
    return any(use.field != "time" for use in uses.values())


def _hand(hour: StudioHour) -> Hand:
    return cast(Hand, hour.student.hand)


def _paired(found: Sequence[TableShot], tries: Sequence[tuple[UUID, datetime]]) -> dict[int, UUID]:
    """Which try each shot is of: by their clocks where those fit, else in their order."""
    by_clock = _by_clock(found, tries)
    if by_clock:
        return by_clock
    return {shot.line: id for shot, (id, _) in zip(found, tries, strict=False)}


def _by_clock(found: Sequence[TableShot], tries: Sequence[tuple[UUID, datetime]]) -> dict[int, UUID]:
    """Nothing where a line has no time, or most find no try near: then the clocks are of other things."""
    open_tries = [(id, _seconds(timezone.localtime(at).time())) for id, at in tries]
    pairs: dict[int, UUID] = {}
    for shot in found:
        if shot.at is None:
            return {}
        at = _seconds(shot.at)
        near = [(abs(seconds - at), id) for id, seconds in open_tries if abs(seconds - at) <= NEAR_S]
        if near:
            _, chosen = min(near, key=lambda pair: pair[0])
            pairs[shot.line] = chosen
            open_tries = [each for each in open_tries if each[0] != chosen]
    return pairs if 2 * len(pairs) >= min(len(found), len(tries)) else {}


def _seconds(at: time) -> int:
    return at.hour * 3600 + at.minute * 60 + at.second
