"""One camera's view of a swing: marks, pegs, and what is known of the camera."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace

import numpy as np

from tropometer.swing.names import Checkpoint, Event, LengthPlace, MarkSource, View
from tropometer.swing.record.calibration import CameraFacts, FloorLength, Mat, PlumbLine
from tropometer.swing.record.camera_motion import CameraMotion

# How far a length on the floor lies from the heels toward the ball: mean and spread; common practice, no
# source.
PLACE_B_M: dict[LengthPlace, tuple[float, float]] = {"toe_line": (0.32, 0.06), "ball_line": (0.70, 0.12)}


@dataclass(frozen=True)
class Mark:
    """A point on a frame, pixels of the upright full-size frame; `sd_px` is one standard deviation.

    Of that, `shared_px` is an error that is the same on all frames on which a clip's mark has one.
    """

    x: float
    y: float
    sd_px: float
    source: MarkSource = "hand"
    shared_px: float = 0.0


@dataclass(frozen=True, kw_only=True)
class KnownLength:
    """A straight thing of known length in the picture, lying along the target line at a known place."""

    a: tuple[float, float]
    b: tuple[float, float]
    length_m: float
    place: LengthPlace
    length_sd_m: float = 0.005
    sd_px: float = 1.5


@dataclass(frozen=True, kw_only=True)
class Clip:
    """One camera's view of the swing. `marks` maps mark name to frame to mark.

    Raises ValueError where a size is no size, times fall, or a peg lies outside the clip.
    """

    id: str
    view: View
    width: int
    height: int
    frame_times_s: tuple[float, ...]
    checkpoints: dict[Checkpoint, int] = field(default_factory=dict)
    marks: dict[str, dict[int, Mark]] = field(default_factory=dict)
    known_length: KnownLength | None = None
    camera_distance_m: float | None = None
    off_square_deg: tuple[float, float] | None = None  # angle and its standard deviation
    impact_between: bool = False  # impact lies between its frame and the next
    events: dict[Event, int] = field(default_factory=dict)
    mat: Mat | None = None
    camera_height_m: float | None = None
    plumb: PlumbLine | None = None
    hidden: dict[str, frozenset[int]] = field(default_factory=dict)  # looked for, and not to be seen
    camera_motion: CameraMotion | None = None  # None: it stood still
    # How far pegs that nobody looked at lie from their moments beside half a frame, one standard deviation.
    peg_sd_s: dict[Checkpoint, float] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if min(self.width, self.height) < 1:
            raise ValueError(f"width, height: {self.width} by {self.height} pixels are no picture")
        frames = len(self.frame_times_s)
        if not frames or not (np.diff(self.frame_times_s) >= 0).all():
            raise ValueError("frame_times_s: there must be a frame, and no time before the one before it")
        for name, frame in (*self.checkpoints.items(), *self.events.items()):
            if not 0 <= frame < frames:
                raise ValueError(f"{name}: frame {frame} is outside the clip (0 to {frames - 1})")

    def still_mark(self, name: str, frame: int) -> Mark | None:
        """A mark where it would lie had the camera stood still; None where there is none."""
        mark = self.marks.get(name, {}).get(frame)
        if mark is None or self.camera_motion is None:
            return mark
        still, sd_px = self.camera_motion.still(np.array([frame]), np.array([[mark.x, mark.y]]))
        x, y = still[0].tolist()
        return replace(mark, x=x, y=y, sd_px=math.hypot(mark.sd_px, sd_px[0]))

    @property
    def camera_facts(self) -> CameraFacts:
        """What is known of the camera beside the mat."""
        known = self.known_length
        length = body_length = None
        if known is not None:
            told = FloorLength(
                a=known.a,
                b=known.b,
                length_m=known.length_m,
                length_sd_m=known.length_sd_m,
                sd_px=known.sd_px,
            )
            if known.place == "body_plane":
                body_length = told
            else:  # a mat's own middle is not the heels'
                length = replace(told, along_b=None if self.mat else PLACE_B_M[known.place])
        return CameraFacts(
            distance_m=self.camera_distance_m,
            height_m=self.camera_height_m,
            off_square_deg=self.off_square_deg,
            plumb=self.plumb,
            length=length,
            body_length=body_length,
        )

    def time_from_impact_s(self, frame: int) -> float | None:
        """Real seconds from impact to a frame, negative before; None while impact is not pegged."""
        impact = self.checkpoints.get("impact")
        if impact is None:
            return None
        times = self.frame_times_s
        struck = (times[impact] + times[impact + 1]) / 2 if self.impact_between else times[impact]
        return times[frame] - struck
