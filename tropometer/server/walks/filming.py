"""Makes a walk's film: the player's own scenes, picture by picture, with the voice."""

from __future__ import annotations

import json
from contextlib import ExitStack
from math import ceil
from pathlib import Path
from typing import Any
from uuid import UUID

from django.core.files import File
from django.db import transaction

from tropometer.server.fonts import FONTS, font_file
from tropometer.server.rooms import local_copy, scratch, video
from tropometer.server.walks.models import Walk
from tropometer.server.walks.playing import is_made, played
from tropometer.server.walks.screens_code import screens_code

FILM_FPS = 30
SECONDS_A_SECOND = 6  # of a film: far more than two cores need
LEAST_SECONDS = 120


def film(lesson_id: UUID) -> None:
    """Make the film of a walk as it was made last. Safe to run twice."""
    walk = Walk.objects.select_related("lesson__instructor", "lesson__swing").filter(pk=lesson_id).first()
    if walk is None or not is_made(walk) or walk.film_made == walk.made:
        return
    lesson = walk.lesson
    told = played(walk)
    seconds = LEAST_SECONDS + SECONDS_A_SECOND * walk.length_ms // 1000

    def said(percent: int) -> None:
        Walk.objects.filter(pk=lesson_id).update(film_progress=percent)

    said(0)
    try:
        with scratch() as folder, ExitStack() as copies:
            plan, target, about = folder / "plan", folder / "film.mp4", folder / "about.json"
            _plan(plan, told, (lesson.title, lesson.swing.units, lesson.swing.hand), seconds)
            clips = {
                str(kept.clip_id): str(copies.enter_context(local_copy(kept.file)))
                for kept in walk.clips.all()
            }
            voice = copies.enter_context(local_copy(walk.voice))
            about.write_text(
                json.dumps(
                    {
                        "plan": str(plan),
                        "clips": clips,
                        "fonts": [str(font_file(family)) for family in FONTS],
                        "voice": str(voice),
                    }
                )
            )
            for line in video("film", about, target, seconds=seconds):
                if "progress" in line:
                    said(line["progress"])
            _keep(walk, target)
    finally:
        Walk.objects.filter(pk=lesson_id).update(film_progress=None)


def _plan(plan: Path, told: dict[str, Any], about: tuple[str, str, str], seconds: int) -> None:
    """Write down what each picture of the film shows."""
    count = max(1, ceil(told["length_ms"] / 1000 * FILM_FPS))
    with plan.open("w") as lines, screens_code(seconds) as ask:
        size = ask("film", told, *about)
        lines.write(json.dumps({**size, "fps": FILM_FPS, "pictures": count}) + "\n")
        for number in range(count):
            lines.write(json.dumps(ask("film_at", number * 1000 / FILM_FPS)) + "\n")


def _keep(walk: Walk, target: Path) -> None:
    with transaction.atomic(), target.open("rb") as content:
        now = Walk.objects.select_for_update(of=("self",)).filter(pk=walk.pk).first()
        if now is None:
            return
        before = now.film.name
        now.film.save("film", File(content), save=False)
        now.film_made = walk.made
        now.save(update_fields=["film", "film_made"])
        if before:
            storage = now.film.storage
            transaction.on_commit(lambda: storage.delete(before))
