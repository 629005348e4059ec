"""The pelvis: where it goes, how far it turns and slants, and what room is left beside it."""

from __future__ import annotations

import numpy as np

from tropometer.swing.error.value import Measured, combined, degrees_of, hypot
from tropometer.swing.readings.clock import DOWNWARD, Clock, Crossing
from tropometer.swing.readings.from_marks import AFTER_ADDRESS, BOTH, FRONTAL, SAGITTAL, from_marks
from tropometer.swing.readings.from_times import FROM_IMPACT, from_times
from tropometer.swing.readings.line_turn import turn_of
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.reading import Given
from tropometer.swing.scene.place import Place

TARGET = "positive toward the target"


@from_marks("pelvis_sway", unit="m", group="pelvis", seen=(BOTH, FRONTAL), sign=TARGET,
            least_at="extreme_back")  # fmt: skip
def pelvis_sway(look: Look) -> Measured:
    """Middle of the two hip joints along the target line, minus its place at address."""
    return (look.moved("lead_hip").t + look.moved("trail_hip").t) * 0.5


@from_marks("pelvis_rise", unit="m", group="pelvis", seen=(BOTH, FRONTAL, SAGITTAL), at=AFTER_ADDRESS,
         sign="up positive")  # fmt: skip
def pelvis_rise(look: Look) -> Measured:
    """Height of the middle of the two hip joints, minus its height at address."""
    return (look.moved("lead_hip").u + look.moved("trail_hip").u) * 0.5


@from_marks("trail_hip_gap", unit="m", group="pelvis", seen=(BOTH, FRONTAL),
         sign="positive inside the foot, negative outside")  # fmt: skip
def trail_hip_gap(look: Look) -> Measured:
    """Trail hip's outer edge along the target line, from the plumb over the trail foot's edge at address."""
    return look.here("trail_hip_edge").t - look.at("trail_foot_outer", "address").t


@from_marks("trail_hip_gap_share", unit="ratio", group="pelvis", seen=(BOTH, FRONTAL), at=AFTER_ADDRESS,
         sign="1 as at address, 0 at the plumb, negative outside")  # fmt: skip
def trail_hip_gap_share(look: Look) -> Measured:
    """Trail hip gap divided by the gap at address."""
    start = look.at("trail_hip_edge", "address").t - look.at("trail_foot_outer", "address").t
    gap_m, u95_m = float(start.value), float(start.u95)
    look.refuse(
        gap_m <= 2 * u95_m,
        f"The gap at address ({gap_m * 100:.1f} cm) is not twice as large as its error "
        f"({u95_m * 100:.1f} cm), so a share of it says nothing.",
    )
    gone = look.moved("trail_hip_edge").t
    # A gap too large by its error misleads a share by more than one that is too small by it.
    lopsided = 1 / (1 - u95_m / gap_m) if gap_m > u95_m else 1.0
    return combined(gone.value / gap_m + 1, (gone, 1 / gap_m), (start, -lopsided * gone.value / gap_m**2))


@from_marks("post_gap", unit="m", group="pelvis", seen=(BOTH, FRONTAL),
         sign="still to go to the post mark; 0 is posted")  # fmt: skip
def post_gap(look: Look) -> Measured:
    """From the lead hip's outer edge to the post mark, set off toward the target from its address."""
    return look.scene.record.post_m - look.moved("lead_hip_edge").t


@from_times("post_time", unit="s", group="pelvis", at=("impact",), sign=FROM_IMPACT)
def post_time(clock: Clock, at: str) -> Given:
    """When the lead hip's outer edge reaches the post mark, from impact."""
    posted = Crossing(event="post_reached", curve="post_gap", level=0.0, way=DOWNWARD, after="top")
    return clock.since("impact", clock.crossing(posted))


@from_times("pelvis_forward_rate", unit="m_s", group="pelvis", at=("impact",), sign=TARGET)
def pelvis_forward_rate(clock: Clock, at: str) -> Given:
    """How fast the middle of the hips goes along the target line, over 50 ms to either side of impact."""
    return clock.rate_at_impact("pelvis_sway")


@from_marks("pelvis_depth", unit="m", group="pelvis", seen=(BOTH, SAGITTAL), at=AFTER_ADDRESS,
         sign="positive toward the ball, off the seat wall")  # fmt: skip
def pelvis_depth(look: Look) -> Measured:
    """Rearmost point of the pelvis toward the ball, minus its place at address."""
    return look.moved("seat").b


@from_marks("pelvis_push", unit="m", group="pelvis", seen=(BOTH, SAGITTAL),
            sign="toward the ball positive, pushed back negative")  # fmt: skip
def pelvis_push(look: Look) -> Measured:
    """Middle of the two hip joints toward the ball, minus its place at address."""
    return (look.moved("lead_hip").b + look.moved("trail_hip").b) * 0.5


@from_marks("trail_hip_push", unit="m", group="pelvis", seen=(BOTH, SAGITTAL), at=("top",),
         sign="toward the ball positive, pushed back negative")  # fmt: skip
def trail_hip_push(look: Look) -> Measured:
    """Trail hip joint toward the ball, minus its place at address."""
    return look.moved("trail_hip").b


@from_marks("pelvis_turn", unit="deg", group="pelvis", seen=(BOTH, FRONTAL),
         sign="away from the target positive, open negative")  # fmt: skip
def pelvis_turn(look: Look) -> Measured:
    """Turn of the line through the hips about the upright; face-on alone, from how narrow it gets."""
    return turn_of(look, "hip")


@from_marks("pelvis_slant", unit="deg", group="pelvis", seen=(BOTH, FRONTAL),
         sign="trail side lower positive")  # fmt: skip
def pelvis_slant(look: Look) -> Measured:
    """Slope of the line through the hips."""
    hips = look.line("hip")
    return degrees_of(hips.u, hypot(hips.t, hips.b))


@from_marks("hip_travel", unit="deg", group="pelvis", seen=(BOTH,), at=("impact",), scale="length",
            sign="behind the target line positive, 90 square to it", changing=False)  # fmt: skip
def hip_travel(look: Look) -> Measured:
    """Direction in which the lead hip goes over the floor from the top to impact, from the target's."""
    way = _lead_hip_s_way(look)
    return degrees_of(-way.b, way.t)


@from_marks("hip_travel_clock", unit="hours", group="pelvis", seen=(BOTH,), at=("impact",), scale="length",
         sign="9 is the target, 12 the ball, 8 turns behind the line", changing=False)  # fmt: skip
def hip_travel_clock(look: Look) -> Measured:
    """Direction in which the lead hip goes over the floor from the top to impact, on the clock."""
    way = _lead_hip_s_way(look)
    hours = degrees_of(way.b, way.t) / 30 + 9
    return hours - np.where(hours.value > 12, 12.0, 0.0)


def _lead_hip_s_way(look: Look) -> Place:
    way = look.at("lead_hip", "impact").minus(look.at("lead_hip", "top"))
    gone = hypot(way.t, way.b)
    look.refuse(gone.value <= gone.u95, "The lead hip went no farther than the error of its place.")
    return way
