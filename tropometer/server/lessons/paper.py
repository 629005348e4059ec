"""A lesson to take along: on paper (PDF), in a calendar (ICS), and all of it in one file (zip).

The sheet on paper is made of the parts of the sheet on the screen, run by Node as the film's pictures are;
only how they are laid out on a page is said anew, in paper.css.
"""

from __future__ import annotations

import base64
import io
import zipfile
from collections.abc import Callable, Iterable
from datetime import date, datetime, timedelta
from html import escape
from pathlib import Path
from typing import TYPE_CHECKING, Any
from uuid import UUID

import orjson
from django.core.files.storage import default_storage
from django.utils import timezone
from icalendar import Calendar, Event

from tropometer.server.bench.record import ready_clips, record_of
from tropometer.server.fonts import BOLD, FONTS, REGULAR, font_file
from tropometer.server.judging.schemas import SentPlan
from tropometer.server.lessons import versions
from tropometer.server.lessons.practice_days import practice_days
from tropometer.server.lessons.sending import link
from tropometer.server.teaching.showing import drawing_file, found_or_404
from tropometer.server.walks.playing import captions_of, record_files
from tropometer.server.walks.screens_code import screens_code
from tropometer.swing.formats.swing_record import to_document

if TYPE_CHECKING:
    from tropometer.server.lessons.models import Lesson, SentSheet

SECONDS = 60
STYLE = Path(__file__).with_name("paper.css")
OWN = "own:"  # before the id of a picture of the instructor's own
PRACTISE_FOR = timedelta(weeks=4)  # where no goal says until when

Address = Callable[[str, bytes], str]


def pdf(lesson: Lesson, version: SentSheet) -> bytes:
    """The sheet on A4, with the drills' pictures; without the walk, which is said to be elsewhere."""
    from weasyprint import CSS, HTML  # type: ignore[import-untyped]  # it takes a while to load, and few ask for it
    from weasyprint.text.fonts import FontConfiguration  # type: ignore[import-untyped]
    from weasyprint.urls import URLFetcher  # type: ignore[import-untyped]

    def inside(kind: str, content: bytes) -> str:
        return f"data:image/{kind};base64,{base64.b64encode(content).decode()}"

    fonts = FontConfiguration()
    inside_only = URLFetcher(allowed_protocols=["data"])  # a sheet asks for nothing from elsewhere
    style = CSS(
        string=_faces() + STYLE.read_text(),
        font_config=fonts,
        url_fetcher=URLFetcher(allowed_protocols=["file"]),
    )
    page = HTML(string=_page(lesson, version, inside, ""), url_fetcher=inside_only)
    made: bytes = page.write_pdf(stylesheets=[style], font_config=fonts)
    return made


def bundle(lesson: Lesson, version: SentSheet) -> bytes:
    """All that opens without a network in one zip: sheet, pictures, film, and the swing as measured."""
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as files:

        def beside(kind: str, content: bytes) -> str:
            name = f"pictures/{len(files.namelist()):03}.{kind}"
            files.writestr(name, content)
            return name

        files.writestr("lesson.html", _page(lesson, version, beside, "lesson.css"))
        files.writestr("lesson.css", STYLE.read_text())
        files.writestr("lesson.pdf", pdf(lesson, version))
        files.writestr("practice.ics", calendar(lesson, version))
        walk = getattr(lesson, "walk", None)
        if walk is not None and walk.film:
            with walk.film.open("rb") as film:
                files.writestr("walk.mp4", film.read())
            files.writestr("walk.vtt", captions_of(walk))
        for name, content in record_files(walk) if walk is not None else ():
            files.writestr(f"walk/{name}", content, zipfile.ZIP_STORED)
        record = to_document(record_of(lesson.swing, ready_clips(lesson.swing)))
        files.writestr("swing.json", orjson.dumps(record, option=orjson.OPT_INDENT_2))
    return packed.getvalue()


