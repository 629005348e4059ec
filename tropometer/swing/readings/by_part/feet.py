"""The feet: how they point, and how they lift and roll."""

from __future__ import annotations

from tropometer.swing.error.value import Measured, degrees_of, hypot
from tropometer.swing.readings.clock import DOWNWARD, UPWARD, Clock, Crossing
from tropometer.swing.readings.from_marks import AFTER_ADDRESS, BOTH, FRONTAL, SAGITTAL, from_marks
from tropometer.swing.readings.from_times import FROM_IMPACT, FROM_TOP, from_times
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.reading import Given
from tropometer.swing.scene.place import Place

FLOOR = (BOTH, SAGITTAL, FRONTAL)
OUTWARD = "outward positive"


@from_marks("foot_flare_lead", unit="deg", group="feet", seen=FLOOR, scale="mat", sign=OUTWARD)
def foot_flare_lead(look: Look) -> Measured:
    """Angle of the lead shoe from heel to toe, from the ball's direction, on the floor."""
    return _flare(look.here("lead_toe").minus(look.here("lead_heel")), 1)


@from_marks("foot_flare_trail", unit="deg", group="feet", seen=FLOOR, scale="mat", sign=OUTWARD)
def foot_flare_trail(look: Look) -> Measured:
    """Angle of the trail shoe from heel to toe, from the ball's direction, on the floor."""
    return _flare(look.here("trail_toe").minus(look.here("trail_heel")), -1)


@from_marks(
    "foot_twist_lead", unit="deg", group="feet", seen=(BOTH, FRONTAL), scale="mat",
    at=("top", "impact", "finish"),
    sign="further outward than at address positive",
)  # fmt: skip
def foot_twist_lead(look: Look) -> Measured:
    """Flare of the lead foot less its flare at address."""
    at_address = _flare(look.at("lead_toe", "address").minus(look.at("lead_heel", "address")), 1)
    return look.since_address(foot_flare_lead(look), at_address)


def _flare(foot: Place, toward_target: int) -> Measured:
    return degrees_of(foot.t * toward_target, foot.b)


HEEL_OFF_M = 0.01
UP = "up positive"
EITHER = (BOTH, FRONTAL, SAGITTAL)


@from_marks("heel_lift_lead", unit="m", group="feet", seen=EITHER, at=AFTER_ADDRESS, sign=UP)
def heel_lift_lead(look: Look) -> Measured:
    """Height of the lead heel, less its height at address."""
    return look.moved("lead_heel").u


@from_marks("heel_lift_trail", unit="m", group="feet", seen=EITHER, at=AFTER_ADDRESS, sign=UP)
def heel_lift_trail(look: Look) -> Measured:
    """Height of the trail heel, less its height at address."""
    return look.moved("trail_heel").u


@from_times("heel_return_lead", unit="s", group="feet", at=("top",), sign=FROM_TOP)
def heel_return_lead(clock: Clock, at: str) -> Given:
    """When the lead heel is down again, from the top."""
    down = Crossing(
        event="lead_heel_down", curve="heel_lift_lead", level=HEEL_OFF_M, way=DOWNWARD, after="arm_back"
    )
    return clock.since("top", clock.crossing(down))


@from_times("heel_off_trail", unit="s", group="feet", at=("impact",), sign=FROM_IMPACT)
def heel_off_trail(clock: Clock, at: str) -> Given:
    """When the trail heel is 1 cm up, from impact."""
    up = Crossing(event="trail_heel_off", curve="heel_lift_trail", level=HEEL_OFF_M, way=UPWARD, after="top")
    return clock.since("impact", clock.crossing(up))


@from_marks("toe_lift_lead", unit="m", group="feet", seen=EITHER, at=AFTER_ADDRESS, sign=UP)
def toe_lift_lead(look: Look) -> Measured:
    """Height of the lead toe, less its height at address."""
    return look.moved("lead_toe").u


@from_marks(
    "foot_roll_lead", unit="deg", group="feet", seen=(BOTH, FRONTAL),
    sign="outward positive: the inner edge up",
)  # fmt: skip
def foot_roll_lead(look: Look) -> Measured:
    """Tilt of the lead sole from outer to inner edge."""
    return -_roll(look, "lead")


@from_marks(
    "foot_roll_trail", unit="deg", group="feet", seen=(BOTH, FRONTAL),
    sign="inward positive: the outer edge up",
)  # fmt: skip
def foot_roll_trail(look: Look) -> Measured:
    """Tilt of the trail sole from inner to outer edge."""
    return _roll(look, "trail")


def _roll(look: Look, side: str) -> Measured:
    sole = look.here(f"{side}_foot_outer").minus(look.here(f"{side}_foot_inner"))
    return degrees_of(sole.u, hypot(sole.t, sole.b))
