"""Proposes marks from a body's landmarks and outline: lead and trail, moved to where marks are meant to be.

A landmark is not quite the mark of its name: a network's heel lies on the heel's back above the sole, its
hip a little beside the joint. How far, in torso lengths, was measured from each side (offsets.py), and is
taken off. What is left is the mark's standard deviation. Lead and trail err by nearly nothing together: over
joints and sides their errors hang together by -0.8 to 0.6, about 0 in the mean, and what that does to their
middle and to the way between them lies within spreads that are taken along the worse axis.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from tropometer.swing.names import PLANE_OF, Hand, View
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
from tropometer.swing.proposals.offsets import OFFSETS, Network, spread

Array = npt.NDArray[np.float64]

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
CROSSING, CROSSING_SD = 0.20, 0.07
STERNUM_BELOW_SHOULDERS = 0.2  # share of the way to the hips


@dataclass(frozen=True)
class ProposedMark:
    """One mark over a clip: places (n, 2), and one standard deviation (n,), both in pixels."""

    places: Array
    sd_px: Array


def propose_marks(
    landmarks: Landmarks, view: View, hand: Hand, network: Network = "fast"
) -> dict[str, ProposedMark]:
    """Marks of head, trunk, hips, legs, feet, arms and grip in every frame of the landmarks.

    The left side of a right-hander is the lead side. Down the line the far leg is often hidden; its marks
    are proposed with the same spread, which was measured with it hidden. A mark of the outline is NaN in
    frames where the outline is not met.
    """
    toward = RIGHTWARD[view] * (1.0 if hand == "right" else -1.0)
    found: dict[str, ProposedMark] = {}
    for name, base in _bases(landmarks, view, hand).items():
        offset = OFFSETS[network].get((view, name))
        if offset is not None:
            shift = np.array([toward * offset.aside, offset.down]) * landmarks.torso_px
            sd_px = np.full(len(base), spread(network, view, name) * landmarks.torso_px)
            found[name] = ProposedMark(base - shift, sd_px)
    if "lead_knee" in found and PLANE_OF[view] == "sagittal":
        lead, trail = found["lead_knee"], found["trail_knee"]
        near = np.hypot(*(lead.places - trail.places).T) < CROSSING * landmarks.torso_px
        for knee in (lead, trail):
            knee.sd_px[near] = np.maximum(knee.sd_px[near], CROSSING_SD * landmarks.torso_px)
    return found


def _bases(landmarks: Landmarks, view: View, hand: Hand) -> dict[str, Array]:
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
