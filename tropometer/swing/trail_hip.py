"""The room between the trail hip and the plumb line over the trail foot's outer edge."""

from __future__ import annotations

from tropometer.swing.measured import Measured
from tropometer.swing.names import CHECKPOINTS, Checkpoint
from tropometer.swing.reading import Look, Refused, reading


@reading(
    "trail_hip_gap",
    unit="m",
    view="face_on",
    at=CHECKPOINTS,
    sign="positive inside the foot, negative outside",
)
def trail_hip_gap(look: Look, at: Checkpoint) -> Measured:
    """Trail hip's outer edge along the target line, from the plumb over the trail foot's edge at address."""
    plumb = look.along_target("trail_foot_outer", "address")
    return look.along_target("trail_hip_edge", at) - plumb


@reading(
    "trail_hip_gap_share",
    unit="ratio",
    view="face_on",
    at=CHECKPOINTS,
    sign="1 as at address, 0 at the plumb, negative outside",
)
def trail_hip_gap_share(look: Look, at: Checkpoint) -> Measured:
    """Trail hip gap divided by the gap at address."""
    start = trail_hip_gap(look, "address")
    if start.value <= start.u95:
        raise Refused(
            f"The gap at address ({start.value * 100:.1f} cm) is not larger than its error "
            f"({start.u95 * 100:.1f} cm), so a share of it says nothing."
        )
    return trail_hip_gap(look, at) / start
