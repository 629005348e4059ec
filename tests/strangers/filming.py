"""A stranger's phone, mat and eye: from a swing to a record as somebody would mark it.

How phones stand follows the contract (up to 15° off square, one standard deviation 8°; rolled by 1.5°);
mats lie along the target line within 1.5°, the same in both clips. Phones' main lenses see as one of 24 to
28 mm on film does, a little less when they film, and some people zoom or take the wide one: common practice,
no source.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import numpy.typing as npt
from scipy.spatial.transform import Rotation

from tests.strangers.body import draw_body
from tests.strangers.swing import B, Swing, T, U, draw_swing, once_more
from tropometer.swing.names import Hand, LengthPlace, View
from tropometer.swing.readings.round import wanted_marks
from tropometer.swing.record.calibration import Mat
from tropometer.swing.record.clip import Clip, KnownLength, Mark
from tropometer.swing.record.swing import SwingRecord

Floats = npt.NDArray[np.float64]
Scale = Literal["mat", "squared mat", "stick", "none"]
RATES = (30.0, 60.0, 120.0, 240.0)
PICTURES = ((1280, 720), (1920, 1080), (720, 1280), (1080, 1920))
LENS = (0.78, 0.18, 0.5, 1.3)  # focal length by the long side: mean, standard deviation, least, most
MATS_M = ((1.5, 1.5), (1.56, 1.56), (1.2, 1.8), (1.0, 1.5))
MAT_OFF_DEG = 1.5
STICK_M = 1.22
LAID_OFF_DEG = 1.0  # a stick that is laid along the line by looking along it; common practice, no source
LOOKS_DEG: dict[View, float] = {
    "down_the_line": 0,
    "from_behind": 90,
    "up_the_line": 180,
    "face_on": -90,
}  # from T to B
OUTLINES = {"lead_hip_edge": T, "trail_hip_edge": -T, "seat": -B}
SAID_PX = 1.5  # what every click is said to be sure to, of 720 lines
# How far from a part's point an eye believes it to be, the same way in a whole clip, metres: least and most.
# Hip joints by the contract; surface points by about what palpating hands differ (Della Croce et al. 2005,
# Gait & Posture 21; from memory), sole edges common practice.
MISJUDGED_M = {
    "hip": (0.010, 0.020), "shoulder": (0.004, 0.014), "neck": (0.003, 0.012), "head": (0.003, 0.012),
    "sternum": (0.003, 0.010), "knee": (0.003, 0.010), "ankle": (0.002, 0.007), "grip": (0.002, 0.008),
    "heel": (0.001, 0.005), "toe": (0.001, 0.005), "foot_outer": (0.001, 0.005), "foot_inner": (0.001, 0.005),
    "hip_edge": (0.001, 0.006), "seat": (0.001, 0.006), "elbow": (0.004, 0.012), "wrist": (0.003, 0.008),
}  # fmt: skip
TREMBLED = 0.3  # of that again, anew on each frame


@dataclass(frozen=True)
class Phone:
    """Where a camera stands and looks, in the target line's axes; a right-hander's picture."""

    width: int
    height: int
    focal_px: float
    eye: Floats
    rotation: Floats  # rows: right, down, ahead

    def pixels(self, places: Floats) -> Floats:
        """Pixels (n, 2) of places (n, 3)."""
        seen = (places - self.eye) @ self.rotation.T
        return np.asarray(seen[:, :2] / seen[:, 2:] * self.focal_px + [self.width / 2, self.height / 2])


def put_up(view: View, random: np.random.Generator) -> Phone:
    """A phone that somebody put up by eye, to see a player who stands about the origin."""
    width, height = PICTURES[random.integers(len(PICTURES))]
    mean, sd, least, most = LENS
    focal = float(np.clip(random.normal(mean, sd), least, most)) * max(width, height)
    # The player and some room above fill the picture's height, but hardly anybody goes nearer than 2.8 m.
    far = float(np.clip(focal / height * random.uniform(2.1, 3.4), random.uniform(2.6, 3.2), 5.5))
    high = float(np.clip(random.normal(1.05, 0.3), 0.3, 1.8))
    off = np.radians(np.clip(random.normal(0, 8), -15, 15))
    looked_at = np.array([0.0, 0.15, 0.9]) + random.normal(0, [0.08, 0.08, 0.05])
    looks = off + np.radians(LOOKS_DEG[view])
    ahead = np.array([np.cos(looks), np.sin(looks), 0.0])
    eye = np.array([*(looked_at - far * ahead)[:2], high])
    aimed = looked_at - eye
    aimed /= np.linalg.norm(aimed)
    # T, B, U turn the other way round than the axes that Rotation knows: right is ahead's other side.
    right = np.cross(U, aimed)
    right /= np.linalg.norm(right)
    down = np.cross(right, aimed) * (1 if np.cross(right, aimed)[2] < 0 else -1)
    roll = Rotation.from_rotvec(np.radians(random.normal(0, 1.5)) * aimed)
    return Phone(width, height, focal, eye, np.array([roll.apply(right), roll.apply(down), aimed]))


@dataclass(frozen=True)
class Filmed:
    """A record as somebody would mark it, and the swing that it is of."""

    record: SwingRecord
    swing: Swing
    swings: dict[View, Swing]  # which each view shows: the same, or another one
    floor: Floor


def film(
    views: tuple[View, ...],
    scale: Scale,
    random: np.random.Generator,
    rate_hz: float | None = None,
    everywhere: bool = False,
    one_swing: bool = True,
    beside: int = 0,
    change: Callable[[Swing], Swing] = lambda swing: swing,
) -> Filmed:
    """Somebody's swing, filmed by a phone from each of these sides.

    It is marked on the checkpoints' frames and so many `beside` each, or on every frame. Where it is not
    `one_swing`, one phone was carried round, and the second view shows the golfer's next swing. What was
    drawn is `change`d before it is filmed.
    """
    swing = change(draw_swing(draw_body(random), random))
    hand: Hand = "left" if random.random() < 0.3 else "right"
    floor = Floor.draw(scale, random)
    shaken = random.uniform(0.7, 1.25) * SAID_PX
    swings = {
        view: swing if one_swing or i == 0 else once_more(swing, random) for i, view in enumerate(views)
    }
    rates = [rate_hz or RATES[random.integers(len(RATES))] for _ in views]
    clips = tuple(
        _clip(view, swings[view], floor, rate, shaken, everywhere, beside, random)
        for view, rate in zip(views, rates, strict=True)
    )
    if hand == "left":
        clips = tuple(mirrored(clip) for clip in clips)
    stature = swing.body.stature_m + random.normal(0, 0.015)  # as people say it, in shoes or out of them
    return Filmed(
        SwingRecord(hand=hand, clips=clips, stature_m=stature, one_swing=one_swing), swing, swings, floor
    )


@dataclass(frozen=True)
class Floor:
    """What lies on the floor, from between the heels: a mat's corners (4, 3), a stick's ends (2, 3)."""

    mat_m: tuple[float, float]
    corners: Floats | None
    stick: Floats | None

    @property
    def mat_off_deg(self) -> float:
        """How far the mat points from the target line toward the ball."""
        assert self.corners is not None
        t, b, _ = self.corners[3] - self.corners[0]
        return float(np.degrees(np.arctan2(b, t)))

    @classmethod
    def draw(cls, scale: Scale, random: np.random.Generator) -> Floor:
        """A mat as it lies by eye, or a stick before the toes."""
        along, across = MATS_M[random.integers(len(MATS_M))]
        off = np.radians(random.normal(0, MAT_OFF_DEG))
        turn = np.array([[np.cos(off), -np.sin(off)], [np.sin(off), np.cos(off)]])
        if "mat" in scale:
            half = np.array([[-1, -1], [-1, 1], [1, 1], [1, -1]]) * [along / 2, across / 2]
            flat = half @ turn.T + [random.normal(0, 0.12), random.normal(0.3, 0.1)]
            stick = None
            if scale == "squared mat":
                way = np.radians(random.normal(0, LAID_OFF_DEG))
                half_m = STICK_M / 2 * np.array([np.cos(way), np.sin(way), 0.0])
                ball = np.array([random.normal(0, 0.1), random.normal(0.75, 0.06), 0.0])
                stick = np.array([ball - half_m, ball + half_m])
            return cls((along, across), np.column_stack([flat, np.zeros(4)]), stick)
        if scale == "stick":
            ends = np.array([[-STICK_M / 2, 0], [STICK_M / 2, 0]]) @ turn.T
            flat = ends + np.array([random.normal(0, 0.1), random.normal(0.34, 0.05)])
            return cls((along, across), None, np.column_stack([flat, np.zeros(2)]))
        return cls((along, across), None, None)


def _clip(
    view: View,
    swing: Swing,
    floor: Floor,
    rate: float,
    shaken: float,
    everywhere: bool,
    beside: int,
    random: np.random.Generator,
) -> Clip:
    phone = put_up(view, random)
    times = np.arange(random.uniform(0, 1 / rate), swing.timing.last_s, 1 / rate)
    frames = {at: int(np.abs(times - second).argmin()) for at, second in swing.timing.checkpoints_s.items()}
    of_720 = min(phone.width, phone.height) / 720
    near = {frame + step for frame in frames.values() for step in range(-beside, beside + 1)}
    every = range(len(times)) if everywhere else sorted(near & set(range(len(times))))
    seen = _seen(swing, phone, times[list(every)], random)
    marks: dict[str, dict[int, Mark]] = {}
    for name in dict.fromkeys(wanted.name for wanted in wanted_marks() if wanted.view == view):
        pixels = seen[name] + random.normal(0, shaken * of_720, seen[name].shape)
        marks[name] = {
            frame: Mark(x, y, SAID_PX * of_720) for frame, (x, y) in zip(every, pixels.tolist(), strict=True)
        }
    return Clip(
        id=view,
        view=view,
        width=phone.width,
        height=phone.height,
        frame_times_s=tuple(float(t) for t in times - times[0]),
        checkpoints=dict(frames),
        marks=marks,
        mat=_mat(floor, phone, of_720, random),
        known_length=_stick(floor, phone, of_720, random),
    )


def _seen(swing: Swing, phone: Phone, times: Floats, random: np.random.Generator) -> dict[str, Floats]:
    """Where an eye believes every mark to be in the picture (n, 2), without the hand's tremble."""
    places = swing.places(times)
    pelvis = swing.pelvis(times)
    right = phone.rotation[0] * [1, 1, 0]
    for name, outward in OUTLINES.items():
        way = right if right @ outward >= 0 else -right
        grazed = np.tile(way / np.linalg.norm(way), (len(times), 1))
        for _ in range(4):
            here = pelvis.outline(name, grazed)
            sight = (here - phone.eye) * [1, 1, 0]
            aside = np.cross(sight, U)
            aside *= np.sign(np.sum(aside * way, -1, keepdims=True))
            grazed = aside / np.linalg.norm(aside, axis=-1, keepdims=True)
        places[name] = here
    found = {}
    for name, where in places.items():
        pixels = phone.pixels(where)
        part = name.removeprefix("lead_").removeprefix("trail_")
        least, most = MISJUDGED_M.get(part, (0.0, 0.0))
        px_per_m = phone.focal_px / np.linalg.norm(where.mean(axis=0) - phone.eye)
        by = random.uniform(least, most) * px_per_m
        way = random.uniform(0, 2 * np.pi)
        always = by * np.array([np.cos(way), np.sin(way)])
        then = random.normal(0, TREMBLED * by / np.sqrt(2), pixels.shape)
        found[name] = pixels + always + then
    return found


