"""How far a line through two joints is turned about the upright."""

from __future__ import annotations

import numpy as np

from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured, combined, degrees_of, where
from tropometer.swing.readings.look import Look
from tropometer.swing.scene.place import length_of

# Until then a line that narrows turns and does not tilt.
LEVEL_UNTIL = {"hip": 8.0, "shoulder": 4.0}
# How far through the checkpoints hips and shoulders are usually square again; common practice, no source.
SQUARE_AGAIN = {"hip": 4.5, "shoulder": 5.5}
# Before that few have turned so far that one side tells it, and most that seem to have have not.
TURNED_FROM = 1.5
LEAST_BREADTH_M = 0.05
LEAST_TURN_DEG = 25.0  # seen from one side alone, less than this cannot be told from nothing


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
    both = look.shown_in("sagittal", *names)
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
