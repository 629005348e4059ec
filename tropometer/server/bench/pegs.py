"""The checkpoints that somebody pegged on a clip."""

from __future__ import annotations

from typing import TYPE_CHECKING

from tropometer.swing.names import CHECKPOINTS, Checkpoint

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip


def checkpoints_of(clip: Clip) -> dict[Checkpoint, int]:
    """The checkpoints that were pegged on a clip; a peg beyond its last frame is kept, and not read."""
    pegs = {peg.name: peg.frame for peg in clip.pegs.all() if peg.frame < clip.frame_count}
    return {at: pegs[at] for at in CHECKPOINTS if at in pegs}
