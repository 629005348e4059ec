"""What arms, hands and club do beside the lower body."""

from __future__ import annotations

from tropometer.swing.error.source import HERE, Source
from tropometer.swing.error.value import Measured, degrees_of, hypot
from tropometer.swing.readings.from_marks import BOTH, FRONTAL, SAGITTAL, from_marks
from tropometer.swing.readings.look import Look
from tropometer.swing.scene.place import Place, angle_between

FOLDED_FROM = 7.5  # how far through the checkpoints the arms are folded over the lead shoulder
# How differently shafts steepen or flatten about lead arm level down, degrees a second; common practice, no
# source.
STEEPENS_DEG_S = 180.0


@from_marks("grip_plumb", unit="ratio", group="club", seen=(BOTH, SAGITTAL), at=("top",),
         sign="0 over the trail heel, 1 over the trail toe")  # fmt: skip
def grip_plumb(look: Look) -> Measured:
    """Where the plumb from the club's butt end falls along the trail foot."""
    heel, toe = look.here("trail_heel").b, look.here("trail_toe").b
    return (look.here("grip_butt").b - heel) / (toe - heel)


@from_marks("lead_arm_raise", unit="deg", group="club", seen=(BOTH, FRONTAL),
         sign="0 hanging, 90 level")  # fmt: skip
def lead_arm_raise(look: Look) -> Measured:
    """Angle from straight down to the way from the lead shoulder to the grip."""
    arm = look.here("grip").minus(look.here("lead_shoulder"))
    look.refuse(
        ~look.shown_in("sagittal", "grip", "lead_shoulder") & (look.through > FOLDED_FROM),
        "From one side alone, how high an arm is that is folded over the shoulder cannot be told.",
    )
    return degrees_of(hypot(arm.t, arm.b), -arm.u)


@from_marks("arm_shaft_angle", unit="deg", group="club", seen=(BOTH, FRONTAL),
         at=("arm_down", "shaft_down", "impact"), sign="180 when arm and shaft are in line")  # fmt: skip
def arm_shaft_angle(look: Look) -> Measured:
    """Angle from the lead shoulder over the grip to the club head."""
    grip = look.here("grip")
    return angle_between(look.here("lead_shoulder").minus(grip), look.here("club_head").minus(grip))


@from_marks("club_inside", unit="m", group="club", seen=(BOTH, SAGITTAL), at=("shaft_back",),
            sign="head outside the hands (toward the ball) positive, inside negative")  # fmt: skip
def club_inside(look: Look) -> Measured:
    """Club head toward the ball, from the grip."""
    return _shaft(look).b


@from_marks("shaft_across", unit="deg", group="club", seen=(BOTH,), at=("top",),
            sign="across the line positive, laid off negative")  # fmt: skip
def shaft_across(look: Look) -> Measured:
    """Direction of the shaft over the floor, from the target's; across is toward the ball's side."""
    shaft = _shaft(look)
    long = hypot(shaft.t, shaft.b)
    look.refuse(long.value <= 2 * long.u95, "The shaft stands so upright that it points nowhere.")
    return degrees_of(shaft.b, shaft.t)


@from_marks("shaft_pitch", unit="deg", group="club", seen=(BOTH,), at=("arm_down",),
            sign="0 level, 90 upright")  # fmt: skip
def shaft_pitch(look: Look) -> Measured:
    """Angle of the shaft from the level, from the grip up to the head."""
    shaft = _shaft(look)
    turned = Source("moment", "how the shaft steepens", HERE)
    steepens = Measured.of(0.0, STEEPENS_DEG_S * look.scene.moment_s(), turned)
    return degrees_of(shaft.u, hypot(shaft.t, shaft.b)) + steepens


@from_marks("shaft_lean", unit="deg", group="club", seen=(BOTH, FRONTAL), at=("address", "impact"),
            sign="hands ahead of the head positive")  # fmt: skip
def shaft_lean(look: Look) -> Measured:
    """Angle of the shaft from the upright, from head to grip, seen face-on."""
    shaft = _shaft(look)
    return degrees_of(-shaft.t, -shaft.u)


@from_marks("trail_elbow_flex", unit="deg", group="club", seen=(BOTH,),
            at=("top", "shaft_down", "shaft_through"), sign="0 straight, bent positive")  # fmt: skip
def trail_elbow_flex(look: Look) -> Measured:
    """180° less the angle shoulder, elbow, wrist of the trail arm."""
    return look.bend("trail_shoulder", "trail_elbow", "trail_wrist")


def _shaft(look: Look) -> Place:
    """From the grip to the head."""
    return look.here("club_head").minus(look.here("grip"))
