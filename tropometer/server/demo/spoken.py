"""What the demo's instructor says in the walks of her older lessons, when, and where chalk goes."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Line:
    """Words at a checkpoint; `ring`: the gauge whose end is ringed in chalk, `curve`, `tape`: what lies open."""

    at: str
    words: str
    ring: str = ""
    curve: str = ""
    tape: str = ""  # a reading at the same moment


# By the name of a clip of the swing, which is also that of the voice's file.
SPOKEN: dict[str, tuple[Line, ...]] = {
    "tobin_first_face": (
        Line(
            "address",
            "At address all is well. Your weight is in the middle, and your hip stands clear of the white line.",
        ),
        Line(
            "top",
            "Now look at the top. Your hip has gone past your right foot. You slide there before you turn.",
            "trail_hip_gate",
            tape="trail_hip_gap",
        ),
        Line("impact", "So at impact you are still on your way back, and the club meets the ground first."),
        Line(
            "top",
            "Beside you the model: the hip turns behind the foot, and stays inside. That is the one thing for this month.",
            curve="pelvis_sway",
        ),
    ),
    "dag_first_face": (
        Line("address", "You stand well. Look at the bend in your right knee."),
        Line(
            "top",
            "At the top almost all of it is gone. You were told to straighten. Let it give a little, and never all of it.",
        ),
        Line("impact", "A leg that has locked lifts your hip, and then the club comes in thin."),
    ),
    "petra_closed_face": (
        Line(
            "address",
            "Look down at your toes. They point to the right of your aim, so your hips must make room.",
        ),
        Line(
            "impact",
            "Here your hips are late, and your hands have to turn the club over. That is where the hook comes from.",
        ),
        Line("address", "Lay a stick along your toes before every ball. Nothing else this week."),
    ),
}
