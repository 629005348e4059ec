"""Long lists: found by words, put in order, given in pages."""

from datetime import date, datetime, time, timedelta
from typing import Any, TypeVar, cast

from django.db.models import F, Func, Model, QuerySet, TextField, Value
from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Schema
from ninja.pagination import LimitOffsetPagination

Row = TypeVar("Row", bound=Model)


LOOKED_AHEAD = 500  # rows after a page


class Pages(LimitOffsetPagination):
    """Some rows from an offset on, and how many there are in all."""

    class Input(LimitOffsetPagination.Input):
        offset: int = Field(0, ge=0, le=1_000_000)  # beyond the database's own numbers lies an error

    def paginate_queryset(
        self, queryset: QuerySet[Any], pagination: Any, request: HttpRequest, **params: Any
    ) -> Any:
        """Put in order what is narrow; only a page's rows are fetched whole."""
        first, last = pagination.offset, pagination.offset + min(pagination.limit, self.max_limit)
        found = list(queryset.values_list("pk", flat=True)[first : last + LOOKED_AHEAD])
        # Few are counted as they are found: to look through all words twice would take twice as long.
        is_all = 0 < len(found) < last - first + LOOKED_AHEAD
        ids = found[: last - first]
        rows = {row.pk: row for row in queryset.filter(pk__in=ids).order_by()} if ids else {}
        count = first + len(found) if is_all else queryset.count()
        return {"items": [rows[pk] for pk in ids if pk in rows], "count": count}


class Search(Schema):
    q: str = Field("", max_length=100, description="words, all of which must be found in a row")


def between(rows: QuerySet[Row], field: str, since: date | None, until: date | None) -> QuerySet[Row]:
    """The rows of some local days, both ends among them."""
    if since:
        rows = rows.filter(**{f"{field}__gte": _midnight(since)})
    if until and until < date.max:
        rows = rows.filter(**{f"{field}__lt": _midnight(until + timedelta(days=1))})
    return rows


def _midnight(day: date) -> datetime:
    return timezone.make_aware(datetime.combine(day, time.min))


def matching(rows: QuerySet[Row], q: str, *fields: str) -> QuerySet[Row]:
    """The rows in which every word of `q` stands somewhere in the fields, in any case of letters."""
    # On lines of their own, so that no word goes from one field to the next.
    text = Func(Value("\n"), *map(F, fields), function="CONCAT_WS", output_field=TextField())
    for word in q.split():
        whole = rows.alias(all_words=text)
        rows = cast(QuerySet[Row], whole.filter(all_words__icontains=word))
    return rows
