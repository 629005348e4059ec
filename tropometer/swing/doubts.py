"""Marks that disagree with something else: what to look at again, the worst first.

Each check is a difference in standard deviations of its own expected spread. The spreads of the checks
themselves are common practice, no source.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace

import numpy as np

from tropometer.swing.camera.mat import camera_from_mat
from tropometer.swing.camera.solve import SolvedCamera, Unsolved
from tropometer.swing.names import CHECKPOINTS, PROPOSED, Hand, View, spoken
from tropometer.swing.record import Clip, Mark, SwingRecord
from tropometer.swing.scene.scene import Scene
from tropometer.swing.usual import spreads_m, usual

Proposed = Callable[[str, int], Mark | None]

TOGETHER_S = 0.15
LEAST = 3.0  # standard deviations from which a mark is doubted
LIMBS = (("hip", "knee"), ("knee", "ankle"))  # feet and arms turn too far toward the camera
LIMB_SPREAD = 0.12  # of a limb's length in the picture: it turns toward the camera and away
LEAST_LIMBS = 4  # marked frames from which a limb's usual length is known
ORDERED = ("ankle", "heel", "toe")  # face-on the lead one lies nearer to the target
PAIRED = ("hip", "hip_edge", "knee", "ankle", "heel", "toe", "foot_outer", "foot_inner", "shoulder")
BESIDE_SPREAD = 0.035  # of stature, how differently two sides lie beside each other
SHOWN = 0.6  # of what is usual: an axis that is not surer than that was not seen
SEEN_FROM_BOTH = ("hip", "knee", "ankle", "shoulder")
DEPTH_M: dict[View, float] = {"face_on": -0.35, "down_the_line": 0.0}
DEPTH_SPREAD_M = 0.20
PROPOSAL_SPREAD = 1.5  # landmarks are looser on people than on those they were measured on


@dataclass(frozen=True)
class Doubt:
    """A mark on a frame of a clip, why it is doubted in words, and by how many standard deviations."""

    clip: str
    name: str
    frame: int
    why: str
    sigmas: float


def doubts(record: SwingRecord, proposed: Mapping[str, Proposed] | None = None) -> list[Doubt]:
    """Every doubted mark once, by its worst disagreement; `proposed` gives a clip's landmarks' own marks."""
    found: list[Doubt] = []
    for clip in record.clips:
        found += _limbs(clip)
        if clip.view == "face_on":
            found += _order(clip, record.hand)
        found += _sides(record, clip)
        found += _proposals(clip, (proposed or {}).get(clip.id, lambda name, frame: None))
    found += _other_view(record)
    worst: dict[tuple[str, str, int], Doubt] = {}
    for doubt in found:
        key = doubt.clip, doubt.name, doubt.frame
        if doubt.sigmas >= LEAST and (key not in worst or worst[key].sigmas < doubt.sigmas):
            worst[key] = doubt
    return _apart(sorted(worst.values(), key=lambda doubt: -doubt.sigmas), record)


def _apart(falling: list[Doubt], record: SwingRecord) -> list[Doubt]:
    """Of a followed mark's doubts so near to each other that they are one, the worst alone."""
    clips = {clip.id: clip for clip in record.clips}
    kept: list[Doubt] = []
    for doubt in falling:
        clip = clips[doubt.clip]
        times = clip.frame_times_s
        near = any(
            (other.clip, other.name) == (doubt.clip, doubt.name)
            and abs(times[other.frame] - times[doubt.frame]) <= TOGETHER_S
            for other in kept
        )
        if not near or clip.marks[doubt.name][doubt.frame].source != "tracked":
            kept.append(doubt)
    return kept


def _limbs(clip: Clip) -> Iterator[Doubt]:
    for a, b in LIMBS:
        for side in ("lead", "trail"):
            ends = (clip.marks.get(f"{side}_{a}", {}), clip.marks.get(f"{side}_{b}", {}))
            frames = sorted(ends[0].keys() & ends[1].keys())
            if len(frames) < LEAST_LIMBS:
                continue
            lengths = {f: math.dist(*((end[f].x, end[f].y) for end in ends)) for f in frames}
            usual = float(np.median(list(lengths.values())))
            for frame, length in lengths.items():
                spread = math.hypot(LIMB_SPREAD * usual, ends[0][frame].sd_px, ends[1][frame].sd_px)
                sigmas = abs(length - usual) / spread
                longer = "longer" if length > usual else "shorter"
                share = abs(length / usual - 1) * 100
                why = f"{spoken(f'{side}_{a}')} to {b} is {share:.0f} % {longer} than on the other frames"
                # The end that strays farther from its own neighbours is the one to look at.
                name = max((f"{side}_{a}", f"{side}_{b}"), key=lambda each: _stray(clip, each, frame))
                yield Doubt(clip.id, name, frame, why, sigmas)


def _stray(clip: Clip, name: str, frame: int) -> float:
    """How far a mark lies from the middle of its neighbours in time, pixels."""
    by_frame = clip.marks[name]
    before = max((f for f in by_frame if f < frame), default=None)
    after = min((f for f in by_frame if f > frame), default=None)
    near = [by_frame[f] for f in (before, after) if f is not None]
    if not near:
        return 0.0
    here = by_frame[frame]
    x, y = (sum(getattr(mark, axis) for mark in near) / len(near) for axis in ("x", "y"))
    return math.hypot(here.x - x, here.y - y)


