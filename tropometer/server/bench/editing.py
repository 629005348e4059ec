"""Edits to what is put on a clip: each done once, kept with what was there before, and undone by gesture."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db import transaction
from django.db.models import Max
from django.db.models.functions import Coalesce

from tropometer.server.bench.changed import swing_changed
from tropometer.server.bench.edit_schemas import (
    CalibrationEdit,
    CalibrationValue,
    Edit,
    FactsEdit,
    FactsValue,
    HiddenEdit,
    MarkEdit,
    MatEdit,
    MatValue,
    PegEdit,
)
from tropometer.server.bench.models import (
    BenchEdit,
    Calibration,
    CameraFacts,
    FirstLook,
    HiddenMark,
    Mark,
    Mat,
    Peg,
    Swing,
)
from tropometer.server.bench.problems import BadEdit
from tropometer.server.bench.tracking import follow_later, is_tracked
from tropometer.server.clips.services import locked
from tropometer.swing.camera.mat import check_corners
from tropometer.swing.camera.solve import Unsolved
from tropometer.swing.names import MARKS, spoken

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

REMEMBERED = 1000  # gestures that can be taken back after a swing is opened anew
# One row a clip each: the edit's value replaces it.
_WHOLE: dict[str, tuple[Any, Any]] = {
    "calibration": (Calibration, CalibrationValue),
    "mat": (Mat, MatValue),
    "facts": (CameraFacts, FactsValue),
}

NO_PEG = {"frame": None, "between": False, "accepted": False}


def apply_edits(clip: Clip, edits: list[Edit], seen: int | None = None) -> list[str]:
    """Do the edits in order, each once however often it is sent; all of them or none.

    Returns what somebody else changed after version `seen` that these edits change again, in words. The later
    edit stands; what it replaced is kept with it.
    """
    with transaction.atomic():
        locked(clip)
        done = set(BenchEdit.objects.filter(pk__in=[edit.id for edit in edits]).values_list("pk", flat=True))
        new = [edit for edit in edits if edit.id not in done]
        met = _met(clip, new, seen) if seen is not None else []
        number = version_of(clip)
        for edit in new:
            if edit.id in done:
                continue  # sent twice in one go
            done.add(edit.id)
            number += 1
            _note(clip, edit, number)
            _apply(clip, edit)
        if any(isinstance(edit, PegEdit) or _is_followed(edit) for edit in new):
            follow_later(clip.pk)
        if new:
            swing_changed.send(None, swing_id=clip.swing_id)
            # What a machine said before somebody began is no news any more.
            FirstLook.objects.filter(swing=clip.swing_id).exclude(tapes=[]).update(tapes=[])
    return met


def _is_followed(edit: Edit) -> bool:
    return isinstance(edit, MarkEdit | HiddenEdit) and is_tracked(edit.name)


def version_of(clip: Clip) -> int:
    """The number of a clip's last edit; 0 before the first."""
    return (
        BenchEdit.objects.filter(clip=clip).order_by("-number").values_list("number", flat=True).first() or 0
    )


def versions_of(swing: Swing) -> dict[UUID, int]:
    """The number of the last edit of each of a swing's clips; 0 before the first."""
    last = swing.clips.annotate(last=Coalesce(Max("edits__number"), 0))
    return dict(last.values_list("pk", "last"))


def subject(body: dict[str, Any]) -> str:
    """What an edit is about, in words: two edits of the same thing are told by it."""
    if body["kind"] == "peg":
        return f"the peg {spoken(body['name'])}"
    if body["kind"] in ("mark", "hidden"):
        return f"the {spoken(body['name'])} on frame {body['frame']}"
    return {"calibration": "the known length", "mat": "the mat", "facts": "what is known of the camera"}[
        body["kind"]
    ]


def history(swing: Swing) -> list[dict[str, Any]]:
    """What can be taken back on a swing, the latest last: each gesture with its undoing and its doing."""
    rows = list(
        BenchEdit.objects.filter(clip__swing=swing, way="do", undone=False)
        .order_by("-at", "-number")
        .values("clip_id", "gesture", "body", "before")[:REMEMBERED]
    )[::-1]
    found: list[dict[str, Any]] = []
    for row in rows:
        last = found[-1] if found else None
        if last and row["gesture"] and last["gesture"] == row["gesture"]:
            last["redo"] = row["body"]
        elif row["gesture"] and row["before"]:
            gesture = {"clip_id": row["clip_id"], "gesture": row["gesture"]}
            found.append({**gesture, "undo": row["before"], "redo": row["body"]})
    return found


