"""What arms, hands and club do beside the lower body."""

from __future__ import annotations

from tropometer.swing.error.value import Measured, degrees_of, hypot
from tropometer.swing.readings.from_marks import BOTH, DOWN_THE_LINE, FACE_ON, from_marks
from tropometer.swing.readings.look import Look
from tropometer.swing.scene.place import angle_between


@from_marks("grip_plumb", unit="ratio", group="club", seen=(BOTH, DOWN_THE_LINE), at=("top",),
         sign="0 over the trail heel, 1 over the trail toe")  # fmt: skip
def grip_plumb(look: Look) -> Measured:
    """Where the plumb from the club's butt end falls along the trail foot."""
    heel, toe = look.here("trail_heel").b, look.here("trail_toe").b
    return (look.here("grip_butt").b - heel) / (toe - heel)


@from_marks("lead_arm_raise", unit="deg", group="club", seen=(BOTH, FACE_ON),
         sign="0 hanging, 90 level")  # fmt: skip
def lead_arm_raise(look: Look) -> Measured:
    """Angle from straight down to the way from the lead shoulder to the grip."""
    arm = look.here("grip").minus(look.here("lead_shoulder"))
    return degrees_of(hypot(arm.t, arm.b), -arm.u)


@from_marks("arm_shaft_angle", unit="deg", group="club", seen=(BOTH, FACE_ON),
         at=("arm_down", "shaft_down", "impact"), sign="180 when arm and shaft are in line")  # fmt: skip
def arm_shaft_angle(look: Look) -> Measured:
    """Angle from the lead shoulder over the grip to the club head."""
    grip = look.here("grip")
    return angle_between(look.here("lead_shoulder").minus(grip), look.here("club_head").minus(grip))