def _order(clip: Clip, hand: Hand) -> Iterator[Doubt]:
    toward = 1 if hand == "right" else -1
    for part in ORDERED:
        lead, trail = (clip.marks.get(f"{side}_{part}", {}) for side in ("lead", "trail"))
        for frame in sorted(lead.keys() & trail.keys()):
            ahead = toward * (lead[frame].x - trail[frame].x)
            sigmas = -ahead / math.hypot(lead[frame].sd_px, trail[frame].sd_px)
            why = f"the lead {part} lies farther from the target than the trail {part}"
            yield Doubt(clip.id, f"lead_{part}", frame, why, sigmas)


def _sides(record: SwingRecord, clip: Clip) -> Iterator[Doubt]:
    """At each checkpoint, whether a pair would lie more usually with its sides changed for each other.

    Twice the logarithm of how much more likely that is, along the axes that the clip shows: −4 dD/s², d how
    far the lead one lies beside the trail one, and D how far it usually does.
    """
    scene = Scene(replace(record, clips=(clip,)))
    moments = scene.through
    for part in PAIRED if scene.eyes else ():
        names = (f"lead_{part}", f"trail_{part}")
        if not clip.marks.keys() >= set(names):
            continue
        a, b = (scene.place(name) for name in names)
        usually, _ = usual(names, moments, scene.tall)
        guessed = np.hypot(*spreads_m(names, moments, scene.tall).swapaxes(0, 1))
        score = np.zeros(len(CHECKPOINTS))
        for axis in range(3):
            apart, sd = a[axis].value - b[axis].value, np.hypot(a[axis].sd, b[axis].sd)
            shown = sd < SHOWN * guessed[axis] if axis < 2 else np.full(len(score), True)
            square = (BESIDE_SPREAD * scene.tall) ** 2 + sd**2
            score -= np.where(shown, 4 * apart * (usually[axis, 0] - usually[axis, 1]) / square, 0.0)
        for at, each in zip(CHECKPOINTS, score.tolist(), strict=True):
            if each > 0:
                frame = clip.checkpoints.get(at, -1)
                why = f"lead and trail {spoken(part)} lie as if they were changed for each other"
                yield Doubt(clip.id, names[0], frame, why, math.sqrt(each))


def _proposals(clip: Clip, proposed: Proposed) -> Iterator[Doubt]:
    for name, by_frame in clip.marks.items():
        for frame, mark in by_frame.items():
            seen = proposed(name, frame) if mark.source not in PROPOSED else None
            if seen is None:
                continue
            apart = math.hypot(mark.x - seen.x, mark.y - seen.y)
            sigmas = apart / math.hypot(PROPOSAL_SPREAD * seen.sd_px, mark.sd_px)
            yield Doubt(clip.id, name, frame, f"{apart:.0f} px from where the landmarks see it", sigmas)


def _other_view(record: SwingRecord) -> Iterator[Doubt]:
    """The same point at the same checkpoint is as high from either side."""
    pair = [next((c for c in record.clips if c.view == view), None) for view in DEPTH_M]
    cameras = [_camera(clip, record.hand) if clip else None for clip in pair]
    a, b = pair
    if a is None or b is None or cameras[0] is None or cameras[1] is None:
        return
    for at, frame in a.checkpoints.items():
        other = b.checkpoints.get(at)
        if other is None:
            continue
        for part in SEEN_FROM_BOTH:
            for side in ("lead", "trail"):
                name = f"{side}_{part}"
                marks = (a.still_mark(name, frame), b.still_mark(name, other))
                if marks[0] is None or marks[1] is None:
                    continue
                (up_a, sd_a), (up_b, sd_b) = (
                    _height(camera, clip, mark, record.hand)
                    for camera, clip, mark in zip(cameras, (a, b), marks, strict=True)
                    if camera is not None and mark is not None
                )
                sigmas = abs(up_a - up_b) / math.hypot(sd_a, sd_b)
                why = f"{abs(up_a - up_b) * 100:.0f} cm {'higher' if up_a > up_b else 'lower'} face-on"
                yield Doubt(a.id, name, frame, f"{why} than down the line at {spoken(at)}", sigmas)


def _camera(clip: Clip, hand: Hand) -> SolvedCamera | None:
    if clip.mat is None:
        return None
    try:
        return camera_from_mat(clip.mat, clip.view, hand, clip.width, clip.height, clip.camera_facts)
    except Unsolved:
        return None


def _height(solved: SolvedCamera, clip: Clip, mark: Mark, hand: Hand) -> tuple[float, float]:
    """U of a mark and its standard deviation, metres, taken to lie in the plane the player stands in."""
    axis = 1 if clip.view == "face_on" else 0
    x = mark.x if hand == "right" else clip.width - mark.x
    depth = DEPTH_M[clip.view]

    def up(y: float, at: float) -> float:
        return float(solved.camera.on_plane(np.array([[x, y]]), axis, at)[0, 2])

    here = up(mark.y, depth)
    of_click = abs(up(mark.y + 1, depth) - here) * mark.sd_px
    of_depth = abs(up(mark.y, depth + DEPTH_SPREAD_M) - here)
    return here, math.hypot(of_click, of_depth, 0.01)
