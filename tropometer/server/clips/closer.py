"""Looks at the player again with the closer network, over the swing itself: from address to finish."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

import numpy as np
from django.conf import settings
from django.db import transaction
from django.dispatch import Signal
from procrastinate.contrib.django import app

from tropometer.server.clips.bodies import body_of, keep_body
from tropometer.server.clips.models import Clip, Proposals, SeenBody, State
from tropometer.server.lanes import priority
from tropometer.server.rooms import local_copy, scratch, video
from tropometer.swing.proposals.marks import BESIDE_CHECKPOINTS

CLOSER_SECONDS = 3600  # a tenth of a second a frame
PROGRESS_STEP = 4
LAST_PRIORITY = -2000  # a clip that nobody has looked at yet goes first

# Sent with `clip` when its player has been looked at more closely.
clip_looked_at_closely = Signal()


def stretch_of(found: Mapping[str, Any]) -> tuple[int, int] | None:
    """The frames that are worth a closer look; None where no swing is seen."""
    pegged = [peg["frame"] for peg in found["pegs"]]
    if not found["is_swing"] or len(pegged) < 2:
        return None
    return min(pegged) - BESIDE_CHECKPOINTS, max(pegged) + BESIDE_CHECKPOINTS


def look_closer_later(clip: Clip) -> None:
    """Have a worker look closer at a clip, once those are done that nobody has looked at."""
    turn = priority(bool(clip.swing.drill), LAST_PRIORITY)
    task = app.configure_task("tropometer.server.clips.tasks.look_closer", priority=turn)
    task.defer(clip_id=str(clip.pk))


def look_closer(clip_id: UUID) -> None:
    """Find the player's landmarks from address to finish with the closer network. Safe to run twice."""
    clip = Clip.objects.filter(pk=clip_id, state=State.READY).select_related("proposals").first()
    body = body_of(clip, "fast") if clip else None
    stretch = stretch_of(clip.proposals.found) if clip and body else None
    try:
        if clip and body and stretch:
            _look(clip, body, *stretch)
    finally:
        Proposals.objects.filter(clip=clip_id).update(closer=None)
    if clip and stretch:
        clip_looked_at_closely.send(look_closer, clip=clip)


def _look(clip: Clip, body: SeenBody, first: int, last: int) -> None:
    squares = np.frombuffer(bytes(body.squares), np.float32).reshape(-1, 4)
    first = max(first, body.first_frame)
    within = squares[first - body.first_frame : last + 1 - body.first_frame]
    if not len(within):  # seen before squares were kept
        return
    with scratch() as folder, local_copy(clip.proxy) as proxy:
        asked, target = folder / "squares.npy", folder / "body.npz"
        np.save(asked, within)
        frames = ("--frames", str(first), str(first + len(within) - 1))
        room = ("--models", settings.LANDMARK_MODELS, *frames, "--squares", asked)
        said = 0
        for line in video("landmarks", proxy, target, *room, seconds=CLOSER_SECONDS):
            if line.get("progress", 0) >= said + PROGRESS_STEP:
                said = line["progress"]
                Proposals.objects.filter(clip=clip).update(closer=said)
        with transaction.atomic():
            # A window that was said anew meanwhile is looked at anew; what was seen for the old one is over.
            latest = SeenBody.objects.select_for_update().filter(clip=clip, network="fast").first()
            if latest is not None and latest.pk == body.pk:
                keep_body(clip, "close", first, target)
