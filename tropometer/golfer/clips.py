"""Draws a take to a clip file with its truth beside it."""

from __future__ import annotations

import gzip
import json
from collections.abc import Iterator
from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np

from tropometer.golfer import bay, formats, strip
from tropometer.golfer.body import Body, build
from tropometer.golfer.cast import Person, Take
from tropometer.golfer.events import timing
from tropometer.golfer.footage import Footage
from tropometer.golfer.forces import pressure
from tropometer.golfer.motion import Motion
from tropometer.golfer.renderer import Picture
from tropometer.golfer.rotations import Floats
from tropometer.golfer.true_readings import true_readings
from tropometer.golfer.truth_marks import hidden, mark_places
from tropometer.swing.names import CHECKPOINTS

FIRST_S = 0.15  # into the motion, where the clip begins
AFTER_S = 0.12  # after the finish
SOUND_M_S = 343.0


@lru_cache(maxsize=2)
def body_of(person: Person) -> Body:
    """The body of a made-up golfer."""
    return build(
        person.stature_m,
        person.man,
        person.build,
        person.cap,
        person.ponytail,
        person.hip_width,
        person.foot_length,
    )


def frame_times_s(take: Take, motion: Motion) -> Floats:
    """When each frame was taken, on the motion's clock."""
    count = round((motion.end_s + AFTER_S - FIRST_S) * take.recording.capture_fps)
    return FIRST_S + take.recording.captured_s(count)


def write_clip(take: Take, folder: Path, numbered: bool = False) -> Path:
    """Draw the whole swing into `folder` as a clip and a truth file; returns the clip's path.

    `numbered` paints each frame's number into the picture, for tests.
    """
    motion = Motion(body_of(take.person), take.settings)
    times = frame_times_s(take, motion)
    footage = Footage(motion, take.camera, take.person.colours, take.film, take.indoors)

    def pictures() -> Iterator[Picture]:
        for number, t in enumerate(times):
            picture = footage.picture(float(t), number)
            if numbered:
                strip.paint(picture, number)
            yield picture

    path = folder / f"{take.name}.{take.recording.container}"
    document = truth(take, motion, times)
    heard = document["times_s"]["strike_heard"] - times[0]
    formats.write(path, pictures(), len(times), take.recording, [heard])
    with gzip.GzipFile(folder / f"{take.name}.truth.json.gz", "wb", mtime=0) as file:
        file.write(json.dumps(document, separators=(",", ":")).encode())
    return path


def truth(take: Take, motion: Motion, times: Floats) -> dict[str, Any]:
    """All that is true of a take, as docs/formats/golfer-truth.md describes it."""
    person, camera = take.person, take.camera
    when = timing(motion)
    met = {at: time for at, time in when.checkpoints.items() if at not in when.never}
    poses = motion.poses(times)
    marks = mark_places(motion, poses)
    unseen = hidden(motion, poses, marks, camera)

    def mat(instants: Floats) -> Any:
        return pressure(motion, instants, person.man, person.mass_kg)

    felt = mat(times)
    pixels = {
        name: np.array([camera.project(place[i], float(t))[0] for i, t in enumerate(times)])
        for name, place in marks.items()
    }
    return {
        "format": "tropometer-golfer-truth",
        "version": 1,
        "name": take.name,
        "hand": person.hand,
        "sex": person.sex,
        "stature_m": person.stature_m,
        "mass_kg": round(person.mass_kg, 1),
        "club": take.settings.club,
        "view": camera.view,
        "capture_fps": take.recording.capture_fps,
        "played_fps": take.recording.played_fps,
        "camera": _camera(take),
        "stick": {**_on_floor(take, bay.stick_ends(motion)), "length_m": bay.STICK_LENGTH_M},
        "mat_corners": _on_floor(take, bay.mat_corners()),
        "checkpoints": {at: int(np.argmin(np.abs(times - met[at]))) for at in CHECKPOINTS if at in met},
        "times_s": {
            "frames": np.round(times, 6).tolist(),
            "checkpoints": {at: round(t, 6) for at, t in met.items()},
            "starts": {part: round(t, 6) for part, t in when.starts.items()},
            "strike_heard": round(when.checkpoints["impact"] + _way_of_sound_s(take, marks["ball"][0]), 6),
        },
        "readings": [
            {
                "reading": r.reading,
                "at": r.at,
                "value": r.value if isinstance(r.value, str) else round(r.value, 6),
                "unit": r.unit,
            }
            for r in true_readings(motion, when, mat)
            if r.at not in when.never
        ],
        "mat": {
            "lead_force_n": np.round(felt.lead_force_n, 1).tolist(),
            "trail_force_n": np.round(felt.trail_force_n, 1).tolist(),
            "lead_place": np.round(felt.lead_place, 4).tolist(),
            "trail_place": np.round(felt.trail_place, 4).tolist(),
        },
        # T, B, U of the contract: toward the target, toward the ball, up.
        "tbu_m": {name: np.round(place[:, [0, 2, 1]], 4).tolist() for name, place in marks.items()},
        "pixels": {name: np.round(place, 2).tolist() for name, place in pixels.items()},
        "hidden": {name: "".join("01"[int(h)] for h in flags) for name, flags in unseen.items()},
    }


def _way_of_sound_s(take: Take, ball: Floats) -> float:
    """Time the sound of the strike takes to the camera."""
    return float(np.linalg.norm(take.camera.eye - ball)) / SOUND_M_S


def _camera(take: Take) -> dict[str, Any]:
    camera = take.camera
    settings = (
        "distance_m",
        "height_m",
        "fov_deg",
        "off_square_deg",
        "tilt_deg",
        "roll_deg",
        "beside_m",
        "drift_deg",
    )
    return {
        "width": camera.width,
        "height": camera.height,
        "focal_px": round(camera.focal_px, 3),
        **{name: getattr(camera, name) for name in settings},
        # From T, B, U of a right-hander to right, down, ahead; a left-hander's picture is its mirror image.
        "rotation": np.round(camera.rotation[:, [0, 2, 1]], 9).tolist(),
        "eye_tbu_m": np.round(camera.eye[[0, 2, 1]], 6).tolist(),
    }


def _on_floor(take: Take, points: Floats) -> dict[str, Any]:
    """Things that stay where they are, as they lie and as the still camera sees them."""
    return {
        "pixels": np.round(take.camera.project(points), 2).tolist(),
        "tbu_m": np.round(points[:, [0, 2, 1]], 4).tolist(),
    }
