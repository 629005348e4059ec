"""Answering a filmed drill: as soon as the machine has looked at it, and before anybody else has."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, cast
from uuid import UUID

import numpy as np
from django.db import transaction
from django.dispatch import receiver
from django.utils import timezone
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued

from tropometer.server.bench.drawing import crop_about, gauges_on
from tropometer.server.bench.first_look import Looked, look_at
from tropometer.server.bench.services import name_for, swings_by_id
from tropometer.server.clips.bodies import is_seen_closely
from tropometer.server.clips.closer import clip_looked_at_closely, stretch_of
from tropometer.server.clips.proposing import clip_looked_at
from tropometer.server.drill_checks.models import Answer, CheckedDrill, Why
from tropometer.server.lanes import WATCHED
from tropometer.server.teaching.services import book_of
from tropometer.swing.gauges.drawing import gauges
from tropometer.swing.names import Checkpoint, View
from tropometer.teaching.judging.drill_check import DrillCheck, drill_check
from tropometer.teaching.knowledge.band import Key

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.clips.models import Clip
    from tropometer.teaching.knowledge.rule import Condition

LEAST_PEGS = 2  # of a swing in which anything is to be read
SLOWED_BY = 1.5
SURE = 0.7  # so surely another view, or a mirror, is seen
NOT_ASKED = "The drill is not in the book any more, or a phone alone is not asked of it."
EDGE_SHARE = 0.01  # of the picture's height: nearer to its edge a foot is cut off


def answer(swing_id: UUID) -> None:
    """Answer a try at a drill, once: what a machine said first is what it is counted by."""
    swing = swings_by_id([swing_id]).select_related("student", "instructor", "first_look").first()
    if swing is None or swing.student is None or not swing.drill:
        return
    if CheckedDrill.objects.filter(swing=swing).exists():
        return
    drill = book_of(swing.instructor).drills.get(swing.drill)
    clip = swing.clips.filter(state="ready").select_related("proposals").first()
    if clip is None or clip.looking:
        return
    asked = drill.camera.told_alone if drill else None
    if drill is None or asked is None:  # taken out of the book since, or rewritten
        found = {"answer": Answer.NOT_READ, "why": Why.REFUSED, "reason": NOT_ASKED}
    else:
        found = {"holds": asked.text} | _checked(swing, clip, drill.camera.view, asked.holds)
    name = drill.name[:120] if drill else swing.drill
    CheckedDrill.objects.get_or_create(swing=swing, defaults={"name": name} | found)


def _checked(swing: Swing, clip: Clip, view: View, holds: Condition) -> dict[str, Any]:
    seen = clip.proposals.found if hasattr(clip, "proposals") else {}
    why = _unusable(clip, view, seen)
    looked = look_at(swing, by_body=True) if why is None else None
    if looked is None:
        return {"answer": Answer.NOT_READ, "why": why or Why.NO_SWING, **_bare(swing, clip)}
    check = drill_check(holds, looked.with_seen)
    told: dict[str, Any] = {"answer": check.answer, "unit": _unit(looked, holds.key)}
    if check.answer == "not_read":
        told |= {"why": Why.REFUSED, "reason": check.reason[:300]}
    else:
        told |= {"beyond": check.beyond, "give_or_take": check.give_or_take}
    return told | _picture(swing, clip, looked, holds, check)


def _unusable(clip: Clip, asked: View, seen: dict[str, Any]) -> Why | None:
    """What to change before anything can be read; None where nothing is in the way."""
    if not seen.get("is_swing") or len(seen["pegs"]) < LEAST_PEGS:
        return Why.SLOWED if _seems_slowed(clip, seen) else Why.NO_SWING
    view, hand = seen.get("view"), seen.get("hand")
    if clip.view != asked or (view and view["value"] != asked and view["confidence"] >= SURE):
        return Why.OTHER_VIEW
    if hand and hand["value"] != clip.swing.hand and hand["confidence"] >= SURE:
        return Why.MIRRORED
    box = seen.get("box")
    if box and box["bottom"] >= clip.height * (1 - EDGE_SHARE):
        return Why.CUT_OFF
    return None


def _seems_slowed(clip: Clip, seen: dict[str, Any]) -> bool:
    """Whether it moves as if it were shot at a higher rate than anybody said."""
    seems: float = seen.get("capture_fps") or 0.0
    return seems > (clip.capture_fps or clip.played_fps) * SLOWED_BY


def _unit(looked: Looked, key: Key) -> str:
    found = looked.with_seen.given(*key)
    return found.unit if found else ""


def _bare(swing: Swing, clip: Clip) -> dict[str, Any]:
    frame = sum(clip.window) // 2
    return {"clip": clip.pk, "frame": frame, "drawn": _drawn(swing, clip, "", [], None)}


def _picture(swing: Swing, clip: Clip, looked: Looked, holds: Condition, check: DrillCheck) -> dict[str, Any]:
    """The frame that the check looks at with what is measured there, and in brass where it should be."""
    scene = looked.with_seen.scene_of(str(clip.pk))
    record = next(each for each in looked.with_seen.record.clips if each.id == str(clip.pk))
    frame = record.checkpoints.get(cast(Checkpoint, holds.at))
    if scene is None or frame is None:
        return _bare(swing, clip)
    limit = holds.limit
    ends = {}
    if isinstance(limit, float) and check.beyond is not None:
        ends[holds.key] = (limit, None) if holds.way > 0 else (None, limit)
    drawn = gauges(scene, cast(View, clip.view), looked.with_seen.readings, ends)
    reading = holds.reading
    about = [gauge for gauge in drawn if any(shape.reading == reading for shape in gauge.shapes)]
    marks = [by_frame[frame].x for by_frame in record.marks.values() if frame in by_frame]
    middle = float(np.mean(marks)) if marks else None
    shown = _drawn(swing, clip, holds.at, gauges_on(clip, frame, about), middle)
    return {"clip": clip.pk, "frame": frame, "drawn": shown}


def _drawn(
    swing: Swing,
    clip: Clip,
    moment: str,
    shown: list[dict[str, Any]],
    middle: float | None,
) -> dict[str, Any]:
    """Shaped as `Drawn`: the student's own picture, as in a lesson."""
    return {
        "whose": "student",
        "on": timezone.localdate(swing.received_at).isoformat(),
        "name": name_for(swing, swing.student_id),
        "hand": swing.hand,
        "width": clip.width,
        "height": clip.height,
        "checkpoint": moment,
        "time_from_impact_s": None,
        "crop": crop_about(clip, middle),
        "gauges": shown,
        "values": [],
    }


@receiver(clip_looked_at)
@receiver(clip_looked_at_closely)
def answer_once_seen(sender: object, clip: Clip, **_: object) -> None:
    """Answer when nothing more is to be seen: after the close look, or where there is nothing to look at."""
    if not clip.swing.drill:
        return
    clip.refresh_from_db(fields=["looking"])
    seen = getattr(clip, "proposals", None)
    if seen is not None and stretch_of(seen.found) is not None and not is_seen_closely(clip):
        return
    answer_later(clip.swing_id)


def answer_later(swing_id: UUID) -> None:
    """Have a worker answer a try; once, however often it is asked for before it begins."""
    task = app.configure_task(
        "tropometer.server.drill_checks.tasks.answer_drill",
        queueing_lock=f"answer drill {swing_id}",
        priority=WATCHED,
    )
    try:
        with transaction.atomic():
            task.defer(swing_id=str(swing_id))
    except AlreadyEnqueued:
        pass
