"""A launch monitor's table: what it holds, taking it in, and the profiles that say what its columns are."""

from datetime import time
from typing import Annotated, Any, Literal
from uuid import UUID

from django.db.models import QuerySet
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field, model_validator

from tropometer.server.access import asking, owned
from tropometer.server.studio import launch, services
from tropometer.server.studio.ladder import ladder_of, shot_columns, shot_values
from tropometer.server.studio.models import MOST_TRIES, LaunchProfile
from tropometer.server.studio.schemas import ColumnOut, ColumnValue, LadderOut
from tropometer.server.text import Line
from tropometer.swing.formats.launch_columns import FIELDS, UNITS, Kind, Positive, Use

router = Router(tags=["studio"])

ColumnName = Annotated[str, Field(min_length=1, max_length=200)]


class ColumnUse(Schema):
    """What a column is: a field in a unit, and which side is positive where it lies to one."""

    field: Line = Field(max_length=20)
    unit: Line = Field("", max_length=8)
    positive: Positive = "right"

    @model_validator(mode="after")
    def known(self) -> "ColumnUse":
        """It is a field of a shot, and the unit one of the field's."""
        if self.field not in FIELDS:
            raise ValueError(f"nothing of a shot is called {self.field}")
        units = UNITS[FIELDS[self.field].kind]
        if self.unit not in units:
            raise ValueError(f"{FIELDS[self.field].words} is given in {', '.join(units)}")
        return self

    def use(self) -> Use:
        """The same for the core."""
        return Use(field=self.field, unit=self.unit, positive=self.positive)


class LaunchLook(Schema):
    """The text of a table; `columns` null: as a profile or their names have it."""

    text: str = Field(min_length=1, max_length=1_000_000)
    columns: dict[ColumnName, ColumnUse] | None = Field(None, max_length=80)
    decimal: Literal[".", ","] | None = None


class LaunchIn(LaunchLook):
    """A table as it is to be taken in: `tries` by line; its columns are kept as `profile`."""

    file_name: Line = Field(min_length=1, max_length=120)
    columns: dict[ColumnName, ColumnUse] = Field(max_length=80)
    tries: dict[int, UUID] = Field(min_length=1, max_length=MOST_TRIES)
    profile: Line = Field("", max_length=80)


class LaunchColumn(Schema):
    name: str
    samples: list[str]
    use: ColumnUse | None


class LaunchLine(Schema):
    line: int
    at: time | None
    try_id: UUID | None
    values: list[ColumnValue]


class LaunchFieldOut(Schema):
    field: str
    words: str
    kind: Kind
    units: list[str]
    sided: bool


class LaunchLooked(Schema):
    """A table as it would be taken in; `trouble` says what is wrong, and then there are no lines."""

    columns: list[LaunchColumn]
    decimal: Literal[".", ","]
    profile: str
    found: list[ColumnOut]  # what any line holds
    lines: list[LaunchLine]
    trouble: str
    fields: list[LaunchFieldOut]


class LaunchProfileOut(Schema):
    id: UUID
    name: str


SAMPLES = 3


@router.post("/hours/{uuid:id}/shots/look", response=LaunchLooked)
def look_into_table(request: HttpRequest, id: UUID, data: LaunchLook) -> dict[str, Any]:
    """What a launch monitor's table holds; nothing of it is kept."""
    user = asking(request)
    found = launch.look(services.hour_of(user, id), user, data.text, _uses(data.columns), data.decimal)
    return {
        "columns": [
            {
                "name": name,
                "samples": [row[place] for row in found.table.rows[:SAMPLES]],
                "use": found.uses.get(name),
            }
            for place, name in enumerate(found.table.names)
            if name
        ],
        "decimal": found.decimal,
        "profile": found.profile,
        "found": shot_columns(shot.launch for shot in found.shots),
        "lines": [
            {
                "line": shot.line,
                "at": shot.at,
                "try_id": found.tries.get(shot.line),
                "values": shot_values(shot.launch),
            }
            for shot in found.shots
        ],
        "trouble": found.trouble,
        "fields": [
            {
                "field": id,
                "words": field.words,
                "kind": field.kind,
                "units": list(UNITS[field.kind]),
                "sided": field.sided,
            }
            for id, field in FIELDS.items()
        ],
    }


@router.post("/hours/{uuid:id}/shots", response=LadderOut)
def take_table_in(request: HttpRequest, id: UUID, data: LaunchIn) -> dict[str, Any]:
    """Keep the table's shots with the hour's tries, all or none."""
    user = asking(request)
    hour = services.hour_of(user, id)
    uses = _uses(data.columns) or {}
    launch.take_in(hour, user, data.file_name, data.text, uses, data.decimal, data.tries, data.profile)
    return ladder_of(hour)


@router.delete("/hours/{uuid:id}/shots", response=LadderOut)
def forget_hours_shots(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """Forget what a launch monitor said at the hour's tries."""
    hour = services.hour_of(asking(request), id)
    launch.forget(hour)
    return ladder_of(hour)


@router.get("/launch-profiles", response=list[LaunchProfileOut])
def launch_profiles(request: HttpRequest) -> QuerySet[LaunchProfile]:
    return LaunchProfile.objects.filter(instructor=asking(request))


@router.delete("/launch-profiles/{uuid:id}", response={204: None})
def forget_launch_profile(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Forget what a table's columns are; shots that came by it stay."""
    owned(LaunchProfile.objects.filter(instructor=asking(request)), id).delete()
    return 204, None


def _uses(columns: dict[str, ColumnUse] | None) -> dict[str, Use] | None:
    return None if columns is None else {name: each.use() for name, each in columns.items()}
