"""Several swings in one clip: each becomes a swing of its own, with its stretch of the same file."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from django.db import transaction
from django.db.models import F
from django.dispatch import receiver

from tropometer.server.bench.models import Swing
from tropometer.server.bench.problems import BadEdit
from tropometer.server.clips import services
from tropometer.server.clips.proposing import clip_ready, window_of
from tropometer.server.clips.schemas import PlayerAt
from tropometer.server.clips.services import set_window, share
from tropometer.swing.proposals.motion import FoundSwing

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

COPIED = (
    "instructor", "student", "club", "club_class", "swing_length", "words", "usual_miss", "what_hurts",
    "misses", "hurts", "camera_place", "one_swing",
)  # fmt: skip


@receiver(clip_ready)
def take_apart(clip: Clip, swings: Sequence[FoundSwing], **_: Any) -> None:
    """Give a new clip the window of its swing, and every further swing found in it a swing of its own."""
    if not swings or clip.window_from == "hand" or clip.window_first is not None:
        return
    swing = Swing.objects.select_for_update().get(pk=clip.swing_id)
    # A reference is one swing, and so is a try at a drill.
    several = swing.student_id is not None and not swing.drill
    splits = several and swing.found_in_id is None
    own = swings[min(swing.part, len(swings)) - 1] if several else _surest(swings)
    clip.window_first, clip.window_last = window_of(clip, own)
    clip.save(update_fields=["window_first", "window_last"])
    if not splits or len(swings) == 1:
        return
    swing.parts = max(swing.parts, len(swings))
    swing.save(update_fields=["parts"])
    for part, found in enumerate(swings[1:], start=2):
        share(clip, _part(swing, part).pk, found.first, found.last, "found")
    swing.found.update(parts=swing.parts)


def cut_out(clip: Clip, first: int, last: int) -> Swing:
    """A stretch of a clip as one more swing, chosen by hand."""
    check_window(clip, first, last)
    with transaction.atomic():
        swing = Swing.objects.select_for_update().get(pk=clip.swing_id)
        if swing.student_id is None:
            raise BadEdit("window: a reference holds one swing; put the clip on the shelf once more.")
        head = swing.found_in or swing
        Swing.objects.filter(pk=head.pk).update(parts=F("parts") + 1)
        head.refresh_from_db()
        other = _part(head, head.parts)
        head.found.update(parts=head.parts)
        share(clip, other.pk, first, last, "hand")
    return other


def say_window(clip: Clip, first: int | None, last: int | None) -> None:
    """Say by hand which frames of its clip the swing is; None for both: all."""
    if (first is None) != (last is None):
        raise BadEdit("window: it needs a first and a last frame, or neither.")
    if first is not None and last is not None:
        check_window(clip, first, last)
    set_window(clip, first, last)


def show_player(clip: Clip, at: PlayerAt | None) -> None:
    """Say by hand who of those in the picture plays; None leaves it to the machine."""
    if at is None:
        services.show_player(clip, None)
        return
    if at.frame >= clip.frame_count:
        raise BadEdit(f"player.frame: {at.frame} is not a frame of the clip (0 to {clip.frame_count - 1}).")
    if not (0 <= at.x <= clip.width and 0 <= at.y <= clip.height):
        raise BadEdit("player: the point lies outside the picture.")
    services.show_player(clip, at.dict())


def check_window(clip: Clip, first: int, last: int) -> None:
    """BadEdit when the frames are not a stretch of the clip."""
    if not 0 <= first < last < clip.frame_count:
        raise BadEdit(
            f"window: {first} to {last} is not a stretch of the clip (0 to {clip.frame_count - 1})."
        )


def _part(head: Swing, part: int) -> Swing:
    """The swing for a part, made where another clip has not made it already."""
    copied = {name: getattr(head, name) for name in COPIED}
    found, _ = Swing.objects.get_or_create(
        found_in=head, part=part, defaults={**copied, "parts": max(head.parts, part)}
    )
    return found


def _surest(swings: Sequence[FoundSwing]) -> FoundSwing:
    return max(swings, key=lambda swing: swing.strike.confidence if swing.strike else -1.0)
