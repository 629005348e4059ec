"""Renders a part of the cast to a clip file with its truth beside it."""

from __future__ import annotations

import json
from fractions import Fraction
from pathlib import Path
from typing import Any, cast

import av
import numpy as np
import numpy.typing as npt
from av.video.stream import VideoStream

from tropometer.golfer import renderer as drawing
from tropometer.golfer.body import build
from tropometer.golfer.cast import Part
from tropometer.golfer.swing_model import SwingModel, T
from tropometer.golfer.truth import marks_3d

START_S = 0.15
END_S = 2.5
MAT_RECT = (0, 0.35, 0.78, 0.78)
CHECKPOINT_TIMES_S = {"address": T[0], "top": T[3], "impact": T[6]}
ENCODER = {
    "libx264": {"crf": "21", "preset": "medium", "bf": "2", "g": "30"},
    "libx265": {"crf": "24", "preset": "fast", "g": "60", "x265-params": "log-level=none"},
}


class Footage:
    """One part, ready to draw at any instant."""

    def __init__(self, part: Part) -> None:
        self.part = part
        self.mirror = -1.0 if part.left_handed else 1.0
        self.body = build(part.stature_m, 0.0 if part.female else 1.0, part.build)
        self.swing = SwingModel(self.body, faults=part.offsets)
        camera = part.camera
        self.renderer = drawing.Renderer(self.body, camera.width, camera.height)
        drawing.scene(self.renderer, self.swing)
        self.renderer.camera(camera.eye, camera.at, camera.fov_deg, MAT_RECT)
        self.palette = drawing.srgb(*part.colours.split())

    def frame(self, t: float) -> tuple[npt.NDArray[np.uint8], dict[str, Any]]:
        """Picture (h, w, 3) and truth at time t of the model, seconds."""
        bones, joints = self.swing.pose(t)
        skin = self.renderer.skin(bones)
        flip = np.array([self.mirror, 1, 1])
        feet = [(joints[f"heel_{s}"] + joints[f"toe_{s}"]) / 2 * flip for s in "lr"]
        things = drawing.instances(self.swing, joints, t, self.mirror)
        picture = self.renderer.frame(bones, things, feet, self.palette, self.mirror)
        marks = marks_3d(self.body, joints, skin)
        pixels = self.part.camera.project(np.array(list(marks.values())) * flip)
        truth = {
            # T, B, U of the contract: toward the target, toward the ball, up
            "tbu_m": {n: [round(float(v), 5) for v in (p[0], p[2], p[1])] for n, p in marks.items()},
            "pixels": {n: np.round(p, 2).tolist() for n, p in zip(marks, pixels, strict=True)},
        }
        return np.ascontiguousarray(picture), truth

    def stick_ends(self) -> tuple[npt.NDArray[np.float64], float]:
        """Pixels (2, 2) of the alignment stick's ends and its length in metres."""
        ends = drawing.stick_ends(self.swing) * np.array([self.mirror, 1, 1])
        return self.part.camera.project(ends), float(np.linalg.norm(ends[1] - ends[0]))


def write_clip(part: Part, folder: Path) -> Path:
    """Draw the whole swing into `folder` as a clip and a truth file; returns the clip's path."""
    footage = Footage(part)
    path = folder / f"{part.name}.{part.container}"
    count = round((END_S - START_S) * part.capture_fps) + 1
    frames: list[dict[str, Any]] = []
    with av.open(str(path), "w") as out:
        stream = cast(
            VideoStream, out.add_stream(part.codec, rate=part.played_fps, options=ENCODER[part.codec])
        )
        stream.width, stream.height, stream.pix_fmt = part.camera.width, part.camera.height, "yuv420p"
        if part.codec == "libx265":
            stream.codec_context.codec_tag = "hvc1"
        for number in range(count):
            picture, truth = footage.frame(START_S + number / part.capture_fps)
            frames.append(truth)
            frame = av.VideoFrame.from_ndarray(picture, format="rgb24")
            frame.pts, frame.time_base = number, Fraction(1, part.played_fps)
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    stick, length_m = footage.stick_ends()
    document = {
        "name": part.name,
        "hand": "left" if part.left_handed else "right",
        "stature_m": part.stature_m,
        "capture_fps": part.capture_fps,
        "camera_eye_m": part.camera.eye,
        "stick": {"pixels": np.round(stick, 2).tolist(), "length_m": round(length_m, 4)},
        "checkpoints": {
            name: round((t - START_S) * part.capture_fps) for name, t in CHECKPOINT_TIMES_S.items()
        },
        "frames": frames,
    }
    path.with_suffix(".truth.json").write_text(json.dumps(document, separators=(",", ":")) + "\n")
    return path
