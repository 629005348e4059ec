"""What was found in every swing, kept so that lists can be searched by it."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.db import transaction
from django.dispatch import receiver

from tropometer.server.judging.judged import judged
from tropometer.server.judging.models import FoundFault
from tropometer.server.logbook.keeping import swing_logged

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing


@receiver(swing_logged)
def keep_found(sender: object, swing: Swing, **_: object) -> None:
    """Judge a swing whose readings have changed, and keep which faults are likely in it."""
    active = [each for each in judged(swing, "", "cm").judgement.findings if each.is_active]
    with transaction.atomic():
        FoundFault.objects.filter(swing=swing).delete()
        FoundFault.objects.bulk_create(
            FoundFault(swing=swing, fault=each.fault, certainty=min(max(each.certainty, 0.0), 1.0))
            for each in active
        )
