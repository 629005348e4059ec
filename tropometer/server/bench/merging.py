"""What of the bench two cards of one person cannot both keep."""

from typing import TYPE_CHECKING

from django.dispatch import receiver
from django.utils import timezone

from tropometer.server.bench.models import SwingRequest
from tropometer.server.people.merging import cards_merging

if TYPE_CHECKING:
    from tropometer.server.people.models import Student


@receiver(cards_merging)
def close_second_request(sender: object, into: "Student", other: "Student", **_: object) -> None:
    """A student has one open link for sending swings; the other card's leads nowhere from now on."""
    if SwingRequest.objects.filter(student=into, closed_at__isnull=True).exists():
        SwingRequest.objects.filter(student=other, closed_at__isnull=True).update(closed_at=timezone.now())
