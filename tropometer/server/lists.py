"""Long lists: found by words, put in order, given in pages."""

from typing import TypeVar

from django.db.models import Model, Q, QuerySet
from ninja import Field, Schema
from ninja.pagination import LimitOffsetPagination

Row = TypeVar("Row", bound=Model)


class Pages(LimitOffsetPagination):
    """Some rows from an offset on, and how many there are in all."""

    class Input(LimitOffsetPagination.Input):
        offset: int = Field(0, ge=0, le=1_000_000)  # beyond the database's own numbers lies an error


class Search(Schema):
    q: str = Field("", max_length=100, description="words, all of which must be found in a row")


def matching(rows: QuerySet[Row], q: str, *fields: str) -> QuerySet[Row]:
    """The rows in which every word of `q` stands somewhere in the fields, in any case of letters."""
    for word in q.split():
        anywhere = Q()
        for field in fields:
            anywhere |= Q(**{f"{field}__icontains": word})
        rows = rows.filter(anywhere)
    return rows
