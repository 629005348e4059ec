"""The golfer at one moment of a drill, and where their hips are: props stand by them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from tropometer.golfer.body import Body
from tropometer.golfer.drills.rehearsal import Rehearsal
from tropometer.golfer.motion import Poses, bone_matrices
from tropometer.golfer.piece import material
from tropometer.golfer.rotations import Floats, turned

LEVEL_M = 0.05  # the hips' edge is looked for so far above and below the hip joints


@dataclass(frozen=True)
class Scene:
    """The golfer at one moment."""

    motion: Rehearsal
    poses: Poses

    @property
    def body(self) -> Body:
        """The golfer's body."""
        return self.motion.body

    @cached_property
    def matrices(self) -> Floats:
        """Skinning matrices (bones, 4, 4)."""
        return bone_matrices(self.body, self.poses, 0)

    @cached_property
    def trousers(self) -> Floats:
        """The trousers' surface about the level of the hips (n, 3)."""
        places = self.body.posed(self.matrices)[0]
        of_cloth = self.body.looks[:, 0] == material("trousers")
        level = np.abs(places[:, 1] - self.poses.pelvis.middle[0, 1]) < LEVEL_M
        return np.asarray(places[of_cloth & level])

    def hip_edge(self, side: Literal["lead", "trail"]) -> Floats:
        """The outermost point of the hips on one side (3,)."""
        cloth = self.trousers
        at = cloth[:, 0].argmax() if side == "lead" else cloth[:, 0].argmin()
        return np.array(cloth[at], float)

    @property
    def seat(self) -> Floats:
        """The rearmost point of the seat (3,)."""
        return np.array(self.trousers[self.trousers[:, 2].argmin()], float)

    def on_pelvis(self, at_rest: Floats) -> Floats:
        """Where a place (3,) on the pelvis at rest is now."""
        turn = self.poses.bones["pelvis"]
        now: Floats = self.poses.heads["pelvis"] + turned(turn, at_rest - self.body.head["pelvis"])
        return np.asarray(now[0])
