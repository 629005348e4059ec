"""Who is asking, and whether a thing is theirs."""

from __future__ import annotations

from typing import TYPE_CHECKING, TypeVar, cast
from uuid import UUID

from django.db.models import Model, QuerySet
from django.http import Http404, HttpRequest

if TYPE_CHECKING:
    from tropometer.server.people.models import User

Thing = TypeVar("Thing", bound=Model)


def asking(request: HttpRequest) -> User:
    """The signed-in instructor; the API lets nobody else in."""
    return cast("User", request.user)


def owned(things: QuerySet[Thing], id: UUID) -> Thing:
    """The one with this id out of what the asker owns; a stranger's and a missing one look the same."""
    found = things.filter(pk=id).first()
    if found is None:
        raise Http404("There is no such thing here.")
    return found
