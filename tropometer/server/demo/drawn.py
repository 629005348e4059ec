"""What is drawn for the demo, as it would have come: clips, careful marks, and what a pressure plate felt."""

from __future__ import annotations

import gzip
import json
import random
from pathlib import Path
from typing import TYPE_CHECKING, Any

from django.conf import settings
from django.db import transaction

from tropometer.server.bench.edit_schemas import CalibrationValue, FactsValue, MatValue
from tropometer.server.bench.filling import Placed, fill
from tropometer.server.bench.schemas import SwingKind
from tropometer.server.bench.services import keep_pressure
from tropometer.server.clips import uploads
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.clips.uploads import Sender
from tropometer.server.demo import practice
from tropometer.server.shelf.services import names_on_shelf, put_on_shelf
from tropometer.swing.names import PLANE_OF
from tropometer.swing.readings.round import wanted_marks

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.clips.models import Clip
    from tropometer.server.people.models import User

CLIPS: Path = settings.ROOT / "demo" / "clips"
MARK_SD_PX = 1.5
# The truth's times from impact, and the events that they are of.
SINCE_IMPACT = {"heel_off_trail": "trail_heel_off", "lead_knee_straight_time": "lead_knee_straight"}
HAND_SHAKE_PX = 0.8
FORCE_NOISE_N = 10.0
PRESSURE_FILE = "range-plate.csv"
MARKED_AT = ("address", "top", "impact")
LEGS = tuple(f"{side}_{part}" for side in ("lead", "trail") for part in ("knee", "ankle", "heel", "toe"))
HIPS = ("lead_hip", "trail_hip", "lead_hip_edge", "trail_hip_edge")


def models_for_shelf(instructor: User) -> list[practice.DemoReference]:
    """The range models that are not on an instructor's shelf yet."""
    there = names_on_shelf(instructor)
    return [each for each in practice.REFERENCES if each.name not in there]


def put_models_on_shelf(instructor: User) -> None:
    """Put the range models on an instructor's shelf, pegged and marked, with what the range's mat felt."""
    for about in models_for_shelf(instructor):
        with transaction.atomic():
            swing, _ = put_on_shelf(
                instructor,
                name=about.name,
                about=about.about,
                teaching_model=about.teaching_model,
                hand=about.hand,
                kind=SwingKind(club=about.club, club_class=practice.CLUBS[about.club], swing_length="full"),
                clips=[arrived(instructor, name) for name in about.clips],
                one_swing=True,
            )
            mark(swing, about.clips)
            keep_pressure(swing, PRESSURE_FILE, pressure_table(about.clips[0]), impact_s=0.0)


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


def mark(swing: Swing, names: tuple[str, ...]) -> None:
    """Put on a swing's clips all that a careful hand would."""
    for clip, name in zip(swing.clips.order_by("added_at"), names, strict=True):
        put_on(clip, name, whole=True)


def put_on(clip: Clip, name: str, whole: bool) -> None:
    """Put on a clip what a careful hand would: near the truth, never on it.

    `whole`: the mat too, and all that the readings want; else the legs, the hips and the stick.
    """
    known = truth(name)
    frontal = PLANE_OF[known["view"]] == "frontal"
    marks = legs_and_hips(known, name)
    fill(
        clip,
        pegs=known["checkpoints"] | (starts(known) if frontal else {}),
        marks=[*marks, *(the_rest(known, name, marks) if whole else ())],
        length=stick(known) if frontal else None,
        mat=mat(known, name) if whole else None,
        facts=FactsValue(distance_m=known["camera"]["distance_m"], squared=True) if frontal else None,
    )


def legs_and_hips(known: dict[str, Any], name: str) -> list[Placed]:
    """The legs at every checkpoint where they are seen; square to it also the hips where they matter."""
    hand = random.Random(name)
    marks = []
    for checkpoint, frame in known["checkpoints"].items():
        wanted = [mark for mark in LEGS if known["hidden"][mark][frame] == "0"]
        if PLANE_OF[known["view"]] == "frontal" and checkpoint in MARKED_AT:
            wanted += [*HIPS, "trail_foot_outer"] if checkpoint == "address" else HIPS
        for mark in wanted:
            x, y = (v + hand.gauss(0, HAND_SHAKE_PX) for v in known["pixels"][mark][frame])
            marks.append(Placed(name=mark, frame=frame, x=x, y=y, sd_px=MARK_SD_PX))
    return marks


