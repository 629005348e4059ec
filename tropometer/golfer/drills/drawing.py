"""Draws a drill: pictures of where it starts and where it ends, and loops of it done right and done wrong."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

import av
import cv2
import numpy as np
from av.video.reformatter import Colorspace

from tropometer.golfer import bay
from tropometer.golfer.camera import Camera
from tropometer.golfer.cast import PEOPLE, Person
from tropometer.golfer.clips import body_of
from tropometer.golfer.drills.holds import Hold
from tropometer.golfer.drills.props import SLOPE_DEG, Ball, Prop, Slope
from tropometer.golfer.drills.rehearsal import FPS, Stage, moments, pose
from tropometer.golfer.drills.scene import Scene
from tropometer.golfer.renderer import Picture, Renderer, linear_colours
from tropometer.golfer.settings import SwingSettings
from tropometer.golfer.shapes import club
from tropometer.swing.names import PLANE_OF, View

WIDTH, HEIGHT = 512, 576
DISTANCE_M, UP_M = 4.7, 1.0
# Full vertical angle, and downward tilt, degrees: with a swung club, and with the hands on the body.
SWUNG, NEAR = (30.5, 1.0), (25.0, 2.0)
ASIDE_M = -0.2  # from beside the golfer, who has no ball there, the camera stands so far behind the line
PAPER = (0.945, 0.93, 0.895)
BT_709 = 1  # of ITU-T H.273, for primaries, transfer and matrix
PICTURE_QUALITY = 90
ENCODING = {"crf": "23", "preset": "veryslow", "g": "80"}
Done = Literal["right", "wrong"]


@dataclass(frozen=True)
class DrawnDrill:
    """How a drill of the book is drawn: by whom, from where, with what, and what is gone through.

    `club` is drawn where the hands hold one; `keeps_ball` holds the ball still where the feet move about it.
    """

    id: str
    view: View
    right: tuple[Stage, ...]
    wrong: tuple[Stage, ...] | None = None
    hold: Hold | None = None
    props: tuple[Prop, ...] = ()
    club: bool = False
    keeps_ball: bool = False
    beside_m: float = 0.0  # of the middle: toward the target, or toward the ball
    person: Person = PEOPLE["model_loaded"]

    def stages(self, done: Done) -> tuple[Stage, ...]:
        """What is gone through."""
        found = self.right if done == "right" else self.wrong
        assert found is not None
        return found


def scene_at(drill: DrawnDrill, settings: SwingSettings, at: float) -> Scene:
    """The golfer at an event number."""
    return Scene(*pose(body_of(drill.person), settings, drill.hold, at))


class Drawing:
    """Draws one drill."""

    def __init__(self, drill: DrawnDrill) -> None:
        self.drill = drill
        slopes = any(isinstance(prop, Slope) for prop in drill.props)
        far = drill.hold is None or any(isinstance(prop, Ball) for prop in drill.props)
        fov, tilt = SWUNG if far else NEAR
        aside = 0.0 if far or PLANE_OF[drill.view] == "frontal" else ASIDE_M
        camera = Camera(
            drill.view,
            DISTANCE_M,
            UP_M,
            fov,
            WIDTH,
            HEIGHT,
            tilt_deg=tilt,
            roll_deg=-SLOPE_DEG * slopes,
            beside_m=drill.beside_m + aside,
        )
        self.palette = linear_colours(*drill.person.colours.split())
        self.renderer = Renderer(body_of(drill.person), WIDTH, HEIGHT)
        self.renderer.place_camera(camera.eye, camera.rotation, camera.fov_deg)
        self.renderer.draw_plain(PAPER)
        first = drill.right[0]
        self.start = scene_at(drill, first.settings, first.at)
        for prop in drill.props:
            for name, (rows, shine) in prop.meshes(self.start).items():
                self.renderer.add(name, rows, shine)
        if drill.club:
            motion = self.start.motion
            self.renderer.add("club", club(motion.settings.club, motion.club_length_m), 0.8)

    def picture(self, at: float, settings: SwingSettings) -> Picture:
        """The golfer and the props at an event number of a swing (h, w, 3)."""
        now = scene_at(self.drill, settings, at)
        things = [thing for prop in self.drill.props for thing in prop.placed(self.start, now)]
        if self.drill.club:
            things.append(("club", bay.held_club(now.poses, 0)))
        moved = np.eye(4)
        if self.drill.keeps_ball:
            moved[:3, 3] = (self.start.motion.ball - now.motion.ball) * [1, 0, 1]
        feet = [(moved @ [*((foot.heel[0] + foot.toe[0]) / 2), 1])[:3] for foot in now.poses.feet.values()]
        placed = [(name, moved @ place) for name, place in things]
        drawn = self.renderer.frame(moved @ now.matrices, placed, feet, self.palette, 1.0, {})
        return np.ascontiguousarray(drawn)

    def write(self, folder: Path) -> list[Path]:
        """The drill's files, each named after the drill and what it shows."""
        written = [
            self._still(folder / f"{self.drill.id}-start.webp", self.drill.right[0]),
            self._still(folder / f"{self.drill.id}-end.webp", end_of(self.drill.right)),
            self._loop(folder / f"{self.drill.id}-right.mp4", self.drill.right),
        ]
        if self.drill.wrong:
            written.append(self._loop(folder / f"{self.drill.id}-wrong.mp4", self.drill.wrong))
        return written

    def _still(self, path: Path, stage: Stage) -> Path:
        drawn = self.picture(stage.at, stage.settings)
        cv2.imwrite(str(path), drawn[:, :, ::-1], [cv2.IMWRITE_WEBP_QUALITY, PICTURE_QUALITY])
        return path

    def _loop(self, path: Path, stages: tuple[Stage, ...]) -> Path:
        drawn: dict[tuple[float, SwingSettings], Picture] = {}
        with av.open(str(path), "w", options={"movflags": "+faststart"}) as out:
            video: Any = out.add_stream("libx264", rate=FPS, options=ENCODING)
            video.width, video.height, video.pix_fmt = WIDTH, HEIGHT, "yuv420p"
            say_colours(video)
            for moment in moments(stages):
                if moment not in drawn:
                    drawn[moment] = self.picture(*moment)
                frame = av.VideoFrame.from_ndarray(drawn[moment], format="rgb24")
                out.mux(video.encode(frame.reformat(format="yuv420p", dst_colorspace=Colorspace.ITU709)))
            out.mux(video.encode(None))
        return path


def say_colours(video: Any) -> None:
    """Note in a stream that its colours are those of BT.709, so that no player has to guess."""
    codec = video.codec_context
    codec.colorspace = codec.color_primaries = codec.color_trc = BT_709
    codec.color_range = 1  # limited, as that standard has it


def end_of(stages: tuple[Stage, ...]) -> Stage:
    """The stage that is held longest after the first: what the drill is for."""
    return max(stages[1:], key=lambda each: each.hold_s)
