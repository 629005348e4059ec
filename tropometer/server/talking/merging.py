"""What of threads and practice two cards of one person cannot both keep."""

from typing import TYPE_CHECKING

from django.dispatch import receiver

from tropometer.server.people.merging import cards_merging
from tropometer.server.talking.models import Practised

if TYPE_CHECKING:
    from tropometer.server.people.models import Student


@receiver(cards_merging)
def join_ticks(sender: object, into: "Student", other: "Student", **_: object) -> None:
    """A drill that was ticked on both cards on one day is ticked once, with all that was said of it."""
    for tick in Practised.objects.filter(student=other):
        same = Practised.objects.filter(student=into, drill=tick.drill, day=tick.day).first()
        if same is None:
            continue
        same.step = max(same.step, tick.step)
        same.places = list(dict.fromkeys([*same.places, *tick.places]))
        same.words = " ".join(dict.fromkeys(filter(None, (same.words, tick.words))))
        same.speaks_up = same.speaks_up or tick.speaks_up
        if tick.speaks_up and tick.settled_at is None:
            same.settled_at = None
        same.save()
        tick.delete()
