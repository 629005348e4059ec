"""What is judged at address: the stance, the ball, and what stands over the feet."""

from __future__ import annotations

from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured, degrees_of
from tropometer.swing.readings.from_marks import ADDRESS, BOTH, FRONTAL, SAGITTAL, from_marks
from tropometer.swing.readings.look import Look
from tropometer.swing.scene.place import length_of


@from_marks(
    "stance_width", unit="m", group="feet", seen=(BOTH, FRONTAL), at=ADDRESS,
    sign="heel to heel along the target line", changing=False,
)  # fmt: skip
def stance_width(look: Look) -> Measured:
    """From heel to heel along the target line, at address."""
    return look.line_at("heel", "address").t


@from_marks(
    "stance_ratio", unit="ratio", group="feet", seen=(BOTH, FRONTAL), at=ADDRESS,
    sign="1 when the heels are as far apart as the shoulders are broad", changing=False,
)  # fmt: skip
def stance_ratio(look: Look) -> Measured:
    """Heel to heel along the target line, by the breadth of the shoulders, at address."""
    shoulders = look.line_at("shoulder", "address")
    return look.line_at("heel", "address").t / length_of(
        shoulders, Source("depth", "how the shoulders stand")
    )


@from_marks(
    "ball_position", unit="ratio", group="feet", seen=(BOTH, FRONTAL), at=ADDRESS,
    sign="0 at the trail heel, 1 at the lead heel", changing=False,
)  # fmt: skip
def ball_position(look: Look) -> Measured:
    """Where the ball lies between the heels along the target line, at address."""
    from_trail = look.at("ball", "address").t - look.at("trail_heel", "address").t
    return from_trail / look.line_at("heel", "address").t


@from_marks(
    "toe_line", unit="deg", group="feet", seen=(BOTH, SAGITTAL, FRONTAL), at=ADDRESS, scale="mat",
    sign="closed positive: the trail toe farther from the ball", changing=False,
)  # fmt: skip
def toe_line(look: Look) -> Measured:
    """Angle of the line from trail toe to lead toe from the target line, on the floor, at address."""
    toes = look.line_at("toe", "address")
    return degrees_of(toes.b, toes.t)


@from_marks(
    "pelvis_offset", unit="m", group="pelvis", seen=(BOTH, FRONTAL), at=ADDRESS,
    sign="positive toward the target", changing=False,
)  # fmt: skip
def pelvis_offset(look: Look) -> Measured:
    """Middle of the hip joints from the middle between the heels along the target line, at address."""
    return _from_heels(look, look.at("lead_hip", "address").t, look.at("trail_hip", "address").t)


@from_marks(
    "sternum_offset", unit="m", group="trunk", seen=(BOTH, FRONTAL), at=ADDRESS,
    sign="positive toward the target", changing=False,
)  # fmt: skip
def sternum_offset(look: Look) -> Measured:
    """Breastbone from the middle between the heels along the target line, at address."""
    return _from_heels(look, look.at("sternum", "address").t)


def _from_heels(look: Look, *places: Measured) -> Measured:
    heels = (look.at("lead_heel", "address").t + look.at("trail_heel", "address").t) * 0.5
    total = places[0] if len(places) == 1 else (places[0] + places[1]) * 0.5
    return total - heels
