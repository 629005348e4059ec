"""From pixels to metres along the target line, as a face-on camera sees it.

A square pinhole camera a distance D in front of the hips maps a point at T, a depth d behind the
hips' plane, to x = cx + s T D / (D + d), with s the scale at the hips in px/m (Hartley and Zisserman,
Multiple View Geometry, 2nd ed., 6.1). Off square by a small angle, depth leaks into T by its sine; the
angle is positive when the camera looks toward the target from behind square. What nobody measured
(roll, off square, the depth of each mark) is taken at its usual value with an honest spread.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from tropometer.swing.measured import Measured, exact, hypot
from tropometer.swing.names import Checkpoint, Hand, LengthPlace, spoken
from tropometer.swing.record import Clip, Mark

# One standard deviation of what a careful phone on a stand does; common practice, no source.
ROLL_SD = math.radians(0.6)
OFF_SQUARE_DEG = (0.0, 4.0)  # placed by eye
# 1 / distance, because places and scale are linear in it: phones stand 2.6 to 5.4 m away.
CAMERA_NEARNESS_PER_M = (0.261, 0.056)
GIVEN_DISTANCE_SD = 0.04  # share of a distance somebody paced or taped

# How far in front of the hips (toward the camera) a length lies: mean and spread, metres.
PLACE_AHEAD_M: dict[LengthPlace, tuple[float, float]] = {
    "body_plane": (0.0, 0.04),
    "toe_line": (0.42, 0.06),
    "ball_line": (0.80, 0.12),
}

# Depth behind the hips' plane at address: mean and spread, metres. The pelvis turns about 45° by the
# top and about 35° open by impact, which carries its edges; common practice, no source.
DEPTH_M: dict[str, dict[str, tuple[float, float]]] = {
    "lead_hip": {"address": (0.0, 0.015), "top": (-0.06, 0.03), "impact": (0.06, 0.03)},
    "trail_hip": {"address": (0.0, 0.015), "top": (0.06, 0.03), "impact": (-0.06, 0.03)},
    "lead_hip_edge": {"address": (-0.05, 0.03), "top": (-0.15, 0.04), "impact": (0.02, 0.04)},
    "trail_hip_edge": {"address": (-0.05, 0.03), "top": (0.02, 0.04), "impact": (-0.10, 0.04)},
    "trail_foot_outer": {"address": (-0.30, 0.06)},
}
UNKNOWN_DEPTH_M = (0.0, 0.10)


@dataclass(frozen=True)
class FaceOn:
    """The camera's measuring model for one clip of one player."""

    clip: Clip
    toward_target: int  # +1 when the target lies at +x in the picture
    scale_px_per_m: Measured
    nearness_per_m: Measured  # 1 / distance of the camera from the hips
    roll: Measured
    off_square: Measured

    def along_target(self, name: str, frame: int, at: Checkpoint) -> Measured:
        """T of a mark in metres from the picture's middle, positive toward the target."""
        mark = self.clip.marks[name][frame]
        x, y = _coordinates(name, frame, mark)
        level = (x - self.clip.width / 2) + self.roll * (y - self.clip.height / 2)
        depth = self.depth(name, at)
        at_hips = level / self.scale_px_per_m * self.toward_target
        return at_hips * (1 + depth * self.nearness_per_m) + self.off_square * depth

    def depth(self, name: str, at: Checkpoint) -> Measured:
        """Depth of a mark behind the hips' plane at address, metres."""
        mean, sd = DEPTH_M.get(name, {}).get(at, UNKNOWN_DEPTH_M)
        return Measured.of(mean, sd, f"depth of the {spoken(name)} at {spoken(at)}")


def look(clip: Clip, hand: Hand) -> FaceOn | None:
    """The measuring model of a face-on clip, or None while it has no known length."""
    known = clip.known_length
    if known is None:
        return None
    if clip.camera_distance_m is None:
        nearness = Measured.of(*CAMERA_NEARNESS_PER_M, "camera distance")
    else:
        given = 1 / clip.camera_distance_m
        nearness = Measured.of(given, GIVEN_DISTANCE_SD * given, "camera distance")
    ends = [Measured.of(v, known.sd_px, f"known length end {i}") for i, v in enumerate((*known.a, *known.b))]
    pixels = hypot(ends[2] - ends[0], ends[3] - ends[1])
    length = Measured.of(known.length_m, known.length_sd_m, "known length")
    ahead = Measured.of(*PLACE_AHEAD_M[known.place], "place of the known length")
    scale = pixels / length * (1 - ahead * nearness)
    angle, angle_sd = clip.off_square_deg or OFF_SQUARE_DEG
    return FaceOn(
        clip=clip,
        toward_target=1 if hand == "right" else -1,
        scale_px_per_m=scale,
        nearness_per_m=nearness,
        roll=Measured.of(0.0, ROLL_SD, "camera roll"),
        off_square=Measured.of(math.radians(angle), math.radians(angle_sd), "camera off square"),
    )


def _coordinates(name: str, frame: int, mark: Mark) -> tuple[Measured, Measured]:
    where = f"{spoken(name)} on frame {frame}"
    return (
        exact(Measured.of(mark.x, mark.sd_px, f"{where}, x")),
        exact(Measured.of(mark.y, mark.sd_px, f"{where}, y")),
    )
