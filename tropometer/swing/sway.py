"""Pelvis sway: how far the middle of the hips has gone along the target line since address."""

from __future__ import annotations

from tropometer.swing.measured import Measured
from tropometer.swing.names import CHECKPOINTS, Checkpoint
from tropometer.swing.reading import Look, reading


@reading("pelvis_sway", unit="m", view="face_on", at=CHECKPOINTS, sign="positive toward the target")
def pelvis_sway(look: Look, at: Checkpoint) -> Measured:
    """Middle of the two hip joints along the target line, minus its place at address."""
    return _hip_middle(look, at) - _hip_middle(look, "address")


def _hip_middle(look: Look, at: Checkpoint) -> Measured:
    return (look.along_target("lead_hip", at) + look.along_target("trail_hip", at)) * 0.5
