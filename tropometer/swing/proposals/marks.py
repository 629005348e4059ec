"""Proposes marks from a body's landmarks and outline: lead and trail, moved to where marks are meant to be.

A landmark is not quite the mark of its name: a network's heel lies on the heel's back above the sole, its
hip a little beside the joint, and the more so the more the body turns. How far, in torso lengths, was
measured from each side at each checkpoint (offsets.py), and is taken off. What is left is the mark's standard
deviation, and a part of that is the same on all frames of a clip. Lead and trail err by nearly nothing
together: over joints and sides their errors hang together by -0.8 to 0.6, about 0 in the mean, and what that
does to their middle and to the way between them lies within spreads that are taken along the worse axis.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.names import CHECKPOINTS, PLANE_OF, Checkpoint, Hand, View
from tropometer.swing.proposals.landmarks import (
    EARS,
    HANDS,
    HIP_EDGES,
    HIPS,
    PELVIS_ENDS,
    RIGHTWARD,
    SHOE_EDGES,
    SHOULDERS,
    Landmarks,
)
from tropometer.swing.proposals.offsets import Network, offset_of

# The left one of each pair; the right one follows it.
LEFT_OF_PAIR = {
    "shoulder": 11,
    "elbow": 13,
    "wrist": 15,
    "hip": 23,
    "knee": 25,
    "ankle": 27,
    "heel": 29,
    "toe": 31,
}
# Where two knees pass each other down the line the network draws them together, torso lengths.
BESIDE_CHECKPOINTS = 6  # frames: the close network also looks beside address and finish, a filter wants some
CROSSING, CROSSING_SD = 0.20, 0.07
STERNUM_BELOW_SHOULDERS = 0.2  # share of the way to the hips


@dataclass(frozen=True)
class ProposedMark:
    """One mark over a clip: places (n, 2) and one standard deviation (n,), both in pixels.

    Of that, `shared_px` (n,) is the same error on all frames that have one.
    """

    places: Array
    sd_px: Array
    shared_px: Array


def propose_marks(
    landmarks: Landmarks,
    view: View,
    hand: Hand,
    frames: Frames,
    pegs: Mapping[Checkpoint, int],
    network: Network = "fast",
) -> dict[str, ProposedMark]:
    """Marks of head, trunk, hips, legs, feet, arms and grip on frames (n,), by a network's landmarks of them.

    The left side of a right-hander is the lead side. What a landmark is beside its mark goes straight from
    one checkpoint to the next; without any of the clip's `pegs` nothing is proposed. Down the line the far
    leg is often hidden; its marks are proposed with the spread that was measured with it hidden. A mark of
    the outline is NaN in frames where the outline is not met.
    """
    found: dict[str, ProposedMark] = {}
    if not pegs:
        return found
    way = np.array([RIGHTWARD[view] * (1.0 if hand == "right" else -1.0), 1.0])
    weights, each = checkpoint_weights(frames, pegs), np.full(len(frames), landmarks.torso_px)
    for name, base in bases(landmarks, view, hand).items():
        offset = offset_of(network, view, name)
        if offset is not None:
            places = base - weights @ offset.beside * way * landmarks.torso_px
            found[name] = ProposedMark(
                places, np.hypot(offset.shared, offset.own) * each, offset.shared * each
            )
    if "lead_knee" in found and PLANE_OF[view] == "sagittal":
        lead, trail = found["lead_knee"], found["trail_knee"]
        near = np.hypot(*(lead.places - trail.places).T) < CROSSING * landmarks.torso_px
        for knee in (lead, trail):
            knee.sd_px[near] = np.maximum(knee.sd_px[near], CROSSING_SD * landmarks.torso_px)
    return found


def laid_over(
    fast: dict[str, ProposedMark], close: dict[str, ProposedMark], begin: int
) -> dict[str, ProposedMark]:
    """The fast network's marks with the close one's, which begin at row `begin`, where it saw them."""
    found = dict(fast)
    for name, mark in close.items():
        if name not in fast:
            continue
        whole = fast[name]
        rows = np.arange(len(mark.places)) + begin
        seen = np.isfinite(mark.places).all(axis=1) & (rows >= 0) & (rows < len(whole.places))
        columns = []
        for of_fast, of_close in zip(_columns(whole), _columns(mark), strict=True):
            column = of_fast.copy()
            column[rows[seen]] = of_close[seen]
            columns.append(column)
        found[name] = ProposedMark(*columns)
    return found


def _columns(mark: ProposedMark) -> tuple[Array, Array, Array]:
    return mark.places, mark.sd_px, mark.shared_px


def checkpoint_weights(frames: Frames, pegs: Mapping[Checkpoint, int]) -> Array:
    """How much frames (n,) are of each checkpoint (n, 9): all at its peg, and in turn less between two.

    A checkpoint without a peg is taken to lie between its neighbours as checkpoints usually do.
    """
    known = sorted((frame, CHECKPOINTS.index(at)) for at, frame in pegs.items())
    through = np.interp(frames, [frame for frame, _ in known], [index for _, index in known])
    weights: Array = np.clip(1 - np.abs(through[:, None] - np.arange(len(CHECKPOINTS))), 0, None)
    return weights


def bases(landmarks: Landmarks, view: View, hand: Hand) -> dict[str, Array]:
    """What each mark is reckoned from: places (n, 2)."""
    places, edges = landmarks.places, landmarks.edges
    shoulders, hips = landmarks.middle(SHOULDERS), landmarks.middle(HIPS)
    bases = {
        "neck": shoulders,
        "sternum": shoulders + STERNUM_BELOW_SHOULDERS * (hips - shoulders),
        "head": landmarks.middle(EARS),
        "grip": landmarks.middle(HANDS),
        "grip_butt": landmarks.middle(HANDS),
        # Down the line the ball lies right of a right-hander, the seat left.
        "seat": edges[:, PELVIS_ENDS[0 if (hand == "right") == (RIGHTWARD[view] > 0) else 1]],
    }
    for side in ("lead", "trail"):
        is_left = (side == "lead") == (hand == "right")
        for part, left in LEFT_OF_PAIR.items():
            bases[f"{side}_{part}"] = places[:, left if is_left else left + 1]
        toe, heel = bases[f"{side}_toe"], bases[f"{side}_heel"]
        bases[f"{side}_foot_outer"] = toe + 0.3 * (heel - toe)
        if PLANE_OF[view] == "frontal":
            # Face-on the body's left is the picture's right.
            outward = 1 if is_left == (RIGHTWARD[view] > 0) else 0
            bases[f"{side}_hip_edge"] = edges[:, HIP_EDGES[outward]]
            of_shoe = SHOE_EDGES["left" if is_left else "right"]
            bases[f"{side}_foot_outer"] = edges[:, of_shoe[outward]]
            bases[f"{side}_foot_inner"] = edges[:, of_shoe[1 - outward]]
            # The outline's middle is steadier than the network's hips, and as far apart are they.
            across = edges[:, list(HIP_EDGES)].mean(axis=1)
            middle = np.where(np.isfinite(across), across, hips)
            bases[f"{side}_hip"] = middle + bases[f"{side}_hip"] - hips
    return bases
