"""What other apps may ask of the shelf."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.db import transaction

from tropometer.server.bench.services import receive_reference
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.shelf.models import ReferenceSwing

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.people.models import User


def put_on_shelf(
    instructor: User, name: str, about: str, hand: str, club: str, clips: list[ClipIn]
) -> tuple[Swing, list[str]]:
    """Take in a reference swing under a name; returns also a line for each refused clip."""
    with transaction.atomic():
        swing, refused = receive_reference(instructor, hand, club, clips)
        ReferenceSwing.objects.create(instructor=instructor, swing=swing, name=name, about=about)
    return swing, refused
