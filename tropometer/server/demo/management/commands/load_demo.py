"""Load the demo: a small practice on an invented island, with clips of made-up golfers."""

from __future__ import annotations

import gzip
import json
import random
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from tropometer.server.bench.models import Calibration, CameraFacts, Mark, Mat, Peg, Swing
from tropometer.server.bench.schemas import SwingIn
from tropometer.server.bench.services import keep_pressure, receive, receive_reference
from tropometer.server.clips import uploads
from tropometer.server.clips.models import Clip
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.clips.uploads import Sender
from tropometer.server.demo import practice
from tropometer.server.lessons.models import Lesson, new_token
from tropometer.server.people.models import Student, User
from tropometer.server.shelf.models import ReferenceSwing
from tropometer.swing.wanted import WANTED

CLIPS: Path = settings.ROOT / "demo" / "clips"
MARK_SD_PX = 1.5
# The truth's times from impact, and the events that they are of.
SINCE_IMPACT = {"heel_off_trail": "trail_heel_off", "lead_knee_straight_time": "lead_knee_straight"}
HAND_SHAKE_PX = 0.8
FORCE_NOISE_N = 10.0
PRESSURE_FILE = "range-mat.csv"
MARKED_AT = ("address", "top", "impact")
LEGS = tuple(f"{side}_{part}" for side in ("lead", "trail") for part in ("knee", "ankle", "heel", "toe"))
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
        clips = [arrived(instructor, name) for name in about.clips]
        swing, _ = receive_reference(instructor, about.hand, about.club, clips)
        ReferenceSwing.objects.create(instructor=instructor, swing=swing, name=about.name, about=about.about)
        _marked(swing, about.clips)
        keep_pressure(swing, PRESSURE_FILE, pressure_table(about.clips[0]), impact_s=0.0)

    def _swing(self, instructor: User, student: Student, about: practice.DemoSwing) -> None:
        data = SwingIn(
            club=about.club,
            words=about.words,
            usual_miss=about.usual_miss,
            what_hurts=about.what_hurts,
            camera_place=about.camera_place,
            clips=[arrived(instructor, name) for name in about.clips],
        )
        swing, _ = receive(Sender(instructor), student, data)
        received_at = timezone.now() - timedelta(days=about.days_ago)
        Swing.objects.filter(pk=swing.pk).update(received_at=received_at)
        if about.marked:
            _marked(swing, about.clips)
        if about.on_pressure_mat:
            keep_pressure(swing, PRESSURE_FILE, pressure_table(about.clips[0]), impact_s=0.0)
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


def file_of(name: str) -> Path:
    """The clip's file, whatever its ending."""
    return next(path for path in CLIPS.glob(f"{name}.*") if path.suffix in (".mp4", ".mov"))


def arrived(instructor: User, name: str) -> ClipIn:
    """A demo clip as if it had just been uploaded; it has a capture rate only for slow motion."""
    known, path = truth(name), file_of(name)
    upload = uploads.begin(Sender(instructor), path.name, path.stat().st_size)
    upload.path.write_bytes(path.read_bytes())
    slow = known["capture_fps"] != known["played_fps"]
    return ClipIn(upload_id=upload.pk, view=known["view"], capture_fps=known["capture_fps"] if slow else None)


def _marked(swing: Swing, names: tuple[str, ...]) -> None:
    for clip, name in zip(swing.clips.order_by("added_at"), names, strict=True):
        put_marks(clip, name)
        put_other_marks(clip, name)
        put_mat(clip, name)


def pressure_table(name: str) -> str:
    """What a pressure mat felt during a demo clip's swing, as its file would say; impact is at 0 s."""
    known = truth(name)
    hand = random.Random(f"{name} pressure")
    lines = ["time_s,lead_force_n,trail_force_n,lead_toe,lead_outer,trail_toe,trail_outer"]
    columns = [known["mat"][name] for name in ("lead_force_n", "trail_force_n", "lead_place", "trail_place")]
    impact_s = known["times_s"]["checkpoints"]["impact"]
    for time_s, lead_n, trail_n, lead, trail in zip(known["times_s"]["frames"], *columns, strict=True):
        forces = (max(0.0, force + hand.gauss(0, FORCE_NOISE_N)) for force in (lead_n, trail_n))
        cells = [time_s - impact_s, *forces, *lead, *trail]
        lines.append(",".join(f"{cell:.4f}" for cell in cells))
    return "\n".join(lines)


