"""The trunk: how the spine leans, how the shoulders turn, where the head goes."""

from __future__ import annotations

from tropometer.swing.error.value import Measured, degrees_of, hypot
from tropometer.swing.readings.from_marks import (
    ADDRESS,
    AFTER_ADDRESS,
    BOTH,
    FRONTAL,
    SAGITTAL,
    from_marks,
)
from tropometer.swing.readings.line_turn import turn_of
from tropometer.swing.readings.look import Look
from tropometer.swing.scene.place import Place


@from_marks("spine_incline", unit="deg", group="trunk", seen=(BOTH, SAGITTAL),
         sign="toward the ball positive")  # fmt: skip
def spine_incline(look: Look) -> Measured:
    """Angle from the middle of the hips to the base of the neck, from the upright, seen down the line."""
    spine = _spine(look)
    return degrees_of(spine.b, spine.u)


@from_marks("spine_side_tilt", unit="deg", group="trunk", seen=(BOTH, FRONTAL),
         sign="away from the target positive")  # fmt: skip
def spine_side_tilt(look: Look) -> Measured:
    """Angle from the middle of the hips to the base of the neck, from the upright, seen face-on."""
    spine = _spine(look)
    return degrees_of(-spine.t, spine.u)


@from_marks("shoulder_turn", unit="deg", group="trunk", seen=(BOTH, FRONTAL),
         sign="away from the target positive, open negative")  # fmt: skip
def shoulder_turn(look: Look) -> Measured:
    """Turn of the line through the shoulders about the upright; face-on alone, from how narrow it gets."""
    return turn_of(look, "shoulder")


@from_marks("shoulder_slant", unit="deg", group="trunk", seen=(BOTH, FRONTAL),
            at=("address", "arm_back", "top"), sign="trail side lower positive")  # fmt: skip
def shoulder_slant(look: Look) -> Measured:
    """Slope of the line through the shoulders."""
    shoulders = look.line("shoulder")
    return degrees_of(shoulders.u, hypot(shoulders.t, shoulders.b))


@from_marks("neck_incline", unit="deg", group="trunk", seen=(BOTH, SAGITTAL), at=ADDRESS,
            sign="chin toward the ball positive, 0 in line with the spine")  # fmt: skip
def neck_incline(look: Look) -> Measured:
    """Angle of the way from the base of the neck to the head, less the spine's, seen down the line."""
    neck, spine = look.here("head").minus(look.here("neck")), _spine(look)
    return degrees_of(neck.b, neck.u) - degrees_of(spine.b, spine.u)


@from_marks("head_travel_t", unit="m", group="trunk", seen=(BOTH, FRONTAL), at=AFTER_ADDRESS,
         sign="positive toward the target")  # fmt: skip
def head_travel_t(look: Look) -> Measured:
    """Middle of the head along the target line, minus its place at address."""
    return look.moved("head").t


@from_marks("head_travel_u", unit="m", group="trunk", seen=(BOTH, FRONTAL), at=AFTER_ADDRESS,
         sign="up positive")  # fmt: skip
def head_travel_u(look: Look) -> Measured:
    """Height of the middle of the head, minus its height at address."""
    return look.moved("head").u


def _spine(look: Look) -> Place:
    return look.here("neck").minus(look.middle("hip"))