def _met(clip: Clip, edits: list[Edit], seen: int) -> list[str]:
    theirs = BenchEdit.objects.filter(clip=clip, number__gt=seen).exclude(pk__in=[edit.id for edit in edits])
    changed = {subject(body) for body in theirs.values_list("body", flat=True)}
    mine = dict.fromkeys(subject(edit.model_dump(mode="json")) for edit in edits)
    return [each for each in mine if each in changed]


def _note(clip: Clip, edit: Edit, number: int) -> None:
    if edit.gesture is not None and edit.way != "do":
        BenchEdit.objects.filter(clip=clip, gesture=edit.gesture, way="do").update(undone=edit.way == "undo")
    BenchEdit.objects.create(
        pk=edit.id,
        clip=clip,
        number=number,
        body=edit.model_dump(mode="json"),
        before=_before(clip, edit),
        way=edit.way,
        gesture=edit.gesture,
    )


def _before(clip: Clip, edit: Edit) -> dict[str, Any]:
    """The edit that brings back what is there now."""
    was = edit.model_dump(mode="json")
    if isinstance(edit, PegEdit):
        peg = Peg.objects.filter(clip=clip, name=edit.name).first()
        now = {"frame": peg.frame, "between": peg.between, "accepted": peg.accepted} if peg else NO_PEG
        return was | now
    if isinstance(edit, HiddenEdit | MarkEdit):
        here = {"clip": clip, "name": edit.name, "frame": edit.frame}
        mark = Mark.objects.filter(**here).values("x", "y", "sd_px", "source", "shared_px").first()
        hidden = HiddenMark.objects.filter(**here).exists()
        common = {"id": was["id"], "gesture": was["gesture"], "name": edit.name, "frame": edit.frame}
        if mark is None and hidden:
            return common | {"kind": "hidden", "hidden": True}
        return common | {"kind": "mark", "place": mark}
    model, shape = _WHOLE[edit.kind]
    row = model.objects.filter(clip=clip).first()
    return was | {"value": shape.from_orm(row).dict() if row else None}


def _apply(clip: Clip, edit: Edit) -> None:
    if isinstance(edit, PegEdit):
        _peg(clip, edit)
    elif isinstance(edit, MarkEdit | HiddenEdit):
        _mark(clip, edit)
    elif isinstance(edit, CalibrationEdit | MatEdit | FactsEdit):
        value = edit.value
        if isinstance(value, CalibrationValue) and (value.ax, value.ay) == (value.bx, value.by):
            raise BadEdit("known length: both ends are the same point.")
        if isinstance(value, FactsValue) and value.plumb is not None:
            plumb = value.plumb
            if (plumb.ax, plumb.ay) == (plumb.bx, plumb.by):
                raise BadEdit("plumb line: both ends are the same point.")
        if isinstance(value, MatValue):
            _check_mat(value)
        model, _ = _WHOLE[edit.kind]
        if value is None:
            model.objects.filter(clip=clip).delete()
        else:
            model.objects.update_or_create(clip=clip, defaults=value.dict())


def _check_mat(mat: MatValue) -> None:
    try:
        check_corners([(corner.x, corner.y) for corner in mat.corners])
    except Unsolved as trouble:
        raise BadEdit(f"mat: {trouble}") from None


def _peg(clip: Clip, edit: PegEdit) -> None:
    if edit.frame is None:
        Peg.objects.filter(clip=clip, name=edit.name).delete()
        return
    if edit.between and edit.name != "impact":
        raise BadEdit(f"peg {edit.name}: only impact can lie between two frames.")
    _check_frame(clip, edit.frame + edit.between, f"peg {edit.name}")
    defaults = {"frame": edit.frame, "between": edit.between, "accepted": edit.accepted}
    Peg.objects.update_or_create(clip=clip, name=edit.name, defaults=defaults)


def _mark(clip: Clip, edit: MarkEdit | HiddenEdit) -> None:
    if edit.name not in MARKS:
        raise BadEdit(f"name: there is no mark called {edit.name[:40]}.")
    here: dict[str, Any] = {"clip": clip, "name": edit.name, "frame": edit.frame}
    # A mark is placed, or it is hidden, or nobody has said: the later word stands.
    HiddenMark.objects.filter(**here).delete()
    if isinstance(edit, HiddenEdit):
        if edit.hidden:
            _check_frame(clip, edit.frame, f"mark {edit.name}")
            Mark.objects.filter(**here).delete()
            HiddenMark.objects.create(**here)
        return
    if edit.place is None:
        Mark.objects.filter(**here).delete()
        return
    _check_frame(clip, edit.frame, f"mark {edit.name}")
    Mark.objects.update_or_create(**here, defaults=edit.place.dict())


def _check_frame(clip: Clip, frame: int, what: str) -> None:
    if frame >= clip.frame_count:
        raise BadEdit(f"{what}: frame {frame} is outside the clip (0 to {clip.frame_count - 1}).")