def the_rest(known: dict[str, Any], name: str, there: list[Placed]) -> list[Placed]:
    """The rest of what the readings want at each checkpoint; what is hidden is guessed, and less sure."""
    hand = random.Random(f"{name} rest")
    placed = {(mark.name, mark.frame) for mark in there}
    marks = []
    for wanted in wanted_marks():
        for at in wanted.at if wanted.view == known["view"] else ():
            frame = known["checkpoints"][at]
            if (wanted.name, frame) in placed:
                continue
            placed.add((wanted.name, frame))
            guessed = 2.0 if known["hidden"][wanted.name][frame] == "1" else 1.0
            shake, sd_px = HAND_SHAKE_PX * guessed, MARK_SD_PX * guessed
            x, y = (v + hand.gauss(0, shake) for v in known["pixels"][wanted.name][frame])
            marks.append(Placed(name=wanted.name, frame=frame, x=x, y=y, sd_px=sd_px))
    return marks


def starts(known: dict[str, Any]) -> dict[str, int]:
    """The frames nearest to when each part starts toward the target, and to what happens by impact."""
    times = known["times_s"]
    seconds = {f"{part}_start": second for part, second in times["starts"].items()}
    told = {each["reading"]: each["value"] for each in known["readings"]}
    for reading, event in SINCE_IMPACT.items():
        if reading in told:
            seconds[event] = times["checkpoints"]["impact"] + told[reading]
    frames = range(len(times["frames"]))
    return {
        event: min(frames, key=lambda n, second=second: abs(times["frames"][n] - second))  # type: ignore[misc]
        for event, second in seconds.items()
    }


def stick(known: dict[str, Any]) -> CalibrationValue:
    """The stick along the toes, as the known length."""
    (ax, ay), (bx, by) = known["stick"]["pixels"]
    length_m = known["stick"]["length_m"]
    return CalibrationValue(ax=ax, ay=ay, bx=bx, by=by, length_m=length_m, place="toe_line")


def mat(known: dict[str, Any], name: str) -> MatValue | None:
    """The mat as a careful hand marks it, if the camera saw all of it."""
    hand = random.Random(f"{name} mat")
    corners = [
        {"x": x + hand.gauss(0, HAND_SHAKE_PX), "y": y + hand.gauss(0, HAND_SHAKE_PX)}
        for x, y in known["mat_corners"]["pixels"]
    ]
    width, height = known["camera"]["width"], known["camera"]["height"]
    if not all(0 <= corner["x"] <= width and 0 <= corner["y"] <= height for corner in corners):
        return None
    (left, near, _), (_, far, _), (right, _, _), _ = known["mat_corners"]["tbu_m"]
    return MatValue.model_validate({"corners": corners, "along_m": right - left, "across_m": far - near})


def pressure_table(name: str) -> str:
    """What a pressure plate felt during a demo clip's swing, as its file would say; impact is at 0 s."""
    return plate_table(truth(name))


def plate_table(known: dict[str, Any]) -> str:
    """The same for a swing of which only what is true is kept."""
    hand = random.Random(f"{known['name']} pressure")
    lines = ["time_s,lead_force_n,trail_force_n,lead_toe,lead_outer,trail_toe,trail_outer"]
    columns = [known["mat"][name] for name in ("lead_force_n", "trail_force_n", "lead_place", "trail_place")]
    impact_s = known["times_s"]["checkpoints"]["impact"]
    for time_s, lead_n, trail_n, lead, trail in zip(known["times_s"]["frames"], *columns, strict=True):
        forces = (max(0.0, force + hand.gauss(0, FORCE_NOISE_N)) for force in (lead_n, trail_n))
        cells = [time_s - impact_s, *forces, *lead, *trail]
        lines.append(",".join(f"{cell:.4f}" for cell in cells))
    return "\n".join(lines)
