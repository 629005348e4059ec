"""The demo's older lessons: their pictures, and for some a walk, put in once the clips are ready."""

from __future__ import annotations

import json
from base64 import b64encode
from typing import TYPE_CHECKING, Any
from uuid import UUID, uuid5

from django.conf import settings

from tropometer.server.bench.services import swings_by_id
from tropometer.server.demo.spoken import SPOKEN, Line
from tropometer.server.judging.plans import read_anew
from tropometer.server.lessons.past import as_draft
from tropometer.server.lessons.prefilling import prefill
from tropometer.server.shelf.services import swing_of_school
from tropometer.server.walks import making
from tropometer.server.walks.schemas import CutIn, PieceIn, TakeIn, WalkClip
from tropometer.server.walks.services import add_piece, begin_take, change
from tropometer.server.walks.tasks import film_soon

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.clips.models import Clip

VOICES = settings.ROOT / "demo" / "voices"
PIECE_BYTES = 60_000
SHOWN_WIDE = 0.9  # of the height: what a stage shows
DRAWN_AFTER_MS = 2200  # a ring, from the line's start


class NotReady(RuntimeError):
    """The clips are still being made ready."""


def tell(swing_id: UUID) -> None:
    """Put pictures and a walk into the lesson of a swing; NotReady while its clips are not."""
    swing = swings_by_id([swing_id]).first()
    if swing is None:
        return
    beside = _reference(swing)
    clips = [*swing.clips.all(), *(beside.clips.all() if beside else ())]
    if any(clip.state in ("waiting", "working") for clip in clips):
        raise NotReady("The clips are not ready yet.")
    read_anew(swing)
    with as_draft(swing.lesson) as lesson:
        if lesson.frames.exists():
            return
        face = next((clip for clip in swing.clips.all() if clip.view == "face_on"), swing.clips.all()[0])
        other = next(
            (clip for clip in (beside.clips.all() if beside else ()) if clip.view == face.view), None
        )
        shown = making.kept_clip(face, face.swing.student_id)
        if not shown.pegs:  # told in words alone
            return
        prefill(lesson)
        name = face.original_name.rsplit(".", 1)[0]
        if name in SPOKEN:
            _walk(lesson.pk, name, face, other)
            making.make(lesson.pk)
            film_soon(lesson.pk)


def _reference(swing: Swing) -> Swing | None:
    """A sound swing of the school that the student is taught by."""
    student = swing.student
    assert student is not None
    return swing_of_school(swing.instructor, student.teaching_model, student.hand)


def _frame(shown: WalkClip, at: str) -> int:
    return next((peg.frame for peg in shown.pegs if peg.name == at), shown.pegs[0].frame)


def _walk(lesson_id: UUID, name: str, face: Clip, other: Clip | None) -> None:
    take = uuid5(lesson_id, name)
    times: list[list[int]] = json.loads((VOICES / f"{name}.json").read_text())
    voice = (VOICES / f"{name}.webm").read_bytes()
    score = _score(lesson_id, list(zip(SPOKEN[name], times, strict=True)), face, other)
    walk = begin_take(lesson_id, TakeIn(id=take, container="webm", cut=None))
    parts = [voice[i : i + PIECE_BYTES] for i in range(0, len(voice), PIECE_BYTES)]
    for number, part in enumerate(parts):
        last = number == len(parts) - 1
        said = {
            "number": number,
            "voice": b64encode(part).decode(),
            "score": score if number == 0 else [],
            "until_ms": times[-1][1],
            "last": last,
        }
        add_piece(walk, take, PieceIn.model_validate(said))
    words: dict[str, str] = {}
    for line in SPOKEN[name]:
        words[line.at] = f"{words.get(line.at, '')} {line.words}".strip()
    change(walk, CutIn(cut=None, captions=words))


def _score(
    lesson_id: UUID, said: list[tuple[Line, list[int]]], face: Clip, other: Clip | None
) -> list[dict[str, Any]]:
    sides = {"student": making.kept_clip(face, face.swing.student_id)} | (
        {"reference": making.kept_clip(other, face.swing.student_id)} if other else {}
    )
    mirrored = sides["reference"].hand != sides["student"].hand if other else False
    score: list[dict[str, Any]] = [
        {"at": 0, "kind": "gauges", "ids": ["trail_plumb", "trail_hip_gate", "lead_hip_gate"]}
    ]
    for number, (line, (start, _)) in enumerate(said):
        for side, shown in sides.items():
            frame = _frame(shown, line.at)
            if number == 0:
                stage = {"clip": str(shown.id), "frame": frame, "showing": _showing(shown, side, mirrored)}
                score.append({"at": 0, "kind": "stage", "side": side, "shown": stage})
            else:
                score.append({"at": start, "kind": "frame", "side": side, "frame": frame})
        before = said[number - 1][0] if number else None
        if line.tape or (before and before.tape):
            tape = {"reading": line.tape, "at": line.at} if line.tape else None
            score.append({"at": start, "kind": "tape", "tape": tape})
        if line.curve:
            score.append({"at": start, "kind": "drawer", "drawer": {"part": "curves", "reading": line.curve}})
        elif before and before.curve:
            score.append({"at": start, "kind": "drawer", "drawer": None})
        end = _end(sides["student"], line)
        if end:
            ring = {
                "id": str(uuid5(lesson_id, f"ring {number}")),
                "clip": str(sides["student"].id),
                "frame": _frame(sides["student"], line.at),
                "tool": "ring",
                "points": [end, {"x": end["x"] + 0.055 * sides["student"].height, "y": end["y"]}],
            }
            score.append({"at": start + DRAWN_AFTER_MS, "kind": "chalk", "stroke": ring})
    return sorted(score, key=lambda event: event["at"])


def _end(shown: WalkClip, line: Line) -> dict[str, float] | None:
    """The end of the gauge that is ringed, in the picture."""
    frame = _frame(shown, line.at)
    for gauge in shown.gauges:
        if gauge.id == line.ring:
            for shape in gauge.shapes:
                if shape.frame == frame:
                    return {"x": round(shape.points[-1].x, 1), "y": round(shape.points[-1].y, 1)}
    return None


def _showing(shown: WalkClip, side: str, mirrored: bool) -> dict[str, Any]:
    across = [point.x for gauge in shown.gauges for line in gauge.lines for point in (line.a, line.b)]
    middle = (min(across) + max(across)) / 2 if across else shown.width / 2
    return {
        "cx": round(middle, 1),
        "cy": shown.height / 2,
        "high": shown.height,
        "wide": round(SHOWN_WIDE * shown.height),
        "mirrored": mirrored and side == "reference",
    }
