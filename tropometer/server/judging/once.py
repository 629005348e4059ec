"""A choice is made once, however often it arrives."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from tropometer.server.judging.models import TakenChoice

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing


def is_new(swing: Swing, id: UUID | None) -> bool:
    """Note a choice as made; False when it was made before. `id` is its sender's name for it."""
    return id is None or TakenChoice.objects.get_or_create(pk=id, defaults={"swing": swing})[1]