def calendar(lesson: Lesson, version: SentSheet) -> bytes:
    """When to practise and when to film again, as whole days (RFC 5545)."""
    plan = version.document["plan"] or {"focus": []}
    made = Calendar()
    made.add("prodid", "-//Tropometer//lesson//EN")
    made.add("version", "2.0")
    start = max(version.sent_at.date(), timezone.localdate())
    for number, focus in enumerate(plan["focus"][:1]):
        goal = focus["goal"] or {}
        end = date.fromisoformat(goal["by"]) if goal.get("by") else start + PRACTISE_FOR
        for drill in focus["drills"]:
            words = "\n".join(filter(None, (drill["dose"], drill["cue"], drill["caution"], link(lesson))))
            event = _day(lesson, f"drill {number} {drill['id']}", start, f"Practise: {drill['name']}", words)
            if end > start:
                event.add("rrule", {"freq": "weekly", "byday": practice_days(drill["dose"]), "until": end})
            made.add_component(event)
        title = f"Film your swing again, for {version.document['instructor']}"
        made.add_component(_day(lesson, f"film {number}", max(end, start), title, link(lesson) or ""))
    content: bytes = made.to_ical()
    return content


def _day(lesson: Lesson, name: str, day: date, title: str, words: str) -> Event:
    event = Event()
    event.add("uid", f"{lesson.pk} {name}@tropometer".replace(" ", "-"))
    event.add("dtstamp", datetime.now(tz=timezone.get_current_timezone()))
    event.add("dtstart", day)
    event.add("summary", title)
    event.add("description", words)
    event.add("transp", "TRANSPARENT")
    return event


def _page(lesson: Lesson, version: SentSheet, put: Address, style: str) -> str:
    sheet = versions.read(lesson, version, lambda id: f"{OWN}{id}", "")
    if lesson.instructor.portrait:
        with lesson.instructor.portrait.open("rb") as portrait:
            sheet["look"]["portrait"] = put("webp", bytes(portrait.read()))
    pictures = {frame["id"]: put("jpeg", _still(version, frame["id"])) for frame in sheet["frames"]}
    for shown in _shown(sheet):
        shown["url"] = put(*_drawn(shown["url"]))
    told = orjson.loads(orjson.dumps(_said(sheet, lesson), default=str))
    with screens_code(SECONDS) as ask:
        body: str = ask("paper", told, pictures)
    note = ""
    if sheet["walk"]:
        where = "walk.mp4, beside this page" if style else (link(lesson) or "your lesson's page")
        note = f'<p class="paper-note">This lesson has a spoken walk through the swing: {escape(where)}.</p>'
    linked = f'<link rel="stylesheet" href="{style}">' if style else ""
    title = escape(sheet["title"])
    head = f'<meta charset="utf-8"><title>{title}</title>{linked}'
    return f'<!doctype html><html lang="en"><head>{head}</head><body>{note}{body}</body></html>'


def _said(sheet: dict[str, Any], lesson: Lesson) -> dict[str, Any]:
    kept = [{"number": each.number, "sent_at": each.sent_at} for each in sheet["versions"]]
    # What older plans do not have yet is empty, as it is for whoever asks the API.
    plan = sheet["plan"] and SentPlan.model_validate(sheet["plan"]).model_dump(mode="json")
    return {**sheet, "plan": plan, "versions": kept, "walk": None, "page": None, "lesson_id": lesson.pk}


def _shown(sheet: dict[str, Any]) -> Iterable[dict[str, str]]:
    """The pictures of drills; loops stay on the screen."""
    for focus in (sheet["plan"] or {"focus": []})["focus"]:
        for drill in focus["drills"]:
            drill["shown"] = [dict(each) for each in drill["shown"] if each["kind"] == "picture"]
            yield from drill["shown"]


def _still(version: SentSheet, frame_id: str) -> bytes:
    frame = next(each for each in version.document["frames"] if each["id"] == frame_id)
    with default_storage.open(frame["still"], "rb") as file:
        return bytes(file.read())


def _drawn(url: str) -> tuple[str, bytes]:
    """The kind and the bytes of what shows a drill."""
    if url.startswith(OWN):
        with found_or_404(UUID(url.removeprefix(OWN))).file.open("rb") as own:
            return "webp", bytes(own.read())
    path = drawing_file(url)
    return path.suffix.removeprefix("."), path.read_bytes()


def _faces() -> str:
    faces = ""
    for family in FONTS:
        for weight in (REGULAR, BOLD):
            source = font_file(family, weight).as_uri()
            faces += f'@font-face{{font-family:"{family}";font-weight:{weight};src:url({source})}}'
    return faces
