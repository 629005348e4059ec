"""What is said of a mark that disagrees with something else."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, kw_only=True)
class Doubt:
    """A mark on a frame of a clip, why it is doubted in words, and by how many standard deviations."""

    clip: str
    name: str
    frame: int
    why: str
    sigmas: float
