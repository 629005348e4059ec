"""What other apps may ask of the shelf."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.db import transaction

from tropometer.server.bench.services import receive_reference
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.shelf.models import ReferenceSwing
from tropometer.server.teaching.services import model_of

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.bench.schemas import SwingKind
    from tropometer.server.people.models import User


def put_on_shelf(
    instructor: User,
    *,
    name: str,
    about: str,
    teaching_model: str,
    hand: str,
    kind: SwingKind,
    clips: list[ClipIn],
    one_swing: bool | None = None,
) -> tuple[Swing, list[str]]:
    """Take in a reference swing under a name; returns also a line for each refused clip."""
    if teaching_model:
        model_of(instructor, teaching_model)
    with transaction.atomic():
        swing, refused = receive_reference(instructor, hand, kind, clips, one_swing)
        named = {"instructor": instructor, "name": name, "about": about, "teaching_model": teaching_model}
        ReferenceSwing.objects.get_or_create(swing=swing, defaults=named)
    return swing, refused


def names_on_shelf(instructor: User) -> set[str]:
    """What an instructor's references are called."""
    mine = ReferenceSwing.objects.filter(instructor=instructor, swing__removed_at__isnull=True)
    return set(mine.values_list("name", flat=True))


def swing_of_school(instructor: User, teaching_model: str, hand: str) -> Swing | None:
    """A swing on an instructor's shelf that shows a teaching model, by a player of this hand."""
    mine = ReferenceSwing.objects.filter(instructor=instructor, swing__removed_at__isnull=True)
    shown = mine.filter(teaching_model=teaching_model, swing__reference_hand=hand).select_related("swing")
    found = shown.first()
    return found.swing if found else None
