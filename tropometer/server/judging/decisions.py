"""An instructor's decisions on the faults of a swing: they stand, whatever is measured anew."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.db import transaction
from django.db.models import QuerySet

from tropometer.server.bench.changed import swing_changed
from tropometer.server.judging.models import DecidedFault
from tropometer.server.judging.once import is_new
from tropometer.server.teaching.services import book_of
from tropometer.teaching.knowledge.book_error import BookError

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.judging.schemas import DecisionIn


def decisions_on(swing: Swing) -> QuerySet[DecidedFault]:
    """What was decided on a swing's faults."""
    return DecidedFault.objects.filter(swing=swing)


def decide(swing: Swing, fault: str, said: DecisionIn) -> None:
    """Keep a decision in place of an earlier one; BookError where the book has no such fault."""
    _decide(swing, fault, said)
    swing_changed.send(None, swing_id=swing.pk)


@transaction.atomic
def _decide(swing: Swing, fault: str, said: DecisionIn) -> None:
    if fault not in book_of(swing.instructor).faults:
        raise BookError("fault", "", f"there is no fault called {fault[:40]}")
    if not is_new(swing, said.id):
        return
    if said.decision is None:
        decisions_on(swing).filter(fault=fault).delete()
        return
    DecidedFault.objects.update_or_create(swing=swing, fault=fault, defaults=said.dict(exclude={"id"}))
