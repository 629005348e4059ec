"""A quick look at a try of which somebody waits for the numbers: by few frames, before its proxy is made.

What is read is as provisional as the first look's, and gives way to it. A glance that fails is not tried
again: the first look comes anyway.
"""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING, Any, Literal, cast
from uuid import UUID

import numpy as np
from django.conf import settings
from django.db import transaction
from procrastinate.contrib.django import app

from tropometer.server.bench.models import FirstLook
from tropometer.server.bench.record import record_of
from tropometer.server.clips.bodies import ClipProposals
from tropometer.server.clips.proposing import SOUND_LATE_S
from tropometer.server.clips.services import filed_clip
from tropometer.server.lanes import AT_ONCE
from tropometer.server.rooms import RefusedClip, RoomFailed, local_copy, scratch, video
from tropometer.swing.names import Checkpoint, Hand, View
from tropometer.swing.proposals.body_length import body_length
from tropometer.swing.proposals.checkpoints import propose_checkpoints
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.marks import propose_marks
from tropometer.swing.proposals.motion import Heard
from tropometer.swing.proposals.provisional import SeenClip, with_proposals
from tropometer.swing.read import read
from tropometer.swing.record.clip import Clip as RecordClip
from tropometer.swing.record.swing import SwingRecord

if TYPE_CHECKING:
    from collections.abc import Iterable

    from tropometer.server.clips.models import Clip
    from tropometer.swing.readings.reading import Reading

StruckBy = Literal["sound", "motion", "hand"]

GLANCE_SECONDS = 60
HEARD_SURELY = 0.9  # by the page that filmed it, which heard nothing else so loud about it
GATES = {
    "face_on": ("trail_hip_edge", "lead_hip_edge"),
    "from_behind": ("trail_hip_edge", "lead_hip_edge"),
    "down_the_line": ("seat",),
    "up_the_line": ("seat",),
}


def glance_later(clip_id: UUID, struck_s: float, by: StruckBy) -> None:
    """Have a worker glance at a clip, whatever else there is to do; `struck_s` is of the file's own time."""
    task = app.configure_task("tropometer.server.bench.tasks.glance", queue=AT_ONCE)
    task.defer(clip_id=str(clip_id), struck_s=struck_s, by=by)


def glance(clip_id: UUID, struck_s: float, by: StruckBy) -> None:
    """Read a clip by a quick look, and keep it with its swing's first look. Safe to run twice."""
    clip = filed_clip(clip_id)
    seen = _seen(clip, struck_s, by) if clip else None
    if clip is None or seen is None:
        return
    record, found = seen
    whole = read(with_proposals(record, {str(clip.pk): found}))
    told = {"readings": as_kept(whole.readings), "gates": _gates(clip, record.clips[0], found)}
    with transaction.atomic():
        kept, _ = FirstLook.objects.select_for_update().get_or_create(swing_id=clip.swing_id)
        kept.glanced = (kept.glanced or {}) | {str(clip.pk): told}
        kept.save(update_fields=["glanced"])


def as_kept(readings: Iterable[Reading]) -> list[dict[str, Any]]:
    """Readings that are given, as a first look keeps them: reading, at, value, u95."""
    return [
        {"reading": each.reading, "at": each.at, "value": each.value, "u95": each.u95 or 0.0}
        for each in readings
        if each.status == "ok" and each.value is not None
    ]


def _seen(clip: Clip, struck_s: float, by: StruckBy) -> tuple[SwingRecord, SeenClip] | None:
    """A record of the frames that were looked at, and what was seen in them; None where there is no swing."""
    with scratch() as folder, local_copy(clip.original) as source:
        target = folder / "glance.npz"
        asked = ("--models", str(settings.LANDMARK_MODELS), "--struck", str(struck_s))
        try:
            *_, size = video("glance", source, target, *asked, seconds=GLANCE_SECONDS)
        except (RefusedClip, RoomFailed):
            return None  # the first look will say what is wrong
        saw = np.load(target)
    times = saw["times_s"] - saw["times_s"][0]
    body = Landmarks(times, saw["landmarks"].astype(float), saw["outline"].astype(float))
    if not body.enough:
        return None
    view, hand = cast(View, clip.view), cast(Hand, clip.swing.hand)
    heard = Heard(struck_s - SOUND_LATE_S - float(saw["times_s"][0]), HEARD_SURELY) if by == "sound" else None
    proposed = propose_checkpoints(body, saw["movement"].tolist(), hand, heard)
    if not proposed:
        return None
    pegs: dict[Checkpoint, int] = {at: peg.frame for at, peg in proposed.items()}
    marks = ClipProposals(0, propose_marks(body, view, hand, np.arange(len(times)), pegs))
    filmed = RecordClip(
        id=str(clip.pk),
        view=view,
        width=size["width"],
        height=size["height"],
        frame_times_s=tuple(times.tolist()),
    )
    record = replace(record_of(clip.swing, []), clips=(filmed,), one_swing=True)
    found = SeenClip(pegs=pegs, mark=marks.at)
    return record, replace(found, length=body_length(found, record.stature_m))


def _gates(clip: Clip, filmed: RecordClip, found: SeenClip) -> list[float]:
    """Where the hips stood at address, or the seat: shares of the picture's width."""
    frame = found.pegs.get("address")
    marks = [found.mark(name, frame) for name in GATES[clip.view]] if frame is not None else []
    return [round(mark.x / filmed.width, 4) for mark in marks if mark]
