"""Makes a walk's film: the player's own scenes, picture by picture, with the voice."""

from __future__ import annotations

import json
from contextlib import ExitStack
from functools import lru_cache
from math import ceil
from pathlib import Path
from typing import Any
from uuid import UUID

from django.conf import settings
from django.core.files import File
from django.db import transaction
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

from tropometer.server.rooms import local_copy, scratch, video
from tropometer.server.walks.models import Walk
from tropometer.server.walks.playing import is_made, played
from tropometer.server.walks.screens_code import screens_code

FILM_FPS = 30
SECONDS_A_SECOND = 6  # of a film: far more than two cores need
LEAST_SECONDS = 120
FONTS = {
    "Bricolage Grotesque": "bricolage-grotesque-latin-wght-normal",
    "JetBrains Mono": "jetbrains-mono-latin-wght-normal",
}
REGULAR = 400
FAMILY, FULL_NAME = 1, 4  # of an OpenType font's names


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
            _plan(plan, told, (lesson.title, lesson.instructor.units, lesson.swing.hand), seconds)
            clips = {
                str(kept.clip_id): str(copies.enter_context(local_copy(kept.file)))
                for kept in walk.clips.all()
            }
            voice = copies.enter_context(local_copy(walk.voice))
            about.write_text(
                json.dumps({"plan": str(plan), "clips": clips, "fonts": fonts(), "voice": str(voice)})
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


@lru_cache
def fonts() -> list[str]:
    """The screens' fonts as files that a drawing library reads."""
    return [str(_unpacked(family, name)) for family, name in FONTS.items()]


def _unpacked(family: str, name: str) -> Path:
    """A web font at its regular weight, under the name by which the screens know it."""
    (packed,) = (settings.WEB_BUILD / "assets").glob(f"{name}-*.woff2")
    folder = Path(settings.FONT_ROOT)
    folder.mkdir(parents=True, exist_ok=True)
    target = folder / f"{packed.stem}.ttf"
    if not target.exists():
        font = instantiateVariableFont(TTFont(packed), {"wght": REGULAR})
        font.flavor = None
        for number in (FAMILY, FULL_NAME):
            font["name"].setName(family, number, 3, 1, 0x409)
        font.save(target.with_suffix(".part"))
        target.with_suffix(".part").replace(target)
    return target
