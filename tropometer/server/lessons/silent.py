"""A walk without a voice: a lesson's frames with their words, each as long as it takes to read."""

from __future__ import annotations

import io
import wave
from base64 import b64encode
from itertools import groupby
from typing import TYPE_CHECKING, Any
from uuid import uuid4

from django.db import transaction

from tropometer.server.lessons.states import NotNow, must_be_draft
from tropometer.server.walks.schemas import CutIn, PieceIn, TakeIn
from tropometer.server.walks.services import add_piece, begin_take, change
from tropometer.server.walks.tasks import make_soon

if TYPE_CHECKING:
    from tropometer.server.lessons.models import Lesson, LessonFrame

# Reading in silence: 238 words a minute in English (Brysbaert, 2019), slower beside a picture (common
# practice, no source); and each picture wants to be looked at.
STAGE_OF = {"student": "student", "reference": "reference", "earlier": "reference"}
MS_A_WORD, LOOK_MS, LEAST_MS = 300, 1800, 3000
LONGEST_MS = 10 * 60_000
RATE, MIDDLE = 8000, b"\x80"  # of an 8-bit silence
PIECE_BYTES = 1_000_000


def make_silent_walk(lesson: Lesson) -> None:
    """Make a walk of a draft's frames and words; NotNow where there are none, or where there is a walk."""
    must_be_draft(lesson)
    if getattr(lesson, "walk", None) is not None and lesson.walk.cut:
        raise NotNow("This lesson has a walk already: cut it out first.")
    stops = _stops(lesson)
    if not stops:
        raise NotNow("A silent walk goes through the lesson's frames: put one in first.")
    score, captions, length = _told(lesson, stops)
    take = uuid4()
    voice = _silence(min(length, LONGEST_MS))
    with transaction.atomic():
        walk = begin_take(lesson.pk, TakeIn(id=take, container="wav", silent=True, cut=None))
        parts = [voice[i : i + PIECE_BYTES] for i in range(0, len(voice), PIECE_BYTES)]
        for number, part in enumerate(parts):
            said = {
                "number": number,
                "voice": b64encode(part).decode(),
                "score": score if number == 0 else [],
                "until_ms": length,
                "last": number == len(parts) - 1,
            }
            add_piece(walk, take, PieceIn.model_validate(said))
        change(walk, CutIn(cut=None, captions=captions))
    make_soon(lesson.pk)


def _stops(lesson: Lesson) -> list[list[LessonFrame]]:
    """Frames that are looked at together: the student's and the reference's at one moment."""
    there = [frame for frame in lesson.frames.all() if frame.clip_id is not None]
    return [list(frames) for _, frames in groupby(there, key=lambda f: f.drawn["checkpoint"] or str(f.pk))]


def _told(lesson: Lesson, stops: list[list[LessonFrame]]) -> tuple[list[dict[str, Any]], dict[str, str], int]:
    """The score, the captions by moment, and how long it takes."""
    score: list[dict[str, Any]] = []
    captions: dict[str, str] = {}
    at = 0
    for frames in stops:
        # An earlier swing of the student's stands where a reference does.
        sides = {STAGE_OF[frame.drawn["whose"]]: frame for frame in frames}
        for side in ("student", "reference"):
            shown = _stage(lesson, sides[side]) if side in sides else None
            score.append({"at": at, "kind": "stage", "side": side, "shown": shown})
        gauges = dict.fromkeys(gauge["id"] for frame in frames for gauge in frame.drawn["gauges"])
        score.append({"at": at, "kind": "gauges", "ids": list(gauges)})
        for stroke in (stroke for frame in frames for stroke in frame.drawn.get("chalk", [])):
            score.append({"at": at, "kind": "chalk", "stroke": stroke})
        words = " ".join(frame.words.strip() for frame in frames if frame.words.strip())
        moment = frames[0].drawn["checkpoint"]
        if words and moment:
            captions[moment] = f"{captions.get(moment, '')} {words}".strip()[:1000]
        at += max(LEAST_MS, LOOK_MS + MS_A_WORD * len(words.split()))
    return score, captions, min(at, LONGEST_MS)


def _stage(lesson: Lesson, frame: LessonFrame) -> dict[str, Any]:
    drawn, crop = frame.drawn, frame.drawn["crop"]
    return {
        "clip": str(frame.clip_id),
        "frame": frame.frame,
        "showing": {
            "cx": crop["left"] + crop["width"] / 2,
            "cy": crop["top"] + crop["height"] / 2,
            "high": crop["height"],
            "wide": crop["width"],
            "mirrored": drawn["hand"] != lesson.swing.hand,
        },
    }


def _silence(length_ms: int) -> bytes:
    made = io.BytesIO()
    with wave.open(made, "wb") as file:
        file.setnchannels(1)
        file.setsampwidth(1)
        file.setframerate(RATE)
        file.writeframes(MIDDLE * round(length_ms * RATE / 1000))
    return made.getvalue()
