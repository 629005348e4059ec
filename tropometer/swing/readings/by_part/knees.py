"""The knees: how far they bend, and where they go."""

from __future__ import annotations

from tropometer.swing.error.value import Measured, degrees_of, hypot
from tropometer.swing.names import Checkpoint
from tropometer.swing.readings.clock import DOWNWARD, Clock, Crossing
from tropometer.swing.readings.from_marks import BOTH, FRONTAL, SAGITTAL, from_marks
from tropometer.swing.readings.from_times import FROM_IMPACT, from_times
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.reading import Given
from tropometer.swing.scene.place import Place

# A bend toward a face-on camera does not show: from there alone it is never given as a bend.
SIDEWAYS = (BOTH, SAGITTAL)
BENT = "0 straight, bent positive"
TARGET = "positive toward the target"
POINTS = "0 to the ball, toward the target positive"


@from_marks("knee_flex_lead", unit="deg", group="knees", seen=SIDEWAYS, sign=BENT)
def knee_flex_lead(look: Look) -> Measured:
    """180° less the angle hip, knee, ankle of the lead leg."""
    return _flex(look, "lead")


@from_marks("knee_flex_trail", unit="deg", group="knees", seen=SIDEWAYS, sign=BENT)
def knee_flex_trail(look: Look) -> Measured:
    """180° less the angle hip, knee, ankle of the trail leg."""
    return _flex(look, "trail")


@from_marks("knee_flex_change_trail", unit="deg", group="knees", seen=SIDEWAYS,
         at=("top", "arm_down", "impact"), sign="negative is straightened since address")  # fmt: skip
def knee_flex_change_trail(look: Look) -> Measured:
    """Bend of the trail knee, less its bend at address."""
    at_address = _flex(look, "trail", "address")
    return look.since_address(knee_flex_trail(look), at_address)


@from_marks("knee_height_difference", unit="m", group="knees", seen=(BOTH, FRONTAL), at=("top",),
         sign="trail knee higher positive")  # fmt: skip
def knee_height_difference(look: Look) -> Measured:
    """Height of the trail knee, less that of the lead knee."""
    return look.here("trail_knee").u - look.here("lead_knee").u


@from_marks("lead_knee_travel_t", unit="m", group="knees", seen=(BOTH, FRONTAL), at=("top",), sign=TARGET)
def lead_knee_travel_t(look: Look) -> Measured:
    """Lead knee along the target line, minus its place at address."""
    return look.moved("lead_knee").t


@from_marks("lead_knee_travel_b", unit="m", group="knees", seen=(BOTH, SAGITTAL), at=("top",),
         sign="positive toward the ball")  # fmt: skip
def lead_knee_travel_b(look: Look) -> Measured:
    """Lead knee toward the ball, minus its place at address."""
    return look.moved("lead_knee").b


@from_marks("lead_knee_behind_ball", unit="m", group="knees", seen=(BOTH, FRONTAL), at=("top",),
         sign="positive on the target's side of the ball")  # fmt: skip
def lead_knee_behind_ball(look: Look) -> Measured:
    """Lead knee along the target line, from where the ball lay."""
    return look.here("lead_knee").t - look.at("ball", "address").t


STRAIGHT_DEG = 10.0


@from_times("lead_knee_straight_time", unit="s", group="knees", at=("impact",), sign=FROM_IMPACT)
def lead_knee_straight_time(clock: Clock, at: str) -> Given:
    """When the lead knee is first bent by less than 10° after the top, from impact."""
    straight = Crossing(
        event="lead_knee_straight", curve="knee_flex_lead", level=STRAIGHT_DEG, way=DOWNWARD, after="top"
    )
    return clock.since("impact", clock.crossing(straight))


@from_times("lead_knee_rate", unit="m_s", group="knees", at=("impact",), sign=TARGET)
def lead_knee_rate(clock: Clock, at: str) -> Given:
    """How fast the lead knee goes along the target line, over 50 ms to either side of impact."""
    return clock.rate_at_impact("lead_knee_travel_t")


STACKED: tuple[Checkpoint, ...] = ("arm_down", "impact")


@from_marks("lead_leg_lean", unit="deg", group="knees", seen=(BOTH, FRONTAL), at=STACKED,
         sign="hip on the target's side of the ankle positive")  # fmt: skip
def lead_leg_lean(look: Look) -> Measured:
    """Angle of the lead leg from ankle to hip, from the upright, seen face-on."""
    leg = look.here("lead_hip").minus(look.here("lead_ankle"))
    return degrees_of(leg.t, leg.u)


@from_marks("lead_leg_knee_offset", unit="m", group="knees", seen=(BOTH, FRONTAL), at=STACKED, sign=TARGET)
def lead_leg_knee_offset(look: Look) -> Measured:
    """Lead knee along the target line, from the straight line between ankle and hip."""
    return _beside_its_leg(look, "lead").t


@from_marks("trail_knee_inside", unit="m", group="knees", seen=(BOTH, FRONTAL), at=("address", "top"),
            sign=TARGET)  # fmt: skip
def trail_knee_inside(look: Look) -> Measured:
    """Trail knee along the target line, from the straight line between ankle and hip."""
    return _beside_its_leg(look, "trail").t


@from_marks("knee_gap", unit="m", group="knees", seen=(BOTH, FRONTAL), at=("impact",),
            sign="lead knee on the target's side positive")  # fmt: skip
def knee_gap(look: Look) -> Measured:
    """From knee to knee along the target line."""
    return look.here("lead_knee").t - look.here("trail_knee").t


@from_marks("knee_points_lead", unit="deg", group="knees", seen=(BOTH,), sign=POINTS)
def knee_points_lead(look: Look) -> Measured:
    """The way over the floor in which the lead knee is bent, from the ball's direction."""
    return _points(look, "lead")


@from_marks("knee_points_trail", unit="deg", group="knees", seen=(BOTH,), sign=POINTS)
def knee_points_trail(look: Look) -> Measured:
    """The way over the floor in which the trail knee is bent, from the ball's direction."""
    return _points(look, "trail")


def _points(look: Look, side: str) -> Measured:
    aside = _beside_its_leg(look, side)
    bent = hypot(aside.t, aside.b)
    look.refuse(bent.value <= 2 * bent.u95, "The leg is so nearly straight that its knee points nowhere.")
    return degrees_of(aside.t, aside.b)


def _beside_its_leg(look: Look, side: str) -> Place:
    """From the straight line between ankle and hip to the knee, at the knee's own height."""
    leg = look.here(f"{side}_hip").minus(look.here(f"{side}_ankle"))
    knee = look.here(f"{side}_knee").minus(look.here(f"{side}_ankle"))
    return Place(knee.t - leg.t * knee.u / leg.u, knee.b - leg.b * knee.u / leg.u, knee.u)


def _flex(look: Look, side: str, at: Checkpoint | None = None) -> Measured:
    """180° less the inside angle of a leg, now or at a checkpoint."""
    return look.bend(f"{side}_hip", f"{side}_knee", f"{side}_ankle", at)