def put_other_marks(clip: Clip, name: str) -> None:
    """The rest of what the readings want at each checkpoint; what is hidden is guessed, and less sure."""
    known = truth(name)
    hand = random.Random(f"{name} rest")
    placed = set(clip.marks.values_list("name", "frame"))
    marks = []
    for wanted in WANTED:
        for at in wanted.at if wanted.view == known["view"] else ():
            frame = known["checkpoints"][at]
            if (wanted.name, frame) in placed:
                continue
            guessed = 2.0 if known["hidden"][wanted.name][frame] == "1" else 1.0
            shake, sd_px = HAND_SHAKE_PX * guessed, MARK_SD_PX * guessed
            x, y = (v + hand.gauss(0, shake) for v in known["pixels"][wanted.name][frame])
            marks.append(Mark(clip=clip, name=wanted.name, frame=frame, x=x, y=y, sd_px=sd_px))
    Mark.objects.bulk_create(marks)


def put_starts(clip: Clip, known: dict[str, Any]) -> None:
    """Peg the frame nearest to when each part starts toward the target, and to what happens by impact."""
    times = known["times_s"]
    seconds = {f"{part}_start": second for part, second in times["starts"].items()}
    told = {each["reading"]: each["value"] for each in known["readings"]}
    for reading, event in SINCE_IMPACT.items():
        if reading in told:
            seconds[event] = times["checkpoints"]["impact"] + told[reading]
    for event, second in seconds.items():
        frame = min(range(len(times["frames"])), key=lambda n: abs(times["frames"][n] - second))
        Peg.objects.create(clip=clip, name=event, frame=frame)


def put_mat(clip: Clip, name: str) -> None:
    """Mark the mat as a careful hand would, if the camera saw all of it."""
    known = truth(name)
    hand = random.Random(f"{name} mat")
    corners = [
        {"x": x + hand.gauss(0, HAND_SHAKE_PX), "y": y + hand.gauss(0, HAND_SHAKE_PX)}
        for x, y in known["mat_corners"]["pixels"]
    ]
    width, height = known["camera"]["width"], known["camera"]["height"]
    if all(0 <= corner["x"] <= width and 0 <= corner["y"] <= height for corner in corners):
        (left, near, _), (_, far, _), (right, _, _), _ = known["mat_corners"]["tbu_m"]
        Mat.objects.create(clip=clip, corners=corners, along_m=right - left, across_m=far - near)


def put_marks(clip: Clip, name: str) -> None:
    """Peg a clip, and mark it if it is face-on, as a careful hand would: near the truth, never on it."""
    known = truth(name)
    hand = random.Random(name)
    for checkpoint, frame in known["checkpoints"].items():
        Peg.objects.create(clip=clip, name=checkpoint, frame=frame)
        for mark in LEGS:
            if known["hidden"][mark][frame] == "0":
                x, y = (v + hand.gauss(0, HAND_SHAKE_PX) for v in known["pixels"][mark][frame])
                Mark.objects.create(clip=clip, name=mark, frame=frame, x=x, y=y, sd_px=MARK_SD_PX)
        if known["view"] != "face_on" or checkpoint not in MARKED_AT:
            continue
        for mark in (*HIPS, "trail_foot_outer") if checkpoint == "address" else HIPS:
            x, y = (v + hand.gauss(0, HAND_SHAKE_PX) for v in known["pixels"][mark][frame])
            Mark.objects.create(clip=clip, name=mark, frame=frame, x=x, y=y, sd_px=MARK_SD_PX)
    if known["view"] == "face_on":
        put_starts(clip, known)
        (ax, ay), (bx, by) = known["stick"]["pixels"]
        Calibration.objects.create(
            clip=clip,
            ax=ax,
            ay=ay,
            bx=bx,
            by=by,
            length_m=known["stick"]["length_m"],
            place="toe_line",
        )
        CameraFacts.objects.create(clip=clip, distance_m=known["camera"]["distance_m"], squared=True)