def _mat(floor: Floor, phone: Phone, of_720: float, random: np.random.Generator) -> Mat | None:
    if floor.corners is None:
        return None
    pixels = phone.pixels(floor.corners) + random.normal(0, SAID_PX * of_720, (4, 2))
    order = random.permutation(4)
    along, across = floor.mat_m
    return Mat(tuple((float(x), float(y)) for x, y in pixels[order]), along, across, SAID_PX * of_720)


def _stick(floor: Floor, phone: Phone, of_720: float, random: np.random.Generator) -> KnownLength | None:
    if floor.stick is None:
        return None
    pixels = phone.pixels(floor.stick) + random.normal(0, SAID_PX * of_720, (2, 2))
    (a, b) = ((float(x), float(y)) for x, y in pixels)
    place: LengthPlace = "toe_line" if floor.corners is None else "ball_line"
    return KnownLength(a=a, b=b, length_m=STICK_M, place=place, sd_px=SAID_PX * of_720)


def mirrored(clip: Clip) -> Clip:
    """The clip as if its player were left-handed."""
    wide = clip.width
    marks = {
        name: {frame: replace(mark, x=wide - mark.x) for frame, mark in by_frame.items()}
        for name, by_frame in clip.marks.items()
    }
    length = clip.known_length
    if length is not None:
        (ax, ay), (bx, by) = length.a, length.b
        length = replace(length, a=(wide - ax, ay), b=(wide - bx, by))
    return replace(clip, marks=marks, mat=clip.mat.mirrored(wide) if clip.mat else None, known_length=length)
