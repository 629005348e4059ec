"""A draft begun from what was found: a picture pair of the one thing, a title, and words to open with."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any
from uuid import UUID, uuid5

from tropometer.server.clips.services import clip_of
from tropometer.server.judging.plans import said_plan
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.services import add_frame, begun_as, change, draft
from tropometer.server.lessons.states import NotNow
from tropometer.server.lessons.templates import opening_for
from tropometer.server.shelf.services import swing_of_school
from tropometer.server.walks.making import kept_clip

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.walks.schemas import WalkClip

UPRIGHT = "trail_plumb"
LINES = ("trail_hip_gate", "lead_hip_gate")  # where no gauge shows the goal


def prefill(lesson: Lesson) -> bool:
    """Fill in what is still empty of a draft, once for each focus that comes first; whether anything was.

    What was written, or taken out again, is left alone.
    """
    plan = said_plan(lesson.swing)
    focus = plan["focus"][0] if plan and plan["focus"] else None
    if focus is None or not lesson.is_draft or lesson.prefilled_for == focus["fault"]:
        return False
    said: dict[str, Any] = {}
    if lesson.title == begun_as(lesson.swing):
        said["title"] = _title(focus)
    if not lesson.opening.strip():
        said["opening"] = opening_for(lesson)
    if said:
        change(lesson, said, _name(lesson, focus, "words"))
    ours = [_name(lesson, focus, side) for side in ("own", "beside")]
    if not lesson.frames.exclude(pk__in=ours).exists():
        _pair(lesson, focus, ours)
    with draft(lesson) as now:
        now.prefilled_for = focus["fault"]
        now.save(update_fields=["prefilled_for"])
    return True


def _name(lesson: Lesson, focus: dict[str, Any], what: str) -> UUID:
    """So named, each is done once: by two tabs at once, and by one that goes on after a crash."""
    return uuid5(lesson.pk, f"prefilled {focus['fault']} {what}")


def _title(focus: dict[str, Any]) -> str:
    """What to think of, where there is a drill: of what lies outside the body; else the fault."""
    cues = [drill["cue"] for drill in focus["drills"] if drill["cue"]]
    title: str = (cues[0] if cues else focus["name"]).rstrip(".")
    return title[:120]


def _pair(lesson: Lesson, focus: dict[str, Any], names: list[UUID]) -> None:
    """The student and a sound swing of the same school at the moment of the goal, with its lines."""
    swing = lesson.swing
    student = swing.student
    assert student is not None
    goal = focus["goal"] or {}
    reading, moment = goal.get("reading", ""), goal.get("at", "top")
    own = _best(swing, reading, moment)
    if own is None:
        return
    beside = swing_of_school(swing.instructor, student.teaching_model, student.hand)
    other = _best(beside, reading, moment, own.view) if beside else None
    about = [gauge.id for gauge in own.gauges if any(shape.reading == reading for shape in gauge.shapes)]
    for shown, name in zip((own, other) if other else (own,), names, strict=False):
        try:
            add_frame(lesson, shown.id, _peg(shown, moment) or 0, "", [UPRIGHT, *(about or LINES)], name)
        except NotNow:  # sent meanwhile
            return


def _best(swing: Swing, reading: str, moment: str, view: str = "") -> WalkClip | None:
    """The clip of a swing that shows a reading at a moment: of one view, else the one with its gauge."""
    clips = [
        kept_clip(clip_of(swing.instructor, clip.pk), swing.student_id)
        for clip in swing.clips.all()
        if clip.state == "ready" and (not view or clip.view == view)
    ]
    pegged = [clip for clip in clips if _peg(clip, moment) is not None]
    showing = [clip for clip in pegged if any(s.reading == reading for g in clip.gauges for s in g.shapes)]
    return next(iter(showing or pegged), None)


def _peg(clip: WalkClip, moment: str) -> int | None:
    return next((peg.frame for peg in clip.pegs if peg.name == moment), None)
