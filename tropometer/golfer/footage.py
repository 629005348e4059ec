"""One golfer, one swing, one camera: the picture of any instant."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from tropometer.golfer import bay
from tropometer.golfer.body import Body
from tropometer.golfer.camera import Camera
from tropometer.golfer.motion import Motion, bone_matrices
from tropometer.golfer.renderer import Picture, Renderer, linear_colours

BLUR_STEP_M = 0.012  # a thing that moves less than this between two copies is drawn once
MOST_COPIES = 20


@dataclass(frozen=True)
class Film:
    """How the phone records: open shutter in seconds (0: no motion blur), grain in grey levels."""

    shutter_s: float = 1 / 500
    grain: float = 0.0


class Footage:
    """Draws a motion as a camera sees it."""

    def __init__(
        self, motion: Motion, camera: Camera, colours: str, film: Film, indoors: bool = False
    ) -> None:
        self.motion, self.camera, self.film = motion, camera, film
        self.mirror = -1.0 if camera.left_handed else 1.0
        self.flip = np.array([self.mirror, 1.0, 1.0])
        self.renderer = Renderer(motion.body, camera.width, camera.height)
        bay.furnish(self.renderer, motion)
        rotation = camera.rotation
        if camera.left_handed:  # the range mirrored with the camera in it
            rotation = np.diag([-1, 1, 1]) @ rotation @ np.diag([-1, 1, 1])
        self.renderer.place_camera(camera.eye * self.flip, rotation, camera.fov_deg)
        self.renderer.draw_range(bay.MAT_RECT, indoors)
        self.palette = linear_colours(*colours.split())

    @property
    def body(self) -> Body:
        """The golfer's body."""
        return self.motion.body

    def picture(self, t: float, number: int = 0) -> Picture:
        """The frame (h, w, 3) whose shutter is open about instant t; `number` seeds its grain."""
        copies = self._copies(t)
        instants = t + self.film.shutter_s * ((np.arange(copies) + 0.5) / copies - 0.5)
        poses = self.motion.poses(np.concatenate([[t], instants]))
        mirror = np.diag([self.mirror, 1, 1, 1.0])
        balls = bay.ball_at(self.motion, poses.times_s)
        still = [("stick", mirror)] + ([("tee", mirror)] if self.motion.settings.club == "driver" else [])
        blurred = {
            "club": [mirror @ bay.held_club(poses, i + 1) for i in range(copies)],
            "ball": [mirror @ bay.lying(balls[i + 1]) for i in range(copies)],
        }
        feet = [
            (poses.feet[side].heel[0] + poses.feet[side].toe[0]) / 2 * self.flip for side in ("lead", "trail")
        ]
        matrices = bone_matrices(self.body, poses, 0)
        drawn = self.renderer.frame(matrices, still, feet, self.palette, self.mirror, blurred)
        return self._recorded(np.ascontiguousarray(drawn), t, number)

    def _copies(self, t: float) -> int:
        open_and_shut = t + self.film.shutter_s * np.array([-0.5, 0.5])
        poses = self.motion.poses(open_and_shut)
        balls = bay.ball_at(self.motion, open_and_shut)
        moved = max(np.linalg.norm(np.diff(x, axis=0)) for x in (poses.club.head, balls))
        return int(np.clip(np.ceil(moved / BLUR_STEP_M), 1, MOST_COPIES))

    def _recorded(self, drawn: Picture, t: float, number: int) -> Picture:
        """The picture after the hand's sway and the sensor's grain."""
        if self.camera.drift_deg:
            warp = self.camera.warp(t)
            size = (self.camera.width, self.camera.height)
            # Pixel centres lie at half pixels in our picture and at whole ones in OpenCV's.
            shift = np.array([[1, 0, 0.5], [0, 1, 0.5], [0, 0, 1]])
            warp = np.linalg.inv(shift) @ warp @ shift
            drawn = np.asarray(
                cv2.warpPerspective(
                    drawn, warp, size, flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_REFLECT_101
                ),
                np.uint8,
            )
        if self.film.grain:
            noise = np.random.default_rng(number).normal(0, self.film.grain, drawn.shape[:2])
            drawn = np.clip(drawn + noise[:, :, None], 0, 255).astype(np.uint8)
        return drawn
