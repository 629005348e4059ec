"""The pelvis: where it goes, how far it turns and slants, and what room is left beside it."""

from __future__ import annotations

import numpy as np

from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured, combined, degrees_of, hypot, where
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.register import AFTER_ADDRESS, BOTH, DOWN_THE_LINE, FACE_ON, reading
from tropometer.swing.scene.place import length_of

# Until then a line that narrows turns and does not tilt.
LEVEL_UNTIL = {"hip": 8.0, "shoulder": 4.0}
TARGET = "positive toward the target"
POST_M = 0.18  # from the lead hip's edge at address to the post mark
# How far through the checkpoints hips and shoulders are usually square again; common practice, no source.
SQUARE_AGAIN = {"hip": 4.5, "shoulder": 5.5}
# Before that few have turned so far that one side tells it, and most that seem to have have not.
TURNED_FROM = 1.5
LEAST_BREADTH_M = 0.05
LEAST_TURN_DEG = 25.0  # seen from one side alone, less than this cannot be told from nothing


@reading("pelvis_sway", unit="m", group="pelvis", seen=(BOTH, FACE_ON), sign=TARGET)
def pelvis_sway(look: Look) -> Measured:
    """Middle of the two hip joints along the target line, minus its place at address."""
    return (look.moved("lead_hip").t + look.moved("trail_hip").t) * 0.5


@reading("pelvis_rise", unit="m", group="pelvis", seen=(BOTH, FACE_ON, DOWN_THE_LINE), at=AFTER_ADDRESS,
         sign="up positive")  # fmt: skip
def pelvis_rise(look: Look) -> Measured:
    """Height of the middle of the two hip joints, minus its height at address."""
    return (look.moved("lead_hip").u + look.moved("trail_hip").u) * 0.5


@reading("trail_hip_gap", unit="m", group="pelvis", seen=(BOTH, FACE_ON),
         sign="positive inside the foot, negative outside")  # fmt: skip
def trail_hip_gap(look: Look) -> Measured:
    """Trail hip's outer edge along the target line, from the plumb over the trail foot's edge at address."""
    return look.here("trail_hip_edge").t - look.at("trail_foot_outer", "address").t


@reading("trail_hip_gap_share", unit="ratio", group="pelvis", seen=(BOTH, FACE_ON), at=AFTER_ADDRESS,
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


@reading("post_gap", unit="m", group="pelvis", seen=(BOTH, FACE_ON),
         sign="still to go to the post mark; 0 is posted")  # fmt: skip
def post_gap(look: Look) -> Measured:
    """From the lead hip's outer edge to the post mark, 18 cm toward the target from its place at address."""
    return POST_M - look.moved("lead_hip_edge").t


@reading("pelvis_depth", unit="m", group="pelvis", seen=(BOTH, DOWN_THE_LINE), at=AFTER_ADDRESS,
         sign="positive toward the ball, off the seat wall")  # fmt: skip
def pelvis_depth(look: Look) -> Measured:
    """Rearmost point of the pelvis toward the ball, minus its place at address."""
    return look.moved("seat").b


@reading("trail_hip_push", unit="m", group="pelvis", seen=(BOTH, DOWN_THE_LINE), at=("top",),
         sign="toward the ball positive, pushed back negative")  # fmt: skip
def trail_hip_push(look: Look) -> Measured:
    """Trail hip joint toward the ball, minus its place at address."""
    return look.moved("trail_hip").b


@reading("pelvis_turn", unit="deg", group="pelvis", seen=(BOTH, FACE_ON),
         sign="away from the target positive, open negative")  # fmt: skip
def pelvis_turn(look: Look) -> Measured:
    """Turn of the line through the hips about the upright; face-on alone, from how narrow it gets."""
    _refuse_proposed_hips(look)
    return turn_of(look, "hip")


@reading("pelvis_slant", unit="deg", group="pelvis", seen=(BOTH, FACE_ON),
         sign="trail side lower positive")  # fmt: skip
def pelvis_slant(look: Look) -> Measured:
    """Slope of the line through the hips."""
    _refuse_proposed_hips(look)
    hips = look.line("hip")
    return degrees_of(hips.u, hypot(hips.t, hips.b))


def _refuse_proposed_hips(look: Look) -> None:
    look.refuse(
        look.scene.proposed("lead_hip", "trail_hip"),
        "Both hips stand where the machine proposed them, and how their errors hang together is not known: "
        "place one of them by hand.",
    )


@reading("hip_travel_clock", unit="hours", group="pelvis", seen=(BOTH,), at=("impact",), scale="length",
         sign="9 is the target, 12 the ball, 8 turns behind the line", changing=False)  # fmt: skip
def hip_travel_clock(look: Look) -> Measured:
    """Direction in which the lead hip goes over the floor from the top to impact, on the clock."""
    way = look.at("lead_hip", "impact").minus(look.at("lead_hip", "top"))
    gone = hypot(way.t, way.b)
    look.refuse(gone.value <= gone.u95, "The lead hip went no farther than the error of its place.")
    hours = degrees_of(way.b, way.t) / 30 + 9
    return hours - np.where(hours.value > 12, 12.0, 0.0)


def turn_of(look: Look, part: str) -> Measured:
    """Turn of the line from trail to lead about the upright, degrees, away from the target positive.

    From both sides it is the angle of the line on the floor. From face-on alone it is arccos(w / W) of its
    breadth now and of what its length at address, tilted as it is now, would be from above. The error of that
    goes to infinity as the turn goes to none; which way it is turned is taken from how far the swing is
    through its checkpoints.
    """
    names = (f"lead_{part}", f"trail_{part}")
    line = look.line(part)
    # The line runs toward the target at address; turned away from it the lead end comes toward the ball.
    whole = degrees_of(line.b, line.t)
    both = look.seen_from("down_the_line", *names)
    if both.all():
        return whole
    breadth = line.t / _flat(
        length_of(look.line_at(part, "address"), Source("depth", f"how the {part}s stand")), line.u
    )
    share = np.clip(breadth.value, -0.999, 0.999)
    away = np.where(look.through <= SQUARE_AGAIN[part], 1.0, -1.0)
    angle = away * np.degrees(np.arccos(share))
    alone = combined(angle, (breadth, -away * np.degrees(1 / np.sqrt(1 - share**2))))
    look.refuse(
        ~both & (np.abs(angle) < LEAST_TURN_DEG + alone.u95 / 2),
        f"From one side alone, a turn under {LEAST_TURN_DEG:.0f}° cannot be told: film down the line too.",
    )
    look.refuse(
        ~both & (look.through < TURNED_FROM),
        "From one side alone, a turn that has only begun cannot be told from none: film down the line too.",
    )
    look.refuse(
        ~both & (np.abs(look.through - SQUARE_AGAIN[part]) < 1),
        f"From one side alone, it cannot be told which way the {part}s are turned where they are nearly "
        "square again: film down the line too.",
    )
    look.refuse(
        ~both & (look.through > LEVEL_UNTIL[part]),
        "From one side alone, shoulders that tilt cannot be told from shoulders that turn: "
        "film down the line too.",
    )
    return where(both, whole, alone)


def _flat(whole: Measured, up: Measured) -> Measured:
    """How long a line of this length is seen from above, when its ends differ in height by so much."""
    flat = np.sqrt(np.maximum(whole.value**2 - up.value**2, LEAST_BREADTH_M**2))
    return combined(flat, (whole, whole.value / flat), (up, -up.value / flat))
