"""Load the demo: a small practice on an invented island, with clips of made-up golfers."""

from __future__ import annotations

import gzip
import json
import random
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from tropometer.server.bench.models import Calibration, Mark, Peg, Swing
from tropometer.server.bench.schemas import SwingIn
from tropometer.server.bench.services import add_clip, receive, receive_reference
from tropometer.server.clips.models import Clip
from tropometer.server.clips.schemas import ClipIn, View
from tropometer.server.demo import practice
from tropometer.server.lessons.models import Lesson, new_token
from tropometer.server.people.models import Student, User
from tropometer.server.shelf.models import ReferenceSwing

CLIPS: Path = settings.ROOT / "demo" / "clips"
MARK_SD_PX = 1.5
HAND_SHAKE_PX = 0.8
MARKED_AT = ("address", "top", "impact")
HIPS = ("lead_hip", "trail_hip", "lead_hip_edge", "trail_hip_edge")
ANSWERED_AFTER = timedelta(hours=20)


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        if User.objects.filter(email=practice.MAIL).exists():
            self.stdout.write("The demo is already loaded; its data is kept.")
            return
        with transaction.atomic():
            instructor = User.objects.create_user(practice.MAIL, practice.INSTRUCTOR, practice.PASSWORD)
            for reference in practice.REFERENCES:
                self._reference(instructor, reference)
            swings = [
                (swing, self._student(instructor, student))
                for student in practice.STUDENTS
                for swing in student.swings
            ]
            for swing, student in sorted(swings, key=lambda pair: pair[0].days_ago):
                self._swing(instructor, student, swing)
        self.stdout.write("The demo is loaded; the worker is making its clips ready.")

    def _student(self, instructor: User, about: practice.DemoStudent) -> Student:
        student, _ = Student.objects.get_or_create(
            instructor=instructor,
            name=about.name,
            defaults={
                "email": about.mail,
                "hand": about.hand,
                "stature_m": about.stature_m,
                "history": about.history,
                "school": about.school,
                "minor": bool(about.guardian),
                "guardian": about.guardian,
                "consent_on": about.consent_on,
            },
        )
        return student

    def _reference(self, instructor: User, about: practice.DemoReference) -> None:
        first, *others = about.clips
        swing = receive_reference(instructor, about.hand, about.club, clip_in(first), upload(first))
        for name in others:
            add_clip(swing, clip_in(name), upload(name))
        ReferenceSwing.objects.create(instructor=instructor, swing=swing, name=about.name, about=about.about)
        _marked(swing, about.clips)

    def _swing(self, instructor: User, student: Student, about: practice.DemoSwing) -> None:
        first, *others = about.clips
        clip = clip_in(first)
        data = SwingIn(
            student_id=student.pk,
            club=about.club,
            words=about.words,
            usual_miss=about.usual_miss,
            what_hurts=about.what_hurts,
            view=clip.view,
            capture_fps=clip.capture_fps,
        )
        swing = receive(instructor, data, upload(first))
        for name in others:
            add_clip(swing, clip_in(name), upload(name))
        received_at = timezone.now() - timedelta(days=about.days_ago)
        Swing.objects.filter(pk=swing.pk).update(received_at=received_at)
        if about.marked:
            _marked(swing, about.clips)
        if about.answer:
            self._answer(swing, about.answer)

    def _answer(self, swing: Swing, answer: tuple[str, str]) -> None:
        swing.refresh_from_db()
        sent_at = swing.received_at + ANSWERED_AFTER
        opening, drill = answer
        Lesson.objects.create(
            instructor=swing.instructor,
            swing=swing,
            title=f"Your {swing.club}",
            opening=opening,
            drill=drill,
            sent_at=sent_at,
            token=new_token(),
            first_read_at=sent_at + timedelta(hours=3),
        )
        Swing.objects.filter(pk=swing.pk).update(answered_at=sent_at)


def truth(name: str) -> dict[str, Any]:
    """What is true of a demo clip (docs/formats/golfer-truth.md)."""
    document: dict[str, Any] = json.loads(gzip.decompress((CLIPS / f"{name}.truth.json.gz").read_bytes()))
    return document


def clip_in(name: str) -> ClipIn:
    """How a demo clip is described when it is taken in: a capture rate only for slow motion."""
    known = truth(name)
    view: View = known["view"]
    slow = known["capture_fps"] != known["played_fps"]
    return ClipIn(view=view, capture_fps=known["capture_fps"] if slow else None)


def file_of(name: str) -> Path:
    """The clip's file, whatever its ending."""
    return next(path for path in CLIPS.glob(f"{name}.*") if path.suffix in (".mp4", ".mov"))


def upload(name: str) -> SimpleUploadedFile:
    """The clip as a browser would send it."""
    path = file_of(name)
    return SimpleUploadedFile(path.name, path.read_bytes())


def _marked(swing: Swing, names: tuple[str, ...]) -> None:
    for clip, name in zip(swing.clips.order_by("added_at"), names, strict=True):
        put_marks(clip, name)


def put_marks(clip: Clip, name: str) -> None:
    """Peg a clip, and mark it if it is face-on, as a careful hand would: near the truth, never on it."""
    known = truth(name)
    hand = random.Random(name)
    for checkpoint, frame in known["checkpoints"].items():
        Peg.objects.create(clip=clip, name=checkpoint, frame=frame)
        if known["view"] != "face_on" or checkpoint not in MARKED_AT:
            continue
        for mark in (*HIPS, "trail_foot_outer") if checkpoint == "address" else HIPS:
            x, y = (v + hand.gauss(0, HAND_SHAKE_PX) for v in known["pixels"][mark][frame])
            Mark.objects.create(clip=clip, name=mark, frame=frame, x=x, y=y, sd_px=MARK_SD_PX)
    if known["view"] == "face_on":
        (ax, ay), (bx, by) = known["stick"]["pixels"]
        Calibration.objects.create(
            clip=clip,
            ax=ax,
            ay=ay,
            bx=bx,
            by=by,
            length_m=known["stick"]["length_m"],
            place="toe_line",
            camera_distance_m=known["camera"]["distance_m"],
            squared=True,
        )
